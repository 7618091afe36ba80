import type { OperationBody, SiteFiguresReply, SurveyReply } from '@syndeton/contract';
import type { SiteDecisions } from '@syndeton/core';

/** A file left out; `hash` is set when its bytes are kept. */
export interface LeftOutRecord {
  readonly path: string;
  readonly reason: string;
  readonly hash?: string;
}

export interface RevisionRecord {
  readonly number: number;
  readonly message: string;
  readonly savedAt: Date;
  readonly figures: SiteFiguresReply;
  readonly changedFiles: number;
  /** What its operations did, each in a sentence; none for files that came in some other way. */
  readonly sentences: readonly string[];
  /** What its author wrote about a change of look. */
  readonly note: string;
  /** Who saved it; empty where there are no accounts. */
  readonly by: string;
}

/** One operation of a revision, in words too. */
export interface RevisionStep {
  readonly operation: OperationBody;
  readonly sentence: string;
}

/** What a survey of a revision said: replies as gzipped JSON. */
export interface InventoryRecord {
  readonly survey: Uint8Array;
  readonly families: Uint8Array;
  readonly sheets: SurveyReply['sheets'];
}

export interface VersionedInventory extends InventoryRecord {
  readonly version: number;
}

/** Site path → SHA-256 of the file's bytes, in hex. */
export type Manifest = Readonly<Record<string, string>>;

export interface NewRevision {
  readonly message: string;
  readonly figures: SiteFiguresReply;
  readonly changedFiles: number;
  readonly manifest: Manifest;
  /** Bytes that the site may not use yet: of files, and of files left out and kept. */
  readonly blobs: ReadonlyMap<string, Buffer>;
  /** What was found in it, or the earlier revision that it is like. */
  readonly inventory: VersionedInventory | { readonly like: number };
  /** What was decided about the site, or the revision whose decisions stand; those of the one before when absent. */
  readonly decisions?: SiteDecisions | { readonly like: number };
  readonly steps?: readonly RevisionStep[];
  readonly note?: string;
}

/** A revision on its way to becoming the newest, with what it was made on. */
export interface Commit {
  readonly base: number;
  /** The draft's version it was made on. A draft that was changed since is never ended by it. */
  readonly draft: number;
  readonly revision: NewRevision;
  /** Files left out anew, in place of those known before. */
  readonly leftOut?: readonly LeftOutRecord[];
}

/** What came of a write that names what it was made on; only `done` wrote something. */
export type WriteOutcome =
  | { readonly kind: 'done'; readonly number: number }
  | { readonly kind: 'site-gone' }
  | { readonly kind: 'site-changed'; readonly newest: number }
  | { readonly kind: 'draft-changed' };

/** Revisions and the bytes they hold. */
export interface RevisionStore {
  /** The newest first. */
  revisions(siteId: string): Promise<readonly RevisionRecord[]>;
  manifest(siteId: string, number: number): Promise<Manifest | undefined>;
  decisions(siteId: string, number: number): Promise<SiteDecisions>;
  steps(siteId: string, number: number): Promise<readonly RevisionStep[]>;
  /** Gives a revision other words; false where there is none. */
  rename(
    siteId: string,
    number: number,
    words: { readonly message?: string; readonly note?: string },
  ): Promise<boolean>;
  /** The bytes of one file. */
  file(siteId: string, number: number, path: string): Promise<Buffer | undefined>;
  readBlobs(hashes: readonly string[]): Promise<ReadonlyMap<string, Buffer>>;
  /** Sizes in bytes, without reading the bytes. */
  blobSizes(hashes: readonly string[]): Promise<ReadonlyMap<string, number>>;
  /** Of this version, or undefined. */
  inventory(siteId: string, number: number, version: number): Promise<InventoryRecord | undefined>;
  putInventory(siteId: string, number: number, inventory: VersionedInventory): Promise<void>;
  /**
   * The one way a site changes: the revision, what was found in it, the files left out and the draft's end, in one transaction under
   * a lock on the site.
   */
  commit(siteId: string, commit: Commit): Promise<WriteOutcome>;
}
