import type { ImportReply } from '@syndeton/contract';
import type { ImportAttempt } from './importStore.ts';
import type { LeftOutRecord, NewRevision, RevisionRecord } from './revisionStore.ts';

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

export interface ListedSite {
  readonly site: SiteRecord;
  readonly newest: RevisionRecord;
  readonly draftOperations: number;
}

/** Sites as such. Every method that writes is one transaction. */
export interface SiteStore {
  /** `id`: a UUID no site has. `importing`: the import that ends with it. Rejects with `Overtaken` when another attempt of it counts. */
  create(
    site: Omit<SiteRecord, 'head' | 'notes'>,
    first: NewRevision,
    importing?: ImportAttempt & { readonly reply: Partial<ImportReply> },
  ): Promise<SiteRecord>;
  rename(id: string, name: string): Promise<void>;
  /** An empty note takes it back. */
  setNote(id: string, subject: string, note: string): Promise<void>;
  /** The newest first. */
  list(): Promise<readonly ListedSite[]>;
  find(id: string): Promise<SiteRecord | undefined>;
  /** Hides a site; it can be restored until it is purged. */
  remove(id: string): Promise<boolean>;
  restore(id: string): Promise<boolean>;
  /** Deletes sites removed before a time, lists that came too late before it, and the bytes no site uses. */
  purge(before: Date): Promise<void>;
}
