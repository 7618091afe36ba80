import type { Span } from '../source/span.ts';

/** One declaration as written; `value` has no `!important` and no white space around it. */
export interface Declaration {
  /** Lower case, or exact for a custom property. */
  readonly property: string;
  readonly value: string;
  readonly important: boolean;
  /** From the name to the end of the value or of `!important`. */
  readonly span: Span;
  readonly valueSpan: Span;
}

/** A style rule. `nested` holds rules and conditional at-rules written inside its block. */
export interface StyleRule {
  readonly kind: 'style';
  readonly selector: string;
  readonly selectorSpan: Span;
  readonly declarations: readonly Declaration[];
  readonly nested: readonly Rule[];
  readonly span: Span;
  /** False when the source ended before the closing brace. */
  readonly closed: boolean;
}

/** `@media`, `@supports`, `@layer` with a block, `@container`, `@scope`, `@starting-style` and the like. */
export interface GroupRule {
  readonly kind: 'group';
  readonly name: string;
  readonly prelude: string;
  readonly rules: readonly Rule[];
  /** Declarations straight in the block: they count only inside a style rule or `@scope`. */
  readonly declarations: readonly Declaration[];
  readonly span: Span;
  readonly blockSpan: Span;
  readonly closed: boolean;
}

export interface ImportRule {
  readonly kind: 'import';
  readonly reference: string;
  readonly referenceSpan: Span;
  /** What stands after the reference, comments and white space folded. */
  readonly layer: string | null | undefined;
  readonly supports: string | undefined;
  readonly media: string;
  readonly span: Span;
}

/** `@font-face`, `@keyframes`, `@page`, `@property`, `@counter-style`, …: definitions without selectors. */
export interface DefinitionRule {
  readonly kind: 'definition';
  readonly name: string;
  readonly prelude: string;
  readonly span: Span;
  readonly blockSpan: Span;
  readonly closed: boolean;
}

/** `@charset`, `@namespace`, `@layer a, b;` and unknown at-rules that end in a semicolon. */
export interface StatementRule {
  readonly kind: 'statement';
  readonly name: string;
  readonly prelude: string;
  readonly span: Span;
}

/** Something a browser drops: kept so that moving a sheet keeps it. */
export interface DroppedRule {
  readonly kind: 'dropped';
  readonly span: Span;
}

export type Rule = StyleRule | GroupRule | ImportRule | DefinitionRule | StatementRule | DroppedRule;

/** A parsed sheet, embedded block or imported sheet: its rules in order, with spans in `text`. */
export interface Sheet {
  readonly text: string;
  readonly rules: readonly Rule[];
  readonly comments: readonly Span[];
}

/** A reference inside CSS: `url(…)`, `src(…)`, an `@import` string, a string in `image-set()`. */
export interface UrlReference {
  /** Escapes resolved. */
  readonly reference: string;
  /** What to replace when the reference changes, quotes or `url(` and `)` included. */
  readonly span: Span;
  readonly form: 'url' | 'string';
}
