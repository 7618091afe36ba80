import { attributeOf, type ElementNode } from '../page/nodes.ts';
import type { Match } from '../selectors/match.ts';
import { matchSelector } from '../selectors/matchSelector.ts';
import { candidatesFor, type IndexedSelector, type RuleIndex } from './ruleIndex.ts';

/** A rule that reaches an element through one of its selectors; `match` is 1 when only in some states. */
export interface MatchedSelector {
  readonly indexed: IndexedSelector;
  readonly match: Match;
}

const candidates: IndexedSelector[] = [];

/**
 * The rules that reach an element (or one of its pseudo-elements), weakest first for normal declarations.
 * Of a rule's several matching selectors the strongest sure one stands, with stronger ones that depend on a state.
 */
export function matchElement(element: ElementNode, index: RuleIndex): MatchedSelector[] {
  candidatesFor(element, index, candidates);
  const matched: MatchedSelector[] = [];
  for (const indexed of candidates) {
    const match = matchSelector(element, indexed.selector, { quirks: index.quirks, state: 'any' });
    if (match > 0) matched.push({ indexed, match });
  }
  matched.sort((a, b) => a.indexed.position - b.indexed.position);
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

export const styleAttributeOf = (element: ElementNode): string | undefined => attributeOf(element, 'style');
