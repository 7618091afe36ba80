import { foldedText, tokensOf, tokenTypes as T } from '../sheet/tokens.ts';

/** A media query list in one spelling: lower case, white space folded, none after `(`, before `)`, `,` and `:`, one after those. */
export function mediaText(text: string): string {
  const folded = foldedText(text).toLowerCase();
  const tokens = tokensOf(folded);
  const parts: string[] = [];
  for (let i = 0; i < tokens.count; i++) {
    const [before, type, after] = [tokens.type[i - 1], tokens.type[i], tokens.type[i + 1]];
    if (type === T.WhiteSpace && (opensOrParts(before) || closesOrParts(after))) continue;
    parts.push(folded.slice(tokens.start[i], tokens.end[i]));
    if (type === T.Comma || type === T.Colon) parts.push(' ');
  }
  return parts.join('').trim();
}

const opensOrParts = (type: number | undefined): boolean =>
  type === T.LeftParenthesis || type === T.Comma || type === T.Colon;
const closesOrParts = (type: number | undefined): boolean =>
  type === T.RightParenthesis || type === T.Comma || type === T.Colon;

/** An empty list and `all` hold always. Media Queries 5, "Media Query Lists". */
export const isAllMedia = (text: string): boolean => /^(all)?$/.test(mediaText(text));
