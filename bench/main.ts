// npm run bench [pages…] [folders…]: CPU of this process, in ratios to parsing the same pages; compare figures within one run only.
import path from 'node:path';
import { setFlagsFromString } from 'node:v8';
import {
  applyChangeSet,
  CascadeSession,
  checkSite,
  desktop,
  KeptDraft,
  makeSite,
  pagesOf,
  parsePage,
  planGatherRules,
  planWhole,
  proveSites,
  sheetsOf,
  SiteProver,
  siteWinners,
  surveySite,
  type Site,
} from '@syndeton/core';
import { askOthers } from './askOthers.ts';
import { endToEnd } from './endToEnd.ts';
import { makeFiles, type SiteKind } from './makeSite.ts';
import { planRows } from './planRows.ts';
import { questions } from './questions.ts';
import { smallChanges } from './smallChanges.ts';
import { spinCapacity } from './spinCapacity.ts';
import { writing } from './writing.ts';

// as the server and the command line have it
setFlagsFromString('--no-allocation-site-pretenuring');

const sizes = process.argv.slice(2).map(Number).filter(Boolean);
/** Folders whose plans are counted, besides the demo. */
const folders = process.argv.slice(2).filter((one) => Number.isNaN(Number(one)));

/** CPU milliseconds of this process. */
function measure(run: () => void): number {
  const before = process.cpuUsage();
  run();
  const used = process.cpuUsage(before);
  return (used.user + used.system) / 1000;
}

const median = (list: readonly number[]): number => [...list].sort((a, b) => a - b)[list.length >> 1]!;
const p95 = (list: readonly number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length * 0.95)]!;

function heap(): number {
  (globalThis as { gc?: () => void }).gc?.();
  const { heapUsed, arrayBuffers } = process.memoryUsage();
  return heapUsed + arrayBuffers;
}

function parseAll(site: Site): void {
  for (const page of pagesOf(site)) parsePage(page.text!);
}

function cascadeAll(site: Site): void {
  const session = new CascadeSession();
  for (const page of pagesOf(site)) {
    const opened = session.open(site, page);
    for (const element of opened.tree.elements) opened.listOf(element);
  }
}

function gathered(site: Site): Site {
  const plan = planGatherRules(site, { kind: 'gather-rules', sheet: 'css/gathered.css' });
  if (!plan.ok) throw new Error(plan.problem.kind);
  const applied = applyChangeSet(site, plan.value.changes);
  if (!applied.ok) throw new Error(applied.problem.kind);
  return applied.value;
}

function planned(site: Site): void {
  const plan = planWhole(site, 'css/gathered.css');
  if (!plan.ok || plan.value.proof.verdict !== 'same') throw new Error('no plan that keeps the look');
}

/** Wall times of a person who takes one sheet out of a plan: the draft planned anew, and the verdict from the last proof on. */
function decision(pages: number): void {
  const site = makeSite(makeFiles(pages, 'embedded'));
  const plan = planWhole(site, 'css/gathered.css');
  if (!plan.ok) throw new Error('no plan');
  const { operations, site: after } = plan.value;
  const prover = new SiteProver(site);
  prover.prove(after);
  const second = operations.findLastIndex((one) => one.kind === 'gather-rules');
  const draft = new KeptDraft(site);
  draft.apply(operations);
  const started = performance.now();
  const changed = draft.apply(operations.filter((_, i) => i !== second));
  const planned = performance.now();
  const verdict = prover.prove(changed.site);
  const proved = performance.now();
  row(pages, 'one decision changed: the draft', `${Math.round(planned - started)} ms`);
  row(
    pages,
    'one decision changed: verdict from the last proof',
    `${Math.round(proved - planned)} ms`,
    `target 1,000 for both; ${verdict.verdict}`,
  );
}

function row(pages: number, step: string, figure: string, note = ''): void {
  console.log(`${String(pages).padStart(5)}  ${step.padEnd(46)} ${figure.padStart(12)}  ${note}`);
}

const times = (ratio: number): string => `${ratio.toFixed(2)} ×`;

/** Ratios to parsing, medians of `rounds` runs that take turns with parsing. */
function ratios(kind: SiteKind, pages: number, rounds: number): void {
  const site = makeSite(makeFiles(pages, kind));
  const steps: Record<string, { run: () => void; target: string; of: number[] }> = {
    'parse and cascade': {
      run: () => cascadeAll(site),
      target: kind === 'shared' ? 'target 1.25' : 'target 1.5',
      of: [],
    },
    survey: { run: () => void surveySite(site), target: '', of: [] },
    'survey, families, reach and all checks': { run: () => void checkSite(site), target: '', of: [] },
  };
  if (kind === 'embedded') {
    const after = gathered(site);
    steps['before, after and comparison (proof)'] = {
      run: () => void proveSites(site, after),
      target: 'target 1.6',
      of: [],
    };
    steps['plan for everything, proved'] = { run: () => planned(site), target: 'target 4', of: [] };
    steps['gather'] = { run: () => void gathered(site), target: '', of: [] };
  }
  const parsed: number[] = [];
  for (let round = 0; round < rounds; round++)
    for (const step of Object.values(steps)) {
      const parse = measure(() => parseAll(site));
      parsed.push(parse);
      step.of.push(measure(step.run) / parse);
    }
  row(pages, `${kind}: parse`, `${(median(parsed) / pages).toFixed(2)} ms/page`);
  for (const [name, { of, target }] of Object.entries(steps))
    row(pages, `${kind}: ${name} / parse`, times(median(of)), target);
}

/** Who decides, over all pages. */
function whoDecides(pages: number): void {
  const { site, reading, firsts, answers, overrides, bytesPerPage } = questions(pages, measure, heap);
  row(pages, 'questions: all pages read / parse', times(reading / measure(() => parseAll(site))));
  row(pages, 'questions: kept in memory', `${(bytesPerPage / 1000).toFixed(1)} KB/page`);
  row(
    pages,
    `questions: an answer, p95 of ${answers.length}`,
    `${p95(answers).toFixed(0)} ms`,
    `target 200, median ${median(answers).toFixed(0)} ms; the first of its kind ${median(firsts).toFixed(0)}, at most ${Math.max(...firsts).toFixed(0)}`,
  );
  row(pages, 'questions: all overrides', `${overrides.toFixed(0)} ms`);
}

/** What an author waits for who edits a sheet. */
function edited(pages: number): void {
  const { reading, scores, reaches, effects, findings, lines, rename, renameProof } = writing(pages);
  row(pages, 'sheets: all pages read, once for each draft', `${Math.round(reading)} ms`);
  row(
    pages,
    `sheets: what a rule wins, p95 of ${scores.length}`,
    `${p95(scores).toFixed(0)} ms`,
    `target 150, median ${median(scores).toFixed(0)} ms`,
  );
  row(
    pages,
    `sheets: a new selector, at most of ${reaches.length}`,
    `${Math.max(...reaches).toFixed(0)} ms`,
    'target 200',
  );
  row(
    pages,
    `sheets: an edit proved, median of ${effects.length}`,
    `${median(effects).toFixed(0)} ms`,
    `at most ${Math.max(...effects).toFixed(0)} ms`,
  );
  row(pages, `sheets: findings of ${lines.toLocaleString('en')} lines`, `${findings.toFixed(0)} ms`, 'in a worker');
  row(
    pages,
    'sheets: a class renamed on all pages, and proved',
    `${Math.round(rename)} ms`,
    `proof ${Math.round(renameProof)} ms`,
  );
}

console.log(`spin capacity of two threads: ${(await spinCapacity()).toFixed(2)} (2 would be two free cores)\n`);
parseAll(makeSite(makeFiles(100, 'embedded'))); // warm up
cascadeAll(makeSite(makeFiles(100, 'embedded')));
for (const pages of sizes.length > 0 ? sizes : [100, 1000]) {
  ratios('shared', pages, 5);
  ratios('embedded', pages, 5);
}
whoDecides(sizes.at(-1) ?? 3000);
decision(sizes.at(-1) ?? 3000);
for (const [step, figure, note] of smallChanges(sizes.at(-1) ?? 3000)) row(sizes.at(-1) ?? 3000, step, figure, note);
edited(sizes.at(-1) ?? 3000);

const site = makeSite(makeFiles(20, 'embedded'));
const winners = measure(() => {
  for (const lines of siteWinners(site, { environment: desktop }))
    if (lines.length === 0) throw new Error('no winners');
});
const engine = measure(() => cascadeAll(site));
const { chromium, jsdom } = await askOthers(site);
const others = (ms: number): string => `${(ms / (engine / 20)).toFixed(0)} × slower`;
row(20, 'Chromium: load, all computed styles', others(chromium), 'target 150; wall time there');
row(20, 'jsdom: getComputedStyle of all elements', others(jsdom), 'target 1000; from 30 elements of one page');
row(20, 'every winner with its place / cascade', times(winners / engine), `${sheetsOf(site).length} sheets`);

const large = sizes.at(-1) ?? 3000;
const whole = await endToEnd(large);
const parsing = measure(() => parseAll(makeSite(makeFiles(large, 'embedded')))) / 1000;
row(
  large,
  'brought in and surveyed, end to end',
  `${(large / whole.seconds).toFixed(0)} pages/s`,
  `${whole.megabytes.toFixed(0)} MB, ${times(whole.seconds / parsing)} parsing alone`,
);
row(large, 'most memory of the server', `${whole.peakMegabytes.toFixed(0)} MB`);
for (const [name, longest] of Object.entries(whole.frames))
  row(large, `longest frame: ${name}`, `${longest.toFixed(0)} ms`, 'target 100');

row(large, 'measured in the browser, two states', `${whole.measured.toFixed(1)} pages/s`, 'one width, every element');

console.log('\nWhat plans cost those who keep the site');
for (const folder of ['demo', ...folders])
  for (const [step, figure, note] of planRows(folder))
    console.log(`${path.basename(folder).slice(0, 24).padEnd(25)} ${step.padEnd(26)} ${figure.padStart(22)}  ${note}`);
