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

/**
 * A style rule. `declarations` are those before the first nested rule; `nested` holds what follows: rules, conditional at-rules
 * and further runs of declarations.
 */
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
  /** Declarations before the first rule in the block: they count only inside a style rule or `@scope`. */
  readonly declarations: readonly Declaration[];
  readonly span: Span;
  readonly blockSpan: Span;
  readonly closed: boolean;
}

/** Declarations that follow a nested rule: a rule of their own in the order. CSS Nesting 1, "Mixing Nesting Rules and Declarations". */
export interface NestedDeclarations {
  readonly kind: 'declarations';
  readonly declarations: readonly Declaration[];
  readonly span: Span;
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

export type Rule =
  | StyleRule
  | GroupRule
  | NestedDeclarations
  | ImportRule
  | DefinitionRule
  | StatementRule
  | DroppedRule;

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
