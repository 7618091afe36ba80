import { gzipSync } from 'node:zlib';
import {
  type Operation,
  type Proof,
  type PastRevision,
  changedFiles,
  SiteProver,
  decisionsOf,
  lookChoices,
  markIntended,
  siteAsChosen,
  unifiedPatch,
  withAbsent,
  handoffReport,
  withRunPages,
  withoutOperation,
  type Site,
} from '@syndeton/core';
import type { ProofReply } from '@syndeton/contract';
import { Refusal } from '../http/refusal.ts';
import { makeInventory } from './inventory.ts';
import { changesOf } from './draftReply.ts';
import type { SiteStates } from './siteStates.ts';
import type { Step, Tasks } from './tasks.ts';

/** Two revisions compared, and a newest one without an operation of the past. */
export const revisionTasks = (
  states: SiteStates,
): Tasks<'without' | 'patchBetween' | 'proofBetween' | 'reportBetween' | 'changesBetween'> => ({
  async without({ siteId, number, newest, operation, steps }, step) {
    const at = async (n: number): Promise<Site> => (await states.revision(siteId, n)).site;
    const past: PastRevision[] = [];
    for (const [i, operations] of steps.entries()) {
      const n = number + i;
      if (operations.length > 0) past.push({ number: n, operations: operations });
      else past.push({ number: n, before: await at(n - 1), after: await at(n) });
    }
    const made = withoutOperation(await at(number - 1), past, operation);
    if (!made.ok) {
      const { number: later, detail } = made.problem;
      const where = later === number ? 'A later operation of that revision needs it' : `r${later} needs it`;
      throw new Refusal('operation-refused', `${where}: ${detail}`);
    }
    const site = made.value;
    states.expect(site);
    const now = await at(newest);
    const files = changedFiles(now, site).map(({ path }) => [path, site.files.get(path)?.bytes ?? null] as const);
    return { files, inventory: await makeInventory(site, states.checker, step), decisions: decisionsOf(site) };
  },
  async patchBetween({ siteId, from, to }) {
    return unifiedPatch((await states.revision(siteId, from)).site, (await states.revision(siteId, to)).site).bytes;
  },
  async proofBetween({ from, against, state }, onPage) {
    const { siteId, number, operations } = state;
    const { site: after } = await states.draftOf(state);
    const before =
      against === undefined ? (await states.revision(siteId, from)).site : await states.siteOf(against, from);
    const chosen =
      against === undefined ? [...(await states.operationsSince(siteId, from, number)), ...operations] : [];
    return proofOf(before, after, chosen, onPage) as unknown as ProofReply;
  },
  async reportBetween({ siteId, from, to, title, revisions: saved }, onPage) {
    const [{ site: before }, { site: after }] = [
      await states.revision(siteId, from),
      await states.revision(siteId, to),
    ];
    const proof = proofOf(before, after, await states.operationsSince(siteId, from, to), onPage);
    const packed = (bytes: Uint8Array): number => gzipSync(bytes).length;
    return handoffReport(before, after, proof, {
      title,
      from: `r${from}`,
      to: `r${to}`,
      revisions: saved,
      check: states.checker.check(after),
      packed,
    });
  },
  async changesBetween({ siteId, from, to }) {
    return changesOf((await states.revision(siteId, from)).site, (await states.revision(siteId, to)).site);
  },
});

/** Two states compared; what is said to be nowhere or to be a page is so on both sides, and what these operations chose to change is intended. */
function proofOf(before: Site, after: Site, operations: readonly Operation[], onPage: Step): Proof {
  const absent = [...(after.absent ?? [])].filter((path) => !before.files.has(path));
  const start = withRunPages(withAbsent(before, absent), [...(after.pageTypes ?? [])]);
  const proof = new SiteProver(start).prove(after, { onPage });
  const isChosen = proof.verdict === 'differs' && lookChoices(operations).length > 0;
  return isChosen ? markIntended(proof, siteAsChosen(start, operations), after) : proof;
}
