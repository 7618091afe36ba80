import { lowered } from '../source/asciiCase.ts';
import { trimmed } from '../source/space.ts';
import { parse as parseColour } from 'culori';
import { parsedValue, tokenize, tokenTypes } from './cssTokens.ts';
import { browserLexer as lexer } from './browserLexer.ts';
import { holdsSubstitution } from './substitution.ts';

/**
 * A value spelled so that equal spellings of one value are equal text: white space and comments folded, keywords, units and
 * hexadecimal colours in lower case, plain sRGB colours as `#rrggbb[aa]`, numbers without needless zeros, zero lengths as `0`,
 * strings in double quotes. Case inside strings, custom identifiers, `url()` and custom properties is kept. A value that is put
 * together later (`var()` and the like) is compared token by token.
 *
 * Two texts that differ may still mean the same; two that are equal mean the same in every property except where a
 * property takes custom identifiers, whose case is therefore kept.
 */
export function comparableValue(property: string, value: string): string {
  const key = `${property}\0${value}`;
  let known = memo.get(key);
  if (known === undefined) {
    if (memo.size > 50_000) memo.clear();
    memo.set(
      key,
      (known = property.startsWith('--') || holdsSubstitution(value) ? foldSpace(value) : spell(property, value)),
    );
  }
  return known;
}

const memo = new Map<string, string>();

interface Token {
  readonly type: number;
  readonly text: string;
}

/** A comment stays, empty, where it parts two tokens that could join. */
function tokensOf(value: string): Token[] {
  const tokens: Token[] = [];
  let comment = false;
  tokenize(value, (type: number, start: number, end: number) => {
    if (type === tokenTypes.Comment) {
      comment = true;
      return;
    }
    const last = tokens.at(-1);
    if (comment && last && !standsAlone(last.type) && !standsAlone(type))
      tokens.push({ type: tokenTypes.Comment, text: '/**/' });
    comment = false;
    tokens.push({ type, text: value.slice(start, end) });
  });
  return tokens;
}

const standsAlone = (type: number): boolean =>
  type === tokenTypes.WhiteSpace || type === tokenTypes.Comma || type === tokenTypes.RightParenthesis;

function foldSpace(value: string): string {
  return trimmed(
    tokensOf(value)
      .map((token) => (token.type === tokenTypes.WhiteSpace ? ' ' : token.text))
      .join(''),
  );
}

function spell(property: string, value: string): string {
  const whole = takesColour(property) ? colourText(trimmed(value)) : undefined;
  if (whole !== undefined) return whole;
  const tokens = tokensOf(value);
  const out: string[] = [];
  let depth = 0;
  let i = 0;
  while (i < tokens.length) {
    const token = tokens[i]!;
    if (token.type === tokenTypes.Function) {
      if (takesColour(property) && /^(rgb|hsl)a?\(/i.test(token.text)) {
        const close = closingOf(tokens, i);
        const text = tokens
          .slice(i, close + 1)
          .map((t) => t.text)
          .join('');
        const colour = colourText(text);
        if (colour !== undefined) {
          out.push(colour);
          i = close + 1;
          continue;
        }
      }
      depth++;
    }
    if (token.type === tokenTypes.RightParenthesis) depth--;
    out.push(spellToken(token, property, depth));
    i++;
  }
  const tidy = tidySpace(out);
  return /^font(-family)?$/.test(property) && !tidy.includes("'") ? familyNames(tidy) : tidy;
}

const takesColour = (property: string): boolean =>
  /color|background|border|outline|shadow|fill|stroke|text-decoration|text-emphasis|column-rule/.test(property);

function colourText(text: string): string | undefined {
  // what reads colours takes other white space than CSS does
  if (/[^\x20-\x7e\t\n\f\r]/.test(text)) return undefined;
  if (!/^(#[0-9a-f]{3,8}|[a-z]+|(rgb|hsl)a?\([^a-z]*(?:deg[^a-z]*)?\))$/i.test(text)) return undefined;
  const colour = parseColour(lowered(text));
  if (!colour || (colour.mode !== 'rgb' && colour.mode !== 'hsl')) return undefined;
  if (colour.mode === 'hsl') return undefined; // rounding differs between engines: keep the author's spelling
  const bytes = [colour.r, colour.g, colour.b].map((x) => x * 255);
  if (bytes.some((x) => x < -1e-9 || x > 255 + 1e-9 || Math.abs(x - Math.round(x)) > 1e-6)) return undefined;
  const alpha = colour.alpha ?? 1;
  const hex = '#' + bytes.map((x) => Math.round(x).toString(16).padStart(2, '0')).join('');
  return alpha === 1 ? hex : `${hex}/${alpha}`;
}

function closingOf(tokens: readonly Token[], open: number): number {
  let depth = 0;
  for (let i = open; i < tokens.length; i++) {
    const { type } = tokens[i]!;
    if (type === tokenTypes.Function || type === tokenTypes.LeftParenthesis) depth++;
    if (type === tokenTypes.RightParenthesis && --depth === 0) return i;
  }
  return tokens.length - 1;
}

const hashless = /^\d(?:[0-9a-f]{2}|[0-9a-f]{5})$/i;

function spellToken(token: Token, property: string, depth: number): string {
  const { type, text } = token;
  if (type === tokenTypes.WhiteSpace) return ' ';
  // in quirks mode these may be colours without their hash: Quirks Mode Standard, "The hashless hex color quirk"
  if (depth === 0 && hashless.test(text) && takesColour(property)) return lowered(text);
  if (type === tokenTypes.String) return spellString(text);
  if (type === tokenTypes.Number) return spellNumber(text);
  if (type === tokenTypes.Percentage) return spellNumber(text.slice(0, -1)) + '%';
  if (type === tokenTypes.Dimension) return spellDimension(text, property, depth);
  if (type === tokenTypes.Hash) return takesColour(property) ? (colourText(text) ?? lowered(text)) : text;
  if (type === tokenTypes.Function) return text.startsWith('--') ? text : lowered(text);
  if (type === tokenTypes.Ident && !text.startsWith('--') && !keepsCase(property)) {
    return (depth === 0 && takesColour(property) ? colourText(text) : undefined) ?? lowered(text);
  }
  return text;
}

/** A name in quotes that could do without them: no generic family, no keyword, and none that starts like one of a vendor. */
const needlessQuotes = /"([A-Z][a-zA-Z0-9-]*(?: [A-Za-z][a-zA-Z0-9-]*)*)"/g;
const familyKeyword =
  /^(serif|sans-serif|cursive|fantasy|monospace|system-ui|math|emoji|fangsong|ui-[a-z-]+|initial|inherit|unset|revert|revert-layer|default|none|auto|blinkmacsystemfont)$/i;

/** CSS Fonts 4, "Font family: the font-family property": a name is a string or a sequence of identifiers. */
const familyNames = (text: string): string =>
  text.replace(needlessQuotes, (quoted, name: string) =>
    name.split(' ').some((word) => familyKeyword.test(word)) ? quoted : name,
  );

/** Properties whose values may hold an author's own, case-sensitive identifiers. */
const keepsCase = (property: string): boolean =>
  /^(-webkit-)?(animation|counter|container|view-|grid|list-style|font-family$|font$|will-change|transition|scroll-timeline|timeline|anchor|position-|page$|quotes|font-palette|font-variant|content$|offset|font-feature)/.test(
    property,
  );

function spellString(text: string): string {
  const quote = text[0]!;
  const closed = text.length > 1 && text.endsWith(quote);
  const body = text.slice(1, closed ? -1 : undefined);
  return body.includes('"') || body.includes('\\') ? text : `"${body}"`;
}

function spellNumber(text: string): string {
  if (/e/i.test(text)) return lowered(text);
  const plain = text.replace(/^\+/, '').replace(/^(-?)0+(?=\d)/, '$1');
  const short = plain.includes('.') ? plain.replace(/0+$/, '').replace(/\.$/, '') : plain;
  const led = short.replace(/^(-?)\./, '$10.');
  return led === '-0' || led === '' || led === '-' ? '0' : led;
}

function spellDimension(text: string, property: string, depth: number): string {
  const found = /^([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)(.*)$/is.exec(text);
  if (!found) return lowered(text);
  const number = spellNumber(found[1]!);
  const unit = lowered(found[2]!);
  const isLength = /^(px|em|rem|ex|ch|pt|pc|in|cm|mm|q|vw|vh|vmin|vmax)$/.test(unit);
  // inside a function 0px and 0 can differ in type
  return number === '0' && isLength && depth === 0 && zeroIsLength(property) ? '0' : number + unit;
}

/** Whether a bare `0` in a value of the property is a length of zero: it takes lengths, and numbers nowhere. */
function zeroIsLength(property: string): boolean {
  let known = zeros.get(property);
  if (known === undefined) {
    const takes = (value: string): boolean => lexer.matchProperty(property, parsedValue(value)).error === null;
    known = /^(box|text)-shadow$/.test(property) || (takes('0') && takes('1px') && !takes('1'));
    zeros.set(property, known);
  }
  return known;
}

const zeros = new Map<string, boolean>();

function tidySpace(parts: readonly string[]): string {
  const out: string[] = [];
  for (const part of parts) {
    const last = out.at(-1);
    if (part === ' ' && (last === undefined || /[ ,(]$/.test(last))) continue;
    if ((part === ',' || part === ')') && last === ' ') out.pop();
    out.push(part);
  }
  return trimmed(out.join(''));
}
