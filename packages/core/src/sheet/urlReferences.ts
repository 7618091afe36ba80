import { lowered } from '../source/asciiCase.ts';
import { referenceOf } from './readImport.ts';
import type { UrlReference } from './sheet.ts';
import { tokensOf, tokenTypes as T } from './tokens.ts';

/**
 * Every reference in a stretch of CSS: `url(…)` quoted or not, `src("…")`, bare strings in `image-set()`, strings after
 * `@import`. In order.
 *
 * CSS Values and Units 4, "Resource Locators: the <url> type"; CSS Images 4, "image-set() notation".
 */
export function urlReferences(text: string, from = 0, to = text.length): readonly UrlReference[] {
  const tokens = tokensOf(text, from, to);
  const out: UrlReference[] = [];
  const open: string[] = [];
  let afterImport = false;
  for (let i = 0; i < tokens.count; i++) {
    const type = tokens.type[i]!;
    const raw = text.slice(tokens.start[i], tokens.end[i]);
    const span = { start: tokens.start[i]!, end: tokens.end[i]! };
    if (type === T.Url) out.push({ reference: referenceOf(raw), span, form: 'url' });
    else if (type === T.Function) open.push(lowered(raw.slice(0, -1)));
    else if (type === T.LeftParenthesis) open.push('(');
    else if (type === T.RightParenthesis) open.pop();
    else if (type === T.String) {
      const inside = open.at(-1);
      if (
        inside === 'url' ||
        inside === 'src' ||
        inside === 'image-set' ||
        inside === '-webkit-image-set' ||
        (afterImport && open.length === 0)
      )
        out.push({ reference: referenceOf(raw), span, form: 'string' });
    }
    if (type === T.AtKeyword) afterImport = /^@import$/i.test(raw);
    else if (type !== T.WhiteSpace && type !== T.Comment) afterImport = false;
  }
  return out;
}

/** A reference written anew in the form it had: same quotes, or unquoted where that is legal. */
export function printReference(reference: string, original: string): string {
  const isString = !/^url\(/i.test(original);
  if (!isString && /^[^\t\n\f\r "'()\\\p{Cc}]*$/u.test(reference)) return `${original.slice(0, 4)}${reference})`;
  const quote = isString ? original[0]! : '"';
  const body = reference.replace(/[\\\n\r\f]/g, (c) => (c === '\\' ? '\\\\' : `\\${c.charCodeAt(0).toString(16)} `));
  const quoted = quote + body.replaceAll(quote, `\\${quote}`) + quote;
  return isString ? quoted : `${original.slice(0, 4)}${quoted})`;
}
