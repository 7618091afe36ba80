import { covers } from './covers.ts';
import { PageSet } from './pageSet.ts';
import type { RuleGraph } from './ruleGraph.ts';
import type { PlannedRule, RuleTable } from './ruleTable.ts';

/** What becomes of rules that one page has and no other. */
export type SinglePage = 'shared' | 'own' | 'stay';

/** Why rules could not join a sheet made before theirs. */
export type Apart =
  | { readonly kind: 'leak'; readonly rule: number; readonly page: number; readonly drifted: boolean }
  | { readonly kind: 'order'; readonly rule: number }
  | { readonly kind: 'segment'; readonly rule: number; readonly page: number };

/** One sheet of the plan: nodes of the graph, and the pages that will link it. */
export interface SheetPart {
  readonly nodes: number[];
  readonly pages: PageSet;
  /** Pages where one of its rules may do something though they do not hold it. */
  readonly reaches: PageSet;
  /** Why it did not join the widest sheet. */
  apart: Apart | undefined;
}

export interface Partition {
  /** In the order pages must link them. */
  readonly sheets: readonly SheetPart[];
  /** Nodes that stay in their blocks. */
  readonly staying: ReadonlySet<number>;
  /** By node, those that must come after it. */
  readonly after: readonly ReadonlySet<number>[];
}

/** More rules that stand on one page only than this are not tried for shared sheets one by one. */
export const mostSingles = 2000;

/**
 * Fewest sheets such that no rule reaches a page it was not on, no page loads competing rules in another order, and no rule passes
 * a source that stays: sets of rules by the pages that hold them, the widest first, each put into the first sheet that takes it.
 */
export function partition(
  table: RuleTable,
  graph: RuleGraph,
  reach: ReadonlyMap<number, PageSet>,
  single: SinglePage,
  onlyPage: boolean,
): Partition {
  return new Partitioner(table, graph, reach, single, onlyPage).run();
}

/** The first must come before the second. */
type Edge = readonly [from: number, to: number];

class Partitioner {
  private readonly sheets: SheetPart[] = [];
  private readonly sheetOf: Int32Array;
  /** The graph's edges, and those that covered leaks ask for. */
  private readonly after: readonly Set<number>[];
  private readonly staying = new Set<number>();
  private readonly everywhere: PageSet;
  private readonly families = new Map<string, number[]>();
  private readonly nodesOfRule: Map<number, number[]>;
  private readonly table: RuleTable;
  private readonly graph: RuleGraph;
  private readonly reach: ReadonlyMap<number, PageSet>;
  private readonly single: SinglePage;
  /** The site has one page: its sheet is the site's. */
  private readonly onlyPage: boolean;

  constructor(
    table: RuleTable,
    graph: RuleGraph,
    reach: ReadonlyMap<number, PageSet>,
    single: SinglePage,
    onlyPage: boolean,
  ) {
    this.table = table;
    this.graph = graph;
    this.reach = reach;
    this.single = single;
    this.onlyPage = onlyPage;
    this.everywhere = PageSet.empty(table.pages.length);
    table.pages.forEach((_, page) => this.everywhere.add(page));
    this.sheetOf = new Int32Array(graph.nodes.length).fill(-1);
    this.after = graph.after.map((set) => new Set(set));
    this.nodesOfRule = new Map();
    graph.nodes.forEach(({ rule }, node) => {
      const list = this.nodesOfRule.get(rule);
      if (list) list.push(node);
      else this.nodesOfRule.set(rule, [node]);
    });
    for (const rule of table.rules) {
      const list = this.families.get(rule.family);
      if (list) list.push(rule.number);
      else this.families.set(rule.family, [rule.number]);
    }
  }

  run(): Partition {
    for (const group of this.groups()) for (const run of this.convexRuns(group)) this.place(run);
    return { sheets: this.ordered(), staying: this.staying, after: this.after };
  }

  /** Nodes by the pages that hold them, and by where among other sources; the widest first. */
  private groups(): readonly number[][] {
    const groups = new Map<string, number[]>();
    for (const node of this.graph.order) {
      const { holders } = this.graph.nodes[node]!;
      const segments = this.table.hasSegments ? [...holders].map((page) => this.segmentOf(node, page)).join() : '';
      const key = `${holders.key} ${segments}`;
      const list = groups.get(key);
      if (list) list.push(node);
      else groups.set(key, [node]);
    }
    const weight = (group: readonly number[]): number => this.graph.nodes[group[0]!]!.holders.size;
    return [...groups.values()].sort((a, b) => weight(b) - weight(a) || b.length - a.length);
  }

  private segmentOf(node: number, page: number): number {
    const { sequence, segments } = this.table.pages[page]!;
    return segments[sequence.indexOf(this.graph.nodes[node]!.rule)]!;
  }

  /** A group that something else must stand inside is parted there. */
  private convexRuns(group: readonly number[]): readonly number[][] {
    if (this.isConvex(group)) return [[...group]];
    const runs: number[][] = [];
    for (const node of group) {
      const last = runs.at(-1);
      if (last && this.isConvex([...last, node])) last.push(node);
      else runs.push([node]);
    }
    return runs;
  }

  private place(run: number[]): void {
    const first = this.graph.nodes[run[0]!]!;
    const alone = first.holders.size === 1 && !this.onlyPage;
    if (alone && this.single !== 'shared') {
      for (const node of run) this.staying.add(node);
      return;
    }
    let apart: Apart | undefined;
    for (const [number, sheet] of this.sheets.entries()) {
      const refusal = this.refusal(run, first.holders, sheet, number);
      if (refusal === undefined) {
        this.join(run, first.holders, number);
        return;
      }
      apart ??= refusal;
    }
    if (alone) {
      for (const node of run) this.staying.add(node);
      return;
    }
    this.sheets.push({
      nodes: [],
      pages: first.holders.copy(),
      reaches: PageSet.empty(this.table.pages.length),
      apart,
    });
    this.join(run, first.holders, this.sheets.length - 1);
  }

  private join(run: readonly number[], holders: PageSet, number: number): void {
    const sheet = this.sheets[number]!;
    sheet.nodes.push(...run);
    sheet.pages.addAll(holders);
    for (const node of run) {
      this.sheetOf[node] = number;
      const { rule, holders: own } = this.graph.nodes[node]!;
      sheet.reaches.addAll((this.reach.get(rule) ?? this.everywhere).minus(own));
    }
  }

  private refusal(run: readonly number[], holders: PageSet, sheet: SheetPart, number: number): Apart | undefined {
    const covering: Edge[] = [];
    const leak =
      this.leak(run, sheet.pages, covering) ??
      (sheet.reaches.meets(holders) ? this.leak(sheet.nodes, holders, covering) : undefined);
    if (leak) return leak;
    // what covers has to come later, so it cannot be in the same sheet
    const inside = new Set([...run, ...sheet.nodes]);
    const beside = covering.find(([from, to]) => inside.has(from) && inside.has(to));
    if (beside) return this.drift(beside);
    if (this.table.hasSegments)
      for (const page of holders) {
        const other = sheet.nodes.find((node) => this.graph.nodes[node]!.holders.has(page));
        if (other !== undefined && this.segmentOf(run[0]!, page) !== this.segmentOf(other, page))
          return { kind: 'segment', rule: this.ruleOf(run[0]!).number, page };
      }
    const added = covering.filter(([from, to]) => !this.after[from]!.has(to));
    for (const [from, to] of added) this.after[from]!.add(to);
    if (this.isConvex([...run, ...sheet.nodes], number)) return undefined;
    for (const [from, to] of added) this.after[from]!.delete(to);
    return { kind: 'order', rule: this.ruleOf(run[0]!).number };
  }

  private drift([from, to]: Edge): Apart {
    const page = [...this.graph.nodes[to]!.holders][0]!;
    return { kind: 'leak', rule: this.ruleOf(from).number, page, drifted: true };
  }

  /** A page where a rule would do something it did not. `covering`: what has to come after it so that it does nothing there. */
  private leak(nodes: readonly number[], pages: PageSet, covering: Edge[]): Apart | undefined {
    for (const node of nodes) {
      const { rule, holders } = this.graph.nodes[node]!;
      const reach = this.reach.get(rule);
      for (const page of pages.beyond(holders, reach)) {
        const { family } = this.table.rules[rule]!;
        const versions = this.families
          .get(family)!
          .filter((other) => other !== rule && this.table.rules[other]!.holders.has(page));
        if (
          !covers(
            versions.map((other) => this.table.rules[other]!),
            this.table.rules[rule]!,
          )
        )
          return { kind: 'leak', rule, page, drifted: versions.length > 0 };
        for (const other of versions)
          for (const later of this.nodesOfRule.get(other) ?? [])
            if (this.graph.nodes[later]!.holders.has(page)) covering.push([node, later]);
      }
    }
    return undefined;
  }

  private ruleOf(node: number): PlannedRule {
    return this.table.rules[this.graph.nodes[node]!.rule]!;
  }

  /** Whether no path leads out of the nodes and back, sheets made so far being one each. `own`: the sheet they are or join. */
  private isConvex(nodes: readonly number[], own = -1): boolean {
    const inside = new Set(nodes);
    const seen = new Set<number>();
    const work: number[] = [];
    const leave = (from: number): void => {
      for (const next of this.after[from]!) if (!inside.has(next) && !seen.has(next)) work.push(next);
    };
    for (const node of nodes) leave(node);
    while (work.length > 0) {
      const node = work.pop()!;
      if (seen.has(node)) continue;
      const sheet = this.sheetOf[node]!;
      const all = sheet >= 0 && sheet !== own ? this.sheets[sheet]!.nodes : [node];
      for (const one of all) {
        seen.add(one);
        for (const next of this.after[one]!) {
          if (inside.has(next)) return false;
          if (!seen.has(next)) work.push(next);
        }
      }
    }
    return true;
  }

  /** Sheets in an order that keeps the graph; where it is free, as they were made. */
  private ordered(): readonly SheetPart[] {
    const waits = this.sheets.map(() => new Set<number>());
    this.sheets.forEach((sheet, number) => {
      for (const node of sheet.nodes)
        for (const later of this.after[node]!) {
          const other = this.sheetOf[later]!;
          if (other >= 0 && other !== number) waits[other]!.add(number);
        }
    });
    const out: number[] = [];
    while (out.length < this.sheets.length) {
      const next = waits.findIndex((on, i) => !out.includes(i) && [...on].every((one) => out.includes(one)));
      if (next < 0) throw new Error('the sheets of the partition have no order');
      out.push(next);
    }
    return out.map((i) => this.sheets[i]!);
  }
}
