import { expect, test } from '@jest/globals';
import fs from 'node:fs';
import { fileURLToPath } from 'node:url';
import { makeSite, withAbsent } from '../source/site.ts';
import { sheetsNotHere } from '../survey/sheetsNotHere.ts';
import { textIn } from '../testing/siteOf.ts';
import { planFigures } from './planFigures.ts';
import { planWhole } from './planWhole.ts';

const folder = fileURLToPath(new URL('../../../../demo/', import.meta.url));
const kept = fileURLToPath(new URL('../testing/fixtures/demoSheet.css', import.meta.url));

function demo() {
  const files = fs.readdirSync(folder, { recursive: true, withFileTypes: true }).filter((entry) => entry.isFile());
  const pathOf = (entry: fs.Dirent): string => `${entry.parentPath}/${entry.name}`;
  return makeSite(
    files.map(
      (entry) => [pathOf(entry).slice(folder.length).replace(/^\//, ''), fs.readFileSync(pathOf(entry))] as const,
    ),
  );
}

// written and read as a person who has to maintain it; a change of it is a change for people: look at it before it is kept
// (KEEP_DEMO_SHEET=1 writes it)
test('the demo becomes one sheet, the one that was read and found good', () => {
  const found = demo();
  const site = withAbsent(
    found,
    sheetsNotHere(found).map(({ path }) => path),
  );
  const plan = planWhole(site, 'css/shared.css');
  if (!plan.ok) throw new Error(plan.problem.kind);
  const text = textIn(plan.value.site, 'css/shared.css')!;
  if (process.env['KEEP_DEMO_SHEET'] === '1') fs.writeFileSync(kept, text);
  expect(text).toBe(fs.readFileSync(kept, 'utf8'));
  expect([plan.value.proof.verdict, plan.value.stays]).toEqual(['same', []]);
  const figures = planFigures(site, plan.value.site, plan.value.operations);
  expect(figures).toMatchObject({ newSheets: 1, repeatedClasses: 0 });
  expect(figures.marks).toBeLessThanOrEqual(11);
});
