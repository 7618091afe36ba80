import type { ProofPartner } from '@syndeton/core';
import type { RevisionStore } from '../stores/revisionStore.ts';
import { draftTasks } from './draftTasks.ts';
import { inventoryTasks } from './inventoryTasks.ts';
import { readingTasks } from './readingTasks.ts';
import { revisionTasks } from './revisionTasks.ts';
import { SiteStates } from './siteStates.ts';
import type { AnalysisTasks, Tasks } from './tasks.ts';

/** All tasks about one site, with what they keep of it. */
export function makeSiteTasks(
  revisions: Pick<RevisionStore, 'manifest' | 'decisions' | 'readBlobs' | 'steps'>,
  partner?: ProofPartner,
): Tasks<keyof AnalysisTasks> {
  const states = new SiteStates(revisions, partner);
  return { ...inventoryTasks(states), ...readingTasks(states), ...draftTasks(states), ...revisionTasks(states) };
}
