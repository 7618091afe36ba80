import { randomUUID } from 'node:crypto';
import type { Follow, ImportReply } from '@syndeton/contract';
import { databaseTrouble } from '../../db/databaseTrouble.ts';
import type { OldNameEncoding } from '../../archive/entryNames.ts';
import type { UploadedArchive } from '../../http/uploadArchive.ts';
import { Refusal } from '../../http/refusal.ts';
import { whoAsks, type Person } from '../../people/whoAsks.ts';
import type { ImportStore } from '../../stores/importStore.ts';
import type { BringingIn, SiteService } from '../sites/index.ts';

/** Sites on their way in. A server that stops keeps nothing half-written; the next one tells of those it was busy with. */
export interface ImportService {
  /** Takes over the list from a server that is gone: what it was busy with has ended, and is said to have. */
  recover(): Promise<void>;
  start(archive: UploadedArchive, name: string | undefined, names: OldNameEncoding | undefined): ImportReply;
  list(): readonly ImportReply[];
  /** Tells of the list now and whenever it has changed. */
  readonly follow: Follow<readonly ImportReply[]>;
  get(id: string): ImportReply;
  /** Stops it; nothing of it is kept. One that is done stays done. */
  stop(id: string): void;
}

interface Running {
  reply: ImportReply;
  readonly stop: AbortController;
  /** The id of who brings it in, where there are accounts. */
  readonly by: string | undefined;
}

const forgetAfter = 10 * 60_000;
const interruptedDetail = 'The server was stopped in the middle. Nothing of it was kept: bring it in again.';

/** Of their own people see, and administrators all. */
const isFor = (person: Person | undefined, { by }: Running): boolean =>
  person === undefined || person.isAdministrator || person.id === by;

export function makeImportService({
  sites,
  store,
  warn,
}: {
  readonly sites: SiteService;
  readonly store: ImportStore;
  readonly warn: (error: unknown) => void;
}): ImportService {
  const running = new Map<string, Running>();
  const listeners = new Set<() => void>();
  const tell = (): void => listeners.forEach((listener) => listener());

  function find(id: string): Running {
    const found = running.get(id);
    if (!found || !isFor(whoAsks(), found))
      throw new Refusal('import-not-found', `There is no import ${id}. It ended some time ago, or never was.`);
    return found;
  }

  function follow(one: Running): BringingIn {
    const update = (change: Partial<ImportReply>): void => {
      one.reply = { ...one.reply, ...change };
      tell();
    };
    return {
      signal: one.stop.signal,
      onFile: (done, total, leftOut) =>
        update({
          done,
          total,
          ...(leftOut.length === one.reply.leftOut.length
            ? {}
            : { leftOut: leftOut.map(({ path, reason, content }) => ({ path, reason, kept: content !== undefined })) }),
        }),
      onPage: ({ done, total, rules = 0 }) => update({ status: 'looking', done, total, rules }),
      onStore: () => update({ status: 'storing' }),
    };
  }

  /** The list is told of from memory; what is kept is for the time after a restart. */
  function keep({ reply }: Running, isRunning: boolean): void {
    store.put(reply, isRunning).catch(warn);
  }

  function forgetLater(id: string): void {
    setTimeout(() => running.delete(id), forgetAfter).unref();
  }

  const listFor = (person: Person | undefined): readonly ImportReply[] =>
    [...running.values()].filter((one) => isFor(person, one)).map(({ reply }) => reply);

  return {
    async recover() {
      await store.drop(new Date(Date.now() - forgetAfter));
      for (const reply of await store.interrupt({ status: 'interrupted', detail: interruptedDetail })) {
        running.set(reply.id, { reply, stop: new AbortController(), by: undefined });
        forgetLater(reply.id);
      }
    },
    start(archive, name, names) {
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
      const done = archive.takeOver();
      const one: Running = { reply, stop: new AbortController(), by: whoAsks()?.id };
      running.set(id, one);
      keep(one, true);
      tell();
      sites
        .bringIn(archive.path, name, { ...follow(one), names })
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
        .finally(() => {
          done().catch(warn);
          keep(one, false);
          tell();
          forgetLater(id);
        });
      return reply;
    },
    list: () => listFor(whoAsks()),
    follow(say) {
      const person = whoAsks();
      let waiting: NodeJS.Timeout | undefined;
      const now = (): void => {
        waiting = undefined;
        say(listFor(person));
      };
      // ten times a second at most
      const soon = (): void => void (waiting ??= setTimeout(now, 100).unref());
      listeners.add(soon);
      now();
      return () => {
        clearTimeout(waiting);
        listeners.delete(soon);
      };
    },
    get: (id) => find(id).reply,
    stop(id) {
      find(id).stop.abort();
    },
  };
}
