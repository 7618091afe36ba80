import { mayCompete } from '../operations/gather/compete.ts';
import { PageSet } from './pageSet.ts';
import type { RuleTable } from './ruleTable.ts';

/** A rule as it moves: on all pages that hold it, or on some where pages hold it in orders that contradict each other. */
export interface RuleNode {
  readonly rule: number;
  readonly holders: PageSet;
}

/** Which rules must come before which: those that compete, as they stand on every page. Without cycles. */
export interface RuleGraph {
  readonly nodes: readonly RuleNode[];
  /** By node, the nodes that must come after it. */
  readonly after: readonly ReadonlySet<number>[];
  /** Rules taken out of the graph since no order serves them; they stay in their blocks. */
  readonly left: readonly number[];
  /** Nodes in an order that serves all pages; where it is free, the one of first appearance. */
  readonly order: readonly number[];
}

const mostSplits = 40;

/** Makes the graph; a cycle is undone by telling apart the pages that disagree. */
export function makeRuleGraph(table: RuleTable): RuleGraph {
  const left = new Set<number>();
  let nodes: RuleNode[] = table.rules
    .filter(({ holders }) => !holders.isEmpty)
    .map((rule) => ({ rule: rule.number, holders: rule.holders }));
  const compete = makeCompete(table);
  for (let split = 0; ; split++) {
    const after = edgesOf(table, nodes, compete);
    const cycle = widestCycle(after);
    if (cycle.length === 0) return { nodes, after, left: [...left], order: inOrder(after) };
    const divided = split < mostSplits ? divide(table, nodes, cycle) : undefined;
    if (divided) nodes = divided;
    else {
      const rarest = [...cycle].sort((a, b) => nodes[a]!.holders.size - nodes[b]!.holders.size)[0]!;
      left.add(nodes[rarest]!.rule);
      nodes = nodes.filter((_, i) => i !== rarest);
    }
  }
}

function makeCompete({ rules }: RuleTable): (a: number, b: number) => boolean {
  const known = new Map<number, boolean>();
  const hasMany = rules.map(({ holders }) => holders.size > 1);
  return (a, b) => {
    // a rule of one page meets each other rule once
    if (!hasMany[a] || !hasMany[b]) return mayCompete(rules[a]!.traits, rules[b]!.traits);
    const key = a < b ? a * rules.length + b : b * rules.length + a;
    let answer = known.get(key);
    if (answer === undefined) known.set(key, (answer = mayCompete(rules[a]!.traits, rules[b]!.traits)));
    return answer;
  };
}

/** The node that stands for a rule on a page; undefined for a rule left out. */
function nodeFinder(nodes: readonly RuleNode[]): (rule: number, page: number) => number | undefined {
  const byRule = new Map<number, number[]>();
  nodes.forEach((node, i) => {
    const list = byRule.get(node.rule);
    if (list) list.push(i);
    else byRule.set(node.rule, [i]);
  });
  return (rule, page) => byRule.get(rule)?.find((i) => nodes[i]!.holders.has(page));
}

function edgesOf(
  table: RuleTable,
  nodes: readonly RuleNode[],
  compete: (a: number, b: number) => boolean,
): readonly Set<number>[] {
  const after = nodes.map(() => new Set<number>());
  const find = nodeFinder(nodes);
  const seen = new Set<string>();
  /** By node, the nodes it was seen before. */
  const asked = nodes.map(() => PageSet.empty(nodes.length));
  const hasMany = nodes.map(({ rule }) => table.rules[rule]!.holders.size > 1);
  const order = (a: number, b: number): void => {
    if (asked[a]!.has(b)) return;
    asked[a]!.add(b);
    if (compete(nodes[a]!.rule, nodes[b]!.rule)) after[a]!.add(b);
  };
  table.pages.forEach(({ sequence }, page) => {
    const at = sequence.flatMap((rule) => find(rule, page) ?? []);
    // many pages hold the same rules in the same order, but for those that only one page holds
    const shared = at.filter((node) => hasMany[node]);
    const key = shared.join();
    if (!seen.has(key))
      for (let i = 0; i < shared.length; i++) for (let j = i + 1; j < shared.length; j++) order(shared[i]!, shared[j]!);
    seen.add(key);
    for (let i = 0; i < at.length; i++) {
      if (hasMany[at[i]!]) continue;
      for (let j = 0; j < i; j++) order(at[j]!, at[i]!);
      for (let j = i + 1; j < at.length; j++) order(at[i]!, at[j]!);
    }
  });
  return after;
}

/** The largest set of nodes each of which must come before each other; empty when there is none. Tarjan's algorithm. */
function widestCycle(after: readonly ReadonlySet<number>[]): readonly number[] {
  const index = new Int32Array(after.length).fill(-1);
  const low = new Int32Array(after.length);
  const onStack = new Uint8Array(after.length);
  const stack: number[] = [];
  let counter = 0;
  let widest: number[] = [];
  const enter = (start: number): void => {
    const work: { readonly node: number; readonly next: Iterator<number> }[] = [];
    const open = (node: number): void => {
      index[node] = low[node] = counter++;
      stack.push(node);
      onStack[node] = 1;
      work.push({ node, next: after[node]![Symbol.iterator]() });
    };
    open(start);
    while (work.length > 0) {
      const { node, next } = work.at(-1)!;
      const step = next.next();
      if (!step.done) {
        if (index[step.value] === -1) open(step.value);
        else if (onStack[step.value]) low[node] = Math.min(low[node]!, index[step.value]!);
        continue;
      }
      work.pop();
      const parent = work.at(-1);
      if (parent) low[parent.node] = Math.min(low[parent.node]!, low[node]!);
      if (low[node] !== index[node]) continue;
      const component = stack.splice(stack.indexOf(node));
      for (const one of component) onStack[one] = 0;
      if (component.length > 1 && component.length > widest.length) widest = component;
    }
  };
  for (let node = 0; node < after.length; node++) if (index[node] === -1) enter(node);
  return widest;
}

/** The rarest node of a cycle that can be told apart by where it stands among the others, told apart. */
function divide(table: RuleTable, nodes: readonly RuleNode[], cycle: readonly number[]): RuleNode[] | undefined {
  const byRarity = [...cycle].sort((a, b) => nodes[a]!.holders.size - nodes[b]!.holders.size);
  for (const one of byRarity) {
    const node = nodes[one]!;
    const others = cycle.filter((other) => other !== one);
    const groups = new Map<string, PageSet>();
    for (const page of node.holders) {
      const { sequence } = table.pages[page]!;
      const own = sequence.indexOf(node.rule);
      const signature = others
        .map((other) => {
          const at = nodes[other]!.holders.has(page) ? sequence.indexOf(nodes[other]!.rule) : -1;
          return at < 0 ? '-' : at < own ? '<' : '>';
        })
        .join('');
      let group = groups.get(signature);
      if (!group) groups.set(signature, (group = PageSet.empty(table.pages.length)));
      group.add(page);
    }
    if (groups.size < 2) continue;
    return nodes.flatMap((other, i) =>
      i === one ? [...groups.values()].map((holders) => ({ rule: node.rule, holders })) : [other],
    );
  }
  return undefined;
}

/** Kahn's algorithm; among free nodes the one that appeared first goes first. */
function inOrder(after: readonly ReadonlySet<number>[]): readonly number[] {
  const waiting = new Int32Array(after.length);
  for (const set of after) for (const node of set) waiting[node]!++;
  const order: number[] = [];
  const done = new Uint8Array(after.length);
  while (order.length < after.length) {
    for (let node = 0; node < after.length; node++) {
      if (done[node] || waiting[node]! > 0) continue;
      done[node] = 1;
      order.push(node);
      for (const next of after[node]!) waiting[next]!--;
    }
  }
  return order;
}
