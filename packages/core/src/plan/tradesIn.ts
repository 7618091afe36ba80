import { applyOperations, type Operation } from '../operations/operation.ts';
import { pagesOf, type Site } from '../source/site.ts';
import { scaleTrades } from './scales.ts';
import { byWorth, tradesOf, type Trade } from './trades.ts';

/** What could be given up for a simpler sheet than that of a plan, what saves most first. `site`: as it was before the plan. */
export function tradesIn(
  site: Site,
  operations: readonly Operation[],
  options: { readonly oldBrowsers?: boolean } = {},
): readonly Trade[] {
  return [...ruleTrades(site, operations, options), ...attributeTrades(site, operations)].sort(byWorth);
}

function ruleTrades(
  site: Site,
  operations: readonly Operation[],
  { oldBrowsers }: { readonly oldBrowsers?: boolean },
): readonly Trade[] {
  const at = operations.findIndex(({ kind }) => kind === 'gather-sheet');
  const plan = operations[at];
  if (plan?.kind !== 'gather-sheet') return [];
  const before = applyOperations(site, operations.slice(0, at));
  return before.ok ? tradesOf(before.value.site, plan, oldBrowsers ? { oldBrowsers } : {}) : [];
}

function attributeTrades(site: Site, operations: readonly Operation[]): readonly Trade[] {
  const plan = operations.find((one) => one.kind === 'gather-attributes');
  return plan ? scaleTrades(site, plan.pages ?? pagesOf(site).map(({ path }) => path)) : [];
}
