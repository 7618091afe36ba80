import type { Edit } from '../source/span.ts';

/** Breaks a page, may look wrong, worth knowing. */
export type Severity = 'breaks' | 'wrong' | 'note';

/** Every kind of finding, and how much it matters. Kinds are never reused for another meaning. */
export const severityOf = {
  'markup-in-sheet': 'breaks',
  'page-without-link': 'breaks',
  'link-missing': 'breaks',
  'link-refused': 'breaks',
  'link-after-block': 'breaks',
  'empty-sheet': 'breaks',
  brace: 'breaks',
  unclosed: 'breaks',
  'refused-selector': 'wrong',
  'media-query': 'wrong',
  'misplaced-rule': 'wrong',
  'lost-declaration': 'wrong',
  'strange-space': 'wrong',
  'page-markup': 'wrong',
  'link-wrong-case': 'wrong',
  'link-in-comment': 'wrong',
  'reference-missing': 'wrong',
  'reference-wrong-case': 'wrong',
  'sheet-order': 'wrong',
  'baseline-last': 'wrong',
  drift: 'wrong',
  'renamed-class': 'wrong',
  'name-with-space': 'wrong',
  'rule-not-reached': 'wrong',
  'container-missing': 'wrong',
  'quirks-page': 'wrong',
  'sheet-charset': 'wrong',
  'unknown-property': 'note',
  'invalid-value': 'note',
  'no-generic-font': 'note',
  'hidden-declaration': 'note',
  'duplicate-rule': 'note',
  'duplicate-id': 'note',
  'linked-twice': 'note',
  'import-chain': 'note',
  'unlinked-sheet': 'note',
  'file-name': 'note',
  'mixed-paths': 'note',
  'remote-sheet': 'note',
  'script-style': 'note',
  'conditional-comment': 'note',
  'template-in-style': 'note',
  'opaque-file': 'note',
  'unused-rule': 'note',
  override: 'note',
  'own-picture': 'note',
  'page-not-read': 'note',
} as const satisfies Readonly<Record<string, Severity>>;

export type FindingKind = keyof typeof severityOf;

export const findingKinds = Object.keys(severityOf) as readonly FindingKind[];

export interface FindingPlace {
  readonly path: string;
  readonly line: number;
  readonly column: number;
}

/**
 * The one thing to do about it: `mend` is a change ready for the draft, `compare` opens the family's versions, `look` opens
 * the first place, `read` takes files that a server runs as pages.
 */
export interface FindingAction {
  readonly does: 'mend' | 'compare' | 'look' | 'read';
  readonly label: string;
  /** What its author wrote there, to be asked about before a mend is taken. */
  readonly asks?: string;
  /** The family to compare. */
  readonly family?: string;
}

/** One thing that is wrong or worth knowing, over all pages that have it. */
export interface Finding {
  /** The kind and the subject; no two findings of a site share it. */
  readonly id: string;
  readonly kind: FindingKind;
  readonly severity: Severity;
  /** In words; names of pages, sheets, selectors and values between backticks. */
  readonly sentence: string;
  /** The sheet a finding about links is about: the file meant, where the link fails. */
  readonly sheet?: string | undefined;
  /** The pages it concerns, in page order; empty when it concerns a sheet that no page reaches. */
  readonly pages: readonly string[];
  /** Where it stands, one place a file. */
  readonly places: readonly FindingPlace[];
  readonly action: FindingAction;
}

/** An edit of one file, and the page it is made for (the file itself, or undefined for a sheet). */
export interface Mend {
  readonly path: string;
  readonly edits: readonly Edit[];
}

/** A finding with the edits that mend it; none when nobody can mend it but the author. */
export interface FoundFinding extends Finding {
  readonly mends: readonly Mend[];
}

export function describeSeverity(severity: Severity): string {
  switch (severity) {
    case 'breaks':
      return 'Breaks a page';
    case 'wrong':
      return 'May look wrong';
    case 'note':
      return 'Worth knowing';
  }
}
