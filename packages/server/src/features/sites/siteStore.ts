import type { LeftOutReply, OperationBody, SiteFiguresReply } from '@syndeton/contract';

export interface SiteRecord {
  readonly id: string;
  readonly name: string;
  /** Folder put before every path on the way out, with its slash; often empty. */
  readonly prefix: string;
  readonly head: number;
  readonly leftOut: readonly LeftOutReply[];
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

export interface DraftRecord {
  readonly base: number;
  readonly operations: readonly OperationBody[];
}

/** Sites, their revisions and drafts. Every method that writes is one transaction. */
export interface SiteStore {
  create(site: Omit<SiteRecord, 'id' | 'head'>, first: NewRevision): Promise<SiteRecord>;
  list(): Promise<
    readonly { readonly site: SiteRecord; readonly newest: RevisionRecord; readonly draftOperations: number }[]
  >;
  find(id: string): Promise<SiteRecord | undefined>;
  remove(id: string): Promise<boolean>;
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
