import type { DraftBodyRequest, DraftReply, OperationBody } from '@syndeton/contract';
import { operationsBeyond, redoOnTop } from '@syndeton/core';
import type { MadeDraft } from '../../analysis/tasks.ts';
import { Refusal } from '../../http/refusal.ts';
import type { DraftRecord, DraftStore } from '../../stores/draftStore.ts';
import type { WriteOutcome } from '../../stores/revisionStore.ts';
import { noSuchSite, siteChanged } from '../sites/index.ts';
import type { HeldDrafts } from './heldDrafts.ts';

/** The ways to change a draft. Each names the version it was made on; what comes too late is told what happened, and kept. */
export interface DraftChanges {
  /** Refused with a name to redo it by when the draft or the site was changed since. */
  replace(siteId: string, body: DraftBodyRequest): Promise<DraftReply>;
  /** What came too late, done again on the draft as it is now. */
  redo(siteId: string, late: string): Promise<DraftReply>;
  drop(siteId: string, version: number): Promise<void>;
}

export function makeDraftChanges({
  drafts,
  find,
  make,
  held,
  overtaken,
}: {
  readonly drafts: DraftStore;
  /** The draft as it is; refused when there is no such site. */
  readonly find: (siteId: string) => Promise<DraftRecord>;
  readonly make: (siteId: string, draft: DraftRecord) => Promise<MadeDraft>;
  readonly held: HeldDrafts;
  /** What is proved for the draft so far is wanted no more. */
  readonly overtaken: (siteId: string) => void;
}): DraftChanges {
  /** Puts a list in place of the draft it was made on; what is refused changes nothing. */
  async function put(siteId: string, now: DraftRecord, operations: readonly OperationBody[]): Promise<DraftReply> {
    overtaken(siteId);
    const made = await make(siteId, { ...now, operations });
    if (made.draft.problem) throw new Refusal('operation-refused', made.draft.problem.detail);
    const outcome = await drafts.put(siteId, { ...now, operations });
    if (outcome.kind !== 'done') throw await tooLate(siteId, now, operations, outcome);
    return held.put(siteId, outcome.number, made).reply;
  }

  /** Says what happened meanwhile, and keeps what was wanted. */
  async function tooLate(
    siteId: string,
    madeOn: Pick<DraftRecord, 'base' | 'version'>,
    operations: readonly OperationBody[],
    outcome: WriteOutcome,
  ): Promise<Refusal> {
    if (outcome.kind === 'site-gone') return noSuchSite(siteId);
    const redo = await drafts.keepLate(siteId, madeOn.version, operations);
    if (outcome.kind === 'site-changed') return siteChanged(madeOn.base, outcome.newest, redo);
    const then = await drafts.past(siteId, madeOn.version);
    return draftChanged(then?.operations, (await find(siteId)).operations, redo);
  }

  return {
    async replace(siteId, { base, version, operations }) {
      const draft = await find(siteId);
      if (base !== draft.base)
        throw await tooLate(siteId, { base, version }, operations, { kind: 'site-changed', newest: draft.base });
      if (version !== draft.version)
        throw await tooLate(siteId, { base, version }, operations, { kind: 'draft-changed' });
      return put(siteId, draft, operations);
    },
    async redo(siteId, id) {
      const now = await find(siteId);
      const late = await drafts.late(siteId, id);
      if (!late)
        throw new Refusal('draft-not-found', 'What came too late is not kept any more. Put it into the draft anew.');
      const [from, mine] = [late.madeFrom?.operations ?? [], late.operations];
      const wanted = redoOnTop(from, mine, now.operations);
      const reply = await put(siteId, now, wanted);
      await drafts.dropLate(siteId, id);
      return reply;
    },
    async drop(siteId, version) {
      const draft = await find(siteId);
      overtaken(siteId);
      const outcome = version === draft.version ? await drafts.put(siteId, { ...draft, operations: [] }) : undefined;
      if (outcome?.kind === 'done') return;
      if (outcome?.kind === 'site-gone') throw noSuchSite(siteId);
      throw draftChanged((await drafts.past(siteId, version))?.operations, (await find(siteId)).operations);
    },
  };
}

export function draftChanged(
  then: readonly OperationBody[] | undefined,
  now: readonly OperationBody[],
  redo?: string,
): Refusal {
  const [before, after] = [then ?? [], now];
  const parts = [
    [operationsBeyond(after, before), 'put in'] as const,
    [operationsBeyond(before, after), 'taken out'] as const,
  ].filter(([n]) => n > 0);
  const what = parts.map(([n, done]) => `${n} ${n === 1 ? 'operation was' : 'operations were'} ${done}`).join(', ');
  const happened = then === undefined || what === '' ? 'the draft was changed' : what;
  return new Refusal(
    'draft-changed',
    `In another window ${happened} meanwhile. Nothing of yours was put in yet: look at the draft as it is now, then redo yours on top.`,
    redo,
  );
}
