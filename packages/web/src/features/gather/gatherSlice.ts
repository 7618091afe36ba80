import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

export type FamilyFilter = 'all' | 'identical' | 'drifted' | 'one-page' | 'unused' | 'conditional';

export interface GatherState {
  /** What is chosen, as `family newline version`. */
  readonly chosen: readonly string[];
  readonly filter: FamilyFilter;
}

const initialState: GatherState = { chosen: [], filter: 'all' };

export const gatherSlice = createSlice({
  name: 'gather',
  initialState,
  reducers: {
    versionsChosen(state, { payload }: PayloadAction<{ readonly keys: readonly string[]; readonly on: boolean }>) {
      const chosen = new Set(state.chosen);
      for (const key of payload.keys) {
        if (payload.on) chosen.add(key);
        else chosen.delete(key);
      }
      state.chosen = [...chosen];
    },
    choiceCleared(state) {
      state.chosen = [];
    },
    filterChosen(state, { payload }: PayloadAction<FamilyFilter>) {
      state.filter = payload;
    },
  },
  selectors: { selectChosen: (state) => state.chosen, selectFilter: (state) => state.filter },
});

export const { versionsChosen, choiceCleared, filterChosen } = gatherSlice.actions;
export const { selectChosen, selectFilter } = gatherSlice.selectors;
