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
}

export interface DraftsState {
  readonly bySite: Readonly<Record<string, SiteDraft>>;
}

const initialState: DraftsState = { bySite: {} };
const nothing: SiteDraft = { pending: 0, problem: undefined };

/** What is under way with the draft of each site: never of the one beside it. */
export const draftsSlice = createSlice({
  name: 'drafts',
  initialState,
  reducers: {
    changeBegun(state, { payload: site }: PayloadAction<string>) {
      const one = state.bySite[site] ?? nothing;
      state.bySite[site] = { ...one, pending: one.pending + 1 };
    },
    changeEnded(
      state,
      { payload: { site, problem } }: PayloadAction<{ readonly site: string; readonly problem?: DraftProblem }>,
    ) {
      const one = state.bySite[site] ?? nothing;
      // what came too late stays said until it is redone or left
      const said = problem ?? (one.problem?.redo === undefined ? undefined : one.problem);
      state.bySite[site] = { pending: Math.max(0, one.pending - 1), problem: said };
    },
    problemLeft(state, { payload: site }: PayloadAction<string>) {
      state.bySite[site] = { ...(state.bySite[site] ?? nothing), problem: undefined };
    },
  },
  selectors: {
    selectSiteDraft: (state, site: string): SiteDraft => state.bySite[site] ?? nothing,
  },
});

export const { changeBegun, changeEnded, problemLeft } = draftsSlice.actions;
export const { selectSiteDraft } = draftsSlice.selectors;
