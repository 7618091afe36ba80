import type { DraftReply, OperationBody } from '@syndeton/contract';
import { withoutLastStep } from '@syndeton/core';
import { isConflict, problemText, redoOf } from '../../app/api.ts';
import type { AppThunk, RootState } from '../../app/store.ts';
import { draftsApi } from './draftsApi.ts';
import {
  changeBegun,
  changeEnded,
  problemLeft,
  selectSiteDraft,
  stepRedone,
  stepTakenBack,
  type DraftProblem,
} from './draftsSlice.ts';

/** What becomes of the operations of a draft; the same list when nothing does. */
export type DraftChange = (operations: readonly OperationBody[]) => readonly OperationBody[];

/** Something before it came too late, and nobody has decided about that yet. */
class StillLate extends Error {
  readonly problem: DraftProblem;

  constructor(problem: DraftProblem) {
    super(problem.detail);
    this.problem = problem;
  }
}

/** What is saved, discarded or taken back has to be what was seen when that was asked for. */
function refuseIfLate(state: RootState, site: string): void {
  const { problem } = selectSiteDraft(state, site);
  if (problem?.late) throw new StillLate(problem);
}

/**
 * Changes the draft of a site as it is once everything asked before has been done: a quick second choice goes on from the first.
 * Rejects with the refusal.
 */
export const changeDraft =
  (site: string, change: DraftChange): AppThunk<Promise<void>> =>
  (dispatch) =>
    dispatch(
      inTurn(site, async (draft) => {
        const operations = change(draft.operations);
        if (operations === draft.operations) return;
        const { base, version } = draft;
        const body = { base, version, operations: [...operations] };
        await dispatch(draftsApi.endpoints.putDraft.initiate({ id: site, body })).unwrap();
      }),
    );

/**
 * Saves the draft as this window shows it, once everything asked before has been done. Where that came too late the draft is another
 * one than was seen when this was asked for: nothing is saved.
 */
export const saveDraft =
  (site: string, note = ''): AppThunk<Promise<void>> =>
  (dispatch, getState) =>
    dispatch(
      inTurn(site, async ({ base, version, operations }) => {
        refuseIfLate(getState(), site);
        if (operations.length > 0)
          await dispatch(
            draftsApi.endpoints.save.initiate({ id: site, base, version, ...(note === '' ? {} : { note }) }),
          ).unwrap();
      }),
    );

export const discardDraft =
  (site: string): AppThunk<Promise<void>> =>
  (dispatch, getState) =>
    dispatch(
      inTurn(site, async ({ version, operations }) => {
        refuseIfLate(getState(), site);
        if (operations.length === 0) return;
        await dispatch(draftsApi.endpoints.dropDraft.initiate({ id: site, version })).unwrap();
        dispatch(stepTakenBack({ site, before: operations, after: [] }));
      }),
    );

/** Takes the last step back: a plan as a whole, else one operation. */
export const takeStepBack =
  (site: string): AppThunk<Promise<void>> =>
  (dispatch, getState) =>
    dispatch(
      changeDraft(site, (before) => {
        refuseIfLate(getState(), site);
        if (before.length === 0) return before;
        const after = withoutLastStep(before);
        dispatch(stepTakenBack({ site, before, after }));
        return after;
      }),
    );

/** Does the step again that was taken back last, where nothing else was done since. */
export const redoStep =
  (site: string): AppThunk<Promise<void>> =>
  (dispatch, getState) =>
    dispatch(
      changeDraft(site, (now) => {
        const last = selectSiteDraft(getState(), site).undone.at(-1);
        if (!last || JSON.stringify(last.after) !== JSON.stringify(now)) return now;
        dispatch(stepRedone(site));
        return last.before;
      }),
    );

/** Has the server do again, on the draft as it is now, what came too late. */
export const redoLate =
  (site: string): AppThunk<Promise<void>> =>
  (dispatch, getState) => {
    const redo = selectSiteDraft(getState(), site).problem?.redo;
    dispatch(problemLeft(site));
    return dispatch(
      inTurn(
        site,
        async () => {
          if (redo !== undefined) await dispatch(draftsApi.endpoints.redoDraft.initiate({ id: site, redo })).unwrap();
        },
        redo,
      ),
    );
  };

function problemOf(error: unknown, late: string | undefined): DraftProblem {
  if (error instanceof StillLate) return error.problem;
  const redo = redoOf(error) ?? late;
  return { detail: problemText(error), late: isConflict(error) || redo !== undefined, redo };
}

/**
 * One after the other, for each site on its own; what is refused is said in the draft bar too. `late`: what was being redone; refused,
 * it is still there to be redone once what stands in its way is gone.
 */
const inTurn =
  (site: string, act: (draft: DraftReply) => Promise<void>, late?: string): AppThunk<Promise<void>> =>
  async (dispatch, _getState, { turns }) => {
    const before = turns.get(site);
    dispatch(changeBegun(site));
    const doing = (async () => {
      await before?.catch(() => undefined);
      const asking = dispatch(draftsApi.endpoints.draft.initiate(site));
      try {
        await act(await asking.unwrap());
        dispatch(changeEnded({ site }));
      } catch (error) {
        dispatch(changeEnded({ site, problem: problemOf(error, late) }));
        throw error;
      } finally {
        asking.unsubscribe();
      }
    })();
    turns.set(site, doing);
    try {
      await doing;
    } finally {
      if (turns.get(site) === doing) turns.delete(site);
    }
  };
