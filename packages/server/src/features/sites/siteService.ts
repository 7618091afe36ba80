import { createHash } from 'node:crypto';
import type { CreatedSiteReply, SiteDetailReply, SiteSummaryReply } from '@syndeton/contract';
import { fileKindOf } from '@syndeton/core';
import type { Analysis } from '../../analysis/pool.ts';
import { readArchive, type ReadArchive } from '../../archive/readArchive.ts';
import { Refusal } from '../../http/refusal.ts';
import type { SiteRecord, SiteStore } from './siteStore.ts';

export interface SiteService {
  bringIn(archive: Buffer, name: string | undefined): Promise<CreatedSiteReply>;
  bringInFiles(read: ReadArchive, name: string): Promise<CreatedSiteReply>;
  list(): Promise<readonly SiteSummaryReply[]>;
  detail(id: string): Promise<SiteDetailReply>;
  remove(id: string): Promise<void>;
  get(id: string): Promise<SiteRecord>;
}

export const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

const uuid = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

export function makeSiteService({
  store,
  analysis,
}: {
  readonly store: SiteStore;
  readonly analysis: Analysis;
}): SiteService {
  async function get(id: string): Promise<SiteRecord> {
    const site = uuid.test(id) ? await store.find(id) : undefined;
    if (!site) throw new Refusal('site-not-found', `There is no site ${id} here.`);
    return site;
  }
  async function bringInFiles(read: ReadArchive, name: string): Promise<CreatedSiteReply> {
    const files = [...read.files];
    if (!files.some(([path]) => fileKindOf(path) === 'page'))
      throw new Refusal('bad-archive', 'There is no page in it. Pages end in .html, .htm, .xhtml or .shtml.');
    const figures = await analysis.run('figures', { files: files.filter(([path]) => fileKindOf(path) !== 'other') });
    const manifest: Record<string, string> = {};
    const blobs = new Map<string, Buffer>();
    for (const [path, bytes] of files) {
      const hash = sha256(bytes);
      manifest[path] = hash;
      blobs.set(hash, bytes);
    }
    const otherFiles = files.filter(([path]) => fileKindOf(path) === 'other').length;
    const first = {
      message: 'Brought in',
      figures: { ...figures, otherFiles },
      changedFiles: files.length,
      manifest,
      blobs,
    };
    const site = await store.create({ name, prefix: read.prefix, leftOut: read.leftOut.map((f) => ({ ...f })) }, first);
    return { id: site.id, name, files: files.length, leftOut: site.leftOut.map((f) => ({ ...f })) };
  }
  return {
    get,
    bringInFiles,
    async bringIn(archive, name) {
      const read = await readArchive(archive);
      const given = (name ?? '').trim().slice(0, 200);
      return bringInFiles(read, given === '' ? read.prefix.replace(/\/$/, '') || 'Unnamed site' : given);
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
      const revisions = await store.revisions(id);
      const manifest = (await store.manifest(id, site.head))!;
      const sizes = await store.readBlobs(Object.values(manifest));
      return {
        id,
        name: site.name,
        revision: site.head,
        revisions: revisions.map(({ number, message, savedAt, changedFiles }) => ({
          number,
          message,
          savedAt: savedAt.toISOString(),
          changedFiles,
        })),
        files: Object.entries(manifest)
          .map(([path, hash]) => ({ path, kind: fileKindOf(path), bytes: sizes.get(hash)!.length }))
          .sort((a, b) => (a.path < b.path ? -1 : 1)),
        leftOut: site.leftOut.map((f) => ({ ...f })),
      };
    },
    async remove(id) {
      await get(id);
      await store.remove(id);
    },
  };
}
