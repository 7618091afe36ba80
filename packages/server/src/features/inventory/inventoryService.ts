import type { SurveyReply } from '@syndeton/contract';
import { inventoryVersion, type Inventory } from '../../analysis/inventory.ts';
import type { Analysis } from '../../analysis/pool.ts';
import type { SiteState } from '../../analysis/tasks.ts';
import type { InventoryRecord, SiteStore } from '../sites/siteStore.ts';

/** Surveys of states: kept with the revision once made, and for the last few drafts. */
export interface InventoryService {
  get(state: SiteState): Promise<InventoryRecord>;
  /** Of operations lined up, with the figures a saved revision keeps. */
  ofDraft(state: SiteState): Promise<Inventory>;
  /** Keeps what was made while the revision came to be. */
  keep(siteId: string, number: number, inventory: Inventory): Promise<void>;
  /** The sheets of a saved revision, if its survey is kept already. */
  keptSheets(siteId: string, number: number): Promise<SurveyReply['sheets'] | undefined>;
}

const mostDrafts = 4;

export function makeInventoryService({
  store,
  analysis,
}: {
  readonly store: SiteStore;
  readonly analysis: Analysis;
}): InventoryService {
  /** In the making or made; the same state is never looked at twice at once. */
  const known = new Map<string, Promise<InventoryRecord | Inventory>>();

  async function make(state: SiteState): Promise<InventoryRecord | Inventory> {
    const saved = state.operations.length === 0;
    const kept = saved ? await store.inventory(state.siteId, state.number, inventoryVersion) : undefined;
    if (kept) return kept;
    const made = await analysis.run('inventory', { state });
    if (saved) await store.putInventory(state.siteId, state.number, inventoryVersion, made);
    return made;
  }

  function get(state: SiteState): Promise<InventoryRecord | Inventory> {
    const key = JSON.stringify(state);
    let running = known.get(key);
    if (!running) {
      running = make(state);
      known.set(key, running);
      running.catch(() => known.delete(key));
      if (known.size > mostDrafts) known.delete(known.keys().next().value!);
    }
    return running;
  }

  return {
    get,
    async ofDraft(state) {
      const made = await get(state);
      return 'figures' in made ? made : analysis.run('inventory', { state });
    },
    async keep(siteId, number, inventory) {
      await store.putInventory(siteId, number, inventoryVersion, inventory);
    },
    async keptSheets(siteId, number) {
      return (await store.inventory(siteId, number, inventoryVersion))?.sheets;
    },
  };
}
