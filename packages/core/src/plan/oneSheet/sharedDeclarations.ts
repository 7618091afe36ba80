import { traitsOf } from '../../operations/gather/compete.ts';
import { physicalCounterparts } from '../../values/longhands.ts';
import { PageSet } from '../pageSet.ts';
import type { PlannedPage, PlannedRule, RuleTable } from '../ruleTable.ts';

/** How the versions of a family are written: what all say, and what the common one says of the rest, once; then what others say. */
interface Sharing {
  readonly base: PlannedRule;
  /** By version, what is written for its pages behind the base; undefined where nothing is left to say. */
  readonly rest: ReadonlyMap<number, PlannedRule | undefined>;
}

export interface SharedTable extends RuleTable {
  /** Rules whose parts stand in their place. */
  readonly silent: readonly number[];
}

/**
 * The table with drifted rules taken apart: of versions that share declarations, these become one rule for all their pages. A
 * declaration that some version lacks never reaches that version's pages. Nothing is taken apart where that saves nothing.
 */
export function shareDeclarations(table: RuleTable): SharedTable {
  const families = new Map<string, PlannedRule[]>();
  for (const rule of table.rules) {
    const list = families.get(rule.family);
    if (list) list.push(rule);
    else families.set(rule.family, [rule]);
  }
  const rules = [...table.rules];
  const sharings = new Map<number, Sharing>();
  for (const all of families.values()) {
    const versions = all.filter(({ holders }) => !holders.isEmpty);
    const sharing = versions.length > 1 ? shareFamily(versions, rules, table.pages.length) : undefined;
    if (!sharing) continue;
    for (const version of versions.filter(({ number }) => sharing.rest.has(number))) {
      sharings.set(version.number, sharing);
      // its parts are on its pages now
      rules[version.number] = { ...version, holders: PageSet.empty(table.pages.length) };
    }
  }
  if (sharings.size === 0) return { ...table, silent: [] };
  return { ...table, rules, silent: [...sharings.keys()], pages: table.pages.map((page) => apart(page, sharings)) };
}

/** The page with the parts of a rule in its place. */
function apart(page: PlannedPage, sharings: ReadonlyMap<number, Sharing>): PlannedPage {
  if (!page.sequence.some((rule) => sharings.has(rule))) return page;
  const sequence: number[] = [];
  const segments: number[] = [];
  page.sequence.forEach((rule, i) => {
    const sharing = sharings.get(rule);
    const rest = sharing?.rest.get(rule);
    for (const number of sharing ? [sharing.base.number, ...(rest ? [rest.number] : [])] : [rule]) {
      sequence.push(number);
      segments.push(page.segments[i]!);
    }
  });
  return { ...page, sequence, segments };
}

type Said = ReadonlyMap<string, { readonly text: string; readonly longhands: readonly string[] }>;

/** The widest versions that save most when they share; the others are written whole. */
function shareFamily(versions: readonly PlannedRule[], rules: PlannedRule[], pages: number): Sharing | undefined {
  const ordered = [...versions].sort((a, b) => b.holders.size - a.holders.size);
  const said = new Map(ordered.flatMap((rule) => [[rule, saidBy(rule)] as const]));
  const first = ordered[0]!;
  if (!said.get(first)) return undefined;
  let best: Split | undefined;
  let group = [first];
  for (const rule of ordered.slice(1)) {
    // a page with two versions says one over the other
    if (!said.get(rule) || group.some(({ holders }) => holders.meets(rule.holders))) continue;
    const split = splitOf([...group, rule].map((one) => said.get(one)!));
    if (!split || split.saves <= (best?.saves ?? 0)) continue;
    best = split;
    group = [...group, rule];
  }
  if (!best) return undefined;
  const add = (rule: PlannedRule, only: readonly string[], on: PageSet): PlannedRule => {
    const part = partOf(rule, only, on, rules.length);
    rules.push(part);
    return part;
  };
  const holders = PageSet.empty(pages);
  for (const rule of group) holders.addAll(rule.holders);
  const base = add(first, best.shared, holders);
  const { rests } = best;
  return {
    base,
    rest: new Map(
      group.map((rule, i) => [rule.number, rests[i]!.length === 0 ? undefined : add(rule, rests[i]!, rule.holders)]),
    ),
  };
}

interface Split {
  /** What goes to all, as the first says it. */
  readonly shared: readonly string[];
  /** What each says besides. */
  readonly rests: readonly (readonly string[])[];
  /** So many declarations and rules fewer. */
  readonly saves: number;
}

function splitOf(said: readonly Said[]): Split | undefined {
  const [first, ...others] = said;
  const shared = [...first!.keys()].filter((property) => others.every((other) => other.has(property)));
  const common = shared.filter((property) =>
    others.every((other) => other.get(property)!.text === first!.get(property)!.text),
  );
  if (common.length === 0) return undefined;
  const rests = said.map((own) =>
    [...own.keys()].filter(
      (property) => !shared.includes(property) || own.get(property)!.text !== first!.get(property)!.text,
    ),
  );
  const whole = said.reduce((sum, own) => sum + own.size, 0) + said.length;
  const parts = shared.length + 1 + rests.reduce((sum, rest) => sum + rest.length + (rest.length > 0 ? 1 : 0), 0);
  return { shared, rests, saves: whole - parts };
}

function partOf(rule: PlannedRule, only: readonly string[], holders: PageSet, number: number): PlannedRule {
  const declarations = rule.declarations.filter(({ declaration }) => only.includes(declaration.property));
  const { kind, label } = rule;
  return { ...rule, number, only, holders, declarations, traits: traitsOf({ key: '', kind, label, declarations }) };
}

/** What a rule says, property by property; undefined where one declaration may hang on another, or on what a browser knows. */
function saidBy(rule: PlannedRule): Said | undefined {
  if (rule.kind !== 'rule' || rule.opaque) return undefined;
  const out = new Map<string, { text: string; longhands: readonly string[] }>();
  const set = new Set<string>();
  for (const { declaration, longhands, comparable, validity, yields } of rule.declarations) {
    const { property, important } = declaration;
    if (validity !== 'valid' || yields || property === 'all' || longhands.length === 0 || out.has(property))
      return undefined;
    for (const longhand of longhands) {
      if (set.has(longhand) || physicalCounterparts(longhand).length > 0) return undefined;
      set.add(longhand);
    }
    out.set(property, { text: `${comparable}${important ? '!' : ''}`, longhands });
  }
  return out;
}
