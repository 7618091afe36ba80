import type { Edit } from './span.ts';

/** The one replacement that turns `before` into `after`, never parting a surrogate pair or a CRLF; undefined when equal. */
export function smallestEdit(before: string, after: string): Edit | undefined {
  if (before === after) return undefined;
  const most = Math.min(before.length, after.length);
  let start = 0;
  while (start < most && before[start] === after[start]) start++;
  let tail = 0;
  while (tail < most - start && before[before.length - 1 - tail] === after[after.length - 1 - tail]) tail++;
  while (start > 0 && /[\uD800-\uDBFF\r]/.test(before[start - 1]!)) start--;
  while (tail > 0 && /[\uDC00-\uDFFF\n]/.test(before[before.length - tail]!)) tail--;
  return { span: { start, end: before.length - tail }, text: after.slice(start, after.length - tail) };
}
