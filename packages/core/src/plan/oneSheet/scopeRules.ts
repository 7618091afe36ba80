import { takenClassNames } from '../../operations/gather/takenClassNames.ts';
import type { Site } from '../../source/site.ts';
import type { PageReading } from '../../survey/pageReading.ts';
import { covers } from '../covers.ts';
import { PageSet } from '../pageSet.ts';
import type { RuleGraph } from '../ruleGraph.ts';
import { reachOfRules } from '../ruleReach.ts';
import type { PlannedRule, RuleTable } from '../ruleTable.ts';
import { canBeMarked, needsRoot, topNames, type PageCondition, type TopNames } from './markedSelector.ts';
import { nameMark, type MarkedRule } from './markNames.ts';
import { chooseMarks, type MarkedPages, type PageNeed, type Scope } from './marks.ts';
import { namesAround } from './namesAround.ts';
import type { OneSheetOptions } from './oneSheetOptions.ts';
import { namesThere } from './topNames.ts';

/** A class that pages get. */
export interface Mark {
  readonly name: string;
  readonly on: 'body' | 'root';
  readonly pages: PageSet;
}

/** A rule on its way into the sheet, with what keeps it to its pages. */
export interface ScopedRule {
  readonly rule: PlannedRule;
  /** Pages it leaves. */
  readonly pages: PageSet;
  /** Pages that link the sheet where it may do something, or might if another rule did not say all it says. */
  readonly reaches: PageSet;
  readonly condition: PageCondition | undefined;
  readonly marks: readonly Mark[];
  /** Rules that must stand before it, by their place in the list. */
  readonly before: readonly number[];
}

interface Input {
  readonly site: Site;
  readonly table: RuleTable;
  readonly graph: RuleGraph;
  readonly readings: readonly (PageReading | undefined)[];
  readonly linking: PageSet;
  readonly options: OneSheetOptions;
}

interface Scoped {
  /** In an order that serves all pages. */
  readonly rules: readonly ScopedRule[];
  readonly marks: readonly Mark[];
  /** Rules that would reach further and can be kept from it by nothing. */
  readonly stuck: readonly Pick<ScopedRule, 'rule' | 'pages'>[];
}

/** Finds for each rule the pages it would reach, and where these are too many the marks that keep it to its own. */
export function scopeRules(input: Input): Scoped {
  const nodes = reachingNodes(input);
  const after = input.graph.after.map((set) => new Set(set));
  const names = topNames(input.readings);
  const needs = needsOf(input, nodes, after, names);
  const markable = needs.filter(({ node }) => canBeMarked(node.rule, names));
  const scopes = chooseMarks(
    markable.map(({ need }) => need),
    namesThere(input.readings),
    unmarkable(input),
  );
  const without = new Map(needs.map(({ node, need }) => [node.number, need.without]));
  const scopeOf = new Map<number, Scope>(
    markable.flatMap(({ node }, i) => (scopes[i] ? [[node.number, scopes[i]] as const] : [])),
  );
  const asking = markable.map(({ node, need }) => ({
    number: node.number,
    selector: node.rule.label,
    need,
    marks: marksOf(scopeOf.get(node.number)),
  }));
  for (const [number, selector] of namesAround(
    asking,
    input.readings,
    isLoose(input),
    input.options.oldBrowsers === true,
  ))
    scopeOf.set(number, { kind: 'there', name: { selector, on: 'around', pages: nodes[number]!.pages } });
  const stuck = needs.flatMap(({ node }) => (scopeOf.has(node.number) ? [] : [{ rule: node.rule, pages: node.pages }]));
  const marks = nameMarks(input, nodes, scopeOf, names);
  const place = new Map(input.graph.order.map((number, at) => [number, at]));
  const before = nodes.map((): number[] => []);
  after.forEach((set, number) => {
    for (const next of set) before[next]!.push(place.get(number)!);
  });
  const rules = input.graph.order.map((number): ScopedRule => {
    const { rule, pages, reaches } = nodes[number]!;
    const scope = scopeOf.get(number);
    const own = scope ? marksOf(scope).map((one) => marks.get(one)!) : [];
    const condition = scope && conditionOf(scope, own);
    const excluded = without.get(number);
    return {
      rule,
      pages,
      reaches: excluded ? reaches.minus(excluded) : reaches,
      condition,
      marks: own,
      before: before[number]!,
    };
  });
  return { rules, marks: [...marks.values()], stuck };
}

interface Node {
  readonly number: number;
  readonly rule: PlannedRule;
  readonly pages: PageSet;
  readonly reaches: PageSet;
}

/** A rule that would reach further than it should. */
interface Needing {
  readonly node: Node;
  readonly need: PageNeed;
}

function reachingNodes({ site, table, graph, linking }: Input): readonly Node[] {
  const asked = [...new Set(graph.nodes.map(({ rule }) => rule))].map((rule) => table.rules[rule]!);
  const reach = reachOfRules(
    site,
    table,
    asked.filter(({ holders }) => !linking.isIn(holders)),
  );
  return graph.nodes.map(({ rule, holders }, number) => {
    const reaches = holders.copy();
    // of a rule told apart by pages, where it stands differently
    reaches.addAll(table.rules[rule]!.holders);
    const beyond = reach.get(rule);
    if (beyond) reaches.addAll(beyond.and(linking));
    return { number, rule: table.rules[rule]!, pages: holders, reaches };
  });
}

/** Rules that would reach pages they are not for, and do something there. What covers a rule is bound to come after it. */
function needsOf(
  { table, options }: Input,
  nodes: readonly Node[],
  after: readonly Set<number>[],
  names: TopNames,
): readonly Needing[] {
  const families = new Map<string, Node[]>();
  for (const node of nodes) {
    const list = families.get(node.rule.family);
    if (list) list.push(node);
    else families.set(node.rule.family, [node]);
  }
  return nodes.flatMap((node) => {
    const without = PageSet.empty(table.pages.length);
    for (const page of node.reaches.beyond(node.pages)) {
      const versions = families.get(node.rule.family)!.filter((other) => other !== node && other.pages.has(page));
      const isStrict = options.strict?.has(table.pages[page]!.path) ?? false;
      if (isStrict || !isCovered(node, versions, after)) without.add(page);
    }
    return without.isEmpty
      ? []
      : [{ node, need: { pages: node.pages, without, root: needsRoot(node.rule.label, names) } }];
  });
}

function isCovered(node: Node, versions: readonly Node[], after: readonly Set<number>[]): boolean {
  // the rule of most pages is the one written plainly
  if (versions.some(({ rule, pages }) => rule === node.rule || pages.size > node.pages.size)) return false;
  if (
    !covers(
      versions.map(({ rule }) => rule),
      node.rule,
    )
  )
    return false;
  if (versions.some(({ number }) => leadsTo(after, number, node.number))) return false;
  for (const { number } of versions) after[node.number]!.add(number);
  return true;
}

function leadsTo(after: readonly ReadonlySet<number>[], from: number, to: number): boolean {
  const seen = new Set<number>();
  const work = [from];
  while (work.length > 0) {
    const node = work.pop()!;
    if (node === to) return true;
    if (seen.has(node)) continue;
    seen.add(node);
    for (const next of after[node]!) work.push(next);
  }
  return false;
}

/** Pages on which scripts may make elements anywhere. */
const isLoose =
  ({ table, options }: Input) =>
  (page: number): boolean =>
    table.pages[page]!.made() !== undefined || options.strict?.has(table.pages[page]!.path) === true;

/** Pages whose `body` tag is not written, or that are to get no class. */
function unmarkable({ table, readings, options }: Input): PageSet {
  const set = PageSet.empty(table.pages.length);
  table.pages.forEach(({ path }, page) => {
    const body = readings[page]?.body;
    if (!body || body.start < 0 || options.unmarkable?.has(path)) set.add(page);
  });
  return set;
}

const marksOf = (scope: Scope | undefined): readonly MarkedPages[] =>
  scope === undefined || scope.kind === 'there' ? [] : scope.kind === 'any' ? scope.marks : [scope.mark];

/** Names the marks; on the root element where some rule asks for that. */
function nameMarks(
  { site, table, linking }: Input,
  nodes: readonly Node[],
  scopeOf: ReadonlyMap<number, Scope>,
  names: TopNames,
): ReadonlyMap<MarkedPages, Mark> {
  const uses = new Map<MarkedPages, { with: MarkedRule[]; without: MarkedRule[]; root: boolean }>();
  for (const [number, scope] of scopeOf)
    for (const mark of marksOf(scope)) {
      let use = uses.get(mark);
      if (!use) uses.set(mark, (use = { with: [], without: [], root: false }));
      const { label, declarations } = nodes[number]!.rule;
      const properties = declarations.map(({ declaration }) => declaration.property);
      use[scope.kind === 'not' ? 'without' : 'with'].push({ selector: label, properties });
      use.root ||= needsRoot(label, names);
    }
  const all = [...linking].map((page) => table.pages[page]!.path);
  const taken = uses.size === 0 ? new Set<string>() : takenClassNames(site);
  // marks that one rule asks for together stand on the same element
  const together = [...scopeOf.values()].map(marksOf).filter((marks) => marks.length > 1);
  for (const marks of together)
    if (marks.some((mark) => uses.get(mark)!.root)) for (const mark of marks) uses.get(mark)!.root = true;
  return new Map(
    [...uses].map(([mark, use]) => {
      const pages = [...mark.pages].map((page) => table.pages[page]!.path);
      const name = nameMark({ pages, with: use.with, without: use.without }, all, taken);
      return [mark, { name, on: use.root ? 'root' : 'body', pages: mark.pages }];
    }),
  );
}

function conditionOf(scope: Scope, marks: readonly Mark[]): PageCondition {
  if (scope.kind === 'there') return { on: scope.name.on, test: scope.name.selector };
  const [first, ...others] = marks.map(({ name }) => `.${name}`);
  const test =
    scope.kind === 'not' ? `:not(${first})` : others.length === 0 ? first! : `:is(${[first, ...others].join(', ')})`;
  return { on: marks[0]!.on, test };
}
