import { expect, test } from '@jest/globals';
import fs from 'node:fs';
import { fileURLToPath } from 'node:url';
import { makeSite } from '../source/site.ts';
import { parsePage } from '../page/parsePage.ts';
import { embeddedBlocks } from '../survey/blockUnits.ts';
import { pageOf, siteOf, textIn } from '../testing/siteOf.ts';
import { planLookKeepingGather } from './planGather.ts';

const page = (style: string): string => pageOf(`<style>${style}</style>`, '<h1>a</h1><p class=n>b</p><p>c</p>');

function plan(files: Readonly<Record<string, string>>) {
  const result = planLookKeepingGather(siteOf(files), 'css/site.css');
  if (!result.ok) throw new Error(result.problem.kind);
  return result.value;
}

const left = (value: ReturnType<typeof plan>): number =>
  [...value.site.files.values()]
    .filter((f) => f.kind === 'page')
    .reduce((sum, f) => sum + embeddedBlocks(parsePage(f.text!), f.path).length, 0);

test('pages that agree share one sheet', () => {
  const value = plan({ 'a.html': page('p{color:red}'), 'b.html': page('p{color:red}') });
  expect(value.sheets.map((s) => s.path)).toEqual(['css/site.css']);
  expect([left(value), value.proof.verdict]).toEqual([0, 'same']);
});

test('drift: the common version is shared, the other keeps its own', () => {
  const value = plan({
    'a.html': page('.n{color:red}'),
    'b.html': page('.n{color:red}'),
    'c.html': page('.n{color:blue}'),
  });
  expect(textIn(value.site, 'css/site.css')).toBe('.n{color:red}\n');
  expect([left(value), value.proof.verdict]).toEqual([0, 'same']);
});

test('a leak goes to a sheet of its own', () => {
  const value = plan({ 'a.html': page('p{color:red}'), 'b.html': page('p{color:red}\nh1{color:blue}') });
  expect(textIn(value.site, 'css/site.css')).toBe('p{color:red}\n');
  expect([left(value), value.proof.verdict]).toEqual([0, 'same']);
});

test('a new sheet never takes a name a broken link asks for', () => {
  const value = plan({
    'a.html': page('p{color:red}').replace('<style>', '<link rel=stylesheet href=css/a.css><style>'),
    'b.html': page('p{color:blue}'),
  });
  expect(value.sheets.some((s) => s.path === 'css/a.css')).toBe(false);
  expect(value.proof.verdict).toBe('same');
});

test('a site with no styling in its pages is given back byte for byte', () => {
  const files = { 'a.html': '\uFEFF<p>a\r\n', 's.css': 'p{}' };
  const value = plan(files);
  expect(value.sheets).toEqual([]);
  expect(textIn(value.site, 'a.html')).toBe(files['a.html']);
});

test('the demo: what can go goes, and every page looks the same', () => {
  const folder = fileURLToPath(new URL('../../../../demo/', import.meta.url));
  const files = fs.readdirSync(folder, { recursive: true, withFileTypes: true }).filter((e) => e.isFile());
  const site = makeSite(
    files.map(
      (e) =>
        [
          `${e.parentPath}/${e.name}`.slice(folder.length).replace(/^\//, ''),
          fs.readFileSync(`${e.parentPath}/${e.name}`),
        ] as const,
    ),
  );
  const result = planLookKeepingGather(site, 'css/shared.css');
  if (!result.ok) throw new Error(result.problem.kind);
  expect(result.value.proof.verdict).toBe('same');
  expect(left(result.value)).toBe(0);
  expect(result.value.sheets.find((s) => s.why === undefined)!.pages.length).toBe(26);
  expect(result.value.exclusions).toEqual([]);
  expect(result.value.sheets.length).toBeLessThan(15);
});
