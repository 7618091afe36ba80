import { planGatherBlocks, type GatherBlocks } from '../operations/gather/gatherBlocks.ts';
import { applyPlan } from '../operations/readings.ts';
import type { Site } from '../source/site.ts';
import { folderOf } from '../source/sitePath.ts';
import { oneSheet } from './oneSheet/attemptOneSheet.ts';
import { ownSheets } from './ownSheets.ts';
import type { Attempt, AttemptPages, GatherOperation, PlannedSheet, PlanOptions } from './planOptions.ts';

/** What the rules alone tell of a plan; not proved. */
export function attempt(site: Site, shared: string, pages: AttemptPages, options: PlanOptions): Attempt {
  const single = options.singlePage ?? 'shared';
  const made =
    options.sheets === 'own' ? ownSheets(site, shared, pages.sharing, options) : oneSheet(site, shared, pages, options);
  const { whole } = pages;
  const operations: GatherOperation[] = [...made.operations];
  const sheets: PlannedSheet[] = [...made.sheets];
  const at = made.site;
  const { attributesApart = false } = made;
  if (options.maxSheets !== undefined) return { operations, sheets, site: at, attributesApart };
  const least = single === 'stay' ? { least: 2 } : {};
  const rest: GatherBlocks = {
    kind: 'gather-blocks',
    folder: folderOf(shared),
    pages: whole,
    ...least,
    ...(single === 'own' && options.sheets !== 'own' ? { beside: true } : {}),
  };
  const plan = planGatherBlocks(at, rest);
  const next = plan.ok ? applyPlan(at, plan.value) : undefined;
  if (!plan.ok || !next?.ok) return { operations, sheets, site: at, attributesApart };
  operations.push(rest);
  for (const { path, rules, pages } of plan.value.sheets)
    sheets.push({
      path,
      rules,
      pages,
      why:
        pages.length === 1
          ? `Only ${pages[0]!} has these rules, or has them where no shared sheet could take them.`
          : 'These blocks move as a whole, each in its place among the sources of its page.',
    });
  return { operations, sheets, site: next.value, attributesApart };
}
