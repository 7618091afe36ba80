import { randomUUID } from 'node:crypto';
import type { Follow, ImportReply } from '@syndeton/contract';
import type { UploadedArchive } from '../../http/uploadArchive.ts';
import { Refusal } from '../../http/refusal.ts';
import { whoAsks, type Person } from '../../people/whoAsks.ts';
import { attempts } from '../../db/queue.ts';
import type { AskedImport, ImportRecord, ImportStore } from '../../stores/importStore.ts';

/** Sites on their way in, whichever process brings them in: nothing is half-written, and one that a process cannot end another takes up. */
export interface ImportService {
  start(archive: UploadedArchive, asked: AskedImport): Promise<ImportReply>;
  list(): Promise<readonly ImportReply[]>;
  /** Tells of the list now and whenever it has changed. */
  readonly follow: Follow<readonly ImportReply[]>;
  get(id: string): Promise<ImportReply>;
  /** Stops it; nothing of it is kept. One that is done stays done. */
  stop(id: string): Promise<void>;
  /** Ends what nobody will take up, and forgets what ended long ago. */
  tidy(): Promise<void>;
}

const forgetAfter = 10 * 60_000;
const mostWaiting = 50;
const lostDetail = `The server ended ${attempts} times in the middle of it. Nothing of it was kept: bring it in again, perhaps with fewer files.`;
const uuid = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;

/** Of their own people see, and administrators all. */
const isFor = (person: Person | undefined, { by }: ImportRecord): boolean =>
  person === undefined || person.isAdministrator || person.id === by?.id;

export function makeImportService(store: ImportStore, warn: (error: unknown) => void): ImportService {
  const recent = (): Date => new Date(Date.now() - forgetAfter);

  async function find(id: string): Promise<ImportReply> {
    const found = uuid.test(id) ? await store.find(id) : undefined;
    if (!found || !isFor(whoAsks(), found))
      throw new Refusal('import-not-found', `There is no import ${id}. It ended some time ago, or never was.`);
    return found.reply;
  }

  const listFor = async (person: Person | undefined): Promise<readonly ImportReply[]> =>
    (await store.list(recent())).filter((one) => isFor(person, one)).map(({ reply }) => reply);

  return {
    async start(archive, asked) {
      const waiting = (await store.list(recent())).filter(({ reply }) => reply.status === 'reading').length;
      if (waiting >= mostWaiting)
        throw new Refusal('busy', `${mostWaiting} archives wait to be read already. Try again in a minute.`);
      const reply: ImportReply = {
        id: randomUUID(),
        name: asked.name?.trim() || 'Unnamed site',
        status: 'reading',
        done: 0,
        total: 0,
        rules: 0,
        leftOut: [],
      };
      await store.add(reply, asked, whoAsks(), archive.path);
      return reply;
    },
    list: () => listFor(whoAsks()),
    follow(say) {
      const person = whoAsks();
      let waiting: NodeJS.Timeout | undefined;
      const now = (): void => {
        waiting = undefined;
        listFor(person).then(say, warn);
      };
      // ten times a second at most
      const stop = store.onChange(() => void (waiting ??= setTimeout(now, 100).unref()));
      now();
      return () => {
        clearTimeout(waiting);
        stop();
      };
    },
    get: find,
    async stop(id) {
      await find(id);
      await store.stop(id);
    },
    async tidy() {
      await store.endLost({ status: 'interrupted', detail: lostDetail });
      await store.drop(recent());
    },
  };
}
