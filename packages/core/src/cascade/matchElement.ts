import type { IndexedSelector, MatchedSelector } from './indexedSelector.ts';
import { attributeOf, type ElementNode } from '../page/nodes.ts';
import type { ForcedStates, MatchContext } from '../selectors/match.ts';
import { matchSelector } from '../selectors/matchSelector.ts';
import type { Answers, PagePlaces } from './ancestry.ts';
import { matchScoped, type ScopedMatch } from './matchScope.ts';
import { candidatesFor, canHavePseudoElement, compareStrength, ownKey, type RuleIndex } from './ruleIndex.ts';

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
export function matchAtRest(
  element: ElementNode,
  index: RuleIndex,
  forced?: ForcedStates,
  places?: PagePlaces,
): readonly MatchedSelector[] {
  const isThere = (one: MatchedSelector): boolean =>
    one.match === 2 && canHavePseudoElement(element, one.indexed.pseudoElement);
  const context: MatchContext = { quirks: index.quirks, state: 'rest', forced };
  return matchedOf(asked(element, index, { at: 'rest', context, counts: isThere, places }));
}

/**
 * The rules that reach an element (or one of its pseudo-elements), weakest first for normal declarations.
 * Of a rule's several matching selectors the strongest sure one stands, with stronger ones that depend on a state.
 */
export function matchElement(element: ElementNode, index: RuleIndex, places?: PagePlaces): readonly MatchedSelector[] {
  return matchedOf(asked(element, index, { at: 'any', context: index.anyState, counts: mayBe, places }));
}

/** The number of what matches, as `numberOf` gives it; it is asked only once for elements that the same matches. */
export function matchNumber(
  element: ElementNode,
  index: RuleIndex,
  places: PagePlaces,
  numberOf: (matched: readonly MatchedSelector[]) => number,
): number {
  const found = asked(element, index, { at: 'any', context: index.anyState, counts: mayBe, places });
  const { answers, key } = found;
  let number = answers.numbers.get(key);
  if (number === undefined) answers.numbers.set(key, (number = numberOf(matchedOf(found))));
  return number;
}

const mayBe = ({ match }: MatchedSelector): boolean => match > 0;

/** What is told of elements like this one, and what of the rest matches it. */
interface Found {
  readonly answers: Answers;
  readonly open: readonly MatchedSelector[];
  /** Equal where the same of the rest does. */
  readonly key: string;
}

interface Asked {
  readonly at: 'any' | 'rest';
  readonly context: MatchContext;
  readonly counts: (one: MatchedSelector) => boolean;
  readonly places: PagePlaces | undefined;
}

function asked(element: ElementNode, index: RuleIndex, how: Asked): Found {
  const place = index.ancestry.placeOf(element, how.places);
  const names = ownKey(element, index);
  let answers = place[how.at].get(names);
  if (!answers) {
    const { told, open } = candidatesFor(element, place, index);
    answers = { sure: matching(element, told, how), open, matched: new Map(), numbers: new Map() };
    place[how.at].set(names, answers);
  }
  const open = answers.open.length === 0 ? nothing : matching(element, answers.open, how);
  let key = '';
  for (const { indexed, match, proximity } of open) key += `${indexed.position} ${match} ${proximity},`;
  return { answers, open, key };
}

function matching(
  element: ElementNode,
  list: readonly IndexedSelector[],
  { context, counts }: Asked,
): readonly MatchedSelector[] {
  const out: MatchedSelector[] = [];
  for (const indexed of list) {
    const { match, proximity } = matchOne(element, indexed, context);
    const one = { indexed, match, proximity };
    if (match > 0 && counts(one)) out.push(one);
  }
  return out;
}

const nothing: readonly MatchedSelector[] = [];

function matchedOf({ answers, open, key }: Found): readonly MatchedSelector[] {
  let all = answers.matched.get(key);
  if (!all) {
    const both = [...answers.sure, ...open];
    sortByStrength(both);
    all = both.length > 1 ? withoutWeakerCopies(both) : both;
    answers.matched.set(key, all);
  }
  return all;
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
