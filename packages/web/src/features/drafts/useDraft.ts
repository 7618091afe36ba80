import { useRef } from 'react';
import type { DraftProofReply, DraftReply, OperationBody, ProofReply } from '@syndeton/contract';
import { useDraftProofQuery, useDraftQuery, usePutDraftMutation } from './draftsApi.ts';

export interface DraftInHand {
  readonly draft: DraftReply | undefined;
  /** The proof of what is lined up; undefined while it runs or when nothing is lined up. */
  readonly proof: ProofReply | undefined;
  readonly progress: DraftProofReply | undefined;
  readonly busy: boolean;
  /** Operations are on their way to the draft. */
  readonly changing: boolean;
  /** Puts operations after the ones lined up; rejects with the refusal. */
  readonly lineUp: (operations: readonly OperationBody[]) => Promise<void>;
  /** Takes an operation out again, the last one when none is named. */
  readonly undo: (index?: number) => Promise<void>;
  /** Replaces all operations, on this base. */
  readonly replace: (operations: readonly OperationBody[], base?: number) => Promise<void>;
}

/** The draft of a site, its proof while it is being computed, and the ways to change it. */
export function useDraft(siteId: string): DraftInHand {
  const { data: draft } = useDraftQuery(siteId);
  const linedUp = (draft?.operations.length ?? 0) > 0;
  const first = useDraftProofQuery(siteId, { skip: !linedUp });
  const running = first.data?.status === 'running';
  useDraftProofQuery(siteId, { skip: !linedUp || !running, pollingInterval: 300 });
  const [put, { isLoading }] = usePutDraftMutation();
  // what was sent last counts until it has come back: a quick second act goes on from it
  const sent = useRef<readonly OperationBody[] | undefined>(undefined);
  const turn = useRef<Promise<unknown>>(Promise.resolve());
  const replace = async (operations: readonly OperationBody[], base?: number): Promise<void> => {
    sent.current = operations;
    const before = turn.current;
    const sending = (async () => {
      await before.catch(() => undefined);
      await put({ id: siteId, body: { base: base ?? draft!.base, operations: [...operations] } }).unwrap();
    })();
    turn.current = sending;
    try {
      await sending;
    } finally {
      if (sent.current === operations) sent.current = undefined;
    }
  };
  const inLine = (): readonly OperationBody[] => sent.current ?? draft?.operations ?? [];
  const fresh = linedUp && !first.isFetching;
  return {
    draft,
    proof: (fresh || running) && first.data?.status === 'done' ? first.data.proof : undefined,
    progress: linedUp ? first.data : undefined,
    busy: isLoading || (linedUp && (first.isFetching || running)),
    changing: isLoading,
    lineUp: (operations) => replace([...inLine(), ...operations]),
    undo: async (index) => {
      const all = inLine();
      const gone = index ?? all.length - 1;
      if (all.length > 0) await replace(all.filter((_, i) => i !== gone));
    },
    replace,
  };
}
