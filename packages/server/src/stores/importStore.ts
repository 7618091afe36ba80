import type { ImportReply } from '@syndeton/contract';
import type { OldNameEncoding } from '../archive/entryNames.ts';
import type { Person } from '../people/whoAsks.ts';

/** What was sent beside the archive. */
export interface AskedImport {
  readonly name?: string | undefined;
  readonly names?: OldNameEncoding | undefined;
}

/** A site on its way in, as it was told of last. */
export interface ImportRecord {
  readonly reply: ImportReply;
  /** In whose name, where there are accounts. */
  readonly by: Person | undefined;
}

/** One process's go at bringing a site in; what a later one does counts, not what this one still does. */
export interface ImportAttempt {
  readonly id: string;
  readonly attempt: number;
}

/** It was begun again by another process, or has ended: nothing of this attempt counts. */
export class Overtaken extends Error {}

/** Sites on their way in, with their archives until they are here. Every change is told of to all processes. */
export interface ImportStore {
  /** With the archive, a file, and the job that brings it in. */
  add(reply: ImportReply, asked: AskedImport, by: Person | undefined, archive: string): Promise<void>;
  /** Those under way, and those that ended after a time. */
  list(after: Date): Promise<readonly ImportRecord[]>;
  find(id: string): Promise<ImportRecord | undefined>;
  /** One attempt more; undefined when it has ended. */
  begin(id: string): Promise<(ImportAttempt & AskedImport & { readonly by: Person | undefined }) | undefined>;
  archive(id: string): AsyncIterable<Uint8Array>;
  isStopped(id: string): Promise<boolean>;
  /** How far an attempt is. */
  tell(attempt: ImportAttempt, change: Partial<ImportReply>): Promise<void>;
  end(attempt: ImportAttempt, change: Partial<ImportReply>): Promise<void>;
  /** Its process stops it; one that none has begun ends at once. */
  stop(id: string): Promise<void>;
  /** Ends those that no process will take up any more. */
  endLost(change: Partial<ImportReply>): Promise<void>;
  /** Called when one may have changed, its id where that is known. Returns the way to stop. */
  onChange(listener: (id: string | undefined) => void): () => void;
  /** Ended before a time: nobody asks for them any more. */
  drop(before: Date): Promise<void>;
}
