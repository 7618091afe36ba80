import { randomUUID } from 'node:crypto';
import type { ImportReply } from '@syndeton/contract';
import { databaseTrouble } from '../../db/databaseTrouble.ts';
import { Refusal } from '../../http/refusal.ts';
import type { BringingIn, SiteService } from '../sites/siteService.ts';

/** Sites on their way in. They live in memory: a server that stops keeps nothing half-written. */
export interface ImportService {
  start(archive: Buffer, name: string | undefined): ImportReply;
  list(): readonly ImportReply[];
  get(id: string): ImportReply;
  /** Stops it; nothing of it is kept. One that is done stays done. */
  stop(id: string): void;
}

interface Running {
  reply: ImportReply;
  readonly stop: AbortController;
}

const forgetAfter = 10 * 60_000;

export function makeImportService({
  sites,
  warn,
}: {
  readonly sites: SiteService;
  readonly warn: (error: unknown) => void;
}): ImportService {
  const running = new Map<string, Running>();

  function find(id: string): Running {
    const found = running.get(id);
    if (!found)
      throw new Refusal('import-not-found', `There is no import ${id}. It ended some time ago, or never was.`);
    return found;
  }

  function follow(one: Running): BringingIn {
    const update = (change: Partial<ImportReply>): void => void (one.reply = { ...one.reply, ...change });
    return {
      signal: one.stop.signal,
      onFile: (done, total, leftOut) =>
        update({
          done,
          total,
          leftOut: leftOut.map(({ path, reason, content }) => ({ path, reason, kept: content !== undefined })),
        }),
      onPage: ({ done, total, rules = 0 }) => update({ status: 'looking', done, total, rules }),
      onStore: () => update({ status: 'storing' }),
    };
  }

  return {
    start(archive, name) {
      const id = randomUUID();
      const reply: ImportReply = {
        id,
        name: name?.trim() || 'Unnamed site',
        status: 'reading',
        done: 0,
        total: 0,
        rules: 0,
        leftOut: [],
      };
      const one: Running = { reply, stop: new AbortController() };
      running.set(id, one);
      sites
        .bringIn(archive, name, follow(one))
        .then(
          (site) =>
            (one.reply = { ...one.reply, status: 'done', siteId: site.id, name: site.name, leftOut: site.leftOut }),
          (error: Error) => {
            if (one.stop.signal.aborted) one.reply = { ...one.reply, status: 'stopped' };
            else {
              const refusal = error instanceof Refusal ? error : databaseTrouble(error);
              if (!refusal) warn(error);
              const detail = refusal?.message ?? 'Something went wrong here. Look whether the site is there.';
              one.reply = { ...one.reply, status: 'failed', detail };
            }
          },
        )
        .finally(() => setTimeout(() => running.delete(id), forgetAfter).unref());
      return reply;
    },
    list: () => [...running.values()].map(({ reply }) => reply),
    get: (id) => find(id).reply,
    stop(id) {
      find(id).stop.abort();
    },
  };
}
