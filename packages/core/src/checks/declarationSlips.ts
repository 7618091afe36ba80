import type { Declaration } from '../sheet/sheet.ts';
import type { Span } from '../source/span.ts';
import { declarationValidity } from '../values/declarationValidity.ts';
import { propertyKind } from '../values/longhands.ts';
import { nearestKeyword, nearestProperty } from './nearest.ts';

/** A declaration that browsers drop, with the word that is wrong and the one that was probably meant. */
export interface DeclarationSlip {
  readonly declaration: Declaration;
  readonly kind: 'unknown-property' | 'invalid-value';
  readonly span: Span;
  readonly nearest: () => string | undefined;
}

/** The declarations of one rule that browsers drop, and no other of it makes up for. Those meant for old browsers are no slips. */
export function declarationSlips(list: readonly Declaration[], inQuirks: boolean): readonly DeclarationSlip[] {
  const out: DeclarationSlip[] = [];
  for (const declaration of list) {
    const { property, value } = declaration;
    if (isVendors(property) || isVendors(value)) continue;
    if (propertyKind(property) === 'unknown') {
      // `*zoom` and `_height` are meant for old browsers only
      if (!/^[a-z][a-z-]*$/.test(property) || oldNames.has(property) || isDescriptor(list)) continue;
      const { start } = declaration.span;
      const span = { start, end: start + property.length };
      out.push({ declaration, kind: 'unknown-property', span, nearest: () => nearestProperty(property) });
    } else if (isDropped(declaration, inQuirks) && !hasFallback(declaration, list))
      out.push({
        declaration,
        kind: 'invalid-value',
        span: declaration.valueSpan,
        nearest: () => nearestValue(property, value),
      });
  }
  return out;
}

function isDropped({ property, value }: Declaration, inQuirks: boolean): boolean {
  const validity = declarationValidity(property, value);
  // without a unit: right only on pages in quirks mode, of which another finding tells
  return validity === 'invalid' || (validity === 'quirks' && !inQuirks);
}

/** Another spelling beside it counts: this one is for other browsers. */
function hasFallback(declaration: Declaration, list: readonly Declaration[]): boolean {
  return list.some(
    (other) =>
      other !== declaration &&
      other.property === declaration.property &&
      declarationValidity(other.property, other.value) !== 'invalid',
  );
}

const isVendors = (text: string): boolean =>
  /(^|[\s,(])-(webkit|moz|ms|o|khtml)-|progid:|expression\(|\\[09]|^alpha\(/i.test(text);

/** Once known to some browser; harmless, and no slip of the pen. From memory. */
const oldNames = new Set(
  'behavior filter ime-mode layout-flow scrollbar-face-color scrollbar-track-color scrollbar-arrow-color scrollbar-highlight-color scrollbar-shadow-color scrollbar-base-color scrollbar-3dlight-color scrollbar-darkshadow-color text-autospace writing-mode font-smoothing src unicode-range font-display'.split(
    ' ',
  ),
);

/** A run that looks like the inside of `@font-face`, where other names count. */
const isDescriptor = (list: readonly Declaration[]): boolean => list.some((d) => d.property === 'src');

function nearestValue(property: string, value: string): string | undefined {
  if (/^\d*\.?\d+$/.test(value) && declarationValidity(property, `${value}px`) === 'valid') return `${value}px`;
  const words = value.split(/(\s+)/);
  for (const [i, word] of words.entries()) {
    if (!/^[a-z-]+$/i.test(word)) continue;
    const right = nearestKeyword(property, word);
    const mended = right === undefined ? undefined : [...words.slice(0, i), right, ...words.slice(i + 1)].join('');
    if (mended !== undefined && declarationValidity(property, mended) === 'valid') return mended;
  }
  return undefined;
}
