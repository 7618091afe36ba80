import { createWriteStream } from 'node:fs';
import fs from 'node:fs/promises';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import type { ImportReply } from '@syndeton/contract';
import { uploadFolder } from '../../archive/uploadFolder.ts';
import { databaseTrouble } from '../../db/databaseTrouble.ts';
import type { Job } from '../../db/queue.ts';
import { Refusal, type RefusalCode } from '../../http/refusal.ts';
import { asPerson } from '../../people/whoAsks.ts';
import { Overtaken, type ImportAttempt, type ImportStore } from '../../stores/importStore.ts';
import type { BringingIn, SiteService } from '../sites/index.ts';

const passing: ReadonlySet<RefusalCode> = new Set(['stopping', 'database-away', 'store-away']);

/** Milliseconds between two words on how far one is. */
const between = 150;

interface Parts {
  readonly store: ImportStore;
  readonly sites: SiteService;
  readonly warn: (error: unknown) => void;
}

/** Brings a site in from the archive that is kept for it. What ends this process in the middle leaves it to another. */
export function makeImportJob({ store, sites, warn }: Parts): Job {
  return async (id, stopping) => {
    const begun = await store.begin(id);
    if (!begun) return;
    const stop = new AbortController();
    const stopNow = (): void => stop.abort();
    stopping.addEventListener('abort', stopNow);
    const look = (changed: string | undefined): void => {
      if (changed === undefined || changed === id) store.isStopped(id).then((is) => is && stop.abort(), warn);
    };
    const stopLooking = store.onChange(look);
    const file = path.join(uploadFolder(), `${id}-${begun.attempt}`);
    const progress = tellAbout(begun, store, warn);
    try {
      await pipeline(store.archive(id), createWriteStream(file));
      const bringing: BringingIn = {
        ...progress.bringing,
        signal: stop.signal,
        names: begun.names,
        importing: { ...begun, reply: progress.reply },
      };
      await asPerson(begun.by, () => sites.bringIn(file, begun.name, bringing));
    } catch (error) {
      if (!(error instanceof Overtaken)) await end(begun, error, await store.isStopped(id));
    } finally {
      progress.end();
      stopLooking();
      stopping.removeEventListener('abort', stopNow);
      await fs.rm(file, { force: true });
    }
  };

  async function end(attempt: ImportAttempt, error: unknown, isStopped: boolean): Promise<void> {
    const refusal = error instanceof Refusal ? error : databaseTrouble(error);
    // another process, or this one when what was away is back, goes on with it
    if (!isStopped && refusal && passing.has(refusal.code)) throw error;
    if (!isStopped && !refusal) warn(error);
    const detail = refusal?.message ?? 'Something went wrong here. Look whether the site is there.';
    await store
      .end(attempt, isStopped ? { status: 'stopped' } : { status: 'failed', detail })
      .catch((problem: unknown) => {
        if (!(problem instanceof Overtaken)) throw problem;
      });
  }
}

/** How far an attempt is, told of now and then. */
function tellAbout(
  attempt: ImportAttempt,
  store: ImportStore,
  warn: (error: unknown) => void,
): { readonly bringing: BringingIn; readonly reply: () => Partial<ImportReply>; readonly end: () => void } {
  let reply: Partial<ImportReply> = {};
  let leftOutBefore = 0;
  let timer: NodeJS.Timeout | undefined;
  let telling = Promise.resolve();
  const update = (change: Partial<ImportReply>): void => {
    reply = { ...reply, ...change };
    timer ??= setTimeout(() => {
      timer = undefined;
      telling = telling.then(() => store.tell(attempt, reply)).catch(warn);
    }, between);
  };
  return {
    bringing: {
      onFile(done, total, leftOut) {
        update({ done, total });
        if (leftOut.length === leftOutBefore) return;
        leftOutBefore = leftOut.length;
        update({
          leftOut: leftOut.map(({ path, reason, content }) => ({ path, reason, kept: content !== undefined })),
        });
      },
      onPage: ({ done, total, rules = 0 }) => update({ status: 'looking', done, total, rules }),
      onStore: () => update({ status: 'storing' }),
    },
    reply: () => reply,
    end: () => clearTimeout(timer),
  };
}
