import { attributeOf, type ElementNode } from '../page/nodes.ts';

/**
 * The declarations that an element's presentational attributes stand for, as CSS text; the common ones, see the list.
 *
 * HTML Standard, "Rendering": "Phrasing content", "Tables", "Aligning descendants", "The page".
 */
export function hintDeclarations(element: ElementNode): readonly string[] {
  if (element.namespace !== 'html') return [];
  const out: string[] = [];
  for (const { name } of element.attributes) {
    const value = attributeOf(element, name)!.trim();
    const text = hint(element.tag, name, value);
    if (text !== undefined) out.push(text);
  }
  return out;
}

const cells = /^(td|th)$/;
const tableParts = /^(table|thead|tbody|tfoot|tr|td|th)$/;

function hint(tag: string, name: string, value: string): string | undefined {
  switch (name) {
    case 'bgcolor':
      return tableParts.test(tag) || tag === 'body' ? `background-color: ${value}` : undefined;
    case 'color':
      return tag === 'font' ? `color: ${value}` : undefined;
    case 'text':
      return tag === 'body' ? `color: ${value}` : undefined;
    case 'face':
      return tag === 'font' ? `font-family: ${value}` : undefined;
    case 'valign':
      return tableParts.test(tag) ? `vertical-align: ${value.toLowerCase()}` : undefined;
    case 'nowrap':
      return cells.test(tag) ? 'white-space: nowrap' : undefined;
    case 'width':
    case 'height':
      return cells.test(tag) || tag === 'table' ? `${name}: ${lengthOf(value)}` : undefined;
    case 'align':
      return /^(p|div|h[1-6]|td|th|tr)$/.test(tag) ? `text-align: ${alignOf(tag, value.toLowerCase())}` : undefined;
    default:
      return undefined;
  }
}

const lengthOf = (value: string): string => (/^\d+$/.test(value) ? `${value}px` : value);

const alignOf = (tag: string, value: string): string =>
  tag === 'div' || tag === 'p' || cells.test(tag) || tag === 'tr'
    ? value === 'justify'
      ? value
      : `-webkit-${value}`
    : value;
