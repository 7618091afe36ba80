import { lowered } from '../source/asciiCase.ts';
import { trimmed } from '../source/space.ts';
import { plainlySpaced, tokenize, tokenTypes } from './cssTokens.ts';
import { grammarMatch, isTakenUpToComma } from './grammarMatch.ts';
import { isRefusedBeyondGrammar } from './beyondGrammar.ts';
import { browserLexer as lexer } from './browserLexer.ts';
import { hasMath, withoutMath } from './mathFunctions.ts';
import { tableOf } from '../source/tableOf.ts';
import { isDroppedElsewhere, isTakenElsewhere } from './partedValues.ts';
import { longhandsOfShorthand, refusedKeywords } from './propertyTable.ts';
import { everyVarNamesOne, substitutionIn } from './substitution.ts';
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
  return judgement(property, value).validity;
}

/** Whether no browser can keep a declaration, whatever it knows: a string left open, a bracket or `!` where none can be. */
export const isNeverKept = (property: string, value: string): boolean =>
  judgement(property, value).validity === 'invalid' && (hasStray(value) || hasBang(value));

/** Whether a browser probably keeps a declaration: what `unsure` leaves open, by the best guess there is. */
export function isLikelyKept(property: string, value: string, quirks: boolean): boolean {
  const { validity, likely } = judgement(property, value);
  if (validity === 'unsure') return likely;
  return validity === 'valid' || (validity === 'quirks' && quirks);
}

interface Judgement {
  readonly validity: Validity;
  /** For `unsure`: the better guess. */
  readonly likely: boolean;
}

function judgement(property: string, value: string): Judgement {
  const key = `${property}\0${value}`;
  let known = memo.get(key);
  if (known === undefined) {
    if (memo.size > 50_000) memo.clear();
    memo.set(key, (known = judge(property, value)));
  }
  return known;
}

const memo = new Map<string, Judgement>();
const valid: Judgement = { validity: 'valid', likely: true };
const invalid: Judgement = { validity: 'invalid', likely: false };
const unsure = (likely: boolean): Judgement => ({ validity: 'unsure', likely });
const wide = /^[\t\n\f\r ]*(initial|inherit|unset|revert|revert-layer)[\t\n\f\r ]*$/i;

function judge(property: string, value: string): Judgement {
  if (propertyKind(property) === 'custom') return customValidity(property, value);
  if (propertyKind(property) === 'unknown') return invalid;
  if (wide.test(value)) return valid;
  if (trimmed(value) === '') return invalid;
  const substitution = substitutionIn(value);
  if (substitution !== undefined) {
    if (hasStray(value) || hasBang(value) || !everyVarNamesOne(value)) return invalid;
    // browsers without functions of the author drop them as they read
    return substitution === 'var' ? valid : unsure(true);
  }
  if (property === 'all') return invalid;
  const target = aliasOf(property);
  if (hasStray(value) || (hasStrayEscape(value) && !takesNames.test(target))) return invalid;
  if (!lexer.getProperty(target) || isLong(value)) return unsure(true);
  const isOpen = ([name, pattern]: readonly [RegExp, RegExp]): boolean => name.test(target) && pattern.test(value);
  const open = unsettled.test(target) || beyond.some(isOpen);
  const plain = hasMath(value) ? withoutMath(value) : [value];
  if (!plain) return unsure(false);
  const matched = plain.map((text) => grammarMatch(target, text));
  const sure = surelyKnown(target, value);
  const text = plainlySpaced(value);
  if (matched.includes('broken') || isRefusedBeyondGrammar(target, text)) return invalid;
  if (matched.every((one) => one === 'taken'))
    return sure && !open && !isDroppedElsewhere(target, text) && !isDroppedElsewhere(property, text)
      ? valid
      : unsure(!isRefused(target, value));
  if (matched.includes('open')) return unsure(false);
  if (isTakenUpToComma(target, value)) return unsure(true);
  if (isQuirk(target, value)) return { validity: 'quirks', likely: false };
  return sure && !open && isPlain(value) && !isTakenElsewhere(target, text) && !isTakenElsewhere(property, text)
    ? invalid
    : unsure(/(^|[\t\n\f\r ,])-webkit-/i.test(value));
}

/** Properties where the grammar and Chromium part in more than a few values; none that hand-coded pages use. */
const unsettled =
  /^(-webkit-(box-reflect|border-before.*|mask-box-image.*|perspective|text-stroke)|overflow-clip-margin|timeline-trigger.*|animation-range.*|animation-trigger|(scroll|view)-timeline.*|timeline-scope|(-webkit-)?column-rule.*|contain-intrinsic-.*|interest-delay.*|position-try.*|position-anchor|margin-trim|speak|view-transition-.*|container|container-name|will-change|(-webkit-)?(font-feature-settings|text-emphasis-position)|(-webkit-)?appearance)$/;

/** Values that Chromium may take and the grammar does not know. */
const beyond: readonly (readonly [property: RegExp, value: RegExp])[] = [
  [/^font(-family)?$/, /(^|[\t\n\f\r ,])(inherit|initial|unset|revert)\b/i],
];

/** The grammar takes long over long lists; no hand writes such values. */
function isLong(value: string): boolean {
  if (value.length < 1000) return false;
  let tokens = 0;
  tokenize(value, () => tokens++);
  return tokens > 1000;
}

/** CSS Custom Properties 1, "Defining Custom Properties": any tokens that hang together; `--` alone is kept for the future. */
function customValidity(property: string, value: string): Judgement {
  if (hasStray(value) || hasBang(value) || !everyVarNamesOne(value)) return invalid;
  return property === '--' ? unsure(false) : valid;
}

/** A `!` outside brackets: no value ends there but that of `!important`, which is taken off before. */
function hasBang(value: string): boolean {
  let depth = 0;
  let found = false;
  tokenize(value, (type: number, start: number) => {
    if (closers.has(type)) depth++;
    else if (closing.has(type)) depth--;
    else if (depth === 0 && type === tokenTypes.Delim && value[start] === '!') found = true;
  });
  return found;
}

/** A string or address left open, or a bracket that closes nothing: no value, whatever the property. */
function hasStray(value: string): boolean {
  let stray = false;
  const open: number[] = [];
  tokenize(value, (type: number) => {
    if (type === tokenTypes.BadString || type === tokenTypes.BadUrl) stray = true;
    const closer = closers.get(type);
    if (closer !== undefined) open.push(closer);
    else if (closing.has(type) && open.pop() !== type) stray = true;
  });
  return stray;
}

const closers = new Map<number, number>([
  [tokenTypes.Function, tokenTypes.RightParenthesis],
  [tokenTypes.LeftParenthesis, tokenTypes.RightParenthesis],
  [tokenTypes.LeftSquareBracket, tokenTypes.RightSquareBracket],
  [tokenTypes.LeftCurlyBracket, tokenTypes.RightCurlyBracket],
]);
const closing = new Set(closers.values());

/** Properties that take names of the author's own, which may hold any character. */
const takesNames =
  /^(-webkit-)?(font|font-family|animation|animation-name|counter-|grid|list-style|content|container|quotes|will-change|transition|view-)/;

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
  const longhands = shorthands[property];
  return longhands !== undefined && !longhands.includes(' ') ? longhands : property;
}

const shorthands = tableOf(longhandsOfShorthand);
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

/** Properties whose grammar here names every vendor keyword Chromium takes. */
const ownGrammar = /^(text-align|cursor)$/;

function isRefused(property: string, value: string): boolean {
  const no = refused.get(property);
  return (
    no !== undefined &&
    lowered(value)
      .split(/[\t\n\f\r ,/()]+/)
      .some((word) => no.has(word))
  );
}

function surelyKnown(property: string, value: string): boolean {
  if (value.includes('\\')) return false;
  const no = refused.get(property);
  let sure = true;
  tokenize(value, (type: number, start: number, end: number) => {
    const text = lowered(value.slice(start, end));
    if (type === tokenTypes.Function && !sureFunctions.has(text.slice(0, -1))) sure = false;
    if (type === tokenTypes.Ident && ((/^-[a-z]+-/.test(text) && !ownGrammar.test(property)) || no?.has(text)))
      sure = false;
    if (type === tokenTypes.BadString || type === tokenTypes.BadUrl) sure = false;
  });
  return sure;
}

/** Values made of words, numbers, strings, colours and functions known alike: what the lexer refuses there, browsers refuse. */
const isPlain = (value: string): boolean => /^[\w\t\n\f\r #%.,'"+/()[\]*-]*$/.test(value);

const quirkyColours = /^(color|background-color|border-color|border-(top|right|bottom|left)-color)$/;
const quirkyLengths =
  /^(background-position|border-spacing|border-((top|right|bottom|left)-)?width|bottom|clip|font-size|height|left|letter-spacing|margin(-\w+)?|(max|min)-(height|width)|padding(-\w+)?|right|text-indent|top|vertical-align|width|word-spacing)$/;

/** Quirks Mode Standard, "The hashless hex color quirk" and "The unitless length quirk". */
function isQuirk(property: string, value: string): boolean {
  if (property === 'cursor' && /^[\t\n\f\r ]*hand[\t\n\f\r ]*$/i.test(value)) return true; // Chromium's own
  if (
    quirkyColours.test(property) &&
    grammarMatch(property, value.replace(/(^|[\t\n\f\r ])([0-9a-f]{6}|[0-9a-f]{3})(?=[\t\n\f\r ]|$)/gi, '$1#$2')) ===
      'taken'
  )
    return true;
  return (
    quirkyLengths.test(property) &&
    grammarMatch(
      property,
      value.replace(/(^|[\t\n\f\r (,])([+-]?(?:\d+\.?\d*|\.\d+))(?=[\t\n\f\r ),]|$)/g, '$1$2px'),
    ) === 'taken'
  );
}
