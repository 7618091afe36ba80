import { browserLexer as lexer } from './browserLexer.ts';

/** Names of Gecko and WebKit that no list of properties has, and what they say by the names ours knows. */
const unlisted: Readonly<Record<string, string>> = {
  'color-adjust': 'print-color-adjust',
  'mask-position-x': 'mask-position',
  'mask-position-y': 'mask-position',
  'perspective-origin-x': 'perspective-origin',
  'perspective-origin-y': 'perspective-origin',
  'supported-color-schemes': 'color-scheme',
  'transform-origin-x': 'transform-origin',
  'transform-origin-y': 'transform-origin',
  'transform-origin-z': 'transform-origin',
};

/**
 * The property of ours that another browser sets by one that ours does not know: itself where ours has none such, undefined where nobody
 * knows it. Another may know what has a vendor's prefix, what a standard or a list of browsers' own names has, and what they were asked.
 */
export function meantElsewhere(property: string): string | undefined {
  if (Object.hasOwn(unlisted, property)) return unlisted[property];
  if (property.startsWith('scroll-snap-margin')) return property.replace('-snap', '');
  const plain = property.replace(/^-[a-z]+-/, '');
  return plain !== property || lexer.getProperty(property) ? plain : undefined;
}
