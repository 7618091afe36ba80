import { readdirSync, readFileSync, statSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { comparableValue } from '../values/comparableValue.ts';
import { longhandsOf } from '../values/longhands.ts';
import { longhandValues } from '../values/longhandValues.ts';
import { expect, test } from '@jest/globals';
import { browserDefaults, quirksDefaults } from '../cascade/browserDefaults.ts';
import { hangsOnPathOnly } from '../cascade/keptMatching.ts';
import { parseSelectorList } from '../selectors/parseSelector.ts';
import { parseSheet } from '../sheet/parseSheet.ts';
import { desktop } from '../cascade/environment.ts';
import { elementPath, parsePage } from '../page/parsePage.ts';
import { makeSite, pagesOf, type Site } from '../source/site.ts';
import { askChromium, type Question } from '../testing/chromium.ts';
import { siteOf } from '../testing/siteOf.ts';
import { elementTable, type ElementQuery } from './elementTable.ts';
import type { TableRow } from './tableRow.ts';
import { KeptOutcomes } from './keptOutcomes.ts';
import { findOverrides } from './overrides.ts';
import { askSite, describeQuestionProblem } from './question.ts';

const page = `<!DOCTYPE html><html lang="en"><head><title>t</title>
<link rel="stylesheet" href="a.css">
<link rel="stylesheet" href="b.css">
<style>
#w h2 { color: maroon; font-size: 1.4em }
h2 { letter-spacing: .06em }
p:hover { color: red }
</style></head><body><div id="w"><h2 style="background: #fff6d6">North loop</h2><p align="right">x</p></div></body></html>`;
const files = {
  'a.css': 'body { color: #123456; margin: 0 }\nh2 { color: navy; font-weight: 400; background: white }\n',
  'b.css':
    'h2 { color: teal; font-weight: 600; letter-spacing: .02em !important; background: #eef4f5 }\n@media print { h2 { color: black } }\n',
};
const site = siteOf({ 'p.html': page, ...files });
const h2 = 'html>body:nth-child(2)>div:nth-child(1)>h2:nth-child(1)';

const table = (more: Partial<ElementQuery> = {}) =>
  elementTable(site, { page: 'p.html', element: h2, environment: desktop, ...more })!;
const row = (property: string, more: Partial<ElementQuery> = {}): TableRow =>
  table(more).rows.find((one) => one.property === property)!;
const wins = ({ entries }: TableRow): string | undefined => entries.find((e) => e.state === 'wins')?.value;

test('a table says who wins, and of the others why not', () => {
  const color = row('color');
  expect(color.entries.map((e) => [e.source, e.value, e.state, e.reason?.words])).toEqual([
    ['2:p.html', 'maroon', 'wins', undefined],
    ['1:b.css', 'black', 'idle', 'only with @media print'],
    ['1:b.css', 'teal', 'loses', '(0,0,1) is less'],
    ['0:a.css', 'navy', 'loses', '(0,0,1) is less'],
  ]);
  expect(color.sentence).toEqual({
    lead: 'The embedded block wins.',
    rest: 'Its `#w h2` is (1,0,1), more than `h2` in b.css, (0,0,1).',
    kind: 'specificity',
  });
  expect(row('letter-spacing').entries.map((e) => [e.value, e.reason?.words])).toEqual([
    ['.02em', undefined],
    ['.06em', 'not important'],
  ]);
  expect(row('font-weight').sentence.rest).toBe('Both say it with `h2`, (0,0,1); it comes later.');
  expect(row('font-weight').entries.at(-1)).toMatchObject({ source: 'browser', value: 'bold', state: 'loses' });
});

test('a peel shows who wins next: the attribute, then a declaration of the block, then a sheet', () => {
  const background = (peeled: string[]) => wins(row('background', { peeled }));
  expect(background([])).toBe('#fff6d6');
  expect(background(['attribute'])).toBe('#eef4f5');
  expect(background(['attribute', '1:b.css'])).toBe('white');
  expect(row('background', { peeled: ['attribute'] }).sentence).toMatchObject({ lead: 'b.css wins next.' });
  const declaration = row('color').entries[0]!.id;
  expect(wins(row('color', { peeled: [declaration] }))).toBe('teal');
  // what nobody says any more is inherited
  const none = row('color', { peeled: ['2:p.html', '1:b.css', '0:a.css'] });
  expect(none.inheritedFrom).toBeUndefined();
  expect(row('color', { peeled: ['2:p.html', '1:b.css', declarationOf('h2 in a.css')] }).inheritedFrom?.name).toBe(
    'body',
  );
});

const declarationOf = (_name: string): string => row('color').entries.at(-1)!.id;

test('an inherited value is traced to the element it comes from', () => {
  const of = elementTable(site, {
    page: 'p.html',
    element: 'html>body:nth-child(2)>div:nth-child(1)>p:nth-child(2)',
    environment: desktop,
  })!;
  const color = of.rows.find((r) => r.property === 'color')!;
  expect(color.entries[0]).toMatchObject({ value: 'red', state: 'idle', reason: { kind: 'state' } });
  expect(color.inheritedFrom?.name).toBe('body');
  expect(color.value).toBe('#123456');
  expect(of.sources.map((s) => s.id)).toContain('presentational');
});

test('states are held on', () => {
  const element = 'html>body:nth-child(2)>div:nth-child(1)>p:nth-child(2)';
  const hovered = elementTable(site, { page: 'p.html', element, environment: desktop, forced: ['hover'] })!;
  expect(wins(hovered.rows.find((r) => r.property === 'color')!)).toBe('red');
});

test('print is another view', () => {
  expect(wins(row('color', { environment: { ...desktop, medium: 'print' } }))).toBe('maroon');
  expect(wins(row('color', { environment: { ...desktop, medium: 'print' }, peeled: ['2:p.html'] }))).toBe('black');
});

test('peels are what Chromium shows when the sources are switched off', async () => {
  const off: readonly (readonly [string[], string])[] = [
    [[], ''],
    [['attribute'], `e.removeAttribute('style');`],
    [['attribute', '2:p.html'], `e.removeAttribute('style'); document.querySelector('style').remove();`],
    [['attribute', '2:p.html', '1:b.css'], `e.removeAttribute('style'); document.querySelector('style').remove(); document.querySelector('[href="b.css"]').remove();`],
  ]; // oxfmt-ignore
  const answers = await askChromium(
    off.map(([peeled, act]) => ({ html: page, path: 'p.html', files, ask: `(() => { const e = document.querySelector('h2'); ${act} return ${check(table({ peeled }).rows)}; })()` })),
  ); // oxfmt-ignore
  expect(answers).toEqual(off.map(() => []));
});

/**
 * The rows whose claim Chromium refutes: a claimed declaration set with importance on the element, or `inherit` for an inherited
 * one, leaves what was computed as it was.
 */
const check = (rows: readonly TableRow[]): string => `(${refuted})(e, ${JSON.stringify(claims(rows))})`;

const refuted = `((e, claims) => claims.filter(({ longhands, property, value }) => {
  const now = getComputedStyle(e), before = longhands.map((l) => now.getPropertyValue(l));
  const style = e.getAttribute('style');
  e.style.setProperty(property, value, 'important');
  const same = longhands.every((l, i) => getComputedStyle(e).getPropertyValue(l) === before[i]);
  if (style === null) e.removeAttribute('style'); else e.setAttribute('style', style);
  return !same;
}))`;

function claims(rows: readonly TableRow[]) {
  return rows.flatMap((one) => {
    const entry = one.entries.find((e) => e.state === 'wins');
    if (one.inheritedFrom)
      return one.longhands.map((name) => ({ longhands: [name], property: name, value: 'inherit' }));
    // addresses count from their sheet; variables from where they are set
    if (!entry || /url\(|var\(/i.test(entry.value)) return [];
    return [{ longhands: one.longhands, property: entry.declared || one.property.split(',')[0]!, value: entry.value }];
  });
}

const demoFolder = fileURLToPath(new URL('../../../../demo', import.meta.url));
const walk = (folder: string, prefix = ''): [string, Uint8Array][] =>
  readdirSync(folder).flatMap((name) =>
    statSync(`${folder}/${name}`).isDirectory()
      ? walk(`${folder}/${name}`, `${prefix}${name}/`)
      : [[prefix + name, readFileSync(`${folder}/${name}`)] as [string, Uint8Array]],
  );
const demo: Site = makeSite(walk(demoFolder));

test('200 elements of the demo: no row of their tables is refuted by Chromium', async () => {
  const sheets = Object.fromEntries(
    [...demo.files.values()].filter((f) => f.kind === 'sheet').map((f) => [f.path, f.text ?? '']),
  );
  const questions: Question[] = [];
  let seed = 7;
  const next = (n: number): number => (seed = (seed * 48271) % 2147483647) % n;
  const pages = pagesOf(demo);
  let rows = 0;
  for (const file of pages) {
    // Chromium lays the options of a drop-down list out by a sheet of its own
    const elements = parsePage(file.text!).elements.filter(
      (e) => !/^(head|meta|title|link|style|script|base|option)$/.test(e.tag),
    );
    const picked = Array.from({ length: Math.ceil(200 / pages.length) }, () => elements[next(elements.length)]!);
    const tables = picked.map((e) =>
      elementTable(demo, { page: file.path, element: elementPath(e), environment: desktop })!,
    );
    rows += tables.reduce((sum, one) => sum + claims(one.rows).length, 0);
    const asked = tables.map((one) => ({ element: one.element, claims: claims(one.rows) }));
    questions.push({
      html: file.text!,
      path: file.path,
      files: sheets,
      width: 1280,
      ask: `${JSON.stringify(asked)}.flatMap(({ element, claims }) => (${refuted})(document.querySelector(element), claims).map((c) => [element, c]))`,
    });
  }
  expect(rows).toBeGreaterThan(1500);
  const answers = (await askChromium(questions)) as unknown[][];
  expect(answers.flatMap((found, i) => found.map((one) => [pages[i]!.path, one]))).toEqual([]);
});

const many = siteOf({
  's.css': 'h1 { color: teal }\na { color: blue }\n',
  't.css': 'a { color: green }\n',
  'a.html': '<link rel=stylesheet href=s.css><h1>a</h1>',
  'b.html': '<link rel=stylesheet href=s.css><style>h1 { color: TEAL }</style><h1>b</h1>',
  'c.html': '<link rel=stylesheet href=s.css><div id=w><h1>c</h1></div><style>#w h1 { color: red }</style>',
  'd.html': '<body text=navy><h1>d</h1>',
  'e.html':
    '<link rel=stylesheet href=s.css><link rel=stylesheet href=t.css><a href=x>e</a><h1 style="color: red">e</h1>',
  'f.html': '<p>f</p>',
});
const kept = new KeptOutcomes(many);

test('a question is answered by values, and who decides each', () => {
  const answer = askSite(kept, { selector: 'h1', property: 'color', environment: desktop });
  if (!answer.ok) throw new Error('refused');
  expect(answer.value).toMatchObject({ pages: 5, elements: 5, without: 1 });
  const { values } = answer.value;
  expect(values.map((v) => [v.value.toLowerCase(), v.pages])).toEqual([
    ['teal', ['a.html', 'b.html']],
    ['red', ['c.html', 'e.html']],
    ['navy', ['d.html']],
  ]);
  expect(values[0]!.deciders.map((d) => [d.kind, d.copies])).toEqual([
    ['linked', false],
    ['embedded', true],
  ]);
  expect(values[1]!.deciders.map((d) => [d.kind, d.selector, d.over?.path])).toEqual([
    ['embedded', '#w h1', 's.css'],
    ['attribute', '', 's.css'],
  ]);
  expect(values[2]!.deciders[0]).toMatchObject({ kind: 'presentational', inheritedFrom: 'body' });
});

test.each([
  ['margin', 'body', '8px', 'browser'],
  ['font-weight', 'h1', 'bold', 'browser'],
  ['letter-spacing', 'h1', 'normal', 'initial'],
  ['margin-left', 'body', '8px', 'browser'],
])('%s of %s is %s, by the %s', (property, selector, value, kind) => {
  const answer = askSite(kept, { selector, property, environment: desktop });
  expect(answer.ok && answer.value.values[0]).toMatchObject({ value, deciders: [{ kind }] });
});

test('a question that cannot be asked is refused in words', () => {
  const selector = askSite(kept, { selector: 'h1 {', property: 'color', environment: desktop });
  const property = askSite(kept, { selector: 'h1', property: 'colour', environment: desktop });
  expect(!selector.ok && describeQuestionProblem(selector.problem)).toContain('h1 {');
  expect(!property.ok && describeQuestionProblem(property.problem)).toContain('colour');
});

test('overrides by cause, and shared rules that another sheet always beats', () => {
  const { overrides, alwaysBeaten } = findOverrides(kept, desktop);
  expect(overrides.map((o) => [o.cause, o.selector, o.value, o.pages, o.changes])).toEqual([
    ['copy', 'h1', 'TEAL', ['b.html'], 0],
    ['specificity', '#w h1', 'red', ['c.html'], 1],
    ['attribute', 'h1', 'red', ['e.html'], 1],
  ]);
  expect(overrides[1]!.then).toEqual([{ value: 'teal', source: 's.css', elements: 1 }]);
  expect(alwaysBeaten.map((b) => [b.path, b.selector, b.value, b.by[0]!.path])).toEqual([
    ['s.css', 'a', 'blue', 't.css'],
  ]);
});

test('what is the same on screen alone is no copy', () => {
  const page = (media: string): string =>
    `<link rel=stylesheet href=s.css media="${media}"><style>h1 { color: red }</style><h1>a</h1>`;
  const of = (files: Readonly<Record<string, string>>) =>
    findOverrides(new KeptOutcomes(siteOf(files)), desktop).overrides[0]!;
  expect(of({ 's.css': 'h1 { color: red }', 'a.html': page('all') }).cause).toBe('copy');
  expect(of({ 's.css': 'h1 { color: red }', 'a.html': page('screen') }).cause).toBe('order');
  expect(of({ 's.css': 'h1 { color: red } @media print { h1 { color: black } }', 'a.html': page('all') }).cause).toBe(
    'order',
  );
});

test('of the browser’s own rules only those for summary hang on siblings: the others are asked once a path', () => {
  const rules = parseSheet(browserDefaults + quirksDefaults).rules.filter((rule) => rule.kind === 'style');
  const selectors = rules.flatMap((rule) => parseSelectorList(rule.selector) ?? []);
  expect(selectors.length).toBeGreaterThan(200);
  const others = selectors.filter((one) => !hangsOnPathOnly(one)).map((one) => one.text);
  expect(others.filter((text) => !/summary:first-of-type$/.test(text))).toEqual([]);
});

test('answers over the whole demo are those of the tables, element by element', () => {
  const all = new KeptOutcomes(demo);
  for (const [selector, property] of [
    ['h1, h2, p, td', 'color'],
    ['*', 'font-family'],
    ['li', 'float'],
    ['a', 'text-decoration-line'],
  ] as const) {
    // oxfmt-ignore
    const answer = askSite(all, { selector, property, environment: desktop });
    if (!answer.ok) throw new Error('refused');
    for (const value of answer.value.values)
      for (const { first, kind } of value.deciders) {
        const tree = parsePage(demo.files.get(first.page)!.text!);
        const element = elementPath(tree.elements[first.index]!);
        const of = elementTable(demo, { page: first.page, element, environment: desktop })!;
        const found = of.rows.find((r) => r.longhands.includes(property));
        if (kind === 'initial') expect(found?.entries.some((e) => e.state === 'wins') ?? false).toBe(false);
        else if (found) {
          const declared = found.entries.find((e) => e.state === 'wins')?.declared || found.property; // '': the row's own
          const parts = longhandValues(declared, comparableValue(declared, found.value));
          const said = parts?.[longhandsOf(declared).indexOf(property)] ?? comparableValue(property, found.value);
          expect([first, said]).toEqual([first, comparableValue(property, value.value)]);
        }
      }
  }
});
