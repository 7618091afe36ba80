import type { PageTree } from '../page/parsePage.ts';
import type { Idle } from '../page/styleSources.ts';

export type SourceKind = 'linked' | 'imported' | 'embedded' | 'attribute' | 'presentational';

/** One place declarations come from on a page. Bytes are of the text that carries the styling. */
export interface SurveySource {
  readonly kind: SourceKind;
  /** The sheet's path for a linked or imported one; the reference as written when it cannot be read. */
  readonly target: string | undefined;
  /** Why nothing is read from it. */
  readonly problem: 'missing' | 'remote' | 'wrong-case' | Idle | undefined;
  readonly media: string;
  /** What else a link says: `alternate`, `titled Night`, `disabled`, `integrity`, `crossorigin`, `from the site root`. */
  readonly says?: readonly string[];
  readonly rules: number;
  readonly declarations: number;
  readonly bytes: number;
  /** Elements carrying it, for attributes; 1 for the others. */
  readonly count: number;
  readonly line: number;
}

export interface PageSurvey {
  readonly path: string;
  readonly bytes: number;
  readonly encoding: string;
  readonly mode: PageTree['mode'];
  readonly opaque: boolean;
  /** In document order; style attributes and presentational attributes stand last, summed. */
  readonly sources: readonly SurveySource[];
  readonly sharedBytes: number;
  readonly localBytes: number;
  /** How a link is written here, and the file its path counts from; null where a `base` leads elsewhere. */
  readonly syntax: {
    readonly slashed: boolean;
    readonly upperCase: boolean;
    readonly quote: '"' | "'";
    readonly typed: boolean;
  };
  readonly base: string | null;
  readonly embeddedRules: number;
  readonly styleAttributes: number;
}

export interface SheetSurvey {
  readonly path: string;
  readonly bytes: number;
  readonly rules: number;
  /** Pages that link or import it. */
  readonly pages: readonly string[];
}

/** A set of rules pasted into several pages. Versions are told apart by meaning; most common first. */
export interface RepeatedBlock {
  readonly selectors: readonly string[];
  readonly versions: readonly { readonly pages: readonly string[] }[];
  readonly pages: readonly string[];
  readonly bytes: number;
}

export interface Survey {
  readonly pages: readonly PageSurvey[];
  readonly sheets: readonly SheetSurvey[];
  readonly repeatedBlocks: readonly RepeatedBlock[];
  readonly otherFiles: number;
  /** Bytes of embedded blocks that are a second or later copy of the same text. */
  readonly repeatedBytes: number;
}
