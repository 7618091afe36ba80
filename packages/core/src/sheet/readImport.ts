import { trimmed } from '../source/space.ts';
import type { Span } from '../source/span.ts';
import type { ImportRule, Rule } from './sheet.ts';
import { layerNames } from './layerNames.ts';
import { foldedText, tokensOf, tokenTypes as T } from './tokens.ts';
import { unescapeCss } from '../values/unescape.ts';

/** CSS Cascading and Inheritance Level 5, "Importing Style Sheets: the @import rule". A malformed one is dropped. */
export function readImport(text: string, from: number, prelude: string, span: Span): Rule {
  const tokens = tokensOf(prelude);
  let i = 0;
  const skip = (): void => {
    while (tokens.type[i] === T.WhiteSpace || tokens.type[i] === T.Comment) i++;
  };
  skip();
  const start = tokens.start[i];
  let reference: string | undefined;
  if (tokens.type[i] === T.String || tokens.type[i] === T.Url) {
    const raw = prelude.slice(tokens.start[i], tokens.end[i++]);
    reference = referenceOf(raw);
  } else if (tokens.type[i] === T.Function && /^url\($/i.test(prelude.slice(tokens.start[i], tokens.end[i]))) {
    i++;
    skip();
    if (tokens.type[i] === T.String) reference = referenceOf(prelude.slice(tokens.start[i], tokens.end[i++]));
    skip();
    if (tokens.type[i] === T.RightParenthesis) i++;
    else if (i < tokens.count) reference = undefined;
  }
  if (reference === undefined || start === undefined) return { kind: 'dropped', span };
  const referenceSpan = { start: from + start, end: from + tokens.end[i - 1]! };
  const rest = foldedText(prelude.slice(tokens.end[i - 1]));
  return { kind: 'import', reference, referenceSpan, span, ...readConditions(rest) };
}

function readConditions(rest: string): Pick<ImportRule, 'layer' | 'supports' | 'media'> {
  let media = rest;
  let layer: string | null | undefined;
  let supports: string | undefined;
  const named = /^layer(?:\([\t\n\f\r ]*([^)]*?)[\t\n\f\r ]*\))?(?=[\t\n\f\r ]|$|\))/i.exec(media);
  // what is no layer name is read as a media query, which it is not either
  const wellNamed = named?.[1] === undefined || layerNames(named[1])?.length === 1;
  if (named && wellNamed && !/^layer[\t\n\f\r ]*\(/i.test(media) === (named[1] === undefined)) {
    layer = named[1] ?? null;
    media = trimmed(media.slice(named[0].length));
  }
  if (/^supports\(/i.test(media)) {
    let depth = 0;
    let i = 'supports'.length;
    for (; i < media.length; i++) {
      if (media[i] === '(') depth++;
      if (media[i] === ')' && --depth === 0) break;
    }
    supports = trimmed(media.slice('supports('.length, i));
    media = trimmed(media.slice(i + 1));
  }
  return { layer, supports, media };
}

/** The reference in a string token or an unquoted `url(` token, escapes resolved. */
export function referenceOf(raw: string): string {
  if (/^url\(/i.test(raw)) return unescapeCss(trimmed(raw.slice(4).replace(/\)$/, '')));
  const quote = raw[0]!;
  return unescapeCss(raw.slice(1, raw.length > 1 && raw.endsWith(quote) ? -1 : undefined));
}
