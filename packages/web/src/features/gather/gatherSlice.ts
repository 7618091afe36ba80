import type { PlanSettingsRequest, ProposalReply } from '@syndeton/contract';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

export type FamilyFilter = 'all' | 'identical' | 'drifted' | 'one-page' | 'unused' | 'conditional' | 'attributes';

/** `folder`: where new sheets go. */
export type PlanSettings = PlanSettingsRequest & { readonly folder: string };

export interface GatherState {
  /** What is chosen, as `family newline version`. */
  readonly chosen: readonly string[];
  readonly filter: FamilyFilter;
  /** Names given to groups of style attributes, by their key. */
  readonly names: Readonly<Record<string, string>>;
  /** How plans are made. */
  readonly settings: PlanSettings;
  /** What the last plan said. */
  readonly plan: ProposalReply | undefined;
}

const initialState: GatherState = {
  chosen: [],
  filter: 'all',
  names: {},
  settings: { folder: 'css' },
  plan: undefined,
};

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
    siteLeft: () => initialState,
    nameGiven(state, { payload }: PayloadAction<{ readonly key: string; readonly name: string }>) {
      state.names = { ...state.names, [payload.key]: payload.name };
    },
    settingsChosen(state, { payload }: PayloadAction<PlanSettings>) {
      state.settings = payload;
    },
    planMade(state, { payload }: PayloadAction<ProposalReply | undefined>) {
      state.plan = payload;
    },
    filterChosen(state, { payload }: PayloadAction<FamilyFilter>) {
      state.filter = payload;
    },
  },
  selectors: {
    selectChosen: (state) => state.chosen,
    selectFilter: (state) => state.filter,
    selectNames: (state) => state.names,
    selectPlan: (state) => state.plan,
    selectSettings: (state) => state.settings,
  },
});

export const { versionsChosen, choiceCleared, filterChosen, siteLeft, nameGiven, planMade, settingsChosen } =
  gatherSlice.actions;
export const { selectChosen, selectFilter, selectNames, selectPlan, selectSettings } = gatherSlice.selectors;
