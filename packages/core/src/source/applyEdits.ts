import { fail, succeed, type Result } from './result.ts';
import type { Edit, Span } from './span.ts';

export type EditProblem =
  | { readonly kind: 'edit-outside-file'; readonly span: Span; readonly length: number }
  | { readonly kind: 'edits-overlap'; readonly first: Span; readonly second: Span };

/**
 * The text with all edits carried out. All spans are measured on `source`; they may come in any order.
 *
 * Inserts at one offset keep the order given. An insert at the edge of a replaced span stands outside it.
 * Overlapping replacements and spans outside the file are problems; nothing is applied then.
 */
export function applyEdits(source: string, edits: readonly Edit[]): Result<string, EditProblem> {
  const sorted = edits
    .map((edit, given) => ({ edit, given }))
    .sort((a, b) => a.edit.span.start - b.edit.span.start || a.edit.span.end - b.edit.span.end || a.given - b.given);
  let out = '';
  let done = 0;
  let last: Span = { start: 0, end: 0 };
  for (const { edit } of sorted) {
    const { span, text } = edit;
    if (span.start < 0 || span.end < span.start || span.end > source.length)
      return fail({ kind: 'edit-outside-file', span, length: source.length });
    if (span.start < done) return fail({ kind: 'edits-overlap', first: last, second: span });
    out += source.slice(done, span.start) + text;
    done = span.end;
    last = span;
  }
  return succeed(out + source.slice(done));
}

export function describeEditProblem(problem: EditProblem): string {
  switch (problem.kind) {
    case 'edit-outside-file':
      return `An edit at ${problem.span.start}–${problem.span.end} lies outside the file, which has ${problem.length} characters.`;
    case 'edits-overlap':
      return `Two edits overlap: ${problem.first.start}–${problem.first.end} and ${problem.second.start}–${problem.second.end}.`;
  }
}
