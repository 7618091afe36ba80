import { lowered } from '../source/asciiCase.ts';
import type { ElementNode } from './nodes.ts';
import type { PageTree } from './parsePage.ts';

/**
 * Elements that only style what is in them, with the one without a meaning of its own that browsers show alike.
 *
 * HTML Standard, "Non-conforming features", and "Rendering", "Flow content" and "Phrasing content".
 */
const plain: ReadonlyMap<string, string> = new Map([
  ['center', 'div'],
  ['font', 'span'],
]);

export const plainElementFor = ({ tag, namespace }: ElementNode): string | undefined =>
  namespace === 'html' ? plain.get(tag) : undefined;

/**
 * Whether an element's tags can get another name and nothing else of the tree changes: both are written, all that stands between
 * them is in it, and the parser opened it no second time (HTML Standard, "Reconstruct the active formatting elements").
 */
export function hasOwnTags(element: ElementNode, { elements, text }: PageTree): boolean {
  const { tag, start, startTagEnd, endTagStart, end } = element;
  if (start < 0 || endTagStart < 0 || lowered(text.slice(endTagStart + 2, endTagStart + 2 + tag.length)) !== tag)
    return false;
  return elements.every((other) => {
    if (other === element || other.start < start || other.start >= end) return true;
    return other.start >= startTagEnd && other.end <= endTagStart && isInside(other, element);
  });
}

function isInside(element: ElementNode, outer: ElementNode): boolean {
  for (let at = element.parent; at?.type === 'element'; at = at.parent) if (at === outer) return true;
  return false;
}
