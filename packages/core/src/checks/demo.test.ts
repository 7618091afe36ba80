import fs from 'node:fs';
import path from 'node:path';
import { expect, test } from '@jest/globals';
import { makeSite } from '../source/site.ts';
import { applyOperations } from '../operations/operation.ts';
import { checkSite } from './checkSite.ts';
import { findingKinds, type FindingKind } from './finding.ts';

const folder = path.join(import.meta.dirname, '../../../../demo');
const demo = makeSite(
  fs
    .readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => {
      const full = path.join(entry.parentPath, entry.name);
      return [path.relative(folder, full), fs.readFileSync(full)] as const;
    }),
);
const { findings, families, reach, elementsOf } = checkSite(demo);

/** The mistakes people make with styling, and what tells of each in the demo. */
test.each<[mistake: string, kind: FindingKind, about: string]>([
  ['a link forgotten on some pages', 'page-without-link', 'css/base.css'],
  ['the page was saved and its sheet never was', 'link-missing', 'css/history.css'],
  ['a path that is right only from the root', 'link-missing', 'islands/css/site.css'],
  ['url() still counted from the pages’ folder', 'reference-missing', 'img/waves.png'],
  ['style tags copied into a sheet', 'markup-in-sheet', 'css/site.css'],
  ['a link after the block', 'link-after-block', 'routes/night-boat'],
  ['a name with a space in it', 'name-with-space', '.crew card'],
  ['a page with a picture of its own on a shared name', 'own-picture', '#banner'],
  ['a leftover rule that beats the sheet', 'override', '#wrap h2'],
  ['a rule in a sheet the page does not link', 'rule-not-reached', '.seat-plan'],
  ['the same rule in several versions', 'drift', '.notice'],
  ['a misspelt property', 'unknown-property', 'backgroud-color'],
  ['a font list without a generic end', 'no-generic-font', 'font list'],
  ['a baseline put last', 'baseline-last', 'routes/winter'],
  ['a link inside a comment', 'link-in-comment', 'news/2023/summer'],
  ['a file name with a space', 'file-name', 'Harbour Map'],
  ['another case than the file', 'link-wrong-case', 'css/Site.css'],
  ['rules that no page uses', 'unused-rule', 'css/site.css'],
])('%s', (_mistake, kind, about) => {
  expect(findings.filter((f) => f.kind === kind && f.sentence.includes(about)).length).toBeGreaterThan(0);
});

test('what breaks a page comes first; every finding has its own id and an action', () => {
  expect(findings.map((f) => f.severity)).toEqual(
    ['breaks', 'wrong', 'note'].flatMap((s) => findings.filter((f) => f.severity === s).map(() => s)),
  );
  expect(new Set(findings.map((f) => f.id)).size).toBe(findings.length);
  for (const f of findings) expect(f.action.label).not.toBe('');
});

test('everything that can be mended is mended, one after the other', () => {
  let site = demo;
  // a mend may bring to light what it hid: a link taken out of its comment may stand before the baseline
  for (let round = 0; round < 3; round++) {
    for (const { id, action } of checkSite(site).findings) {
      if (action.does !== 'mend') continue;
      const plan = applyOperations(site, [{ kind: 'mend', finding: id }]);
      // an earlier mend may have mended this as well
      if (plan.ok) site = plan.value.site;
      else expect(plan.problem.problem.kind).toBe('no-such-finding');
    }
  }
  const left = checkSite(site).findings.filter((f) => f.action.does === 'mend');
  expect(left.map((f) => f.id)).toEqual([]);
});

test('reach: elements and pages of a shared rule; families under another selector with the same declarations', () => {
  const of = (selector: string) => reach.find((r) => r.sheet === 'css/base.css' && r.selector === selector);
  expect(of('a')).toMatchObject({ line: 18, elements: 208, pages: 24 });
  expect(of('a:focus')).toMatchObject({ elements: 0, pages: 0 });
  expect(elementsOf('.notice')).toBe(26);
  expect(elementsOf('.late')).toBe(0);
  expect(families.filter((f) => f.twins.length > 0).every((f) => !f.twins.includes(f.id))).toBe(true);
});

test('every kind of finding has its cases', () => {
  const tables = ['links', 'styling', 'texts', 'reaching'].map((name) =>
    fs.readFileSync(path.join(import.meta.dirname, `${name}.test.ts`), 'utf8'),
  );
  const missing = findingKinds.filter(
    (kind) =>
      // a validator says it: its cases are in pageMarkup.test.ts
      kind !== 'page-markup' &&
      !tables.some((table) => table.includes(`\n  ${/^\w+$/.test(kind) ? kind : `'${kind}'`}: [`)),
  );
  expect(missing).toEqual([]);
});
