import { parse, tokenize as tokenizeFile, tokenTypes, type CssNode } from 'css-tree';
import { trimmed, withMarkAsLetter } from '../source/space.ts';

export { tokenTypes };

/** The tokens of a value, with where each starts and ends. CSS Syntax 3, "Tokenization". */
export function tokenize(value: string, onToken: (type: number, start: number, end: number) => void): void {
  tokenizeFile(withMarkAsLetter(value), onToken);
}

/** The value as the lexer of grammars takes it. */
export const parsedValue = (value: string): CssNode => parse(withMarkAsLetter(value), { context: 'value' });

/** The value with a space for each comment and each run of white space, but for what stands in strings. */
export function plainlySpaced(value: string): string {
  if (!/\/\*|[\t\n\f\r]| {2}/.test(value)) return trimmed(value);
  let out = '';
  tokenize(value, (type, start, end) => {
    if (type !== tokenTypes.Comment && type !== tokenTypes.WhiteSpace) out += value.slice(start, end);
    else if (!out.endsWith(' ')) out += ' ';
  });
  return trimmed(out);
}
