import { lackingLinks, makeSite, makeSiteFile, decisionsOf, withRunPages } from '@syndeton/core';
import { makeInventory } from './inventory.ts';
import type { SiteStates } from './siteStates.ts';
import type { Tasks } from './tasks.ts';

/** What is there: the inventory of a state, of files on their way in, of a change. */
export const inventoryTasks = (states: SiteStates): Tasks<'inventory' | 'inventoryOfFiles' | 'inventoryOfChange'> => ({
  async inventory({ state }, step) {
    const { site } = await states.draftOf(state);
    return makeInventory(site, states.checker, step);
  },
  inventoryOfFiles({ files, runPages }, step) {
    const site = withRunPages(makeSite(files), runPages);
    states.expect(site);
    return makeInventory(site, states.checker, step);
  },
  async inventoryOfChange({ siteId, number, files, removed, runPages = [] }, step) {
    const { site: before } = await states.revision(siteId, number);
    const after = new Map(before.files);
    for (const path of removed) after.delete(path);
    for (const [path, bytes] of files) after.set(path, makeSiteFile(path, bytes, before.pageTypes));
    const site = withRunPages({ ...before, files: after }, runPages);
    states.expect(site);
    const added = files
      .map(([path]) => path)
      .filter((path) => !before.files.has(path) && site.files.get(path)?.kind === 'page');
    const lacking = lackingLinks(site, added).map(({ page, sheets }) => ({ page, sheets: [...sheets] }));
    return { inventory: await makeInventory(site, states.checker, step), lacking, decisions: decisionsOf(site) };
  },
});
