/** A stretch of one source text, half-open `[start, end)`, in UTF-16 code units from the start of the file. */
export interface Span {
  readonly start: number;
  readonly end: number;
}

/** Replace `span` by `text`. An empty span inserts; an empty text removes. */
export interface Edit {
  readonly span: Span;
  readonly text: string;
}

export const textOf = (source: string, span: Span): string => source.slice(span.start, span.end);

/** Where the lines of a text start, for many questions about places in one text. */
export class LineIndex {
  private readonly starts: number[] = [0];

  constructor(source: string) {
    for (const found of source.matchAll(/\r\n|\r|\n/g)) this.starts.push(found.index + found[0].length);
  }

  /** Line and column of an offset, both from 1. */
  placeOf(offset: number): { readonly line: number; readonly column: number } {
    let low = 0;
    let high = this.starts.length - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (this.starts[middle]! <= offset) low = middle;
      else high = middle - 1;
    }
    return { line: low + 1, column: offset - this.starts[low]! + 1 };
  }
}

/** Line and column of an offset, both from 1. LF, CR and CRLF end a line, as for people's editors. */
export function placeOf(source: string, offset: number): { readonly line: number; readonly column: number } {
  // one text is mostly asked about many times in a row
  if (last?.source !== source) last = { source, lines: new LineIndex(source) };
  return last.lines.placeOf(Math.min(offset, source.length));
}

let last: { readonly source: string; readonly lines: LineIndex } | undefined;
