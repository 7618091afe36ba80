import type { ChangedSiteReply } from '@syndeton/contract';
import type { Analysis } from '../../analysis/analysis.ts';
import { inventoryVersion } from '../../analysis/inventory.ts';
import { limits } from '../../archive/limits.ts';
import { Refusal } from '../../http/refusal.ts';
import type { DraftRecord, DraftStore } from '../../stores/draftStore.ts';
import type { LeftOutRecord, Manifest, RevisionStore } from '../../stores/revisionStore.ts';
import type { SiteRecord } from '../../stores/siteStore.ts';
import { leftOutReply, noSuchSite, siteChanged, type SiteService } from '../sites/index.ts';
import { sha256 } from '../../stores/sha256.ts';

export interface Change {
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
export interface Opened {
  readonly site: SiteRecord;
  readonly draft: DraftRecord;
  readonly manifest: Manifest;
}

/** What changes of files are made with. */
export interface FileStores {
  readonly sites: SiteService;
  readonly drafts: DraftStore;
  readonly revisions: RevisionStore;
  readonly analysis: Analysis;
}

/** The one way files of a site change besides by operations: each time a new revision, made on the newest while the draft is empty. */
export interface FileChanges {
  readonly open: (siteId: string, base: number) => Promise<Opened>;
  readonly write: (on: Opened, change: Change) => Promise<ChangedSiteReply>;
}

export function makeFileChanges({ sites, drafts, revisions, analysis }: FileStores): FileChanges {
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

  return { open, write };
}

const draftNotEmpty = (operations: number): Refusal =>
  new Refusal(
    'draft-not-empty',
    operations === 0
      ? 'The draft was changed meanwhile, in another window. Look at it, then change the files.'
      : `${operations === 1 ? 'An operation is' : `${operations} operations are`} in the draft. Save or discard it, then change the files.`,
  );
