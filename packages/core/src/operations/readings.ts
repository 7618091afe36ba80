import { applyChangeSet, type ChangeProblem, type ChangeSet } from '../source/changeSet.ts';
import type { Result } from '../source/result.ts';
import { withAbsent, withLeftOut, type Site, type SiteDecisions, type SiteFile } from '../source/site.ts';
import { hasReading, rememberReading, type PageReading } from '../survey/pageReading.ts';

/** By page, what is known of it after an operation, so that the next one need not parse it again. */
export type ReadingMakers = ReadonlyMap<string, (file: SiteFile) => PageReading>;

/** The site after a planned operation; what the plan knows of its pages goes along. */
export function applyPlan(
  site: Site,
  {
    changes,
    readings,
    absent = [],
    leftOut = [],
  }: {
    readonly changes: ChangeSet;
    readonly readings?: ReadingMakers | undefined;
    readonly absent?: readonly string[];
    readonly leftOut?: SiteDecisions['leftOut'];
  },
): Result<Site, ChangeProblem> {
  const applied = applyChangeSet(withLeftOut(withAbsent(site, absent), leftOut), changes);
  if (applied.ok && readings)
    for (const [path, make] of readings) {
      const file = applied.value.files.get(path);
      if (file?.text !== undefined && !hasReading(file)) rememberReading(make(file));
    }
  return applied;
}
