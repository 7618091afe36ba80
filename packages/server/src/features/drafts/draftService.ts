import type {
  DraftBodyRequest,
  DraftProofReply,
  DraftReply,
  ProposalReply,
  ProposalRequest,
  SavedRevisionReply,
  SaveRequest,
} from '@syndeton/contract';
import type { Analysis } from '../../analysis/pool.ts';
import type { SiteState } from '../../analysis/tasks.ts';
import { Refusal } from '../../http/refusal.ts';
import type { InventoryService } from '../inventory/inventoryService.ts';
import { sha256, type SiteService } from '../sites/siteService.ts';
import type { SiteStore } from '../sites/siteStore.ts';

export interface DraftService {
  read(siteId: string): Promise<DraftReply>;
  replace(siteId: string, body: DraftBodyRequest): Promise<DraftReply>;
  drop(siteId: string): Promise<void>;
  proof(siteId: string): Promise<DraftProofReply>;
  propose(siteId: string, body: ProposalRequest): Promise<ProposalReply>;
  save(siteId: string, body: SaveRequest): Promise<SavedRevisionReply>;
  /** The state a page or sheet is asked for in: the draft's, or a revision's (`r3`). */
  state(siteId: string, name: string): Promise<SiteState>;
}

type Running = { done: number; total: number; result: DraftProofReply | undefined };

export function makeDraftService({
  sites,
  store,
  analysis,
  inventories,
}: {
  readonly sites: SiteService;
  readonly store: SiteStore;
  readonly analysis: Analysis;
  readonly inventories: InventoryService;
}): DraftService {
  const proofs = new Map<string, Running>();

  async function draftState(siteId: string): Promise<SiteState> {
    const site = await sites.get(siteId);
    const draft = await store.draft(siteId);
    return { siteId, number: draft?.base ?? site.head, operations: draft?.operations ?? [] };
  }

  function startProof(key: string, state: SiteState): Running {
    const running: Running = { done: 0, total: 0, result: undefined };
    proofs.set(key, running);
    if (proofs.size > 50) proofs.delete(proofs.keys().next().value!);
    const started = performance.now();
    analysis
      .follow('proof', { state }, ({ done, total }) => Object.assign(running, { done, total }))
      .then(
        (proof) => (running.result = { status: 'done', seconds: (performance.now() - started) / 1000, proof }),
        (error: Error) => {
          running.result = { status: 'failed', detail: `The proof could not be computed: ${error.message}` };
          // let the next request try again
          setTimeout(() => proofs.delete(key), 2000).unref();
        },
      );
    return running;
  }

  async function checkBase(siteId: string, base: number): Promise<void> {
    const { head } = await sites.get(siteId);
    if (base !== head) throw changed(base, head);
  }

  return {
    async read(siteId) {
      const state = await draftState(siteId);
      const sheets = state.operations.length === 0 ? await inventories.keptSheets(siteId, state.number) : undefined;
      if (!sheets) return analysis.run('draft', { state });
      return {
        base: state.number,
        operations: [],
        steps: [],
        changes: [],
        sheets: sheets.map((s) => ({ ...s, isNew: false })),
      };
    },
    async replace(siteId, { base, operations }) {
      await checkBase(siteId, base);
      const reply = await analysis.run('draft', { state: { siteId, number: base, operations } });
      if (reply.problem) throw new Refusal('operation-refused', reply.problem.detail);
      await store.putDraft(siteId, { base, operations });
      return reply;
    },
    async drop(siteId) {
      await sites.get(siteId);
      await store.dropDraft(siteId);
    },
    async proof(siteId) {
      const state = await draftState(siteId);
      const key = JSON.stringify(state);
      const running = proofs.get(key) ?? startProof(key, state);
      return running.result ?? { status: 'running', done: running.done, total: running.total };
    },
    async propose(siteId, { base, sheet, pages, settings }) {
      await checkBase(siteId, base);
      const { operations } = await draftState(siteId);
      return analysis.run('proposal', { state: { siteId, number: base, operations }, sheet, pages, settings });
    },
    async save(siteId, { base, message }) {
      const draft = await store.draft(siteId);
      await checkBase(siteId, base);
      if (!draft || draft.operations.length === 0)
        throw new Refusal('draft-empty', 'There is nothing to save: no operation is lined up.');
      if (draft.base !== base) throw changed(draft.base, base);
      const state = { siteId, number: base, operations: draft.operations };
      const { files, sentences } = await analysis.run('changedFiles', { state });
      const inventory = await inventories.ofDraft(state);
      const manifest = { ...(await store.manifest(siteId, base))! };
      const blobs = new Map<string, Buffer>();
      for (const { path, bytes } of files) {
        if (!bytes) {
          delete manifest[path];
          continue;
        }
        const hash = sha256(bytes);
        manifest[path] = hash;
        blobs.set(hash, Buffer.from(bytes));
      }
      const revision = {
        message: (message ?? '').trim() || messageFor(sentences),
        figures: inventory.figures,
        changedFiles: files.length,
        manifest,
        blobs,
      };
      const saved = await store.addRevision(siteId, base, revision);
      if (!saved) throw new Refusal('site-not-found', `There is no site ${siteId} here.`);
      if ('newest' in saved) throw changed(base, saved.newest);
      await inventories.keep(siteId, saved.number, inventory);
      return { number: saved.number, changedFiles: files.length };
    },
    async state(siteId, name) {
      if (name === 'draft') return draftState(siteId);
      await sites.get(siteId);
      const number = /^r([1-9]\d{0,8})$/.exec(name)?.[1];
      if (number === undefined)
        throw new Refusal('revision-not-found', `${name} is no revision. "draft" and names such as r3 are allowed.`);
      return { siteId, number: Number(number), operations: [] };
    },
  };
}

/** What a revision did, from its operations: the first in full, the rest counted. */
const messageFor = (sentences: readonly string[]): string =>
  sentences.length <= 1
    ? (sentences[0] ?? '')
    : `${sentences[0]}, and ${sentences.length - 1} more ${sentences.length === 2 ? 'operation' : 'operations'}`;

export const changed = (base: number, newest: number): Refusal =>
  new Refusal(
    'site-changed',
    `This was made on r${base}, but someone saved r${newest} meanwhile. Look at r${newest} and line it up again on top.`,
  );
