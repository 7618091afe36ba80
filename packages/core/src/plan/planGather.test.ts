import { describe, expect, test } from '@jest/globals';
import fs from 'node:fs';
import { fileURLToPath } from 'node:url';
import { proveSites } from '../proof/proveSites.ts';
import { makeSite } from '../source/site.ts';
import { parsePage } from '../page/parsePage.ts';
import { embeddedBlocks } from '../survey/blockUnits.ts';
import { pageOf, siteOf, textIn } from '../testing/siteOf.ts';
import { planLookKeepingGather } from './planGather.ts';
import type { PlanOptions } from './planOptions.ts';

const page = (style: string): string => pageOf(`<style>${style}</style>`, '<h1>a</h1><p class=n>b</p><p>c</p>');

/** Without page marks: as many sheets as that takes. */
function plan(files: Readonly<Record<string, string>>, options: PlanOptions = {}) {
  const result = planLookKeepingGather(siteOf(files), 'css/site.css', { sheets: 'own', ...options });
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

interface Row {
  readonly shows: string;
  /** The blocks of pages a, b, c, …; `|` parts what stands in two blocks with a link between them. */
  readonly pages: readonly string[];
  readonly options?: PlanOptions;
  /** Sheets by the pages that link them, with their text. */
  readonly sheets: Readonly<Record<string, string>>;
  readonly blocksLeft?: number;
}

const rows: readonly Row[] = [
  { shows: 'rules in contradicting orders', pages: ['p{color:red} .n{top:0} h1{top:1px} p{top:2px}', 'p{top:2px} h1{top:1px} p{color:red}'], sheets: { 'a b': 'p{color:red}\nh1{top:1px}\np{top:2px}\n', a: '.n{top:0}\n' } },
  { shows: 'competing rules in contradicting orders keep their own order on each page', pages: ['p{color:red} .n{color:blue} p{color:red}', '.n{color:blue}'], sheets: {} },
  { shows: 'a version that sets everything the common one sets comes after it', pages: ['p{color:red} h1{top:0}', 'p{color:red} h1{top:0}', 'p{color:blue;top:0} h1{top:0}'], sheets: { 'a b c': 'p{color:red}\nh1{top:0}\n', c: 'p{color:blue;top:0}\n' } },
  { shows: 'a version that lacks something keeps the common one away', pages: ['p{color:red;top:0}', 'p{color:red;top:0}', 'p{color:blue}'], sheets: { 'a b': 'p{color:red;top:0}\n', c: 'p{color:blue}\n' } },
  { shows: 'what reaches nothing elsewhere joins the shared sheet', pages: ['p{color:red} #form{top:0}', 'p{color:red}'], sheets: { 'a b': 'p{color:red}\n#form{top:0}\n' } },
  { shows: 'one page by itself, if asked', pages: ['p{color:red} #form{top:0}', 'p{color:red}'], options: { singlePage: 'own' }, sheets: { 'a b': 'p{color:red}\n', a: '#form{top:0}\n' } },
  { shows: 'what one page has stays, if asked', pages: ['p{color:red} #form{top:0}', 'p{color:red}'], options: { singlePage: 'stay' }, sheets: { 'a b': 'p{color:red}\n' }, blocksLeft: 1 },
  { shows: 'a rule that stays keeps what must follow it', pages: ['.n{color:blue} p.n{top:0} .n{color:red}', '.n{color:red}'], options: { singlePage: 'stay' }, sheets: { b: '.n{color:red}\n' }, blocksLeft: 1 },
  { shows: 'at most so many sheets', pages: ['p{color:red} h1{top:0}', 'p{color:red} h1{top:0}', 'p{color:blue}', 'p{color:blue}'], options: { maxSheets: 1 }, sheets: { 'a b': 'p{color:red}\nh1{top:0}\n' }, blocksLeft: 2 },
  { shows: 'rules round a link that competes keep their sides', pages: ['p{color:red}|p{top:0}', 'p{color:red}|p{top:0}'], sheets: { 'a b': 'p{color:red}\n', 'a b, also': 'p{top:0}\n' } },
]; // oxfmt-ignore

const names = ['a', 'b', 'c', 'd'];
const link = '<link rel=stylesheet href=old.css>';

describe.each(rows)('$shows', ({ pages, options, sheets, blocksLeft }) => {
  const blocks = (text: string): string =>
    text
      .split('|')
      .map((part) => `<style>${part}</style>`)
      .join(`\n${link}\n`);
  const files = Object.fromEntries(
    pages.map((text, i) => [`${names[i]!}.html`, pageOf(blocks(text), '<h1>a</h1><p class=n>b</p><p>c</p>')]),
  );
  const value = plan({ ...files, 'old.css': 'p { color: green; top: 9px }' }, options);
  const written: Record<string, string> = {};
  for (const { path, pages: linking } of value.sheets) {
    const key = linking.map((page) => page.replace('.html', '')).join(' ');
    written[key in written ? `${key}, also` : key] = textIn(value.site, path)!;
  }

  test('into these sheets', () => {
    expect(written).toMatchObject(sheets);
    expect(left(value)).toBe(blocksLeft ?? 0);
  });

  test('with the look kept, no page left out', () => {
    expect(proveSites(siteOf({ ...files, 'old.css': 'p { color: green; top: 9px }' }), value.site).verdict).toBe(
      'same',
    );
    expect(value.exclusions).toEqual([]);
  });
});

test('sheets are named for the folder, or for what their rules are about', () => {
  const card = '<style>.card{top:0}.card p{top:1px}</style>';
  const inner = '<div class=card><p>a</p></div>';
  const value = plan({
    'index.html': pageOf('', inner),
    'news/a.html': pageOf('<style>p{color:red}</style>', '<p>a'),
    'news/b.html': pageOf('<style>p{color:red}</style>', '<p>a'),
    'c.html': pageOf(card, inner),
    'news/d.html': pageOf(card, inner),
    'e.html': pageOf(card, inner),
  });
  expect(value.sheets.map((s) => [s.path, s.pages.length])).toEqual([
    ['css/site.css', 3],
    ['css/news.css', 2],
  ]);
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
  const result = planLookKeepingGather(site, 'css/shared.css', { sheets: 'own' });
  if (!result.ok) throw new Error(result.problem.kind);
  expect(result.value.proof.verdict).toBe('same');
  expect(left(result.value)).toBe(0);
  expect(result.value.sheets.find((s) => s.why === undefined)!.pages.length).toBe(26);
  expect(result.value.exclusions).toEqual([]);
  expect(result.value.sheets.length).toBeLessThan(15);
});
