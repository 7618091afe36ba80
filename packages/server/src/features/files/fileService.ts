import { describePathProblem, folderOf, parseSitePath } from '@syndeton/core';
import type { ChangedSiteReply, RemoveFilesRequest, TakeInRequest } from '@syndeton/contract';
import type { Analysis } from '../../analysis/pool.ts';
import { limits } from '../../archive/limits.ts';
import { readArchive } from '../../archive/readArchive.ts';
import { Refusal } from '../../http/refusal.ts';
import { changed } from '../drafts/draftService.ts';
import type { InventoryService } from '../inventory/inventoryService.ts';
import { leftOutReply, recordOf, sha256, type SiteService } from '../sites/siteService.ts';
import type { LeftOutRecord, SiteRecord, SiteStore } from '../sites/siteStore.ts';

/** Files put into a site later, replaced or taken out: each time a new revision. */
export interface FileService {
  /** `folder`: where the archive's files go; the site's top folder when it is empty. */
  add(siteId: string, base: number, archive: Buffer, folder: string): Promise<ChangedSiteReply>;
  remove(siteId: string, body: RemoveFilesRequest): Promise<ChangedSiteReply>;
  takeIn(siteId: string, body: TakeInRequest): Promise<ChangedSiteReply>;
}

interface Change {
  readonly files: ReadonlyMap<string, Buffer>;
  readonly removed: readonly string[];
  readonly message: string;
  readonly leftOut: readonly LeftOutRecord[];
  /** Bytes of files left out and kept. */
  readonly kept?: readonly Buffer[];
}

export function makeFileService({
  sites,
  store,
  analysis,
  inventories,
}: {
  readonly sites: SiteService;
  readonly store: SiteStore;
  readonly analysis: Analysis;
  readonly inventories: InventoryService;
}): FileService {
  async function open(
    siteId: string,
    base: number,
  ): Promise<{ site: SiteRecord; manifest: Readonly<Record<string, string>> }> {
    const site = await sites.get(siteId);
    if (base !== site.head) throw changed(base, site.head);
    const draft = await store.draft(siteId);
    if (draft && draft.operations.length > 0)
      throw new Refusal(
        'draft-not-empty',
        `${draft.operations.length === 1 ? 'An operation is' : `${draft.operations.length} operations are`} lined up. Save or discard the draft, then change the files.`,
      );
    return { site, manifest: (await store.manifest(siteId, base))! };
  }

  async function write(
    siteId: string,
    base: number,
    manifest: Readonly<Record<string, string>>,
    change: Change,
  ): Promise<ChangedSiteReply> {
    const hashes = new Map([...change.files].map(([path, bytes]) => [path, sha256(bytes)]));
    const differing = [...change.files].filter(([path]) => manifest[path] !== hashes.get(path));
    if (differing.length === 0 && change.removed.length === 0)
      throw new Refusal('bad-request', 'These files are in the site already, byte for byte. Nothing was changed.');
    const next = { ...manifest, ...Object.fromEntries(hashes) };
    for (const path of change.removed) delete next[path];
    if (Object.keys(next).length > limits.files)
      throw new Refusal(
        'archive-too-large',
        'With these the site would hold more than 10,000 files, the most it may have.',
      );
    const { inventory, lacking } = await analysis.run('inventoryOfChange', {
      siteId,
      number: base,
      files: differing,
      removed: change.removed,
    });
    if (inventory.figures.pages === 0)
      throw new Refusal('bad-request', 'No page would be left. A site has at least one.');
    const saved = await store.addRevision(siteId, base, {
      message: change.message,
      figures: inventory.figures,
      changedFiles: differing.length + change.removed.length,
      manifest: next,
      blobs: new Map([
        ...differing.map(([path, bytes]) => [hashes.get(path)!, bytes] as const),
        ...(change.kept ?? []).map((bytes) => [sha256(bytes), bytes] as const),
      ]),
    });
    if (!saved) throw new Refusal('site-not-found', `There is no site ${siteId} here.`);
    if ('newest' in saved) throw changed(base, saved.newest);
    await inventories.keep(siteId, saved.number, inventory);
    await store.setLeftOut(siteId, change.leftOut);
    const isNew = (path: string): boolean => manifest[path] === undefined;
    const paths = differing.map(([path]) => path).sort();
    return {
      number: saved.number,
      added: paths.filter(isNew),
      replaced: paths.filter((path) => !isNew(path)),
      removed: [...change.removed],
      leftOut: change.leftOut.map(leftOutReply),
      lacking,
    };
  }

  return {
    async add(siteId, base, archive, folder) {
      const { site, manifest } = await open(siteId, base);
      const place = folder.trim() === '' ? '' : placeFor(folder);
      const read = await readArchive(archive);
      // the site's own folder, or one whose files stand in the site without it, is not a folder of the site
      const known = [...read.files.keys()].some((path) => manifest[place + path] !== undefined);
      const inner = read.prefix === site.prefix || known ? '' : read.prefix;
      const files = new Map([...read.files].map(([path, bytes]) => [place + inner + path, bytes]));
      const count = files.size === 1 ? [...files.keys()][0]! : `${files.size} files`;
      return write(siteId, base, manifest, {
        files,
        removed: [],
        message: `Put in ${count}`,
        leftOut: read.leftOut.map(recordOf),
        kept: read.leftOut.flatMap(({ content }) => (content ? [content] : [])),
      });
    },
    async remove(siteId, { base, paths }) {
      const { site, manifest } = await open(siteId, base);
      const unknown = paths.find((path) => manifest[path] === undefined);
      if (unknown !== undefined) throw new Refusal('file-not-found', `There is no file ${unknown} in r${base}.`);
      const what = paths.length === 1 ? paths[0]! : `${paths.length} files`;
      return write(siteId, base, manifest, {
        files: new Map(),
        removed: paths,
        message: `Take out ${what}`,
        leftOut: site.leftOut,
      });
    },
    async takeIn(siteId, { base, path }) {
      const { site, manifest } = await open(siteId, base);
      const one = site.leftOut.find((left) => left.path === path && left.hash !== undefined);
      const bytes = one ? (await store.readBlobs([one.hash!])).get(one.hash!) : undefined;
      if (!one || !bytes)
        throw new Refusal(
          'file-not-found',
          `${path} was not left out of this site, or its bytes were not kept. Put the file in again.`,
        );
      const rest = site.leftOut.filter((left) => left !== one);
      return write(siteId, base, manifest, {
        files: new Map([[path, bytes]]),
        removed: [],
        message: `Put in ${path}`,
        leftOut: rest,
      });
    },
  };
}

/** A folder as people write it, with its slash. */
function placeFor(folder: string): string {
  const path = parseSitePath(`${folder}/x`);
  if (!path.ok) throw new Refusal('bad-request', describePathProblem(path.problem));
  return folderOf(path.value);
}
