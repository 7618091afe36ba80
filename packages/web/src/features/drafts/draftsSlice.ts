import type { OperationBody } from '@syndeton/contract';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

/** Why something could not be done with a draft. */
export interface DraftProblem {
  readonly detail: string;
  /** The draft or the site was changed meanwhile. */
  readonly late: boolean;
  /** What to name to have the change done again on the draft as it is now. */
  readonly redo: string | undefined;
}

interface SiteDraft {
  /** Changes on their way, the one being sent included. */
  readonly pending: number;
  readonly problem: DraftProblem | undefined;
  /** Steps taken back, the last one last: what the list was before, and what it became. */
  readonly undone: readonly Undone[];
}

export interface Undone {
  readonly before: readonly OperationBody[];
  readonly after: readonly OperationBody[];
}

export interface DraftsState {
  readonly bySite: Readonly<Record<string, SiteDraft>>;
}

const initialState: DraftsState = { bySite: {} };
const nothing: SiteDraft = { pending: 0, problem: undefined, undone: [] };

const of = (state: DraftsState, site: string): SiteDraft => state.bySite[site] ?? nothing;

const withSite = (state: DraftsState, site: string, change: Partial<SiteDraft>): DraftsState => ({
  bySite: { ...state.bySite, [site]: { ...of(state, site), ...change } },
});

/** What is under way with the draft of each site: never of the one beside it. */
export const draftsSlice = createSlice({
  name: 'drafts',
  initialState,
  reducers: {
    changeBegun(state, { payload: site }: PayloadAction<string>) {
      return withSite(state, site, { pending: of(state, site).pending + 1 });
    },
    changeEnded(
      state,
      { payload: { site, problem } }: PayloadAction<{ readonly site: string; readonly problem?: DraftProblem }>,
    ) {
      const one = of(state, site);
      // what came too late stays said until it is redone or left
      const said = problem ?? (one.problem?.redo === undefined ? undefined : one.problem);
      return withSite(state, site, { pending: Math.max(0, one.pending - 1), problem: said });
    },
    stepTakenBack(state, { payload: { site, ...step } }: PayloadAction<{ readonly site: string } & Undone>) {
      const one = of(state, site);
      return withSite(state, site, { undone: [...one.undone, step] });
    },
    stepRedone(state, { payload: site }: PayloadAction<string>) {
      return withSite(state, site, { undone: of(state, site).undone.slice(0, -1) });
    },
    problemLeft(state, { payload: site }: PayloadAction<string>) {
      return withSite(state, site, { problem: undefined });
    },
  },
  selectors: {
    selectSiteDraft: (state, site: string): SiteDraft => of(state, site),
  },
});

export const { changeBegun, changeEnded, problemLeft, stepTakenBack, stepRedone } = draftsSlice.actions;
export const { selectSiteDraft } = draftsSlice.selectors;
