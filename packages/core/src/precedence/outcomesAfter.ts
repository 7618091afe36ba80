import { KeptOutcomes } from './keptOutcomes.ts';
import type { Site } from '../source/site.ts';
import { unchangedPages } from '../survey/unchangedPages.ts';

/**
 * The outcomes of a state of a site, going on from those of another: only pages are read that changed, or that may name a changed
 * sheet and hold what its changed rules ask for. `last` gives its tables away and must not be asked again.
 */
export function outcomesAfter(last: KeptOutcomes | undefined, site: Site): KeptOutcomes {
  const unchanged = last && !last.hasGrown && unchangedPages(last.site, site);
  return new KeptOutcomes(site, unchanged ? { last, unchanged } : undefined);
}
