import { workerData, type MessagePort } from 'node:worker_threads';
import {
  changedFiles,
  describeOperationProblem,
  describeStayReason,
  fileKindOf,
  KeptDraft,
  lackingLinks,
  linkedSheets,
  makeSite,
  makeSiteFile,
  pageBands,
  planWhole,
  SiteProver,
  type KeptDraftState,
  type LeftRule,
  type Operation,
  type Site,
} from '@syndeton/core';
import type { DraftReply, PageBandsReply, ProofReply, ProposalReply } from '@syndeton/contract';
import { connect } from '../db/connect.ts';
import { makeSequelizeSiteStore } from '../features/sites/sequelizeSiteStore.ts';
import { Refusal } from '../http/refusal.ts';
import { attributeGroups } from './attributeGroups.ts';
import { elementReply, keptOutcomesOf, overridesReply, questionReply, valueReply } from './precedence.ts';
import { makeInventory } from './inventory.ts';
import type { AnalysisTasks, SiteState } from './tasks.ts';

const { databaseUrl } =
  (workerData as [unknown, { databaseUrl: string }] | { databaseUrl: string }) instanceof Array
    ? (workerData as [unknown, { databaseUrl: string }])[1]
    : (workerData as { databaseUrl: string });
const store = makeSequelizeSiteStore(connect(databaseUrl, 2));

/** The last few revisions read, kept warm. */
const sites = new Map<string, Promise<Site>>();
const drafts = new Map<string, KeptDraftState>();
/** By revision: the last draft, from which the next one goes on. */
const lastDrafts = new Map<string, KeptDraft>();
/** By revision: how its pages look, and the last proof of its draft, from which the next one goes on. */
const provers = new Map<string, SiteProver>();
const mostKept = 3;

function readSite(siteId: string, number: number): Promise<Site> {
  const key = `${siteId} ${number}`;
  return keep(sites, key, () => loadSite(siteId, number));
}

async function loadSite(siteId: string, number: number): Promise<Site> {
  const manifest = await store.manifest(siteId, number);
  if (!manifest) throw new Refusal('revision-not-found', `There is no revision r${number} of this site.`);
  const blobs = await store.readBlobs(Object.values(manifest));
  return makeSite(Object.entries(manifest).map(([path, hash]) => [path, blobs.get(hash)!] as const));
}

function keep<Value>(map: Map<string, Value>, key: string, make: () => Value): Value {
  const known = map.get(key);
  if (known !== undefined) {
    map.delete(key);
    map.set(key, known);
    return known;
  }
  const made = make();
  map.set(key, made);
  if (map.size > mostKept) map.delete(map.keys().next().value!);
  return made;
}

async function draftOf(state: SiteState): Promise<KeptDraftState & { readonly before: Site }> {
  const before = await readSite(state.siteId, state.number);
  const revision = `${state.siteId} ${state.number}`;
  const made = keep(drafts, `${revision} ${JSON.stringify(state.operations)}`, () =>
    keep(lastDrafts, revision, () => new KeptDraft(before)).apply(state.operations as readonly Operation[]),
  );
  return { ...made, before };
}

const tasks: AnalysisTasks = {
  async inventory({ state, port }) {
    const { site } = await draftOf(state);
    return makeInventory(site, reporter(port));
  },
  inventoryOfFiles({ files, port }) {
    return makeInventory(makeSite(files), reporter(port));
  },
  async inventoryOfChange({ siteId, number, files, removed, port }) {
    const before = await readSite(siteId, number);
    const after = new Map(before.files);
    for (const path of removed) after.delete(path);
    for (const [path, bytes] of files) after.set(path, makeSiteFile(path, bytes));
    const site = { files: after };
    const added = files.map(([path]) => path).filter((path) => !before.files.has(path) && fileKindOf(path) === 'page');
    const lacking = lackingLinks(site, added).map(({ page, sheets }) => ({ page, sheets: [...sheets] }));
    return { inventory: await makeInventory(site, reporter(port)), lacking };
  },
  async page({ state, path }) {
    const { site } = await draftOf(state);
    const bands = pageBands(site, path);
    return (
      bands &&
      (JSON.parse(JSON.stringify(bands, (_key, one: unknown) => (one === undefined ? null : one))) as PageBandsReply)
    );
  },
  async attributes({ state }) {
    const { site } = await draftOf(state);
    return attributeGroups(site);
  },
  async element({ state, query }) {
    const { site } = await draftOf(state);
    return elementReply(site, query);
  },
  async question({ state, question }) {
    const { site } = await draftOf(state);
    return questionReply(site, keptOutcomesOf(site), question);
  },
  async overrides({ state, environment }) {
    const { site } = await draftOf(state);
    return overridesReply(site, keptOutcomesOf(site), environment);
  },
  async value({ state, value }) {
    const { site } = await draftOf(state);
    return valueReply(site, value);
  },
  async draft({ state }) {
    const { site, steps, before, problem } = await draftOf(state);
    const sheets = linkedSheets(site);
    return {
      base: state.number,
      operations: [...state.operations],
      steps: steps.map(({ sentence, left }) => ({ sentence, left: left.map(describeLeft) })),
      changes: changesOf(before, site),
      sheets: sheets.map((s) => ({ ...s, pages: [...s.pages], isNew: !before.files.has(s.path) })),
      ...(problem ? { problem } : {}),
    };
  },
  async proof({ state, port }) {
    const { site, before } = await draftOf(state);
    const key = `${state.siteId} ${state.number}`;
    const proof = keep(provers, key, () => new SiteProver(before)).prove(site, { onPage: reporter(port) });
    port?.close();
    return proof as unknown as ProofReply;
  },
  async proposal({ state, sheet, pages, settings }) {
    const { site } = await draftOf(state);
    const planned = planWhole(site, sheet, { ...settings, ...(pages ? { pages } : {}) });
    if (!planned.ok) throw new Refusal('operation-refused', describeOperationProblem(planned.problem));
    const { operations, sheets, stays } = planned.value;
    return {
      operations: [...operations] as ProposalReply['operations'],
      rules: sheets.reduce((sum, s) => sum + s.rules, 0),
      sheets: sheets.map(({ path, rules, pages, why }) => ({
        path,
        rules,
        pages: [...pages],
        ...(why === undefined ? {} : { why }),
      })),
      stays: [...stays],
    };
  },
  async file({ state, path }) {
    const { site } = await draftOf(state);
    const file = site.files.get(path);
    if (!file) return undefined;
    return {
      text: { path, hash: file.hash, encoding: file.encoding ?? '', text: file.text ?? null },
      bytes: file.bytes,
    };
  },
  async changedFiles({ state }) {
    const { site, before, steps, problem } = await draftOf(state);
    if (problem) throw new Refusal('operation-refused', problem.detail);
    const files = changedFiles(before, site).map(({ path }) => ({ path, bytes: site.files.get(path)?.bytes }));
    return { files, sentences: steps.map((s) => s.sentence) };
  },
  async changesBetween({ siteId, from, to }) {
    return changesOf(await readSite(siteId, from), await readSite(siteId, to));
  },
};

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

/** Tells how far a task is, ten times a second at most. */
function reporter(port: MessagePort | undefined): (done: number, total: number, rules?: number) => void {
  let last = 0;
  return (done, total, rules) => {
    const now = Date.now();
    if (now - last < 100 && done < total) return;
    last = now;
    port?.postMessage({ done, total, rules });
  };
}

/** piscina calls this with the name of a task and its input. */
export default function run<Name extends keyof AnalysisTasks>({
  name,
  input,
}: {
  name: Name;
  input: Parameters<AnalysisTasks[Name]>[0];
}): ReturnType<AnalysisTasks[Name]> {
  return (tasks[name] as (input: unknown) => ReturnType<AnalysisTasks[Name]>)(input);
}
