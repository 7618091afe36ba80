import type { Span } from './span.ts';

/** The span grown to whole lines when nothing else stands on them, so that taking it out leaves no empty line behind. */
export function wholeLines(text: string, span: Span): Span {
  let start = span.start;
  while (start > 0 && isBlank(text[start - 1]!)) start--;
  const atLineStart = start === 0 || isLineEnd(text[start - 1]!);
  let end = span.end;
  while (end < text.length && isBlank(text[end]!)) end++;
  const atLineEnd = end >= text.length || isLineEnd(text[end]!);
  if (!atLineStart || !atLineEnd) return span;
  if (text[end] === '\r') end++;
  if (text[end] === '\n') end++;
  return { start, end };
}

/** Like `wholeLines`, and of blank lines on both sides one goes with it; at the top of `contents` those that follow. */
export function wholeLinesAndGap(text: string, span: Span, contents: Span): Span {
  const lines = wholeLines(text, span);
  if (lines.start === span.start && lines.end === span.end && !isLineEnd(text[span.start - 1] ?? '\n')) return lines;
  const first = text.slice(contents.start, lines.start).trim() === '';
  const before =
    first || /(?:^|\n|\r(?!\n))[ \t]*(?:\r\n|\n|\r)$/.test(text.slice(Math.max(0, lines.start - 200), lines.start));
  const after = /^[ \t]*(?:\r\n|\n|\r)/.exec(text.slice(lines.end, lines.end + 200));
  return before && after ? { start: lines.start, end: lines.end + after[0].length } : lines;
}

/** White space before an offset on its line; empty when something else stands there. */
export function indentationAt(text: string, offset: number): string {
  let start = offset;
  while (start > 0 && isBlank(text[start - 1]!)) start--;
  return start === 0 || isLineEnd(text[start - 1]!) ? text.slice(start, offset) : '';
}

const isBlank = (char: string): boolean => char === ' ' || char === '\t';
const isLineEnd = (char: string): boolean => char === '\n' || char === '\r';
