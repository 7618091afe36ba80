import { engines } from '../scripts/compareEngines.mjs';

export interface Tab {
  goto(url: string): Promise<void>;
  /** Runs a function of the page, sent as text, on what is given. */
  evaluate<T>(run: unknown, given: unknown): Promise<T>;
}

/** A tab of Chromium (`chromium`), Gecko (`firefox`) or WebKit (`webkit`). */
export async function openTab(name: string): Promise<{ readonly tab: Tab; readonly close: () => Promise<void> }> {
  const { tabs, close } = await engines[name as keyof typeof engines]();
  return { tab: tabs[0] as Tab, close };
}
