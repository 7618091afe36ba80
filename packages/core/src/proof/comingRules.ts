import type { IndexedSelector } from '../cascade/ruleIndex.ts';
import type { PageCascade } from '../cascade/pageCascade.ts';
import type { ComplexSelector } from '../selectors/selector.ts';
import { neededNames } from '../survey/selectorNames.ts';

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
  return session
    .sharedIndex(rules, quirks)
    .all.filter(
      (one) =>
        one.pseudoElement === '' &&
        one.rule.compiled.block.declarations.some((c) => c.longhands.some((name) => longhands.has(name))) &&
        neededNames(one.selector).every((name) => names.has(name.replace(/^[.#]/, ''))) &&
        mayBecome(one.selector, tag.toLowerCase()),
    );
}

/** Whether an element of this type could match, given other classes, IDs or ancestors. */
const mayBecome = (selector: ComplexSelector, tag: string): boolean =>
  selector.compounds.at(-1)!.simples.every((simple) => simple.kind !== 'type' || simple.lower === tag) &&
  selector.compounds.some((compound) => compound.simples.some(({ kind }) => kind === 'class' || kind === 'id' || kind === 'attribute')); // prettier-ignore
