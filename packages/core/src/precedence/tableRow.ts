import type { Reason, Sentence } from './reasons.ts';
import type { TableSource } from './tableSources.ts';

export interface TableEntry {
  /** Where it stands, `path@offset`: what a peel of one declaration names. */
  readonly id: string;
  readonly source: string;
  /** The property as declared, when it is not the row's. */
  readonly declared: string;
  readonly value: string;
  readonly important: boolean;
  /** The selector that reaches the element; the attribute's name for a presentational one. */
  readonly selector: string | undefined;
  /** All selectors of the rule, as written. */
  readonly rule: string | undefined;
  readonly specificity: string | undefined;
  readonly file: string;
  readonly line: number;
  readonly state: 'wins' | 'loses' | 'peeled' | 'idle';
  readonly reason: Reason | undefined;
}

export interface TableRow {
  readonly property: string;
  /** The longhands it stands for, for the browser's own computed values. */
  readonly longhands: readonly string[];
  readonly entries: readonly TableEntry[];
  readonly sentence: Sentence;
  /** The ancestor the value comes from. */
  readonly inheritedFrom: { readonly path: string; readonly name: string } | undefined;
  /** The value that counts, as declared. */
  readonly value: string;
}

export interface ElementTable {
  readonly page: string;
  readonly element: string;
  readonly name: string;
  readonly text: string;
  readonly line: number;
  readonly ancestors: readonly { readonly path: string; readonly name: string }[];
  /** The first elements inside it. */
  readonly children: readonly { readonly path: string; readonly name: string }[];
  readonly pseudoElements: readonly string[];
  readonly sources: readonly TableSource[];
  readonly rows: readonly TableRow[];
}
