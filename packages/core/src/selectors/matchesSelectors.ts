import type { ElementNode } from '../page/nodes.ts';
import { matchList } from './matchSelector.ts';
import { parseSelectorList } from './parseSelector.ts';

/** The elements a selector list reaches in some state or always; undefined when browsers refuse the selector. */
export function matchesSelectors(
  elements: readonly ElementNode[],
  selectors: string,
  quirks = false,
): readonly ElementNode[] | undefined {
  const list = parseSelectorList(selectors);
  return list && elements.filter((element) => matchList(element, list, { quirks, state: 'any' }) > 0);
}
