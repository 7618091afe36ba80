import { planGatherRules, type GatherRules } from '../operations/gather/gatherRules.ts';
import { SheetNames } from '../operations/gather/sheetNames.ts';
import { applyPlan } from '../operations/readings.ts';
import { pagesOf, type Site } from '../source/site.ts';
import { folderOf } from '../source/sitePath.ts';
import { describeApart } from './describeApart.ts';
import { mostSingles, partition, type Partition, type SheetPart, type SinglePage } from './partition.ts';
import type { Attempt, GatherOperation, PlannedSheet, PlanOptions } from './planOptions.ts';
import { makeRuleGraph, type RuleGraph } from './ruleGraph.ts';
import { reachOfRules } from './ruleReach.ts';
import { readRuleTable, type PlannedRule, type RuleTable } from './ruleTable.ts';

/** Sheets by the pages that hold the same rules. */
export function ownSheets(site: Site, shared: string, sharing: readonly string[], options: PlanOptions): Attempt {
  const operations: GatherOperation[] = [];
  const sheets: PlannedSheet[] = [];
  let at = site;
  for (const { operation, why } of ruleOperations(
    site,
    shared,
    sharing,
    options.singlePage ?? 'shared',
    options.maxSheets,
  )) {
    const plan = planGatherRules(at, operation);
    if (!plan.ok) continue;
    const next = applyPlan(at, plan.value);
    if (!next.ok) continue;
    at = next.value;
    operations.push(operation);
    sheets.push({ path: plan.value.sheet, rules: plan.value.moved.length, pages: plan.value.pages, why });
  }
  return { operations, sheets, site: at };
}

interface SheetOperation {
  readonly operation: GatherRules;
  readonly why: string | undefined;
}

function ruleOperations(
  site: Site,
  shared: string,
  pages: readonly string[],
  single: SinglePage,
  maxSheets: number | undefined,
): readonly SheetOperation[] {
  const table = readRuleTable(site, pages);
  if (table.rules.length === 0) return [];
  const graph = makeRuleGraph(table);
  const singles = table.rules.filter((rule) => rule.holders.size === 1).length;
  const merging = single === 'shared' && singles > mostSingles ? 'own' : single;
  const { length } = table.pages;
  const asked = table.rules.filter(
    ({ holders }) => holders.size < length && (merging === 'shared' || holders.size > 1),
  );
  const parts = partition(table, graph, reachOfRules(site, table, asked), merging, pagesOf(site).length === 1);
  return operationsOf(site, shared, table, graph, parts, maxSheets);
}

function operationsOf(
  site: Site,
  shared: string,
  table: RuleTable,
  graph: RuleGraph,
  parts: Partition,
  maxSheets: number | undefined,
): readonly SheetOperation[] {
  const weight = (part: SheetPart): number => part.nodes.reduce((sum, n) => sum + graph.nodes[n]!.holders.size, 0);
  const kept = new Set([...parts.sheets].sort((a, b) => weight(b) - weight(a)).slice(0, maxSheets));
  const left = new Set(parts.staying);
  for (const part of parts.sheets) if (!kept.has(part)) for (const node of part.nodes) left.add(node);
  const sheets = parts.sheets.filter((part) => kept.has(part));
  const alsoStaying = mustFollow(graph, parts.after, left);
  const names = new SheetNames(site, folderOf(shared));
  names.take(shared);
  const widest = [...sheets].sort((a, b) => b.pages.size - a.pages.size || weight(b) - weight(a))[0];
  const pathsOf = (part: SheetPart): readonly string[] => [...part.pages].map((page) => table.pages[page]!.path);
  const rulesOf = (part: SheetPart): readonly PlannedRule[] =>
    part.nodes.map((node) => table.rules[graph.nodes[node]!.rule]!);
  // of sheets for the same thing the one of most pages gets the plain name
  const named = new Map<SheetPart, string>();
  for (const part of [...sheets].sort((a, b) => b.pages.size - a.pages.size))
    named.set(
      part,
      part === widest
        ? shared
        : names.propose(
            pathsOf(part),
            rulesOf(part).map((rule) => rule.family),
          ),
    );
  const before: string[] = [];
  return sheets.map((part) => {
    const paths = pathsOf(part);
    const rules = rulesOf(part);
    const sheet = named.get(part)!;
    const except = part.nodes.flatMap((node, i) => {
      const { family, version, holders } = rules[i]!;
      const away = [...holders].filter(
        (page) => part.pages.has(page) && (!graph.nodes[node]!.holders.has(page) || alsoStaying.has(`${node} ${page}`)),
      );
      return away.map((page) => ({ family, version, page: table.pages[page]!.path }));
    });
    const operation: GatherRules = {
      kind: 'gather-rules',
      sheet,
      pages: paths,
      rules: rules.map(({ family, version }) => ({ family, version })),
      ...(except.length > 0 ? { except } : {}),
      after: [...before],
    };
    before.push(sheet);
    return { operation, why: part === widest ? undefined : part.apart && describeApart(part.apart, table, sheet) };
  });
}

/**
 * What stays in a block comes after all sheets; a rule that competes with it and stood after it has to stay as well, on that
 * page. As `node page`.
 */
function mustFollow({ nodes }: RuleGraph, after: Partition['after'], left: ReadonlySet<number>): ReadonlySet<string> {
  const out = new Set<string>();
  const work = [...left].flatMap((node) => [...nodes[node]!.holders].map((page) => [node, page] as const));
  while (work.length > 0) {
    const [node, page] = work.pop()!;
    for (const next of after[node]!) {
      const key = `${next} ${page}`;
      if (left.has(next) || out.has(key) || !nodes[next]!.holders.has(page)) continue;
      out.add(key);
      work.push([next, page]);
    }
  }
  return out;
}
