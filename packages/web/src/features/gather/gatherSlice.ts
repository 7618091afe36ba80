import type { PlanSettingsRequest, ProposalReply } from '@syndeton/contract';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

export type FamilyFilter =
  | 'all'
  | 'identical'
  | 'drifted'
  | 'one-page'
  | 'unused'
  | 'conditional'
  | 'attributes'
  | 'sheet';

/** `folder`: where new sheets go. */
export type PlanSettings = PlanSettingsRequest & { readonly folder: string };

/** What was chosen for one site; it stays while other stations are looked at. */
export interface SiteGather {
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

export interface GatherState {
  readonly bySite: Readonly<Record<string, SiteGather>>;
}

const initialState: GatherState = { bySite: {} };
const untouched: SiteGather = {
  chosen: [],
  filter: 'all',
  names: {},
  settings: { folder: 'css' },
  plan: undefined,
};

type OfSite<Payload> = PayloadAction<{ readonly site: string } & Payload>;

const of = (state: GatherState, site: string): SiteGather => state.bySite[site] ?? untouched;

const changed = (state: GatherState, site: string, change: Partial<SiteGather>): GatherState => ({
  bySite: { ...state.bySite, [site]: { ...of(state, site), ...change } },
});

export const gatherSlice = createSlice({
  name: 'gather',
  initialState,
  reducers: {
    versionsChosen(
      state,
      { payload: { site, keys, on } }: OfSite<{ readonly keys: readonly string[]; readonly on: boolean }>,
    ) {
      const one = of(state, site);
      const chosen = new Set(one.chosen);
      for (const key of keys) {
        if (on) chosen.add(key);
        else chosen.delete(key);
      }
      return changed(state, site, { chosen: [...chosen] });
    },
    choiceCleared(state, { payload: site }: PayloadAction<string>) {
      return changed(state, site, { chosen: [] });
    },
    nameGiven(state, { payload: { site, key, name } }: OfSite<{ readonly key: string; readonly name: string }>) {
      const one = of(state, site);
      return changed(state, site, { names: { ...one.names, [key]: name } });
    },
    settingsChosen(state, { payload: { site, settings } }: OfSite<{ readonly settings: PlanSettings }>) {
      return changed(state, site, { settings });
    },
    planMade(state, { payload: { site, plan } }: OfSite<{ readonly plan: ProposalReply | undefined }>) {
      return changed(state, site, { plan });
    },
    filterChosen(state, { payload: { site, filter } }: OfSite<{ readonly filter: FamilyFilter }>) {
      return changed(state, site, { filter });
    },
  },
  selectors: {
    selectChosen: (state, site: string) => of(state, site).chosen,
    selectFilter: (state, site: string) => of(state, site).filter,
    selectNames: (state, site: string) => of(state, site).names,
    selectPlan: (state, site: string) => of(state, site).plan,
    selectSettings: (state, site: string) => of(state, site).settings,
  },
});

export const { versionsChosen, choiceCleared, filterChosen, nameGiven, planMade, settingsChosen } = gatherSlice.actions;
export const { selectChosen, selectFilter, selectNames, selectPlan, selectSettings } = gatherSlice.selectors;
