import { lowered } from '../source/asciiCase.ts';
import { trimmed } from '../source/space.ts';
import { foldedText, tokensOf, tokenTypes as T } from '../sheet/tokens.ts';

/**
 * A media query list in one spelling: lower case, white space folded, none after `(`, before `)`, `,` and `:`, one after those.
 */
export function mediaText(text: string): string {
  const folded = lowered(foldedText(text));
  const tokens = tokensOf(folded);
  const parts: string[] = [];
  for (let i = 0; i < tokens.count; i++) {
    const [before, type, after] = [tokens.type[i - 1], tokens.type[i], tokens.type[i + 1]];
    if (type === T.WhiteSpace && (opensOrParts(before) || closesOrParts(after))) continue;
    parts.push(folded.slice(tokens.start[i], tokens.end[i]));
    if (type === T.Comma || type === T.Colon) parts.push(' ');
  }
  return trimmed(parts.join(''));
}

/**
 * The same query in the plainest words, to compare by: `only` and `all and` left out, ranges of width and height by their old names.
 *
 * Media Queries 4, "Combining Media Features" (`only` hides a query from old browsers) and "Range Context".
 */
export function plainMedia(text: string): string {
  let known = plain.get(text);
  if (known === undefined) {
    if (plain.size > 10_000) plain.clear();
    plain.set(text, (known = makePlain(text)));
  }
  return known;
}

const plain = new Map<string, string>();
const typed = /^(?:only )?(all|screen|print)(?= and \(|$)/;
const range = /\((width|height) ?([<>])= ?([\d.]+[a-z]+)\)/g;

const makePlain = (text: string): string =>
  text
    .split(', ')
    .map((one) => one.replace(typed, '$1').replace(/^all and (?=\((?:(?! or ).)*$)/, ''))
    .join(', ')
    .replace(
      range,
      (_whole, name: string, sign: string, length: string) => `(${sign === '>' ? 'min' : 'max'}-${name}: ${length})`,
    );

const opensOrParts = (type: number | undefined): boolean =>
  type === T.LeftParenthesis || type === T.Comma || type === T.Colon;
const closesOrParts = (type: number | undefined): boolean =>
  type === T.RightParenthesis || type === T.Comma || type === T.Colon;

/** An empty list and `all` hold always. Media Queries 5, "Media Query Lists". */
export const isAllMedia = (text: string): boolean => /^(all)?$/.test(plainMedia(mediaText(text)));
