import type { Edit, Span } from '../source/span.ts';

/** Where things stand once edits are applied that do not cut into them. */
export class Shift {
  private readonly edits: readonly Edit[];

  constructor(edits: readonly Edit[]) {
    this.edits = [...edits].sort((a, b) => a.span.start - b.span.start || a.span.end - b.span.end);
  }

  /** What is inserted right before it pushes it on. */
  start(offset: number): number {
    let by = 0;
    for (const { span, text } of this.edits) {
      if (span.end > offset) break;
      by += text.length - (span.end - span.start);
    }
    return offset + by;
  }

  /** What is inserted right behind it does not. */
  end(offset: number): number {
    let by = 0;
    for (const { span, text } of this.edits) {
      if (span.end > offset || span.start >= offset) break;
      by += text.length - (span.end - span.start);
    }
    return offset + by;
  }

  span({ start, end }: Span): Span {
    return { start: this.start(start), end: this.end(end) };
  }

  /** Where the text of one of the edits starts. */
  of(edit: Edit): number {
    let by = 0;
    for (const { span, text } of this.edits) {
      if (span === edit.span) break;
      by += text.length - (span.end - span.start);
    }
    return edit.span.start + by;
  }
}
