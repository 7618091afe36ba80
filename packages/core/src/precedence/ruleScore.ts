import type { Contender } from '../cascade/contenders.ts';
import { decidingCriterion, type Criterion } from '../cascade/decidingCriterion.ts';
import type { Environment } from '../cascade/environment.ts';
import { compareSpecificity, printSpecificity } from '../selectors/selector.ts';
import { longhandsForAll } from '../values/longhands.ts';
import type { KeptOutcomes } from './keptOutcomes.ts';
import type { Kind } from './kindTable.ts';
import { placesOf, type Places } from './kindPlaces.ts';

/** One declaration of a rule over all pages: elements on which it decides something, and those on which something else beats it. */
export interface DeclarationScore {
  /** Where it starts in the sheet. */
  readonly start: number;
  readonly property: string;
  readonly value: string;
  readonly wins: number;
  readonly loses: number;
  /** Pages where its rule applies, in page order. */
  readonly pages: readonly { readonly path: string; readonly wins: number; readonly loses: number }[];
}

/** Who beats declarations of the rule, and where. */
export interface Beater {
  readonly kind: 'linked' | 'imported' | 'embedded' | 'attribute';
  /** The sheet; undefined for what stands in pages. */
  readonly sheet: string | undefined;
  /** Where its rule starts in the sheet. */
  readonly start: number | undefined;
  /** As written; empty for style attributes. */
  readonly selector: string;
  readonly specificity: string | undefined;
  readonly why: Criterion['kind'];
  readonly properties: readonly string[];
  /** What it says of the first of these. */
  readonly value: string;
  readonly elements: number;
  readonly pages: readonly string[];
}

export interface RuleScore {
  /** Of its strongest selector that reaches something. */
  readonly specificity: string | undefined;
  readonly declarations: readonly DeclarationScore[];
  readonly beaters: readonly Beater[];
}

/** A rule of a sheet, by where its selector starts. */
interface RulePlace {
  readonly path: string;
  readonly start: number;
}

interface Told {
  readonly contender: Contender;
  readonly won: Set<Kind>;
  readonly lost: Set<Kind>;
}

interface GrowingBeater {
  readonly winner: Contender;
  readonly why: Criterion['kind'];
  readonly properties: Set<string>;
  readonly kinds: Set<Kind>;
}

/**
 * What a rule of a sheet wins and loses on all pages in one environment, at rest. Only declarations browsers keep are there; a
 * shorthand wins where one of its longhands does.
 */
export function ruleScore(kept: KeptOutcomes, environment: Environment, rule: RulePlace): RuleScore {
  const outcomes = kept.in(environment);
  const places = placesOf(kept, () => true);
  const told = new Map<number, Told>();
  const beaters = new Map<string, GrowingBeater>();
  let strongest: Contender | undefined;
  for (const kind of places.keys())
    for (const name of kind.contenders.keys()) {
      const contenders = outcomes.contendersOf(kind, name);
      for (const one of contenders) {
        if (!isOf(one, rule)) continue;
        if (!strongest || compareSpecificity(one.specificity, strongest.specificity) > 0) strongest = one;
        tell(one, contenders, kind, told, beaters);
      }
    }
  return {
    specificity: strongest && printSpecificity(strongest.specificity),
    declarations: [...told.values()].map((one) => scoreOf(one, places)).sort((a, b) => a.start - b.start),
    beaters: [...beaters.values()].map((one) => beaterOf(one, places)).sort((a, b) => b.elements - a.elements),
  };
}

const isOf = ({ source, rule }: Contender, { path, start }: RulePlace): boolean =>
  source !== undefined && source.kind !== 'embedded' && source.path === path && rule!.rule.span.start === start;

const says = ({ compiled }: Contender, longhand: string): boolean =>
  compiled.longhands.includes(longhand) ||
  (compiled.declaration.property === 'all' && longhandsForAll.includes(longhand));

function tell(
  one: Contender,
  contenders: readonly Contender[],
  kind: Kind,
  told: Map<number, Told>,
  beaters: Map<string, GrowingBeater>,
): void {
  const { declaration, longhands } = one.compiled;
  const { start } = declaration.span;
  let known = told.get(start);
  if (!known) told.set(start, (known = { contender: one, won: new Set(), lost: new Set() }));
  const above = contenders.slice(0, contenders.indexOf(one));
  const slots = declaration.property === 'all' ? longhandsForAll : longhands;
  const winners = slots.map((slot) => above.find((other) => says(other, slot)));
  if (winners.includes(undefined)) {
    known.won.add(kind);
    known.lost.delete(kind);
    return;
  }
  if (!known.won.has(kind)) known.lost.add(kind);
  const winner = winners[0];
  if (!winner || isSameRule(winner, one)) return;
  const { kind: why } = decidingCriterion(winner, one);
  const { source, rule, selector = '' } = winner;
  const where =
    source === undefined
      ? winner.origin
      : source.kind === 'embedded'
        ? 'embedded'
        : `${source.path} ${rule!.rule.span.start}`;
  const key = `${where} ${selector} ${why}`;
  let growing = beaters.get(key);
  if (!growing) beaters.set(key, (growing = { winner, why, properties: new Set(), kinds: new Set() }));
  growing.properties.add(declaration.property);
  growing.kinds.add(kind);
}

const isSameRule = (a: Contender, b: Contender): boolean =>
  a.rule === b.rule && a.source?.kind === b.source?.kind && a.source?.path === b.source?.path;

function scoreOf({ contender, won, lost }: Told, places: Places): DeclarationScore {
  const { property, value, important, span } = contender.compiled.declaration;
  const pages = new Map<string, { wins: number; loses: number }>();
  const add = (kinds: ReadonlySet<Kind>, what: 'wins' | 'loses'): number => {
    let sum = 0;
    for (const kind of kinds)
      for (const [path, n] of places.get(kind)!.pages) {
        let page = pages.get(path);
        if (!page) pages.set(path, (page = { wins: 0, loses: 0 }));
        page[what] += n;
        sum += n;
      }
    return sum;
  };
  const wins = add(won, 'wins');
  const loses = add(lost, 'loses');
  const byPath = [...pages].map(([path, counts]) => ({ path, ...counts })).sort((a, b) => (a.path < b.path ? -1 : 1));
  return { start: span.start, property, value: important ? `${value} !important` : value, wins, loses, pages: byPath };
}

function beaterOf({ winner, why, properties, kinds }: GrowingBeater, places: Places): Beater {
  const { source, rule, origin } = winner;
  const pages = new Set<string>();
  let elements = 0;
  for (const kind of kinds)
    for (const [path, n] of places.get(kind)!.pages) {
      pages.add(path);
      elements += n;
    }
  const inSheet = source !== undefined && source.kind !== 'embedded';
  return {
    kind: source?.kind ?? (origin === 'rule' ? 'embedded' : 'attribute'),
    sheet: inSheet ? source.path : undefined,
    start: inSheet ? rule!.rule.span.start : undefined,
    selector: rule?.rule.selector ?? '',
    specificity: rule ? printSpecificity(winner.specificity) : undefined,
    why,
    properties: [...properties],
    value: winner.compiled.declaration.value,
    elements,
    pages: [...pages].sort(),
  };
}
