// npm run bench: parse, cascade, gather, proof on generated sites. Times are CPU of this process; compare ratios within one run only.
import {
  applyChangeSet,
  CascadeSession,
  makeSite,
  pagesOf,
  parsePage,
  planGatherRules,
  proveSites,
  surveySite,
  type Site,
} from '@syndeton/core';
import { makeFiles } from './makeSite.ts';

const sizes = process.argv.slice(2).map(Number).filter(Boolean);

interface Figures {
  readonly ms: number;
  readonly perSecond: number;
}

function measure(pages: number, run: () => void): Figures {
  const before = process.cpuUsage();
  run();
  const used = process.cpuUsage(before);
  const ms = (used.user + used.system) / 1000;
  return { ms, perSecond: (pages * 1000) / ms };
}

function memory(): number {
  (globalThis as { gc?: () => void }).gc?.();
  return process.memoryUsage().heapUsed / 1e6;
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

console.log('pages  step      CPU ms  pages/s  × parse  heap MB after');
parseAll(makeSite(makeFiles(50))); // warm up
for (const pages of sizes.length > 0 ? sizes : [100, 1000, 3000]) {
  const site = makeSite(makeFiles(pages));
  const parse = measure(pages, () => parseAll(site));
  const show = (step: string, figures: Figures): void =>
    console.log(
      `${String(pages).padStart(5)}  ${step.padEnd(8)} ${figures.ms.toFixed(0).padStart(7)}  ${figures.perSecond.toFixed(0).padStart(7)}  ${(figures.ms / parse.ms).toFixed(2).padStart(7)}  ${memory().toFixed(0).padStart(13)}`,
    );
  show('parse', parse);
  show(
    'survey',
    measure(pages, () => void surveySite(site)),
  );
  show(
    'cascade',
    measure(pages, () => cascadeAll(site)),
  );
  let after = site;
  show(
    'gather',
    measure(pages, () => {
      const plan = planGatherRules(site, { kind: 'gather-rules', sheet: 'css/gathered.css' });
      if (!plan.ok) throw new Error(plan.problem.kind);
      const applied = applyChangeSet(site, plan.value.changes);
      if (!applied.ok) throw new Error(applied.problem.kind);
      after = applied.value;
    }),
  );
  let same = 0;
  const proof = measure(pages, () => {
    same = proveSites(site, after).pages.filter((page) => page.verdict === 'same').length;
  });
  show('proof', proof);
  console.log(
    `       (${same} of ${pages} pages look the same; elements a page: ${parsePage(pagesOf(site)[0]!.text!).elements.length})`,
  );
}
