import { trimmed, withMarkAsLetter } from '../source/space.ts';
import { tokenize, tokenTypes } from 'css-tree';

export { tokenTypes };

/** The tokens of a stretch of text, as parallel arrays; offsets count from the start of the whole text. */
export interface Tokens {
  readonly text: string;
  readonly type: readonly number[];
  readonly start: readonly number[];
  readonly end: readonly number[];
  readonly count: number;
}

/**
 * CSS Syntax 3, "Tokenization". `from` and `to` bound the stretch; comments are kept as tokens. `marked`: it is a whole file, where a
 * byte order mark at the start is none of its text.
 */
export function tokensOf(text: string, from = 0, to = text.length, marked = false): Tokens {
  const type: number[] = [];
  const start: number[] = [];
  const end: number[] = [];
  const part = from === 0 && to === text.length ? text : text.slice(from, to);
  // CSS Syntax 3, "Preprocessing the input stream": same length, so places stay
  const read = part.includes('\0') ? part.replaceAll('\0', '\ufffd') : part;
  tokenize(marked ? read : withMarkAsLetter(read), (t: number, s: number, e: number) => {
    type.push(t);
    start.push(s + from);
    end.push(Math.min(e, part.length) + from); // the tokenizer counts an escape at the very end one too far
  });
  return { text, type, start, end, count: type.length };
}

/**
 * The text with comments left out and each run of white space as one space, trimmed; strings and urls as written. An empty
 * comment stays where leaving it out could join two tokens (CSS Syntax 3, "Serialization").
 */
export function foldedText(text: string): string {
  if (!/[\t\n\f\r /]/.test(text)) return text;
  const tokens = tokensOf(text);
  const parts: string[] = [];
  let comment = false;
  for (let i = 0; i < tokens.count; i++) {
    const last = parts.at(-1);
    if (tokens.type[i] === tokenTypes.Comment) comment = true;
    else if (tokens.type[i] === tokenTypes.WhiteSpace) {
      if (last !== ' ') parts.push(' ');
    } else {
      const part = text.slice(tokens.start[i], tokens.end[i]);
      if (comment && last !== undefined && !/[\t\n\f\r ,;{}[\]>~)(]$/.test(last) && !/^[,;{}[\]>~)]/.test(part))
        parts.push('/**/');
      comment = false;
      parts.push(part);
    }
  }
  return trimmed(parts.join(''));
}
