import { parseSelectorList } from '../selectors/parseSelector.ts';
import { foldedText } from '../sheet/tokens.ts';
import { declarationValidity } from '../values/declarationValidity.ts';
import { propertyName } from '../values/longhands.ts';
import { allOf, anyOf, negate, splitOutside, type Answer } from './logic.ts';

/**
 * Whether an `@supports` condition holds in Chromium; `undefined` where validity of a declaration cannot be told.
 *
 * CSS Conditional Rules 3, "Feature queries"; Level 4, `selector()`; Level 5, `font-tech()` and `font-format()`.
 */
export function evaluateSupports(text: string): Answer {
  return condition(foldedText(text).trim(), 0);
}

const maxDepth = 60;

function condition(text: string, depth: number): Answer {
  if (depth > maxDepth) return undefined;
  const negated = /^not(?:\s+|(?=\())([^]*)$/i.exec(text);
  if (negated) return negate(inParentheses(negated[1]!.trim(), depth));
  for (const [word, join] of [
    [/\s+and(?=[\s(])/iy, allOf],
    [/\s+or(?=[\s(])/iy, anyOf],
  ] as const) {
    const parts = splitOutside(text, word);
    if (parts.length > 1) return join(parts.map((part) => inParentheses(part.trim(), depth)));
  }
  return inParentheses(text, depth);
}

const fontFormats = /^(woff2?|opentype|truetype|collection|svg)$/i;
const fontTechs =
  /^(features-opentype|features-aat|variations|color-colrv0|color-colrv1|color-svg|color-sbix|color-cbdt|palettes)$/i;

function inParentheses(text: string, depth: number): Answer {
  const called = /^([-\w]+)\(([^]*)\)$/.exec(text);
  if (called) return supportsFunction(called[1]!.toLowerCase(), called[2]!.trim());
  const inner = /^\(([^]*)\)$/.exec(text)?.[1]?.trim();
  if (inner === undefined) return false;
  const declaration = /^([-\w]+)\s*:([^]*)$/.exec(inner);
  if (declaration) return supportsDeclaration(declaration[1]!, declaration[2]!);
  return /^(not\b|\(|[-\w]+\()/i.test(inner) ? condition(inner, depth + 1) : false;
}

function supportsDeclaration(name: string, value: string): Answer {
  const property = propertyName(name);
  const bare = value.replace(/!\s*important\s*$/i, '').trim();
  if (property.startsWith('--')) return true;
  const validity = declarationValidity(property, bare);
  return validity === 'unsure' ? undefined : validity === 'valid';
}

function supportsFunction(name: string, argument: string): Answer {
  switch (name) {
    case 'selector': {
      const list = parseSelectorList(argument);
      // forgiving lists do not forgive here
      return list?.length === 1 && !/:(is|where)\(/i.test(argument) ? true : list === undefined ? false : undefined;
    }
    case 'font-format':
      return fontFormats.test(argument);
    case 'font-tech':
      return fontTechs.test(argument);
    default:
      return false;
  }
}
