import type {
  ChangedFileReply,
  ProofReply,
  RecipeReply,
  RestoreRequest,
  RevisionWordsRequest,
  SavedRevisionReply,
  WithoutRequest,
} from '@syndeton/contract';
import { makeRecipe, type HandoffReport, type Operation } from '@syndeton/core';
import type { Analysis } from '../../analysis/analysis.ts';
import type { SiteState } from '../../analysis/tasks.ts';
import { Refusal } from '../../http/refusal.ts';
import { inventoryVersion } from '../../analysis/inventory.ts';
import type { DraftRecord, DraftStore } from '../../stores/draftStore.ts';
import { noSuchSite, siteChanged } from '../sites/index.ts';
import type { SiteService } from '../sites/index.ts';
import type { Manifest, RevisionStep, RevisionStore, WriteOutcome } from '../../stores/revisionStore.ts';
import { sha256 } from '../../stores/sha256.ts';

export interface RevisionService {
  /** The files of a revision in path order, or only those whose bytes differ from revision `since`. */
  files(
    siteId: string,
    number: number,
    since: number | undefined,
  ): Promise<readonly (readonly [path: string, bytes: Buffer])[]>;
  changes(siteId: string, number: number, since: number): Promise<readonly ChangedFileReply[]>;
  patch(siteId: string, number: number, since: number): Promise<Uint8Array>;
  recipe(siteId: string, number: number, since: number): Promise<RecipeReply>;
  report(siteId: string, number: number, since: number, signal?: AbortSignal): Promise<HandoffReport>;
  /** A state against an earlier revision. */
  /** Against an earlier revision, the one before when none is named; or against one of another site, its newest when none is named. */
  proof(
    state: SiteState,
    since: number | undefined,
    against: string | undefined,
    signal?: AbortSignal,
  ): Promise<ProofReply>;
  restore(siteId: string, number: number, body: RestoreRequest): Promise<SavedRevisionReply>;
  word(siteId: string, number: number, words: RevisionWordsRequest): Promise<void>;
  /** Commits the newest revision as it would be without one operation of an earlier one. */
  without(siteId: string, number: number, body: WithoutRequest): Promise<SavedRevisionReply>;
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
  async function newestOf(siteId: string): Promise<number> {
    await sites.get(siteId);
    return (await revisions.revisions(siteId))[0]!.number;
  }
  /** The draft of the newest revision, where it is empty. */
  async function emptyDraftOn(siteId: string, base: number): Promise<DraftRecord> {
    const draft = await drafts.find(siteId);
    if (!draft) throw noSuchSite(siteId);
    if (draft.base !== base) throw siteChanged(base, draft.base);
    if (draft.operations.length > 0) throw draftInTheWay();
    return draft;
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
    async recipe(siteId, number, since) {
      await manifestOf(siteId, number);
      await manifestOf(siteId, since);
      const { name } = await sites.get(siteId);
      const operations: Operation[] = [];
      for (let n = since + 1; n <= number; n++)
        operations.push(...(await revisions.steps(siteId, n)).map(({ operation }) => operation));
      return makeRecipe(name, operations) as RecipeReply;
    },
    async report(siteId, number, since, signal) {
      await manifestOf(siteId, number);
      await manifestOf(siteId, since);
      const { name: title } = await sites.get(siteId);
      const saved = (await revisions.revisions(siteId))
        .filter((one) => one.number > since && one.number <= number)
        .map(({ number: n, message, savedAt, sentences, note }) => ({
          number: n,
          message,
          savedAt: savedAt.toISOString(),
          steps: [...sentences],
          note,
        }))
        .reverse();
      return analysis.run(
        siteId,
        'reportBetween',
        { siteId, from: since, to: number, title, revisions: saved },
        { signal },
      );
    },
    async proof(state, since, against, signal) {
      await manifestOf(state.siteId, state.number);
      const from = since ?? (against === undefined ? Math.max(1, state.number - 1) : await newestOf(against));
      await manifestOf(against ?? state.siteId, from);
      return analysis.run(state.siteId, 'proofBetween', { from, against, state }, { signal });
    },
    async word(siteId, number, words) {
      await manifestOf(siteId, number);
      await revisions.rename(siteId, number, words);
    },
    async without(siteId, number, { base, operation }) {
      await manifestOf(siteId, number);
      const draft = await emptyDraftOn(siteId, base);
      const steps: (readonly RevisionStep[])[] = [];
      for (let n = number; n <= base; n++) steps.push(await revisions.steps(siteId, n));
      const out = steps[0]![operation];
      if (!out)
        throw new Refusal(
          'operation-not-found',
          `r${number} has no operation ${operation + 1} that could be taken out.`,
        );
      const made = await analysis.run(siteId, 'without', {
        siteId,
        number,
        newest: base,
        operation,
        steps: steps.map((list) => list.map((one) => one.operation)),
      });
      const manifest = { ...(await manifestOf(siteId, base)) };
      const blobs = new Map<string, Buffer>();
      for (const [path, bytes] of made.files) {
        if (bytes === null) delete manifest[path];
        else {
          manifest[path] = sha256(bytes);
          blobs.set(manifest[path], Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength));
        }
      }
      const { inventory, decisions } = made;
      const message = `Without “${out.sentence}” of r${number}`;
      const revision = {
        message,
        figures: inventory.figures,
        changedFiles: made.files.length,
        manifest,
        blobs,
        inventory: { ...inventory, version: inventoryVersion },
        decisions,
      };
      return committed(
        siteId,
        base,
        made.files.length,
        await revisions.commit(siteId, { base, draft: draft.version, revision }),
      );
    },
    async restore(siteId, number, { base }) {
      const manifest = await manifestOf(siteId, number);
      const draft = await emptyDraftOn(siteId, base);
      const newest = await manifestOf(siteId, base);
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
      return committed(
        siteId,
        base,
        changedFiles,
        await revisions.commit(siteId, { base, draft: draft.version, revision }),
      );
    },
  };
}

function committed(siteId: string, base: number, changedFiles: number, outcome: WriteOutcome): SavedRevisionReply {
  if (outcome.kind === 'site-gone') throw noSuchSite(siteId);
  if (outcome.kind === 'site-changed') throw siteChanged(base, outcome.newest);
  if (outcome.kind === 'draft-changed') throw draftInTheWay();
  return { number: outcome.number, changedFiles };
}

const draftInTheWay = (): Refusal =>
  new Refusal('draft-not-empty', 'Operations are in the draft. Save or discard it, then go back to the revision.');
