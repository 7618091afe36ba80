import type { ImportReply } from '@syndeton/contract';

/** Imports as they were told of last. */
export interface ImportStore {
  put(reply: ImportReply, running: boolean): Promise<void>;
  /** Those that a server which is gone was busy with, changed to what is said of them then; the same once only. */
  interrupt(change: Partial<ImportReply>): Promise<readonly ImportReply[]>;
  /** Ended before a time: nobody asks for them any more. */
  drop(before: Date): Promise<void>;
}
