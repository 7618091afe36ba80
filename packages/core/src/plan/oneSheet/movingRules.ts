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

/** The table where pages that hold one version of a rule hold another in its place. */
export function withOther(
  table: RuleTable,
  { family, from, version }: { readonly family: string; readonly from: string; readonly version: string },
): RuleTable {
  const find = (wanted: string): number =>
    table.rules.findIndex((rule) => rule.family === family && rule.version === wanted);
  const [old, now] = [find(from), find(version)];
  if (old < 0 || now < 0) return table;
  const pages = table.pages.map((page): PlannedPage => {
    if (!page.sequence.includes(old)) return page;
    // where it holds both, the later one counts
    const kept = page.sequence.map((rule) => (rule === old ? now : rule));
    const at = kept.flatMap((rule, i) => (kept.lastIndexOf(rule) === i ? [i] : []));
    return { ...page, sequence: at.map((i) => kept[i]!), segments: at.map((i) => page.segments[i]!) };
  });
  return movingRules(
    { ...table, pages },
    pages.map(() => none),
  );
}

const none: ReadonlySet<number> = new Set();
