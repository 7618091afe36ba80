import type { ProofReply } from '@syndeton/contract';
import { problemText } from '../../app/api.ts';
import type { DraftInHand } from '../drafts/index.ts';
import { useComparedQuery } from './proofApi.ts';
import { useStates, type ChooseStates, type States } from './useStates.ts';

export interface Comparison {
  /** Undefined where the site has one state only. */
  readonly states: States | undefined;
  readonly choose: ChooseStates;
  /** The draft against its own revision, which is proved all the time. */
  readonly isDrafts: boolean;
  readonly proof: ProofReply | undefined;
  /** Why they could not be compared. */
  readonly failed: string | undefined;
}

/** The two states that the Proof station shows, page by page. `isShown`: whether anybody looks. */
export function useComparison(siteId: string, { draft, proof }: DraftInHand, isShown: boolean): Comparison {
  const inDraft = (draft?.operations.length ?? 0) > 0;
  const base = draft?.base ?? 1;
  const { states, choose } = useStates(base, inDraft);
  const isDrafts = inDraft && states?.to === 'draft' && states.from === base && states.other === undefined;
  const compared = useComparedQuery(
    {
      id: siteId,
      since: states?.from ?? 1,
      number: typeof states?.to === 'number' ? states.to : base,
      draft: states?.to === 'draft',
      against: states?.other,
    },
    { skip: !isShown || !draft || !states || isDrafts },
  );
  return {
    states,
    choose,
    isDrafts,
    proof: isDrafts ? proof : compared.currentData,
    failed: compared.error === undefined || isDrafts ? undefined : problemText(compared.error),
  };
}
