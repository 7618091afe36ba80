import type { ChangedFileReply, ProofReply, RestoreRequest, SavedRevisionReply } from '@syndeton/contract';
import type { Analysis } from '../../analysis/analysis.ts';
import type { SiteState } from '../../analysis/tasks.ts';
import { Refusal } from '../../http/refusal.ts';
import type { DraftStore } from '../../stores/draftStore.ts';
import { noSuchSite, siteChanged } from '../sites/index.ts';
import type { SiteService } from '../sites/index.ts';
import type { Manifest, RevisionStore } from '../../stores/revisionStore.ts';

export interface RevisionService {
  /** The files of a revision in path order, or only those whose bytes differ from revision `since`. */
  files(
    siteId: string,
    number: number,
    since: number | undefined,
  ): Promise<readonly (readonly [path: string, bytes: Buffer])[]>;
  changes(siteId: string, number: number, since: number): Promise<readonly ChangedFileReply[]>;
  patch(siteId: string, number: number, since: number): Promise<Uint8Array>;
  /** A state against an earlier revision. */
  proof(state: SiteState, since: number, signal?: AbortSignal): Promise<ProofReply>;
  restore(siteId: string, number: number, body: RestoreRequest): Promise<SavedRevisionReply>;
}

export function makeRevisionService({
  sites,
  drafts,
  revisions,
  analysis,
}: {
  readonly sites: SiteService;
  readonly drafts: DraftStore;
  readonly revisions: RevisionStore;
  readonly analysis: Analysis;
}): RevisionService {
  async function manifestOf(siteId: string, number: number): Promise<Manifest> {
    await sites.get(siteId);
    const manifest = await revisions.manifest(siteId, number);
    if (!manifest) throw new Refusal('revision-not-found', `There is no revision r${number} of this site.`);
    return manifest;
  }
  return {
    async files(siteId, number, since) {
      const { prefix } = await sites.get(siteId);
      const manifest = await manifestOf(siteId, number);
      const old = since === undefined ? {} : await manifestOf(siteId, since);
      const wanted = Object.entries(manifest).filter(([path, hash]) => old[path] !== hash);
      const blobs = await revisions.readBlobs(wanted.map(([, hash]) => hash));
      return wanted
        .sort((a, b) => (a[0] < b[0] ? -1 : 1))
        .map(([path, hash]) => [prefix + path, blobs.get(hash)!] as const);
    },
    async changes(siteId, number, since) {
      await manifestOf(siteId, number);
      await manifestOf(siteId, since);
      return analysis.run(siteId, 'changesBetween', { siteId, from: since, to: number });
    },
    async patch(siteId, number, since) {
      await manifestOf(siteId, number);
      await manifestOf(siteId, since);
      return analysis.run(siteId, 'patchBetween', { siteId, from: since, to: number });
    },
    async proof(state, since, signal) {
      await manifestOf(state.siteId, state.number);
      await manifestOf(state.siteId, since);
      return analysis.run(state.siteId, 'proofBetween', { from: since, state }, { signal });
    },
    async restore(siteId, number, { base }) {
      const manifest = await manifestOf(siteId, number);
      const draft = await drafts.find(siteId);
      if (!draft) throw noSuchSite(siteId);
      if (draft.base !== base) throw siteChanged(base, draft.base);
      const newest = await manifestOf(siteId, base);
      if (draft.operations.length > 0) throw draftInTheWay();
      const { figures } = (await revisions.revisions(siteId)).find((one) => one.number === number)!;
      const paths = new Set([...Object.keys(manifest), ...Object.keys(newest)]);
      const changedFiles = [...paths].filter((path) => manifest[path] !== newest[path]).length;
      const message = `Back to r${number}`;
      const revision = {
        message,
        figures,
        changedFiles,
        manifest,
        blobs: new Map(),
        inventory: { like: number },
        decisions: { like: number },
      };
      const outcome = await revisions.commit(siteId, { base, draft: draft.version, revision });
      if (outcome.kind === 'site-gone') throw noSuchSite(siteId);
      if (outcome.kind === 'site-changed') throw siteChanged(base, outcome.newest);
      if (outcome.kind === 'draft-changed') throw draftInTheWay();
      return { number: outcome.number, changedFiles };
    },
  };
}

const draftInTheWay = (): Refusal =>
  new Refusal('draft-not-empty', 'Operations are lined up. Save or discard the draft, then go back to the revision.');
