import { PageSet } from '../pageSet.ts';
import type { PlannedPage, RuleTable } from '../ruleTable.ts';

/** The table without what stays on each page. */
export function movingRules(table: RuleTable, staying: readonly ReadonlySet<number>[]): RuleTable {
  const pages = table.pages.map((page, i): PlannedPage => {
    const stays = staying[i]!;
    if (stays.size === 0) return page;
    const kept = page.sequence.flatMap((rule, at) => (stays.has(rule) ? [] : [at]));
    const sequence = kept.map((at) => page.sequence[at]!);
    return { ...page, sequence, segments: kept.map((at) => page.segments[at]!) };
  });
  const holders = table.rules.map(() => PageSet.empty(table.pages.length));
  pages.forEach(({ sequence }, page) => {
    for (const rule of sequence) holders[rule]!.add(page);
  });
  return { ...table, pages, rules: table.rules.map((rule, i) => ({ ...rule, holders: holders[i]! })) };
}
