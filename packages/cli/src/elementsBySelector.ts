import { elementPath, matchesSelectors, type ElementNode, type PageTree } from '@syndeton/core';

/** The elements a selector list reaches, or the one whose path it is; undefined when browsers refuse the selector. */
export function elementsBySelector({ elements, mode }: PageTree, selector: string): readonly ElementNode[] | undefined {
  const byPath = elements.filter((element) => elementPath(element) === selector);
  return byPath.length > 0 ? byPath : matchesSelectors(elements, selector, mode === 'quirks');
}
