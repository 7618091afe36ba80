import { trimmed } from '../source/space.ts';
import { foldedText, tokensOf, tokenTypes as T } from '../sheet/tokens.ts';

/**
 * A selector list in one spelling: one space around combinators and after commas, none inside brackets. Names, strings and
 * their case stay as written, since case may matter.
 */
export function selectorText(selector: string): string {
  const folded = foldedText(selector);
  const tokens = tokensOf(folded);
  // in pieces: a text that is trimmed again and again costs the square of its length
  const out: string[] = [];
  const trimEnd = (): void => {
    while (out.at(-1) === ' ') out.pop();
  };
  let inSquare = false;
  for (let i = 0; i < tokens.count; i++) {
    const type = tokens.type[i]!;
    const text = folded.slice(tokens.start[i], tokens.end[i]);
    if (type === T.LeftSquareBracket) inSquare = true;
    if (type === T.RightSquareBracket) inSquare = false;
    if (type === T.Comma) {
      trimEnd();
      out.push(',', ' ');
    } else if (type === T.Delim && /^[>+~]$/.test(text) && !inSquare) {
      trimEnd();
      out.push(' ', text, ' ');
    } else if (type === T.WhiteSpace) {
      const before = tokens.type[i - 1];
      const after = tokens.type[i + 1];
      const open = before === T.Function || before === T.LeftParenthesis || before === T.LeftSquareBracket;
      const close = after === T.RightParenthesis || after === T.RightSquareBracket || after === T.Comma;
      if (!open && !close && out.at(-1) !== ' ') out.push(' ');
    } else out.push(text);
  }
  return trimmed(out.join(''));
}

/** The selectors of a list as written, parted at the commas outside brackets. */
export function splitSelectors(list: string): readonly string[] {
  const tokens = tokensOf(list);
  const out: string[] = [];
  let depth = 0;
  let from = 0;
  for (let i = 0; i < tokens.count; i++) {
    const type = tokens.type[i]!;
    if (type === T.Function || type === T.LeftParenthesis || type === T.LeftSquareBracket) depth++;
    else if (type === T.RightParenthesis || type === T.RightSquareBracket) depth--;
    else if (type === T.Comma && depth === 0) {
      out.push(trimmed(list.slice(from, tokens.start[i])));
      from = tokens.end[i]!;
    }
  }
  return [...out, trimmed(list.slice(from))].filter((selector) => selector !== '');
}
