import { describePathProblem, folderOf, parseSitePath } from '@syndeton/core';
import type { ChangedSiteReply, ReadAsPagesRequest, RemoveFilesRequest, TakeInRequest } from '@syndeton/contract';
import type { Analysis } from '../../analysis/analysis.ts';
import { inventoryVersion } from '../../analysis/inventory.ts';
import type { OldNameEncoding } from '../../archive/entryNames.ts';
import { limits } from '../../archive/limits.ts';
import type { Turns } from '../../archive/turns.ts';
import { readArchive } from '../../archive/readArchive.ts';
import { Refusal } from '../../http/refusal.ts';
import type { DraftRecord, DraftStore } from '../../stores/draftStore.ts';
import type { LeftOutRecord, Manifest, RevisionStore } from '../../stores/revisionStore.ts';
import { noSuchSite, siteChanged } from '../sites/index.ts';
import { leftOutReply, recordOf, sha256, type SiteService } from '../sites/index.ts';
import type { SiteRecord } from '../../stores/siteStore.ts';

/** Files put into a site later, replaced or taken out: each time a new revision. */
export interface FileService {
  /** `folder`: where the archive's files go; the site's top folder when it is empty or absent. */
  add(
    siteId: string,
    base: number,
    archive: string,
    how: { readonly folder?: string; readonly names?: OldNameEncoding },
  ): Promise<ChangedSiteReply>;
  remove(siteId: string, body: RemoveFilesRequest): Promise<ChangedSiteReply>;
  takeIn(siteId: string, body: TakeInRequest): Promise<ChangedSiteReply>;
  /** No file changes: those with these endings are read as pages from the next revision on. */
  readAsPages(siteId: string, body: ReadAsPagesRequest): Promise<ChangedSiteReply>;
}

interface Change {
  readonly files: ReadonlyMap<string, Buffer>;
  readonly removed: readonly string[];
  readonly message: string;
  readonly leftOut: readonly LeftOutRecord[];
  /** Bytes of files left out and kept. */
  readonly kept?: readonly Buffer[];
  /** Endings of files that are pages from now on. */
  readonly runPages?: readonly string[];
}

/** What a change of files is made on. */
interface Opened {
  readonly site: SiteRecord;
  readonly draft: DraftRecord;
  readonly manifest: Manifest;
}

export function makeFileService({
  sites,
  drafts,
  revisions,
  analysis,
  turns,
}: {
  readonly sites: SiteService;
  readonly drafts: DraftStore;
  readonly revisions: RevisionStore;
  readonly analysis: Analysis;
  readonly turns: Turns;
}): FileService {
  async function open(siteId: string, base: number): Promise<Opened> {
    const site = await sites.get(siteId);
    const draft = await drafts.find(siteId);
    if (!draft) throw noSuchSite(siteId);
    if (base !== draft.base) throw siteChanged(base, draft.base);
    if (draft.operations.length > 0) throw draftNotEmpty(draft.operations.length);
    return { site, draft, manifest: (await revisions.manifest(siteId, base))! };
  }

  async function write({ site, draft, manifest }: Opened, change: Change): Promise<ChangedSiteReply> {
    const [siteId, base] = [site.id, draft.base];
    const hashes = new Map([...change.files].map(([path, bytes]) => [path, sha256(bytes)]));
    const differing = [...change.files].filter(([path]) => manifest[path] !== hashes.get(path));
    if (differing.length === 0 && change.removed.length === 0 && change.runPages === undefined)
      throw new Refusal('bad-request', 'These files are in the site already, byte for byte. Nothing was changed.');
    const next = { ...manifest, ...Object.fromEntries(hashes) };
    for (const path of change.removed) delete next[path];
    if (Object.keys(next).length > limits.files)
      throw new Refusal(
        'archive-too-large',
        'With these the site would hold more than 10,000 files, the most it may have.',
      );
    const { inventory, lacking, decisions } = await analysis.run(siteId, 'inventoryOfChange', {
      siteId,
      number: base,
      files: differing,
      removed: change.removed,
      ...(change.runPages ? { runPages: change.runPages } : {}),
    });
    if (inventory.figures.pages === 0)
      throw new Refusal('bad-request', 'No page would be left. A site has at least one.');
    const outcome = await revisions.commit(siteId, {
      base,
      draft: draft.version,
      leftOut: change.leftOut,
      revision: {
        message: change.message,
        figures: inventory.figures,
        changedFiles: differing.length + change.removed.length,
        manifest: next,
        blobs: new Map([
          ...differing.map(([path, bytes]) => [hashes.get(path)!, bytes] as const),
          ...(change.kept ?? []).map((bytes) => [sha256(bytes), bytes] as const),
        ]),
        inventory: { ...inventory, version: inventoryVersion },
        decisions,
      },
    });
    if (outcome.kind === 'site-gone') throw noSuchSite(siteId);
    if (outcome.kind === 'site-changed') throw siteChanged(base, outcome.newest);
    if (outcome.kind === 'draft-changed') throw draftNotEmpty((await drafts.find(siteId))?.operations.length ?? 0);
    const isNew = (path: string): boolean => manifest[path] === undefined;
    const paths = differing.map(([path]) => path).sort();
    return {
      number: outcome.number,
      added: paths.filter(isNew),
      replaced: paths.filter((path) => !isNew(path)),
      removed: [...change.removed],
      leftOut: change.leftOut.map(leftOutReply),
      lacking,
    };
  }

  return {
    async add(siteId, base, archive, { folder = '', names }) {
      const opened = await open(siteId, base);
      const { site, manifest } = opened;
      const place = folder.trim() === '' ? '' : placeFor(folder);
      return turns.run(async () => {
        const read = await readArchive(archive, { names });
        // the site's own folder, or one whose files stand in the site without it, is not a folder of the site
        const known = [...read.files.keys()].some((path) => manifest[place + path] !== undefined);
        const inner = read.prefix === site.prefix || known ? '' : read.prefix;
        const files = new Map([...read.files].map(([path, bytes]) => [place + inner + path, bytes]));
        const count = files.size === 1 ? [...files.keys()][0]! : `${files.size} files`;
        return write(opened, {
          files,
          removed: [],
          message: `Put in ${count}`,
          leftOut: read.leftOut.map(recordOf),
          kept: read.leftOut.flatMap(({ content }) => (content ? [content] : [])),
        });
      });
    },
    async remove(siteId, { base, paths }) {
      const opened = await open(siteId, base);
      const { site, manifest } = opened;
      const unknown = paths.find((path) => !Object.hasOwn(manifest, path));
      if (unknown !== undefined) throw new Refusal('file-not-found', `There is no file ${unknown} in r${base}.`);
      const what = paths.length === 1 ? paths[0]! : `${paths.length} files`;
      return write(opened, {
        files: new Map(),
        removed: paths,
        message: `Take out ${what}`,
        leftOut: site.leftOut,
      });
    },
    async readAsPages(siteId, { base, endings }) {
      const opened = await open(siteId, base);
      const known = (await revisions.decisions(siteId, base)).runPages ?? [];
      const fresh = endings.filter((ending) => !known.includes(ending));
      if (fresh.length === 0)
        throw new Refusal('bad-request', `Files ending in ${endings.join(', ')} are read as pages already.`);
      const named = fresh.map((ending) => `.${ending}`).join(' and ');
      const change = { files: new Map(), removed: [], leftOut: opened.site.leftOut, runPages: fresh };
      return write(opened, { ...change, message: `Files ending in ${named} are read as pages` });
    },
    async takeIn(siteId, { base, path }) {
      const opened = await open(siteId, base);
      const { site } = opened;
      const one = site.leftOut.find((left) => left.path === path && left.hash !== undefined);
      const bytes = one ? (await revisions.readBlobs([one.hash!])).get(one.hash!) : undefined;
      if (!one || !bytes)
        throw new Refusal(
          'file-not-found',
          `${path} was not left out of this site, or its bytes were not kept. Put the file in again.`,
        );
      const rest = site.leftOut.filter((left) => left !== one);
      return write(opened, {
        files: new Map([[path, bytes]]),
        removed: [],
        message: `Put in ${path}`,
        leftOut: rest,
      });
    },
  };
}

const draftNotEmpty = (operations: number): Refusal =>
  new Refusal(
    'draft-not-empty',
    operations === 0
      ? 'The draft was changed meanwhile, in another window. Look at it, then change the files.'
      : `${operations === 1 ? 'An operation is' : `${operations} operations are`} in the draft. Save or discard it, then change the files.`,
  );

/** A folder as people write it, with its slash. */
function placeFor(folder: string): string {
  const path = parseSitePath(`${folder}/x`);
  if (!path.ok) throw new Refusal('bad-request', describePathProblem(path.problem));
  return folderOf(path.value);
}
