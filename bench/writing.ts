import {
  desktop,
  KeptOutcomes,
  makeSite,
  planOperation,
  ruleScore,
  selectorReach,
  sheetOutline,
  sheetsOf,
  SiteProver,
  applyChangeSet,
  textFindings,
  type Operation,
  type Site,
} from '@syndeton/core';
import { makeFiles } from './makeSite.ts';

/** What an author who edits a sheet waits for: wall milliseconds, as a person waits. */
export interface WritingFigures {
  readonly reading: number;
  /** What a rule wins and who beats it: the first answer about an edit. */
  readonly scores: readonly number[];
  /** A selector that no sheet has yet. */
  readonly reaches: readonly number[];
  /** The whole effect of an edit of one rule, proved. */
  readonly effects: readonly number[];
  /** All findings of a sheet of 5,000 lines. */
  readonly findings: number;
  readonly lines: number;
  /** A class renamed on all pages: planned, and proved. */
  readonly rename: number;
  readonly renameProof: number;
}

const wall = (run: () => unknown): number => {
  const started = performance.now();
  run();
  return performance.now() - started;
};

export function writing(pages: number): WritingFigures {
  const site = makeSite(makeFiles(pages, 'shared'));
  let kept: KeptOutcomes | undefined;
  const reading = wall(() => (kept = new KeptOutcomes(site)));
  const sheet = sheetsOf(site)[0]!;
  const rules = sheetOutline(sheet.text!).filter(({ isNested }) => !isNested);
  const scores = Array.from({ length: 200 }, (_, i) =>
    wall(() => ruleScore(kept!, desktop, { path: sheet.path, start: rules[i % rules.length]!.start })),
  );
  const selectors = [
    '.b7 em',
    '#own3 p',
    'nav li',
    'div p a',
    '.k5 > p',
    ':is(p, nav) em',
    '.s3 a[href]',
    'p:nth-child(2n+1)',
  ];
  const reaches = selectors.map((selector) => wall(() => selectorReach(kept!, selector)));
  const prover = new SiteProver(site);
  const effects = Array.from({ length: 10 }, (_, i) => {
    const rule = rules[(i * 7) % rules.length]!;
    const text = `${sheet.text!.slice(0, rule.end - 1)}; outline-width: ${i + 1}px }${sheet.text!.slice(rule.end)}`;
    return wall(() => prover.prove(after(site, { kind: 'edit-sheet', path: sheet.path, hash: sheet.hash, text })));
  });
  const long = Array.from({ length: 1250 }, (_, i) => `.r${i} {\n  color: #0b5563;\n  margin: ${i}px 0;\n}`).join('\n');
  textFindings(long.slice(0, 2000));
  const name = /\.([a-z]+\d+)/.exec(sheet.text!)![1]!;
  let renamed: Site | undefined;
  const rename = wall(() => (renamed = after(site, { kind: 'rename-name', of: 'class', from: name, to: 'quite-new' })));
  const renameProof = wall(() => {
    if (new SiteProver(site).prove(renamed!).verdict !== 'same') throw new Error('a rename that changes looks');
  });
  return {
    reading,
    scores,
    reaches,
    effects,
    findings: wall(() => textFindings(long)),
    lines: 5000,
    rename,
    renameProof,
  };
}

function after(site: Site, operation: Operation): Site {
  const plan = planOperation(site, operation);
  const done = plan.ok ? applyChangeSet(site, plan.value.changes) : plan;
  if (!done.ok) throw new Error(done.problem.kind);
  return done.value;
}
