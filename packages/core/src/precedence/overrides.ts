import { conditionKey } from '../cascade/compiledRule.ts';
import type { Contender } from '../cascade/contenders.ts';
import { decidingCriterion } from '../cascade/decidingCriterion.ts';
import type { Environment } from '../cascade/environment.ts';
import { printSpecificity } from '../selectors/selector.ts';
import { longhandsForAll } from '../values/longhands.ts';
import type { KeptOutcomes } from './keptOutcomes.ts';
import type { Kind } from './kindTable.ts';
import { countOf, placesOf, type Places } from './kindPlaces.ts';

/** Why a local declaration beats a shared one; copies change nothing when dropped. */
export type OverrideCause = 'copy' | 'order' | 'specificity' | 'attribute' | 'importance' | 'layer' | 'proximity';

/** The causes, harmless first. */
const overrideCauses: readonly OverrideCause[] = [
  'copy',
  'order',
  'specificity',
  'attribute',
  'importance',
  'layer',
  'proximity',
];

export interface SharedRule {
  readonly path: string;
  readonly selector: string;
  /** Of its selectors, the one that reaches the elements. */
  readonly part: string;
  readonly specificity: string;
  readonly property: string;
  readonly value: string;
}

/** A declaration in pages that beats one of a shared sheet. */
export interface Override {
  /** No two overrides of a site share it. */
  readonly id: string;
  readonly cause: OverrideCause;
  readonly kind: 'embedded' | 'attribute';
  /** The rule's selectors as written; the elements' types for a style attribute. */
  readonly selector: string;
  readonly specificity: string | undefined;
  readonly property: string;
  readonly value: string;
  readonly important: boolean;
  readonly beats: SharedRule;
  /** What counts where it is dropped, the most frequent first. */
  readonly then: readonly { readonly value: string; readonly source: string; readonly elements: number }[];
  readonly pages: readonly string[];
  readonly elements: number;
  /** Elements that change when it is dropped. */
  readonly changes: number;
  readonly first: { readonly page: string; readonly index: number };
}

/** A declaration of a shared sheet that reaches elements and never wins: another sheet always beats it. */
export interface AlwaysBeaten extends SharedRule {
  readonly by: readonly { readonly path: string; readonly selector: string; readonly value: string }[];
  readonly elements: number;
}

export interface Overrides {
  readonly overrides: readonly Override[];
  readonly alwaysBeaten: readonly AlwaysBeaten[];
}

interface Growing {
  readonly local: Contender;
  readonly beats: Map<string, { readonly rule: Contender; times: number }>;
  readonly then: Map<string, { readonly value: string; readonly source: string; kinds: Kind[] }>;
  readonly tags: Set<string>;
  readonly kinds: Set<Kind>;
  readonly changing: Set<Kind>;
}

interface Told {
  readonly shared: Contender;
  readonly by: Map<string, Contender>;
  readonly kinds: Set<Kind>;
  /** Where it wins. */
  readonly winning: Set<Kind>;
}

/** All declarations in pages that beat shared ones, and shared ones that never win; in one environment. */
export function findOverrides(kept: KeptOutcomes, environment: Environment, pages?: readonly string[]): Overrides {
  const outcomes = kept.in(environment);
  const wanted = pages && new Set(pages);
  const places = placesOf(kept, (page) => !wanted || wanted.has(page.path));
  const overrides = new Map<string, Growing>();
  const told = new Map<string, Told>();
  for (const kind of places.keys())
    for (const pseudoElement of kind.contenders.keys())
      lookAt(kind, outcomes.contendersOf(kind, pseudoElement), kind.contenders.get(pseudoElement)!, overrides, told);
  const all = [...overrides].map(([id, growing]) => overrideOf(id, growing, places));
  all.sort(
    (a, b) =>
      overrideCauses.indexOf(a.cause) - overrideCauses.indexOf(b.cause) ||
      b.pages.length - a.pages.length ||
      b.elements - a.elements,
  );
  return { overrides: all, alwaysBeaten: beatenOf(told, places) };
}

const isLocal = ({ origin, source }: Contender): boolean => origin === 'attribute' || source?.kind === 'embedded';
const isShared = ({ origin, source }: Contender): boolean => origin === 'rule' && source!.kind !== 'embedded';

function lookAt(
  kind: Kind,
  contenders: readonly Contender[],
  everywhere: readonly Contender[],
  overrides: Map<string, Growing>,
  told: Map<string, Told>,
): void {
  const slots = new Map<string, Contender[]>();
  for (const one of contenders) {
    if (one.origin === 'hint') continue;
    const { property } = one.compiled.declaration;
    for (const name of property === 'all' ? longhandsForAll : one.compiled.longhands) {
      const list = slots.get(name);
      if (list) list.push(one);
      else slots.set(name, [one]);
    }
  }
  for (const [slot, list] of slots) {
    const winner = list[0]!;
    for (const [i, one] of list.entries()) if (isShared(one)) tell(one, i === 0, winner, kind, told);
    if (!isLocal(winner)) continue;
    const beaten = list.find(isShared);
    if (beaten) grow(winner, beaten, list[1]!, isNextEverywhere(winner, list[1]!, slot, everywhere), kind, overrides);
  }
}

/** Whether, wherever the winner counts, that one comes next: also in another medium and at another width. */
function isNextEverywhere(winner: Contender, next: Contender, slot: string, all: readonly Contender[]): boolean {
  const below = all.slice(all.indexOf(winner) + 1);
  const first = below.find(
    (one) => one.compiled.longhands.includes(slot) || one.compiled.declaration.property === 'all',
  );
  return (
    first === next &&
    (next.conditions.length === 0 || conditionKey(next.conditions) === conditionKey(winner.conditions))
  );
}

function grow(
  winner: Contender,
  beaten: Contender,
  next: Contender,
  everywhere: boolean,
  kind: Kind,
  overrides: Map<string, Growing>,
): void {
  const id = localKey(winner);
  let growing = overrides.get(id);
  if (!growing) {
    growing = {
      local: winner,
      beats: new Map(),
      then: new Map(),
      tags: new Set(),
      kinds: new Set(),
      changing: new Set(),
    };
    overrides.set(id, growing);
  }
  growing.tags.add(kind.tag);
  growing.kinds.add(kind);
  const key = sharedKey(beaten);
  const known = growing.beats.get(key);
  if (known) known.times++;
  else growing.beats.set(key, { rule: beaten, times: 1 });
  if (!everywhere || next.compiled.comparable !== winner.compiled.comparable) growing.changing.add(kind);
  const value = next.compiled.declaration.value;
  const source = next.source && next.source.kind !== 'embedded' ? next.source.path : 'the page';
  const then = growing.then.get(`${value} ${source}`);
  if (then) then.kinds.push(kind);
  else growing.then.set(`${value} ${source}`, { value, source, kinds: [kind] });
}

function tell(shared: Contender, won: boolean, winner: Contender, kind: Kind, told: Map<string, Told>): void {
  const key = sharedKey(shared);
  let known = told.get(key);
  if (!known) told.set(key, (known = { shared, by: new Map(), kinds: new Set(), winning: new Set() }));
  known.kinds.add(kind);
  if (won) known.winning.add(kind);
  else known.by.set(isShared(winner) ? sharedKey(winner) : localKey(winner), winner);
}

function localKey({ origin, rule, compiled }: Contender): string {
  const { property, value, important } = compiled.declaration;
  const where = origin === 'attribute' ? 'style' : rule!.rule.selector;
  return `${origin} ${where} ${property}: ${value}${important ? ' !important' : ''}`;
}

const sharedKey = ({ source, rule, compiled, conditions }: Contender): string =>
  `${source!.path} ${rule!.rule.span.start} ${conditions.length} ${compiled.declaration.span.start}`;

function sharedRule({ source, rule, selector, specificity, compiled }: Contender): SharedRule {
  const { property, value } = compiled.declaration;
  return {
    path: source!.path,
    selector: rule!.rule.selector,
    part: selector!,
    specificity: printSpecificity(specificity),
    property,
    value,
  };
}

function overrideOf(id: string, growing: Growing, places: Places): Override {
  const { local, tags, kinds, changing } = growing;
  const main = [...growing.beats.values()].sort((a, b) => b.times - a.times)[0]!.rule;
  const { property, value, important } = local.compiled.declaration;
  const criterion = decidingCriterion(local, main).kind;
  const cause: OverrideCause = changing.size === 0 ? 'copy' : criterion === 'hint' ? 'order' : criterion;
  const pages = new Map<string, number>();
  for (const kind of kinds)
    for (const [page, n] of places.get(kind)!.pages) pages.set(page, (pages.get(page) ?? 0) + n);
  const then = [...growing.then.values()].map(({ value: after, source, kinds: which }) => ({
    value: after,
    source,
    elements: countOf(new Set(which), places),
  }));
  return {
    id,
    cause,
    kind: local.origin === 'attribute' ? 'attribute' : 'embedded',
    selector: local.rule?.rule.selector ?? [...tags].join(', '),
    specificity: local.rule ? printSpecificity(local.specificity) : undefined,
    property,
    value,
    important,
    beats: sharedRule(main),
    then: then.sort((a, b) => b.elements - a.elements),
    pages: [...pages.keys()].sort((a, b) => (a < b ? -1 : 1)),
    elements: countOf(kinds, places),
    changes: countOf(changing, places),
    first: places.get([...kinds][0]!)!.first,
  };
}

function beatenOf(told: ReadonlyMap<string, Told>, places: Places): readonly AlwaysBeaten[] {
  return [...told.values()]
    .filter(
      ({ winning, by, shared }) =>
        winning.size === 0 &&
        [...by.values()].every((one) => isShared(one) && one.source!.path !== shared.source!.path),
    )
    .map(({ shared, by, kinds }) => ({
      ...sharedRule(shared),
      by: [...by.values()].map((one) => {
        const { path, selector, value } = sharedRule(one);
        return { path, selector, value };
      }),
      elements: countOf(kinds, places),
    }));
}
