import makeBidi from 'bidi-js';
import { attributeOf, type ElementNode } from './nodes.ts';

/**
 * The direction that an element's content decides: `dir=auto`, and `bdi` without `dir`. Undefined elsewhere.
 *
 * HTML Standard, "The dir attribute": the first strong character, outside elements with a direction of their own.
 */
export function autoDirection(element: ElementNode): 'ltr' | 'rtl' | undefined {
  if (element.namespace !== 'html') return undefined;
  const dir = attributeOf(element, 'dir')?.toLowerCase();
  const explicit = dir === 'ltr' || dir === 'rtl';
  if (dir !== 'auto' && !(element.tag === 'bdi' && !explicit)) return undefined;
  if (element.tag === 'input') return strongest(attributeOf(element, 'value') ?? '') ?? 'ltr';
  return contained(element) ?? 'ltr';
}

let characters: ReturnType<typeof makeBidi> | undefined;

/** Unicode Standard Annex 9, rules P2 and P3: that of the first strong character. */
function strongest(text: string): 'ltr' | 'rtl' | undefined {
  characters ??= makeBidi();
  for (const char of text) {
    const type = characters.getBidiCharTypeName(char);
    if (type === 'L') return 'ltr';
    if (type === 'R' || type === 'AL') return 'rtl';
  }
  return undefined;
}

function contained(element: ElementNode): 'ltr' | 'rtl' | undefined {
  for (const child of element.children) {
    if (child.type === 'text') {
      const found = strongest(child.value);
      if (found) return found;
    } else if (child.type === 'element' && !ownDirection(child)) {
      const found = contained(child);
      if (found) return found;
    }
  }
  return undefined;
}

const ownDirection = (element: ElementNode): boolean =>
  /^(bdi|script|style|textarea|input)$/.test(element.tag) || attributeOf(element, 'dir') !== undefined;
