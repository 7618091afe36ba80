import type { OperationBody, SiteFiguresReply, SurveyReply } from '@syndeton/contract';

/** A file left out; `hash` is set when its bytes are kept. */
export interface LeftOutRecord {
  readonly path: string;
  readonly reason: string;
  readonly hash?: string;
}

export interface SiteRecord {
  readonly id: string;
  readonly name: string;
  /** Folder put before every path on the way out, with its slash; often empty. */
  readonly prefix: string;
  readonly head: number;
  readonly leftOut: readonly LeftOutRecord[];
  /** Why overrides are kept, by the override's id. */
  readonly notes: Readonly<Record<string, string>>;
}

export interface RevisionRecord {
  readonly number: number;
  readonly message: string;
  readonly savedAt: Date;
  readonly figures: SiteFiguresReply;
  readonly changedFiles: number;
}

export interface NewRevision {
  readonly message: string;
  readonly figures: SiteFiguresReply;
  readonly changedFiles: number;
  /** Every file of the revision by SHA-256. */
  readonly manifest: Readonly<Record<string, string>>;
  /** Bytes of those that may not be stored yet. */
  readonly blobs: ReadonlyMap<string, Buffer>;
}

/** What a survey of a revision said: replies as gzipped JSON. */
export interface InventoryRecord {
  readonly survey: Uint8Array;
  readonly families: Uint8Array;
  readonly sheets: SurveyReply['sheets'];
}

export interface DraftRecord {
  readonly base: number;
  readonly operations: readonly OperationBody[];
}

/** Sites, their revisions and drafts. Every method that writes is one transaction. */
export interface SiteStore {
  create(site: Omit<SiteRecord, 'id' | 'head' | 'notes'>, first: NewRevision): Promise<SiteRecord>;
  rename(id: string, name: string): Promise<void>;
  /** Files left out anew, in place of those known before. */
  setLeftOut(id: string, leftOut: readonly LeftOutRecord[]): Promise<void>;
  /** An empty note takes it back. */
  setNote(id: string, subject: string, note: string): Promise<void>;
  list(): Promise<
    readonly { readonly site: SiteRecord; readonly newest: RevisionRecord; readonly draftOperations: number }[]
  >;
  find(id: string): Promise<SiteRecord | undefined>;
  /** Hides a site; it can be restored until it is purged. */
  remove(id: string): Promise<boolean>;
  restore(id: string): Promise<boolean>;
  /** Deletes sites removed before a time, with the bytes nobody else holds. */
  purge(removedBefore: Date): Promise<number>;
  /** Of this version, or undefined. */
  inventory(id: string, number: number, version: number): Promise<InventoryRecord | undefined>;
  putInventory(id: string, number: number, version: number, inventory: InventoryRecord): Promise<void>;
  revisions(id: string): Promise<readonly RevisionRecord[]>;
  manifest(id: string, number: number): Promise<Readonly<Record<string, string>> | undefined>;
  readBlobs(hashes: readonly string[]): Promise<ReadonlyMap<string, Buffer>>;
  /**
   * Adds a revision on top of `base` and drops the draft. When the newest revision is another one, nothing is written and its
   * number is returned as `newest`.
   */
  addRevision(
    id: string,
    base: number,
    revision: NewRevision,
  ): Promise<{ readonly number: number } | { readonly newest: number } | undefined>;
  draft(id: string): Promise<DraftRecord | undefined>;
  putDraft(id: string, draft: DraftRecord): Promise<void>;
  dropDraft(id: string): Promise<void>;
}
