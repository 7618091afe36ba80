import { lowered } from '../source/asciiCase.ts';
import type { IndexedSelector } from '../cascade/indexedSelector.ts';
import type { RuleIndex } from '../cascade/ruleIndex.ts';
import type { PageCascade } from '../cascade/pageCascade.ts';
import type { ComplexSelector } from '../selectors/selector.ts';
import { neededNames } from '../survey/selectorNames.ts';

/** A rule that could reach elements of a type, and the names that must be somewhere for it. */
interface Coming {
  readonly indexed: IndexedSelector;
  readonly needed: readonly string[];
}

/** Of an index, by type and longhands. */
const known = new WeakMap<RuleIndex, Map<string, readonly Coming[]>>();

/**
 * Rules that set one of these longhands and could come to reach an element of this type if a script gave it, or what is around it,
 * one of these names; those that reach it already among them. Weakest first.
 */
export function comingRules(
  { session, rules, quirks }: PageCascade,
  tag: string,
  longhands: ReadonlySet<string>,
  names: ReadonlySet<string>,
): readonly IndexedSelector[] {
  const index = session.sharedIndex(rules, quirks);
  let ofIndex = known.get(index);
  if (!ofIndex) known.set(index, (ofIndex = new Map<string, readonly Coming[]>()));
  const key = `${tag} ${[...longhands].sort().join()}`;
  let coming = ofIndex.get(key);
  if (!coming) ofIndex.set(key, (coming = find(index, tag, longhands)));
  return coming.filter(({ needed }) => needed.every((name) => names.has(name))).map(({ indexed }) => indexed);
}

const find = (index: RuleIndex, tag: string, longhands: ReadonlySet<string>): readonly Coming[] =>
  index.all
    .filter(
      (one) =>
        one.pseudoElement === '' &&
        one.rule.compiled.block.declarations.some((c) => c.longhands.some((name) => longhands.has(name))) &&
        mayBecome(one.selector, lowered(tag)),
    )
    .map((indexed) => ({ indexed, needed: neededNames(indexed.selector).map((name) => name.replace(/^[.#]/, '')) }));

/** Whether an element of this type could match, given other classes, IDs or ancestors. */
const mayBecome = (selector: ComplexSelector, tag: string): boolean =>
  selector.compounds.at(-1)!.simples.every((simple) => simple.kind !== 'type' || simple.lower === tag) &&
  selector.compounds.some((compound) =>
    compound.simples.some(({ kind }) => kind === 'class' || kind === 'id' || kind === 'attribute'),
  );
