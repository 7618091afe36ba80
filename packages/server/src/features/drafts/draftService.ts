import type {
  DraftProofReply,
  DraftReply,
  DraftVersionReply,
  EffectReply,
  EffectRequest,
  FittedRecipeReply,
  Follow,
  PlanProgressReply,
  ProposalReply,
  ProposalRequest,
  RecipeRequest,
  SavedRevisionReply,
  SaveRequest,
} from '@syndeton/contract';
import type { Analysis } from '../../analysis/analysis.ts';
import type { Progress } from '../../analysis/siteThreads.ts';
import type { MadeDraft, SiteState } from '../../analysis/tasks.ts';
import { Refusal } from '../../http/refusal.ts';
import type { InventoryService } from '../inventory/index.ts';
import type { Signals } from '../../db/signals.ts';
import { onSiteChanged } from '../../db/siteSignals.ts';
import type { RevisionStore } from '../../stores/revisionStore.ts';
import { noSuchSite, siteChanged, type SiteService } from '../sites/index.ts';
import type { DraftRecord, DraftStore } from '../../stores/draftStore.ts';
import { draftChanged, makeDraftChanges, type DraftChanges } from './draftChanges.ts';
import { makeHeldDrafts, type HeldDraft } from './heldDrafts.ts';
import { makePlanProgress } from './planProgress.ts';
import { makeProofs } from './proofs.ts';
import { sha256 } from '../../stores/sha256.ts';

export interface DraftService extends DraftChanges {
  read(siteId: string): Promise<DraftReply>;
  /** Tells of the draft's version now, and of each other one. */
  follow(siteId: string): Promise<Follow<DraftVersionReply>>;
  proof(siteId: string): Promise<DraftProofReply>;
  followProof(siteId: string): Promise<Follow<DraftProofReply>>;
  /** What operations would do as the next of the draft. */
  tryOperations(siteId: string, body: EffectRequest, signal?: AbortSignal): Promise<EffectReply>;
  propose(siteId: string, body: ProposalRequest, signal?: AbortSignal): Promise<ProposalReply>;
  /** What of a recipe fits the draft as it is. */
  fitRecipe(siteId: string, body: RecipeRequest, signal?: AbortSignal): Promise<FittedRecipeReply>;
  followProposal(siteId: string): Promise<Follow<PlanProgressReply>>;
  save(siteId: string, body: SaveRequest): Promise<SavedRevisionReply>;
  /** The state a page or sheet is asked for in: the draft's, or a revision's (`r3`). */
  state(siteId: string, name: string): Promise<SiteState>;
  /** The state an address with a revision asks for: the draft's when it says `with=draft`. */
  stateAt(
    params: { readonly id: string; readonly number: string },
    query: { readonly with?: 'draft' },
  ): Promise<SiteState>;
  /** A file as it is in the draft; undefined when there is none. */
  file(siteId: string, path: string): Promise<Uint8Array | undefined>;
}

export function makeDraftService({
  sites,
  drafts,
  revisions,
  analysis,
  inventories,
  signals,
}: {
  readonly sites: SiteService;
  readonly drafts: DraftStore;
  readonly revisions: RevisionStore;
  readonly analysis: Analysis;
  readonly inventories: InventoryService;
  readonly signals: Signals;
}): DraftService {
  const held = makeHeldDrafts();
  const proofs = makeProofs(analysis, signals);
  const planned = makePlanProgress(signals);

  async function find(siteId: string): Promise<DraftRecord> {
    await sites.get(siteId);
    const draft = await drafts.find(siteId);
    if (!draft) throw noSuchSite(siteId);
    return draft;
  }

  /** The draft, where it is the one that was looked at. */
  async function seen(siteId: string, base: number, version: number): Promise<DraftRecord> {
    const draft = await find(siteId);
    if (draft.base !== base) throw siteChanged(base, draft.base);
    if (draft.version !== version)
      throw draftChanged((await drafts.past(siteId, version))?.operations, draft.operations);
    return draft;
  }

  const stateOf = (siteId: string, { base, operations }: DraftRecord): SiteState => ({
    siteId,
    number: base,
    operations,
  });

  const make = (siteId: string, draft: DraftRecord): Promise<MadeDraft> =>
    analysis.run(siteId, 'draft', { state: stateOf(siteId, draft), have: held.known(siteId) });

  async function hold(siteId: string, draft: DraftRecord): Promise<HeldDraft> {
    return held.get(siteId, draft.version) ?? held.put(siteId, draft.version, await make(siteId, draft));
  }

  async function propose(siteId: string, body: ProposalRequest, signal?: AbortSignal): Promise<ProposalReply> {
    const { base, sheet, pages, settings } = body;
    const draft = await find(siteId);
    if (base !== draft.base) throw siteChanged(base, draft.base);
    const onProgress = ({ done, total, proving }: Progress): void =>
      planned.tell(siteId, { step: proving ? 'proving' : 'reading', done, total });
    try {
      const input = { state: stateOf(siteId, draft), sheet, pages, settings };
      return await analysis.run(siteId, 'proposal', input, { signal, onProgress });
    } finally {
      planned.end(siteId);
    }
  }

  async function state(siteId: string, name: string): Promise<SiteState> {
    if (name === 'draft') return stateOf(siteId, await find(siteId));
    await sites.get(siteId);
    const number = /^r([1-9]\d{0,8})$/.exec(name)?.[1];
    if (number === undefined)
      throw new Refusal('revision-not-found', `${name} is no revision. "draft" and names such as r3 are allowed.`);
    return { siteId, number: Number(number), operations: [] };
  }

  return {
    ...makeDraftChanges({ drafts, find, make, held, overtaken: (siteId) => proofs.overtaken(siteId) }),
    async read(siteId) {
      const draft = await find(siteId);
      const sheets = draft.operations.length === 0 ? await inventories.keptSheets(siteId, draft.base) : undefined;
      if (!sheets) return (await hold(siteId, draft)).reply;
      const { absent } = await revisions.decisions(siteId, draft.base);
      const nothing = { operations: [], steps: [], changes: [], missing: [...absent].sort(), mistakes: [] };
      return {
        base: draft.base,
        version: draft.version,
        ...nothing,
        sheets: sheets.map((s) => ({ ...s, isNew: false })),
      };
    },
    async follow(siteId) {
      const { base, version } = await find(siteId);
      return (tell, end) => {
        let last = { base, version };
        tell(last);
        const look = async (): Promise<void> => {
          const draft = await drafts.find(siteId);
          if (!draft) end();
          else if (draft.version > last.version) tell((last = { base: draft.base, version: draft.version }));
        };
        // a database that is away for a moment: the next change is told of
        return onSiteChanged(signals, siteId, () => void look().catch(() => undefined));
      };
    },
    async proof(siteId) {
      const draft = await find(siteId);
      return proofs.of(siteId, draft.version, stateOf(siteId, draft));
    },
    async followProof(siteId) {
      const draft = await find(siteId);
      return proofs.follow(siteId, draft.version, stateOf(siteId, draft));
    },
    propose,
    async followProposal(siteId) {
      await sites.get(siteId);
      return planned.follow(siteId);
    },
    async fitRecipe(siteId, { base, version, recipe }, signal) {
      const draft = await seen(siteId, base, version);
      return analysis.run(siteId, 'recipe', { state: stateOf(siteId, draft), recipe }, { signal });
    },
    async tryOperations(siteId, { base, version, operations }, signal) {
      const draft = await seen(siteId, base, version);
      return analysis.run(siteId, 'effect', { state: stateOf(siteId, draft), operations }, { signal });
    },
    async save(siteId, { base, version, message, note }) {
      const draft = await seen(siteId, base, version);
      if (draft.operations.length === 0)
        throw new Refusal('draft-empty', 'There is nothing to save: the draft is empty.');
      const { reply, files, decisions } = await hold(siteId, draft);
      if (reply.problem) throw new Refusal('operation-refused', reply.problem.detail);
      const inventory = await inventories.ofDraft(stateOf(siteId, draft));
      const manifest = { ...(await revisions.manifest(siteId, base)) };
      const blobs = new Map<string, Buffer>();
      for (const [path, bytes] of files) {
        if (bytes === null) {
          delete manifest[path];
          continue;
        }
        const hash = sha256(bytes);
        manifest[path] = hash;
        blobs.set(hash, Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength));
      }
      const outcome = await revisions.commit(siteId, {
        base,
        draft: version,
        revision: {
          message: (message ?? '').trim() || messageFor(reply.steps.map((step) => step.sentence)),
          figures: inventory.figures,
          changedFiles: files.size,
          manifest,
          blobs,
          inventory,
          decisions,
          steps: draft.operations.map((operation, i) => ({ operation, sentence: reply.steps[i]!.sentence })),
          ...(note === undefined ? {} : { note: note.trim() }),
        },
      });
      if (outcome.kind === 'done') return { number: outcome.number, changedFiles: files.size };
      if (outcome.kind === 'site-gone') throw noSuchSite(siteId);
      if (outcome.kind === 'site-changed') throw siteChanged(base, outcome.newest);
      throw draftChanged(draft.operations, (await find(siteId)).operations);
    },
    state,
    stateAt: (params, query) => state(params.id, query.with === 'draft' ? 'draft' : `r${params.number}`),
    async file(siteId, path) {
      const draft = await find(siteId);
      const changed = draft.operations.length === 0 ? undefined : (await hold(siteId, draft)).files.get(path);
      if (changed === null) return undefined;
      return changed ?? revisions.file(siteId, draft.base, path);
    },
  };
}

/** What a revision did, from its operations: the first in full, the rest counted. */
const messageFor = (sentences: readonly string[]): string =>
  sentences.length <= 1
    ? (sentences[0] ?? '')
    : `${sentences[0]}, and ${sentences.length - 1} more ${sentences.length === 2 ? 'operation' : 'operations'}`;
