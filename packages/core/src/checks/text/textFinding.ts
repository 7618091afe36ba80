import type { Edit, Span } from '../../source/span.ts';
import type { FindingKind, Severity } from '../finding.ts';

/** What can be wrong with the text of one sheet, whatever pages it dresses. */
export type TextFindingKind = Extract<
  FindingKind,
  | 'brace'
  | 'unclosed'
  | 'markup-in-sheet'
  | 'refused-selector'
  | 'media-query'
  | 'misplaced-rule'
  | 'lost-declaration'
  | 'strange-space'
  | 'unknown-property'
  | 'invalid-value'
  | 'hidden-declaration'
  | 'duplicate-rule'
>;

/** Something wrong in a text, where it begins, in words; and the edits that mend it where that is certain. */
export interface TextFinding {
  readonly kind: TextFindingKind;
  readonly severity: Severity;
  /** What is wrong; never empty. */
  readonly span: Span;
  /** A whole sentence; code between backticks. */
  readonly sentence: string;
  readonly mend?: { readonly label: string; readonly edits: readonly Edit[] };
}
