import type { SurveyReply } from '@syndeton/contract';
import type { Analysis } from '../../analysis/analysis.ts';
import { inventoryVersion, type Inventory } from '../../analysis/inventory.ts';
import type { SiteState } from '../../analysis/tasks.ts';
import type { InventoryRecord, RevisionStore, VersionedInventory } from '../../stores/revisionStore.ts';

/** Surveys of states: kept with the revision once made, and for the last few drafts. */
export interface InventoryService {
  get(state: SiteState): Promise<InventoryRecord>;
  /** Of a draft, with the figures a saved revision keeps. */
  ofDraft(state: SiteState): Promise<Inventory & VersionedInventory>;
  /** The sheets of a saved revision, if its survey is kept already. */
  keptSheets(siteId: string, number: number): Promise<SurveyReply['sheets'] | undefined>;
}

const mostDrafts = 4;

export function makeInventoryService({
  revisions,
  analysis,
}: {
  readonly revisions: RevisionStore;
  readonly analysis: Analysis;
}): InventoryService {
  /** In the making or made; the same state is never looked at twice at once. */
  const known = new Map<string, Promise<InventoryRecord | Inventory>>();

  const look = (state: SiteState): Promise<Inventory> => analysis.run(state.siteId, 'inventory', { state });

  async function make(state: SiteState): Promise<InventoryRecord | Inventory> {
    const saved = state.operations.length === 0;
    const kept = saved ? await revisions.inventory(state.siteId, state.number, inventoryVersion) : undefined;
    if (kept) return kept;
    const made = await look(state);
    if (saved) await revisions.putInventory(state.siteId, state.number, { ...made, version: inventoryVersion });
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
      return { ...('figures' in made ? made : await look(state)), version: inventoryVersion };
    },
    async keptSheets(siteId, number) {
      return (await revisions.inventory(siteId, number, inventoryVersion))?.sheets;
    },
  };
}
