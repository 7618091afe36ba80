import type { Specificity } from '../selectors/selector.ts';

/** Where a declaration stands, for people and for links. Line and column from 1. */
export interface Place {
  readonly path: string;
  readonly line: number;
  readonly column: number;
}

/** What decides a property on one side of the comparison. */
export interface Decider {
  readonly property: string;
  readonly value: string;
  readonly important: boolean;
  readonly source: 'linked' | 'imported' | 'embedded' | 'attribute' | 'hint';
  readonly selector: string | undefined;
  readonly specificity: Specificity;
  readonly place: Place | undefined;
}

export interface ElementRef {
  /** `html>body:nth-child(2)>p:nth-child(1)`, on the page as it was before. */
  readonly path: string;
  readonly name: string;
  readonly line: number;
}

/** One reason for which elements of a page are not the same, with the elements. */
export interface Cause {
  readonly pseudoElement: string;
  readonly property: string;
  readonly before: Decider | undefined;
  readonly after: Decider | undefined;
  readonly reason: string;
  readonly elements: readonly ElementRef[];
  /** Somebody chose this change of look. */
  readonly intended?: true;
}

/** Something the proof cannot tell, in one sentence: what, where, and why. */
export interface Doubt {
  readonly sentence: string;
  /** The elements it is about; empty when it is about the page. */
  readonly elements: readonly ElementRef[];
}

/**
 * `unsure`: nothing differs that can be told, but something cannot be told. `intended`: nothing differs but what somebody chose to
 * change.
 */
export type Verdict = 'same' | 'intended' | 'unsure' | 'differs' | 'added' | 'removed';

export interface PageProof {
  readonly path: string;
  readonly verdict: Verdict;
  readonly elements: number;
  readonly differingElements: number;
  readonly causes: readonly Cause[];
  /** Differences that are no element's: markup, definitions, sheets that cannot be read. Sentences. */
  readonly notes: readonly string[];
  /** What cannot be told. */
  readonly doubts: readonly Doubt[];
}

export interface Proof {
  /** The worst of the pages' verdicts. */
  readonly verdict: 'same' | 'intended' | 'unsure' | 'differs';
  readonly pages: readonly PageProof[];
  readonly elements: number;
}
