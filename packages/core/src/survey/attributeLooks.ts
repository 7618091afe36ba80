import { attributeOf, type ElementNode } from '../page/nodes.ts';
import { parseDeclarations } from '../sheet/parseSheet.ts';
import type { Declaration } from '../sheet/sheet.ts';

/** What a style attribute says, whatever the order and the white space it is written in. */
export interface AttributeLook {
  readonly tag: string;
  readonly declarations: readonly Declaration[];
  /** Equal for attributes that say the same by their texts. */
  readonly key: string;
}

/** Undefined where an element has no such attribute, or says a property twice. */
export function attributeLook(element: ElementNode): AttributeLook | undefined {
  const value = attributeOf(element, 'style');
  const declarations = value === undefined ? [] : parseDeclarations(value);
  if (declarations.length === 0 || new Set(declarations.map((d) => d.property)).size < declarations.length)
    return undefined;
  return { tag: element.tag, declarations, key: lookKey(declarations) };
}

export const lookKey = (declarations: readonly Pick<Declaration, 'property' | 'value' | 'important'>[]): string =>
  declarations
    .map(({ property, value, important }) => `${property}: ${value}${important ? ' !important' : ''}`)
    .sort()
    .join('; ');
