import { randomUUID } from 'node:crypto';
import type {
  CreatedSiteReply,
  ImportReply,
  LeftOutReply,
  SiteDetailReply,
  SiteSummaryReply,
} from '@syndeton/contract';
import { extensionOf, fileKindOf, makeSite, runEndings, runPagesUnread } from '@syndeton/core';
import type { Analysis } from '../../analysis/analysis.ts';
import { inventoryVersion } from '../../analysis/inventory.ts';
import type { Progress } from '../../analysis/siteThreads.ts';
import type { LeftOutFile } from '../../archive/leftOut.ts';
import type { Turns } from '../../archive/turns.ts';
import { readArchive, type ReadArchive, type Reading } from '../../archive/readArchive.ts';
import { Refusal } from '../../http/refusal.ts';
import type { LeftOutRecord, RevisionStore } from '../../stores/revisionStore.ts';
import type { ImportAttempt } from '../../stores/importStore.ts';
import { noSuchSite } from './refusals.ts';
import type { SiteRecord, SiteStore } from '../../stores/siteStore.ts';
import { sha256 } from '../../stores/sha256.ts';

/** How a site on its way in is followed and stopped. */
export interface BringingIn extends Reading {
  readonly onPage?: (progress: Progress) => void;
  readonly onStore?: () => void;
  /** The import that ends with it, and what is said of it then. */
  readonly importing?: ImportAttempt & { readonly reply: () => Partial<ImportReply> };
}

export interface SiteService {
  /** `archive`: the path of a zip. */
  bringIn(archive: string, name: string | undefined, bringing?: BringingIn): Promise<CreatedSiteReply>;
  bringInFiles(read: ReadArchive, name: string): Promise<CreatedSiteReply>;
  list(): Promise<readonly SiteSummaryReply[]>;
  detail(id: string): Promise<SiteDetailReply>;
  rename(id: string, name: string): Promise<void>;
  /** Why something is kept; an empty note takes it back. */
  note(id: string, subject: string, note: string): Promise<void>;
  remove(id: string): Promise<void>;
  /** Brings a removed site back. */
  restore(id: string): Promise<void>;
  get(id: string): Promise<SiteRecord>;
  /** Deletes for good what was removed over a week ago, with the bytes that nobody uses. */
  purge(): Promise<void>;
}

const uuid = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

export const recordOf = ({ path, reason, content }: LeftOutFile): LeftOutRecord => ({
  path,
  reason,
  ...(content ? { hash: sha256(content) } : {}),
});

export const leftOutReply = ({ path, reason, hash }: LeftOutRecord): LeftOutReply => ({
  path,
  reason,
  kept: hash !== undefined,
});

const nothing = new Uint8Array(0);

/** How long a removed site can be brought back, in milliseconds. */
const keptFor = 7 * 86_400_000;

/** So many bytes of pictures and the like are handed on, so that the thread then has all of the site. */
const mostOthers = 50_000_000;

/** Scripts are looked into for what they do to styles; pictures are not. */
const mayBeRead = (path: string): boolean => fileKindOf(path, runEndings) !== 'other' || /\.m?js$/i.test(path);

/** Where no file is a page by itself, the endings of those that a server runs: nothing else can be meant. */
function onlyRunPages(files: readonly (readonly [path: string, bytes: Buffer])[]): readonly string[] {
  if (files.some(([path]) => fileKindOf(path) === 'page')) return [];
  const unread = runPagesUnread(makeSite(files.filter(([path]) => runEndings.has(extensionOf(path)))));
  if (unread.length === 0)
    throw new Refusal(
      'bad-archive',
      'There is no page in it. Pages end in .html, .htm, .xhtml or .shtml; pages that a server runs in .php, .asp, .aspx or .jsp.',
    );
  return [...new Set(unread.map(({ path }) => extensionOf(path)))].sort();
}

export function makeSiteService({
  store,
  revisions,
  analysis,
  turns,
}: {
  readonly store: SiteStore;
  readonly revisions: RevisionStore;
  readonly analysis: Analysis;
  readonly turns: Turns;
}): SiteService {
  async function get(id: string): Promise<SiteRecord> {
    const site = uuid.test(id) ? await store.find(id) : undefined;
    if (!site) throw noSuchSite(id);
    return site;
  }
  async function bringInFiles(read: ReadArchive, name: string, bringing: BringingIn = {}): Promise<CreatedSiteReply> {
    const files = [...read.files];
    const runPages = onlyRunPages(files);
    // many other files are there as names only, so that links to them are found
    const others = files.reduce((sum, [path, bytes]) => sum + (mayBeRead(path) ? 0 : bytes.length), 0);
    const looked = files.map(
      ([path, bytes]) => [path, others <= mostOthers || mayBeRead(path) ? bytes : nothing] as const,
    );
    const following = { signal: bringing.signal, ...(bringing.onPage ? { onProgress: bringing.onPage } : {}) };
    // the thread that looks at it is the one that will hold it
    const id = randomUUID();
    const found = await analysis.run(id, 'inventoryOfFiles', { files: looked, runPages }, following);
    bringing.signal?.throwIfAborted();
    bringing.onStore?.();
    const manifest: Record<string, string> = {};
    const blobs = new Map<string, Buffer>();
    for (const [path, bytes] of files) {
      const hash = sha256(bytes);
      manifest[path] = hash;
      blobs.set(hash, bytes);
    }
    for (const { content } of read.leftOut) if (content) blobs.set(sha256(content), content);
    const { importing } = bringing;
    const leftOut = read.leftOut.map(recordOf);
    const site = await store.create(
      { id, name, prefix: read.prefix, leftOut },
      {
        message: 'Brought in',
        figures: found.figures,
        changedFiles: files.length,
        manifest,
        blobs,
        inventory: { ...found, version: inventoryVersion },
        decisions: { absent: [], leftOut: [], runPages },
      },
      importing && {
        ...importing,
        reply: { ...importing.reply(), status: 'done', name, leftOut: leftOut.map(leftOutReply) },
      },
    );
    return { id, name, files: files.length, leftOut: site.leftOut.map(leftOutReply) };
  }
  return {
    get,
    bringInFiles,
    async bringIn(archive, name, bringing = {}) {
      const given = (name ?? '').trim().slice(0, 200);
      return turns.run(async () => {
        const read = await readArchive(archive, bringing);
        return bringInFiles(read, given === '' ? read.prefix.replace(/\/$/, '') || 'Unnamed site' : given, bringing);
      }, bringing.signal);
    },
    async list() {
      return (await store.list()).map(({ site, newest, draftOperations }) => ({
        id: site.id,
        name: site.name,
        revision: site.head,
        message: newest.message,
        savedAt: newest.savedAt.toISOString(),
        figures: newest.figures,
        draftOperations,
      }));
    },
    async detail(id) {
      const site = await get(id);
      const all = await revisions.revisions(id);
      const manifest = (await revisions.manifest(id, site.head))!;
      const sizes = await revisions.blobSizes(Object.values(manifest));
      const runPages = new Set((await revisions.decisions(id, site.head)).runPages);
      return {
        id,
        name: site.name,
        revision: site.head,
        revisions: all.map(({ number, message, savedAt, changedFiles, sentences, note, by }) => ({
          number,
          message,
          savedAt: savedAt.toISOString(),
          changedFiles,
          steps: [...sentences],
          note,
          by,
        })),
        files: Object.entries(manifest)
          .map(([path, hash]) => ({ path, kind: fileKindOf(path, runPages), bytes: sizes.get(hash)! }))
          .sort((a, b) => (a.path < b.path ? -1 : 1)),
        leftOut: site.leftOut.map(leftOutReply),
      };
    },
    async remove(id) {
      await get(id);
      await store.remove(id);
    },
    async rename(id, name) {
      await get(id);
      await store.rename(id, name.trim());
    },
    async note(id, subject, note) {
      await get(id);
      await store.setNote(id, subject, note);
    },
    purge: () => store.purge(new Date(Date.now() - keptFor)),
    async restore(id) {
      if (!uuid.test(id) || !(await store.restore(id)))
        throw new Refusal('site-not-found', `There is no removed site ${id} here.`);
    },
  };
}
