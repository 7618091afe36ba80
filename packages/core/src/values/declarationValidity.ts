import { lexer, parse, tokenize, tokenTypes } from 'css-tree';
import { longhandsOfShorthand, refusedKeywords } from './propertyTable.ts';
import { unescapeCss } from './unescape.ts';
import { propertyKind } from './longhands.ts';

/**
 * Whether a browser keeps a declaration. `unsure` where the lexer's data and Chromium may part: the cascade then counts the
 * declaration as one that may or may not be there. `quirks`: valid on pages in quirks mode only.
 */
export type Validity = 'valid' | 'invalid' | 'unsure' | 'quirks';

/**
 * Validity of one declaration in standards mode. `value` is without `!important`.
 *
 * CSS Syntax 3, "Defining Grammars for Rules and Other Definitions": an invalid declaration is dropped, what stood before it stays.
 */
export function declarationValidity(property: string, value: string): Validity {
  const key = `${property}\0${value}`;
  let known = memo.get(key);
  if (known === undefined) {
    if (memo.size > 50_000) memo.clear();
    memo.set(key, (known = judge(property, value)));
  }
  return known;
}

const memo = new Map<string, Validity>();
const wide = /^\s*(initial|inherit|unset|revert|revert-layer)\s*$/i;

function judge(property: string, value: string): Validity {
  if (propertyKind(property) === 'custom') return 'valid';
  if (propertyKind(property) === 'unknown') return 'invalid';
  if (wide.test(value)) return 'valid';
  if (property === 'all') return 'invalid';
  if (value.trim() === '') return 'invalid';
  if (/(^|[^-\w])var\(/i.test(value)) return 'valid';
  if (/(^|[^-\w])(env|attr|if|sibling-index|sibling-count|random)\(/i.test(value)) return 'unsure';
  const target = aliasOf(property);
  if (hasStrayEscape(value) && !takesNames.test(target)) return 'invalid';
  if (!lexer.getProperty(target)) return 'unsure';
  const matched = matches(target, value);
  if (matched === undefined) return 'invalid';
  const sureWords = surelyKnown(target, value);
  if (matched) return sureWords ? 'valid' : 'unsure';
  if (isQuirk(target, value)) return 'quirks';
  return sureWords && isPlain(value) ? 'invalid' : 'unsure';
}

/** Whether the lexer takes it; undefined when it is no value at all, such as a string left open. */
function matches(property: string, value: string): boolean | undefined {
  try {
    return lexer.matchProperty(property, parse(value, { context: 'value' })).error === null;
  } catch {
    return undefined;
  }
}

/** Properties that take names of the author's own, which may hold any character. */
const takesNames =
  /^(font|font-family|animation|animation-name|counter-|grid|list-style|content|container|quotes|will-change|transition|view-)/;

/** An escape in a keyword that stands for a character no keyword has, as in the old `red\9`. */
function hasStrayEscape(value: string): boolean {
  let stray = false;
  tokenize(value, (type: number, start: number, end: number) => {
    const text = value.slice(start, end);
    if (
      (type === tokenTypes.Ident || type === tokenTypes.Dimension) &&
      text.includes('\\') &&
      /[^\w.%+-]/.test(unescapeCss(text))
    )
      stray = true;
  });
  return stray;
}

function aliasOf(property: string): string {
  if (lexer.getProperty(property)) return property;
  const longhands = longhandsOfShorthand[property];
  return longhands !== undefined && !longhands.includes(' ') ? longhands : property;
}

const refused = new Map(Object.entries(refusedKeywords).map(([name, list]) => [name, new Set(list.split(' '))]));

/** Functions that the lexer's data and Chromium know alike. */
const sureFunctions = new Set(
  (
    'rgb rgba hsl hsla hwb lab lch oklab oklch url calc min max clamp counter counters rect minmax repeat fit-content ' +
    'linear-gradient radial-gradient repeating-linear-gradient repeating-radial-gradient conic-gradient ' +
    'translate translatex translatey translatez translate3d rotate rotatex rotatey rotatez scale scalex scaley skew skewx skewy ' +
    'matrix matrix3d perspective cubic-bezier steps blur brightness contrast drop-shadow grayscale hue-rotate invert opacity ' +
    'saturate sepia local format polygon circle ellipse inset var'
  ).split(' '),
);

function surelyKnown(property: string, value: string): boolean {
  if (value.includes('\\')) return false;
  const no = refused.get(property);
  let sure = true;
  tokenize(value, (type: number, start: number, end: number) => {
    const text = value.slice(start, end).toLowerCase();
    if (type === tokenTypes.Function && !sureFunctions.has(text.slice(0, -1))) sure = false;
    if (type === tokenTypes.Ident && (/^-[a-z]+-/.test(text) || no?.has(text))) sure = false;
    if (type === tokenTypes.BadString || type === tokenTypes.BadUrl) sure = false;
  });
  return sure;
}

/** Values made of words, numbers, lengths, strings and colours only: what the lexer refuses there, browsers refuse. */
const isPlain = (value: string): boolean => /^[\w\s#%.,'"+-]*$/.test(value);

const quirkyColours = /^(color|background-color|border-color|border-(top|right|bottom|left)-color)$/;
const quirkyLengths =
  /^(background-position|border-spacing|border-((top|right|bottom|left)-)?width|bottom|clip|font-size|height|left|letter-spacing|margin(-\w+)?|(max|min)-(height|width)|padding(-\w+)?|right|text-indent|top|vertical-align|width|word-spacing)$/;

/** Quirks Mode Standard, "The hashless hex color quirk" and "The unitless length quirk". */
function isQuirk(property: string, value: string): boolean {
  if (
    quirkyColours.test(property) &&
    matches(property, value.replace(/(^|\s)([0-9a-f]{6}|[0-9a-f]{3})(?=\s|$)/gi, '$1#$2')) === true
  )
    return true;
  return (
    quirkyLengths.test(property) &&
    matches(property, value.replace(/(^|[\s(,])([+-]?(?:\d+\.?\d*|\.\d+))(?=[\s),]|$)/g, '$1$2px')) === true
  );
}
