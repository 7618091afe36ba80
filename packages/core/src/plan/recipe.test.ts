import fs from 'node:fs';
import path from 'node:path';
import { expect, test } from '@jest/globals';
import { proveSites } from '../proof/proveSites.ts';
import type { Operation } from '../operations/operation.ts';
import type { Site } from '../source/site.ts';
import { siteOf, textIn } from '../testing/siteOf.ts';
import { surveySite } from '../survey/surveySite.ts';
import { planWhole } from './planWhole.ts';
import { applyRecipe, makeRecipe } from './recipe.ts';

const page = (style: string, body = '<p class="note">x'): string =>
  `<!DOCTYPE html><title>t</title><style>${style}</style>${body}`;

const planned = (site: Site, sheet: string) => {
  const plan = planWhole(site, sheet);
  if (!plan.ok) throw new Error(plan.problem.kind);
  return plan.value;
};

test('a plan is one step that names no page; what else was done follows', () => {
  const site = siteOf({ 'a.html': page('.note { color: red }'), 'b.html': page('.note { color: red }') });
  const sort: Operation = { kind: 'sort-rules', sheet: 'css/all.css' };
  const recipe = makeRecipe('Ferry', [...planned(site, 'css/all.css').operations, sort]);
  expect(recipe.steps).toEqual([
    { does: 'gather', sheet: 'css/all.css', settings: {} },
    { does: 'operation', operation: sort },
  ]);
});

test('a plan is made elsewhere as it was asked for', () => {
  const files = {
    'a.html': page('.note { color: red } p { top: 0 }', '<p class="note" style="left: 0">x'),
    'b.html': page('.note { color: red }'),
  };
  const settings = { keepAttributes: true, singlePage: 'stay', oldBrowsers: true } as const;
  const plan = planWhole(siteOf(files), 'css/all.css', { ...settings, pages: Object.keys(files) });
  if (!plan.ok) throw new Error(plan.problem.kind);
  const recipe = makeRecipe('Ferry', plan.value.operations);
  expect(recipe.steps).toEqual([{ does: 'gather', sheet: 'css/all.css', settings }]);
  const { site } = applyRecipe(siteOf(files), recipe);
  expect(textIn(site, 'a.html')).toContain('style="left: 0"');
  expect(textIn(site, 'a.html')).toContain('p { top: 0 }');
  expect(textIn(site, 'css/all.css')).toContain('.note { color: red }');
});

test('applied to another site: what fits is done, what does not is said', () => {
  const rename: Operation = { kind: 'rename-name', of: 'class', from: 'note', to: 'hint' };
  const recipe = makeRecipe('Ferry', [
    ...planned(siteOf({ 'a.html': page('p { top: 0 }'), 'b.html': page('p { top: 0 }') }), 'css/all.css').operations,
    rename,
    { kind: 'delete-sheet', sheet: 'css/old.css' },
  ]);
  const other = siteOf({ 'x/1.html': page('.note { left: 0 }'), 'x/2.html': page('.note { left: 0 }') });
  const { site, fits, misfits, operations } = applyRecipe(other, recipe);
  expect(textIn(site, 'css/all.css')).toContain('.hint { left: 0 }');
  expect(textIn(site, 'x/1.html')).toContain('class="hint"');
  expect(fits).toHaveLength(operations.length);
  expect(misfits).toEqual([{ step: 2, why: expect.stringContaining('css/old.css') }]);
  expect(proveSites(other, site).verdict).toBe('same');
});

test('a recipe of half of the demo, applied to the rest: nothing is left in pages, and nothing looks different', () => {
  const root = path.join(import.meta.dirname, '../../../../demo');
  const all = Object.fromEntries(
    fs
      .readdirSync(root, { recursive: true, encoding: 'utf8' })
      .filter((name) => fs.statSync(path.join(root, name)).isFile())
      .map((name) => [name, new Uint8Array(fs.readFileSync(path.join(root, name)))]),
  );
  const isLater = (name: string): boolean => /^(news|routes)\/.*\.html$/.test(name);
  const half = siteOf(Object.fromEntries(Object.entries(all).filter(([name]) => !isLater(name))));
  const first = planned(half, 'css/ferry.css');
  const recipe = makeRecipe('Ferry', first.operations);
  // the rest comes in beside what was gathered
  const later = siteOf(Object.fromEntries(Object.entries(all).filter(([name]) => isLater(name))));
  const before = { ...first.site, files: new Map([...first.site.files, ...later.files]) };
  const applied = applyRecipe(before, recipe);
  expect(applied.misfits).toEqual([]);
  expect(proveSites(before, applied.site).verdict).toBe('same');
  const left = (site: Site): number =>
    surveySite(site)
      .pages.filter(({ path: name }) => isLater(name))
      .reduce((sum, one) => sum + one.embeddedRules, 0);
  expect(left(applied.site)).toBe(0);
});
