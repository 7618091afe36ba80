import type { ChangedFileReply, RestoreRequest, SavedRevisionReply } from '@syndeton/contract';
import type { Analysis } from '../../analysis/pool.ts';
import { Refusal } from '../../http/refusal.ts';
import { changed } from '../drafts/draftService.ts';
import type { SiteService } from '../sites/siteService.ts';
import type { SiteStore } from '../sites/siteStore.ts';

export interface RevisionService {
  /** The files of a revision in path order, or only those whose bytes differ from revision `since`. */
  files(
    siteId: string,
    number: number,
    since: number | undefined,
  ): Promise<readonly (readonly [path: string, bytes: Buffer])[]>;
  changes(siteId: string, number: number, since: number): Promise<readonly ChangedFileReply[]>;
  restore(siteId: string, number: number, body: RestoreRequest): Promise<SavedRevisionReply>;
}

export function makeRevisionService({
  sites,
  store,
  analysis,
}: {
  readonly sites: SiteService;
  readonly store: SiteStore;
  readonly analysis: Analysis;
}): RevisionService {
  async function manifestOf(siteId: string, number: number): Promise<Readonly<Record<string, string>>> {
    await sites.get(siteId);
    const manifest = await store.manifest(siteId, number);
    if (!manifest) throw new Refusal('revision-not-found', `There is no revision r${number} of this site.`);
    return manifest;
  }
  return {
    async files(siteId, number, since) {
      const { prefix } = await sites.get(siteId);
      const manifest = await manifestOf(siteId, number);
      const old = since === undefined ? {} : await manifestOf(siteId, since);
      const wanted = Object.entries(manifest).filter(([path, hash]) => old[path] !== hash);
      const blobs = await store.readBlobs(wanted.map(([, hash]) => hash));
      return wanted
        .sort((a, b) => (a[0] < b[0] ? -1 : 1))
        .map(([path, hash]) => [prefix + path, blobs.get(hash)!] as const);
    },
    async changes(siteId, number, since) {
      await manifestOf(siteId, number);
      await manifestOf(siteId, since);
      return analysis.run('changesBetween', { siteId, from: since, to: number });
    },
    async restore(siteId, number, { base }) {
      const manifest = await manifestOf(siteId, number);
      const newest = await manifestOf(siteId, base);
      const revision = (await store.revisions(siteId)).find((r) => r.number === number)!;
      const paths = new Set([...Object.keys(manifest), ...Object.keys(newest)]);
      const changedFiles = [...paths].filter((path) => manifest[path] !== newest[path]).length;
      const next = {
        message: `Back to r${number}`,
        figures: revision.figures,
        changedFiles,
        manifest,
        blobs: new Map<string, Buffer>(),
      };
      const saved = await store.addRevision(siteId, base, next);
      if (!saved) throw new Refusal('site-not-found', `There is no site ${siteId} here.`);
      if ('newest' in saved) throw changed(base, saved.newest);
      return { number: saved.number, changedFiles };
    },
  };
}
