import { gzipSync } from 'node:zlib';
import {
  applyOperations,
  type Operation,
  type Proof,
  type PastRevision,
  changedFiles,
  describeOperationProblem,
  describeStayReason,
  KeptDraft,
  outcomesAfter,
  type KeptOutcomes,
  lackingLinks,
  linkedSheets,
  makeSite,
  makeSiteFile,
  pageBands,
  planWhole,
  tradesIn,
  SiteChecker,
  SiteProver,
  decisionsOf,
  isAbsent,
  lookChoices,
  markIntended,
  markupFindings,
  missingSheets,
  selectorReach,
  siteAsChosen,
  takenAsMissing,
  unifiedPatch,
  withAbsent,
  handoffReport,
  applyRecipe,
  withDecisions,
  withRunPages,
  withoutOperation,
  type KeptDraftState,
  type LeftRule,
  type Site,
} from '@syndeton/core';
import type { DraftReply, PageBandsReply, ProofReply, ProposalReply } from '@syndeton/contract';
import type { RevisionStore } from '../stores/revisionStore.ts';
import { Refusal } from '../http/refusal.ts';
import { attributeGroups } from './attributeGroups.ts';
import { findingReply, makeInventory } from './inventory.ts';
import { elementReply, overridesReply, questionReply, valueReply } from './precedence.ts';
import { effectReply, ruleScoreReply, sheetReachReply, wordsReply } from './sheetReplies.ts';
import { mistakesIn } from './mistakes.ts';
import type { AnalysisTasks, MadeDraft, SiteState } from './tasks.ts';

/** Called after each page of a long task: tells how far it is, and ends it when nobody waits for it. */
export type Step = (done: number, total: number, rules?: number, proving?: boolean) => void;

type SiteTasks = {
  readonly [Name in keyof AnalysisTasks]: (
    input: Parameters<AnalysisTasks[Name]>[0],
    step: Step,
  ) => ReturnType<AnalysisTasks[Name]>;
};

const mostRevisions = 2;
/** One for each set of sheets that was taken as missing lately. */
const mostProvers = 2;

/** All tasks about one site, with what they keep of it. */
export function makeSiteTasks(
  revisions: Pick<RevisionStore, 'manifest' | 'decisions' | 'readBlobs' | 'steps'>,
): SiteTasks {
  const kept = new Map<number, KeptRevision>();

  async function revision(siteId: string, number: number): Promise<KeptRevision> {
    const known = kept.get(number);
    // the one asked for last stands last
    kept.delete(number);
    const found = known ?? makeKept(await loadSite(revisions, siteId, number));
    kept.set(number, found);
    if (kept.size > mostRevisions) kept.delete(kept.keys().next().value!);
    return found;
  }

  async function draftOf(state: SiteState): Promise<DraftOnRevision> {
    const { site, draft, checker, provers } = await revision(state.siteId, state.number);
    // what is taken as missing is so before as well
    const absent = [...new Set(takenAsMissing(state.operations))].filter((path) => !site.files.has(path)).sort();
    const key = absent.join('\n');
    let prover = provers.get(key);
    if (!prover) {
      if (provers.size >= mostProvers) provers.clear();
      provers.set(key, (prover = new SiteProver(withAbsent(site, absent))));
    }
    return { ...draft.apply(state.operations), before: site, checker, prover };
  }

  /** What was done from one revision to another, as far as operations did it. */
  async function operationsSince(siteId: string, from: number, to: number): Promise<readonly Operation[]> {
    const out: Operation[] = [];
    for (let n = from + 1; n <= to; n++)
      out.push(...(await revisions.steps(siteId, n)).map(({ operation }) => operation));
    return out;
  }

  /** All pages of the state asked about last, as far as they are read. */
  let asked: KeptOutcomes | undefined;

  async function outcomesOf(state: SiteState, step: Step): Promise<{ site: Site; outcomes: KeptOutcomes }> {
    const { site } = await draftOf(state);
    if (asked?.site !== site) asked = outcomesAfter(asked, site);
    asked.readAll(step);
    return { site, outcomes: asked };
  }

  return {
    async inventory({ state }, step) {
      const { site, checker } = await draftOf(state);
      return makeInventory(site, checker, step);
    },
    inventoryOfFiles({ files, runPages }, step) {
      return makeInventory(withRunPages(makeSite(files), runPages), new SiteChecker(), step);
    },
    async inventoryOfChange({ siteId, number, files, removed, runPages = [] }, step) {
      const { site: before, checker } = await revision(siteId, number);
      const after = new Map(before.files);
      for (const path of removed) after.delete(path);
      for (const [path, bytes] of files) after.set(path, makeSiteFile(path, bytes, before.pageTypes));
      const site = withRunPages({ ...before, files: after }, runPages);
      const added = files
        .map(([path]) => path)
        .filter((path) => !before.files.has(path) && site.files.get(path)?.kind === 'page');
      const lacking = lackingLinks(site, added).map(({ page, sheets }) => ({ page, sheets: [...sheets] }));
      return { inventory: await makeInventory(site, checker, step), lacking, decisions: decisionsOf(site) };
    },
    async page({ state, path }) {
      const bands = pageBands((await draftOf(state)).site, path);
      return (
        bands &&
        (JSON.parse(JSON.stringify(bands, (_key, one: unknown) => (one === undefined ? null : one))) as PageBandsReply)
      );
    },
    async attributes({ state }) {
      return attributeGroups((await draftOf(state)).site);
    },
    async element({ state, query }) {
      return elementReply((await draftOf(state)).site, query);
    },
    async question({ state, question }, step) {
      const { site, outcomes } = await outcomesOf(state, step);
      const answer = questionReply(site, outcomes, question);
      if ('refused' in answer) throw new Refusal('question-refused', answer.refused);
      return answer;
    },
    async overrides({ state, environment }, step) {
      const { site, outcomes } = await outcomesOf(state, step);
      return overridesReply(site, outcomes, environment);
    },
    async value({ state, value }) {
      return valueReply((await draftOf(state)).site, value);
    },
    async sheetReach({ state, path }, step) {
      const { site, outcomes } = await outcomesOf(state, step);
      return sheetReachReply(site, outcomes, path);
    },
    async ruleScore({ state, ...asked }, step) {
      const { outcomes } = await outcomesOf(state, step);
      return ruleScoreReply(outcomes, asked);
    },
    async match({ state, selector, sheet }, step) {
      const { site, outcomes } = await outcomesOf(state, step);
      const linking =
        sheet === undefined ? undefined : (linkedSheets(site).find(({ path }) => path === sheet)?.pages ?? []);
      const reach = selectorReach(outcomes, selector, linking && new Set(linking));
      return reach && { elements: reach.elements, pages: [...reach.pages] };
    },
    async markup({ state }, step) {
      const { site } = await draftOf(state);
      return markupFindings(site, step).map(findingReply);
    },
    async words({ state }, step) {
      const { site, outcomes } = await outcomesOf(state, step);
      return wordsReply(site, outcomes);
    },
    async draft({ state, have }) {
      return madeDraft(state, await draftOf(state), new Set(have));
    },
    async proof({ state }, onPage) {
      const { site, before, prover } = await draftOf(state);
      const proof = prover.prove(site, { onPage });
      const chosen = proof.verdict === 'differs' && lookChoices(state.operations).length > 0;
      return (chosen
        ? markIntended(proof, withAbsent(siteAsChosen(before, state.operations), [...(site.absent ?? [])]), site)
        : proof) as unknown as ProofReply;
    },
    async effect({ state, operations }) {
      const { site, before, prover, problem } = await draftOf(state);
      if (problem) throw new Refusal('operation-refused', problem.detail);
      const next = applyOperations(site, operations);
      if (!next.ok) throw new Refusal('operation-refused', describeOperationProblem(next.problem.problem));
      return effectReply((site === before ? prover : new SiteProver(site)).prove(next.value.site));
    },
    async proposal({ state, sheet, pages, settings }, step) {
      const { site, before, prover } = await draftOf(state);
      // the proof of the plan is the one that the draft is asked for next
      const planned = planWhole(site, sheet, { ...settings, ...(pages ? { pages } : {}), onStep: (what, done, total) => step(done, total, undefined, what === 'proving') }, site === before ? prover : undefined); // prettier-ignore
      if (!planned.ok) throw new Refusal('operation-refused', describeOperationProblem(planned.problem));
      const { operations, sheets, stays } = planned.value;
      return {
        operations,
        rules: sheets.reduce((sum, s) => sum + s.rules, 0),
        sheets: sheets.map(({ path, rules, pages, why }) => ({
          path,
          rules,
          pages: [...pages],
          ...(why === undefined ? {} : { why }),
        })),
        stays: [...stays],
        trades: JSON.parse(JSON.stringify(tradesIn(site, operations, settings?.oldBrowsers ? { oldBrowsers: true } : {}))) as ProposalReply['trades'], // prettier-ignore
        missing: missingSheets(site)
          .filter(({ path }) => !isAbsent(site, path))
          .map((one) => ({ ...one, pages: [...one.pages] })),
      };
    },
    async without({ siteId, number, newest, operation, steps }, step) {
      const at = async (n: number): Promise<Site> => (await revision(siteId, n)).site;
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
      const now = await at(newest);
      const files = changedFiles(now, site).map(({ path }) => [path, site.files.get(path)?.bytes ?? null] as const);
      return { files, inventory: await makeInventory(site, new SiteChecker(), step), decisions: decisionsOf(site) };
    },
    async recipe({ state, recipe }) {
      const { site, problem } = await draftOf(state);
      if (problem) throw new Refusal('operation-refused', problem.detail);
      const { operations, fits, misfits } = applyRecipe(site, recipe);
      return { operations: [...operations], fits: [...fits], misfits: [...misfits] };
    },
    async patchBetween({ siteId, from, to }) {
      return unifiedPatch((await revision(siteId, from)).site, (await revision(siteId, to)).site).bytes;
    },
    async proofBetween({ from, against, state }, onPage) {
      const { siteId, number, operations } = state;
      const { site: after } = await draftOf(state);
      const before = against === undefined ? (await revision(siteId, from)).site : await loadSite(revisions, against, from); // prettier-ignore
      const chosen = against === undefined ? [...(await operationsSince(siteId, from, number)), ...operations] : [];
      return proofOf(before, after, chosen, onPage) as unknown as ProofReply;
    },
    async reportBetween({ siteId, from, to, title, revisions: saved }, onPage) {
      const [{ site: before }, { site: after, checker }] = [await revision(siteId, from), await revision(siteId, to)];
      const proof = proofOf(before, after, await operationsSince(siteId, from, to), onPage);
      const packed = (bytes: Uint8Array): number => gzipSync(bytes).length;
      return handoffReport(before, after, proof, { title, from: `r${from}`, to: `r${to}`, revisions: saved, check: checker.check(after), packed }); // prettier-ignore
    },
    async changesBetween({ siteId, from, to }) {
      return changesOf((await revision(siteId, from)).site, (await revision(siteId, to)).site);
    },
  };
}

/** Two states compared; what is said to be nowhere or to be a page is so on both sides, and what these operations chose to change is intended. */
function proofOf(before: Site, after: Site, operations: readonly Operation[], onPage: Step): Proof {
  const absent = [...(after.absent ?? [])].filter((path) => !before.files.has(path));
  const start = withRunPages(withAbsent(before, absent), [...(after.pageTypes ?? [])]);
  const proof = new SiteProver(start).prove(after, { onPage });
  const isChosen = proof.verdict === 'differs' && lookChoices(operations).length > 0;
  return isChosen ? markIntended(proof, siteAsChosen(start, operations), after) : proof;
}

/** A revision read, the draft on it as it was last asked for, and its proof so far. */
interface KeptRevision {
  readonly site: Site;
  readonly draft: KeptDraft;
  /** By the sheets that are taken as missing. */
  readonly provers: Map<string, SiteProver>;
  readonly checker: SiteChecker;
}

interface DraftOnRevision extends KeptDraftState {
  readonly before: Site;
  readonly checker: SiteChecker;
  readonly prover: SiteProver;
}

function makeKept(site: Site): KeptRevision {
  const checker = new SiteChecker();
  return { site, draft: new KeptDraft(site, checker), provers: new Map(), checker };
}

async function loadSite(
  revisions: Pick<RevisionStore, 'manifest' | 'decisions' | 'readBlobs'>,
  siteId: string,
  number: number,
): Promise<Site> {
  const manifest = await revisions.manifest(siteId, number);
  if (!manifest) throw new Refusal('revision-not-found', `There is no revision r${number} of this site.`);
  const blobs = await revisions.readBlobs(Object.values(manifest));
  const site = makeSite(Object.entries(manifest).map(([path, hash]) => [path, blobs.get(hash)!] as const));
  return withDecisions(site, await revisions.decisions(siteId, number));
}

function madeDraft(
  state: SiteState,
  { site, steps, before, problem }: KeptDraftState & { readonly before: Site },
  have: ReadonlySet<string>,
): MadeDraft {
  const changes = changesOf(before, site);
  const files = changes.map(({ path }) => [path, site.files.get(path)?.hash ?? null] as const);
  const fresh = new Map<string, Uint8Array>();
  for (const [path, hash] of files) if (hash !== null && !have.has(hash)) fresh.set(hash, site.files.get(path)!.bytes);
  return {
    draft: {
      base: state.number,
      operations: [...state.operations],
      steps: steps.map(({ sentence, left = [] }) => ({ sentence, left: left.map(describeLeft) })),
      changes,
      sheets: linkedSheets(site).map((s) => ({ ...s, pages: [...s.pages], isNew: !before.files.has(s.path) })),
      ...(problem ? { problem } : {}),
      missing: missingIn(site),
      mistakes: mistakesIn(before, site, changes),
    },
    decisions: decisionsOf(site),
    files,
    bytes: [...fresh],
  };
}

/** Sheets that count as nothing, in the order of their names. */
const missingIn = (site: Site): string[] => [...(site.absent ?? [])].filter((path) => isAbsent(site, path)).sort();

const describeLeft = ({ page, label, reason }: LeftRule): { page: string; label: string; reason: string } => ({
  page,
  label,
  reason:
    reason === 'order-conflict'
      ? 'pages hold it in orders that cannot be joined'
      : reason === 'no-scope'
        ? 'it cannot stand below a class of the body'
        : describeStayReason(reason),
});

function changesOf(before: Site, after: Site): DraftReply['changes'] {
  return changedFiles(before, after).map(({ path, change }) => {
    const old = before.files.get(path);
    const now = after.files.get(path);
    return {
      path,
      change,
      bytesBefore: old?.bytes.length ?? 0,
      bytesAfter: now?.bytes.length ?? 0,
      kind: (now ?? old)!.kind,
    };
  });
}
