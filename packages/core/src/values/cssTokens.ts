import { parse, tokenize as tokenizeFile, tokenTypes, type CssNode } from 'css-tree';
import { withMarkAsLetter } from '../source/space.ts';

export { tokenTypes };

/** The tokens of a value, with where each starts and ends. CSS Syntax 3, "Tokenization". */
export function tokenize(value: string, onToken: (type: number, start: number, end: number) => void): void {
  tokenizeFile(withMarkAsLetter(value), onToken);
}

/** The value as the lexer of grammars takes it. */
export const parsedValue = (value: string): CssNode => parse(withMarkAsLetter(value), { context: 'value' });
