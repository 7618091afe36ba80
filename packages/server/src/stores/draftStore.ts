import type { OperationBody } from '@syndeton/contract';
import type { WriteOutcome } from './revisionStore.ts';

/** The operations of a site's draft. A site nobody changes has an empty one, on its newest revision. */
export interface DraftRecord {
  readonly base: number;
  /** Grows with every change, also when a revision ends the draft. */
  readonly version: number;
  readonly operations: readonly OperationBody[];
}

/** A list that came too late: the draft it was made from, as long as that is known, and what it should have become. */
export interface LateDraft {
  readonly madeFrom: DraftRecord | undefined;
  readonly operations: readonly OperationBody[];
}

export interface DraftStore {
  find(siteId: string): Promise<DraftRecord | undefined>;
  /** The draft in an earlier version, as long as it is kept. */
  past(siteId: string, version: number): Promise<DraftRecord | undefined>;
  /** Replaces the operations; `version` is the one they were made on. `done` holds the new version. */
  put(siteId: string, draft: DraftRecord): Promise<WriteOutcome>;
  /** Keeps a list that came too late; replies with the name it can be redone by. */
  keepLate(siteId: string, madeOn: number, operations: readonly OperationBody[]): Promise<string>;
  late(siteId: string, id: string): Promise<LateDraft | undefined>;
  dropLate(siteId: string, id: string): Promise<void>;
}
