import type { ElementNode } from '../page/nodes.ts';
import { longhandsForAll } from '../values/longhands.ts';
import { flowOf, slotOf, type Flow } from '../values/logicalSlot.ts';
import { applyingContenders, contendersFor, type Contender, type View } from './contenders.ts';
import type { Environment } from './environment.ts';
import type { PageCascade } from './pageCascade.ts';

/** The declaration that decides a longhand of an element or of one of its pseudo-elements ('' for the element). */
export interface Winner {
  readonly pseudoElement: string;
  readonly longhand: string;
  readonly contender: Contender;
}

/** The declaration that decides a longhand, or undefined when no author declaration does. */
export function winnerFor(
  page: PageCascade,
  element: ElementNode,
  longhand: string,
  environment: Environment,
  pseudoElement = '',
): Contender | undefined {
  return contendersFor(page, element, longhand, environment, pseudoElement).find((c) => c.applies);
}

/**
 * The winner of every longhand that a declaration in play sets, custom properties included, the element's own first. A
 * flow-relative longhand and the physical one it lands on share one winner.
 */
export function winnersOf(page: PageCascade, element: ElementNode, view: View, flow: Flow): readonly Winner[] {
  const pseudoElements = new Set(['']);
  for (const { indexed } of page.matchedAtRest(element, view.forced)) pseudoElements.add(indexed.pseudoElement);
  return [...pseudoElements].flatMap((pseudoElement) => {
    const contenders = applyingContenders(page, element, view, pseudoElement);
    return [...winnersAmong(contenders, flow)].map(([longhand, contender]) => ({ pseudoElement, longhand, contender }));
  });
}

/** `contenders` strongest first. */
export function winnersAmong(contenders: readonly Contender[], flow: Flow): ReadonlyMap<string, Contender> {
  const slots = new Map<string, Contender>();
  const names: string[] = [];
  for (const contender of contenders) {
    const { property } = contender.compiled.declaration;
    for (const longhand of property === 'all' ? longhandsForAll : contender.compiled.longhands) {
      names.push(longhand);
      const slot = slotOf(longhand, flow);
      if (!slots.has(slot)) slots.set(slot, contender);
    }
  }
  return new Map(names.map((name) => [name, slots.get(slotOf(name, flow))!]));
}

export const plainFlow = flowOf('horizontal-tb', 'ltr');
