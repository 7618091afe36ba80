import { useEffect } from 'react';
import {
  addressOf,
  type DraftProofReply,
  type DraftReply,
  type OperationBody,
  type ProofReply,
} from '@syndeton/contract';
import { useFollowedDraft } from './useFollowedDraft.ts';
import { followEvents } from '../../app/followEvents.ts';
import { useAppDispatch, useAppSelector } from '../../app/hooks.ts';
import {
  changeDraft,
  discardDraft,
  redoLate,
  redoStep,
  saveDraft,
  takeStepBack,
  type DraftChange,
} from './draftCommands.ts';
import { draftsApi, useDraftProofQuery, useDraftQuery } from './draftsApi.ts';
import { problemLeft, selectSiteDraft, type DraftProblem } from './draftsSlice.ts';
import { withoutOperation } from './withoutOperation.ts';

export interface DraftInHand {
  readonly draft: DraftReply | undefined;
  /** The proof of the draft; undefined while it runs or when the draft is empty. */
  readonly proof: ProofReply | undefined;
  readonly progress: DraftProofReply | undefined;
  readonly busy: boolean;
  /** Operations are on their way to the draft. */
  readonly changing: boolean;
  /** What could not be done last. */
  readonly problem: DraftProblem | undefined;
  /** Makes the draft's operations what the function makes of them as they are by then; rejects with the refusal. */
  readonly change: (change: DraftChange) => Promise<void>;
  /** Puts operations after those in the draft; rejects with the refusal. */
  readonly addToDraft: (operations: readonly OperationBody[]) => Promise<void>;
  /** Takes an operation out again; the last step when none is named, of which a plan is one. What is refused is said as `problem`, here and below. */
  readonly undo: (index?: number) => void;
  /** With what its author says about a change of look. */
  readonly save: (note: string) => void;
  readonly discard: () => void;
  /** Does again what was taken back last; undefined where nothing was, or something else was done since. */
  readonly again: (() => void) | undefined;
  /** What came too late is done again on the draft as it is now, or left. */
  readonly redo: () => void;
  readonly leave: () => void;
}

/** The draft of a site, its proof while it is being computed, and the ways to change it. */
export function useDraft(siteId: string): DraftInHand {
  const dispatch = useAppDispatch();
  const { data: draft } = useDraftQuery(siteId);
  const { pending, problem, undone } = useAppSelector((state) => selectSiteDraft(state, siteId));
  const last = undone.at(-1);
  const inDraft = (draft?.operations.length ?? 0) > 0;
  const first = useDraftProofQuery(siteId, { skip: !inDraft });
  const running = first.data?.status === 'running';
  useEffect(() => {
    if (!running) return undefined;
    return followEvents<DraftProofReply>(addressOf('followProof', { id: siteId }), (reply) => {
      dispatch(draftsApi.util.updateQueryData('draftProof', siteId, () => reply));
    });
  }, [running, siteId, dispatch]);
  useFollowedDraft(siteId, draft, pending > 0);
  const fresh = inDraft && !first.isFetching;
  const change = (how: DraftChange): Promise<void> => dispatch(changeDraft(siteId, how));
  const quietly = (done: Promise<void>): void => void done.catch(() => undefined);
  return {
    draft,
    proof: (fresh || running) && first.data?.status === 'done' ? first.data.proof : undefined,
    progress: inDraft ? first.data : undefined,
    busy: pending > 0 || (inDraft && (first.isFetching || running)),
    changing: pending > 0,
    problem,
    change,
    addToDraft: (operations) => change((now) => [...now, ...operations]),
    undo: (index) => {
      if (index === undefined) return quietly(dispatch(takeStepBack(siteId)));
      const seen = draft?.operations[index];
      return quietly(change((now) => withoutOperation(now, seen, index)));
    },
    save: (note) => quietly(dispatch(saveDraft(siteId, note))),
    discard: () => quietly(dispatch(discardDraft(siteId))),
    again:
      last !== undefined && JSON.stringify(last.after) === JSON.stringify(draft?.operations ?? [])
        ? () => quietly(dispatch(redoStep(siteId)))
        : undefined,
    redo: () => quietly(dispatch(redoLate(siteId))),
    leave: () => void dispatch(problemLeft(siteId)),
  };
}
