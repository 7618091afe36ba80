/**
 * The text without white space around it: the five characters that HTML and CSS take for white space, and no others. A no-break space
 * or a byte order mark, which `trim` and `\s` of scripts take for some, is a letter there. Infra, "ASCII whitespace"; CSS Syntax 3,
 * "Tokenizer Railroad Diagrams".
 */
export function trimmed(text: string): string {
  let start = 0;
  while (start < text.length && isSpace(text.charCodeAt(start))) start++;
  return trimmedEnd(start === 0 ? text : text.slice(start));
}

export function trimmedEnd(text: string): string {
  let end = text.length;
  while (end > 0 && isSpace(text.charCodeAt(end - 1))) end--;
  return end === text.length ? text : text.slice(0, end);
}

const isSpace = (code: number): boolean => code === 32 || code === 10 || code === 9 || code === 13 || code === 12;

/** As long as the text; a byte order mark at its start, which the tokenizer would pass over, is the letter it is inside a sheet. */
export function withMarkAsLetter(text: string): string {
  const first = text.charCodeAt(0);
  return first === 0xfeff || first === 0xfffe ? `\ufffd${text.slice(1)}` : text;
}
