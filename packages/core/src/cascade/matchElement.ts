import type { IndexedSelector, MatchedSelector } from './indexedSelector.ts';
import { attributeOf, type ElementNode } from '../page/nodes.ts';
import type { ForcedStates, MatchContext } from '../selectors/match.ts';
import { matchSelector } from '../selectors/matchSelector.ts';
import type { Place } from './ancestry.ts';
import { matchScoped, type ScopedMatch } from './matchScope.ts';
import { candidatesFor, canHavePseudoElement, compareStrength, ownKey, type RuleIndex } from './ruleIndex.ts';

const candidates: IndexedSelector[] = [];

const matchOne = (element: ElementNode, indexed: IndexedSelector, context: MatchContext): ScopedMatch =>
  indexed.scopes.length === 0
    ? { match: matchSelector(element, indexed.selector, context), proximity: Infinity }
    : matchScoped(element, indexed.selector, indexed.scopes, indexed.owner, context);

/** Weakest first. CSS Cascading and Inheritance Level 6, "Cascade Sorting Order": a nearer scoping root is stronger. */
export function sortByStrength(matched: Pick<MatchedSelector, 'indexed' | 'proximity'>[]): void {
  if (matched.every((m) => m.proximity === Infinity)) matched.sort((a, b) => a.indexed.position - b.indexed.position);
  else
    matched.sort(
      (a, b) =>
        compareStrength(a.indexed, b.indexed) ||
        (a.proximity === b.proximity ? a.indexed.order - b.indexed.order : b.proximity - a.proximity),
    );
}

/**
 * The rules that apply to an element or its pseudo-elements in one state, weakest first; of a rule's selectors the strongest
 * that matches. With `forced`, those states are held on; else nothing is hovered, focused or visited.
 */
export function matchAtRest(element: ElementNode, index: RuleIndex, forced?: ForcedStates): readonly MatchedSelector[] {
  const place = index.ancestry.placeOf(element);
  // a selector that names tell asks for no state
  const key = ownKey(element, index);
  const known = place.atRest.get(key);
  if (known) return known;
  const told = candidatesFor(element, place, index, candidates);
  const context: MatchContext = { quirks: index.quirks, state: 'rest', forced };
  const matched: MatchedSelector[] = [];
  for (const indexed of candidates) {
    const found = matchOne(element, indexed, context);
    if (found.match === 2 && canHavePseudoElement(element, indexed.pseudoElement)) matched.push({ indexed, ...found });
  }
  const out = settled(matched);
  if (told) place.atRest.set(key, out);
  return out;
}

/**
 * The rules that reach an element (or one of its pseudo-elements), weakest first for normal declarations.
 * Of a rule's several matching selectors the strongest sure one stands, with stronger ones that depend on a state.
 */
export function matchElement(element: ElementNode, index: RuleIndex): readonly MatchedSelector[] {
  return matchIn(index.ancestry.placeOf(element), element, index).matched;
}

/** The number of what matches, as `numberOf` gives it; it is asked only once for elements that place and names tell. */
export function matchNumber(
  element: ElementNode,
  index: RuleIndex,
  numberOf: (matched: readonly MatchedSelector[]) => number,
): number {
  const place = index.ancestry.placeOf(element);
  const key = ownKey(element, index);
  const known = place.numbers.get(key);
  if (known !== undefined) return known;
  const { matched, told } = matchIn(place, element, index);
  const number = numberOf(matched);
  if (told) place.numbers.set(key, number);
  return number;
}

function matchIn(
  place: Place,
  element: ElementNode,
  index: RuleIndex,
): { readonly matched: readonly MatchedSelector[]; readonly told: boolean } {
  const told = candidatesFor(element, place, index, candidates);
  const matched: MatchedSelector[] = [];
  for (const indexed of candidates) {
    const found = matchOne(element, indexed, index.anyState);
    if (found.match > 0) matched.push({ indexed, ...found });
  }
  return { matched: settled(matched), told };
}

function settled(matched: MatchedSelector[]): readonly MatchedSelector[] {
  sortByStrength(matched);
  return matched.length > 1 ? withoutWeakerCopies(matched) : matched;
}

function withoutWeakerCopies(matched: MatchedSelector[]): MatchedSelector[] {
  let copies = false;
  for (const { indexed } of matched) if (indexed.rule.compiled.selectors.length > 1) copies = true;
  if (!copies) return matched;
  const settled = new Set<string>();
  const ruleNumbers = new Map<unknown, number>();
  const out: MatchedSelector[] = [];
  for (let i = matched.length - 1; i >= 0; i--) {
    const one = matched[i]!;
    const { rule, pseudoElement } = one.indexed;
    let number = ruleNumbers.get(rule);
    if (number === undefined) ruleNumbers.set(rule, (number = ruleNumbers.size));
    const key = `${number} ${pseudoElement}`;
    if (settled.has(key)) continue;
    if (one.match === 2) settled.add(key);
    out.push(one);
  }
  return out.reverse();
}

/** What an element's style attribute declares; undefined where it has none that counts. */
export const styleAttributeOf = (element: ElementNode): string | undefined =>
  element.styleIgnored ? undefined : attributeOf(element, 'style');
