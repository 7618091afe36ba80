import type { PackedFile, SharedPage, SiteTerms } from '@syndeton/core';
import type { MessagePort } from 'node:worker_threads';

/** What a thread is started with that proves pages for another one. */
export interface PartnerData {
  readonly partner: MessagePort;
}

/** A file that differs from the beginning; `undefined` where the last state had it alike. */
export type ChangedFile = readonly [path: string, hash: string, file: PackedFile | undefined];

export type PartnerOrder =
  /** Another beginning; pages that are not its to prove are there by name. */
  | { readonly kind: 'beginning'; readonly files: readonly PackedFile[]; readonly terms: SiteTerms }
  /** Pages to read while nothing else is asked. */
  | { readonly kind: 'prepare'; readonly pages: readonly string[] }
  | {
      readonly kind: 'prove';
      readonly id: number;
      readonly changed: readonly ChangedFile[];
      readonly removed: readonly string[];
      readonly terms: SiteTerms;
      readonly pages: readonly string[];
      /** Numbers at `flagOf`, which both sides see. */
      readonly flags: SharedArrayBuffer;
    };

/** How many pages are proved; not 0 when it is to stop; what became of it. */
export const flagOf = { done: 0, stop: 1, end: 2 } as const;
/** Of `end`: it goes on while that is 0. */
export const endOf = { given: 1, lost: 2 } as const;

export interface PartnerReply {
  readonly id: number;
  readonly pages: readonly SharedPage[];
}
