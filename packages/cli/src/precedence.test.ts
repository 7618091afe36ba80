import { afterEach, beforeEach, expect, test } from '@jest/globals';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { main } from './main.ts';

let folder = '';
beforeEach(() => {
  folder = fs.mkdtempSync(path.join(os.tmpdir(), 'syndeton-precedence-'));
});
afterEach(() => fs.rmSync(folder, { recursive: true, force: true }));

function write(files: Readonly<Record<string, string>>): void {
  for (const [name, content] of Object.entries(files)) {
    fs.mkdirSync(path.dirname(path.join(folder, name)), { recursive: true });
    fs.writeFileSync(path.join(folder, name), content);
  }
}

async function run(...args: string[]): Promise<{ code: number; out: string; err: string }> {
  let out = '';
  let err = '';
  const code = await main(
    ['precedence', ...args],
    (text) => (out += `${text}\n`),
    (text) => (err += `${text}\n`),
  );
  return { code, out, err };
}

const lines = (out: string): Record<string, unknown>[] =>
  out
    .trim()
    .split('\n')
    .filter((line) => line !== '')
    .map((line) => JSON.parse(line) as Record<string, unknown>);

const site = {
  'css/all.css': '@import "in.css" screen;\n\nh1, p { color: navy }\np::before { content: "x" }\n',
  'css/in.css': 'h1 { margin-top: 1em }',
  'index.html':
    '<!DOCTYPE html><title>t</title><link rel="stylesheet" href="css/all.css">\n<style>\n  h1 { color: teal !important }\n</style>\n<h1 style="color: red">h</h1>\n<p style="margin: 0 2px">p</p><table bgcolor="silver"><tr><td>x</table>',
  'sub/other.html': '<!DOCTYPE html><title>t</title><style>@media print { b { top: 0 } } b { left: 0 }</style><b>b</b>',
};

test('one line for each element and longhand that an author source declares', async () => {
  write(site);
  const { code, out } = await run(folder, '--winners', '--page', 'index.html');
  expect(code).toBe(0);
  const said = lines(out);
  const find = (element: string, property: string): unknown =>
    said.find((line) => line['element'] === element && line['property'] === property);
  const h1 = 'html>body:nth-child(2)>h1:nth-child(1)';
  const p = 'html>body:nth-child(2)>p:nth-child(2)';
  expect(find(h1, 'color')).toEqual({
    page: 'index.html',
    element: h1,
    property: 'color',
    declared: 'color',
    value: 'teal',
    source: 'embedded',
    file: 'index.html',
    line: 3,
    column: 8,
    selector: 'h1',
    important: true,
  });
  expect(find(h1, 'margin-top')).toMatchObject({
    source: 'imported',
    file: 'css/in.css',
    line: 1,
    column: 6,
    value: '1em',
  });
  expect(find(p, 'color')).toMatchObject({ source: 'linked', file: 'css/all.css', line: 3, column: 9, selector: 'p' });
  expect(find(p, 'margin-left')).toMatchObject({
    declared: 'margin',
    source: 'attribute',
    selector: null,
    line: 6,
    column: 11,
    value: '0 2px',
  });
  expect(find(`${p}::before`, 'content')).toMatchObject({ source: 'linked', line: 4 });
  expect(find('html>body:nth-child(2)>table:nth-child(3)', 'background-color')).toMatchObject({
    source: 'hint',
    line: 6,
    value: 'silver',
  });
  expect(new Set(said.map((line) => line['page']))).toEqual(new Set(['index.html']));
});

test('a pattern of pages, a medium and a width', async () => {
  write(site);
  const screen = lines((await run(folder, '--winners', '--page', '**/*.html')).out);
  expect(new Set(screen.map((line) => line['page']))).toEqual(new Set(['index.html', 'sub/other.html']));
  const properties = async (...args: string[]): Promise<unknown[]> =>
    lines((await run(folder, '--winners', '--page', 'sub/*', ...args)).out).map((line) => line['property']);
  expect(await properties()).toEqual(['left']);
  expect((await properties('--medium', 'print')).sort()).toEqual(['left', 'top']);
  write({ 'w.html': '<style>@media (max-width: 600px) { p { top: 0 } }</style><p>' });
  expect((await run(folder, '--winners', '--page', 'w.html')).out.trim()).toBe('');
  expect(lines((await run(folder, '--winners', '--page', 'w.html', '--width', '600')).out)).toHaveLength(1);
});

test.each([
  [['--page', 'x'], /--winners/],
  [['--winners', '--medium', 'tv'], /no medium tv.*Allowed: screen, print/],
  [['--winners', '--width', 'wide'], /wide is no width.*from 1 to 100000/],
  [['--winners', '--width', '0'], /0 is no width/],
  [['--winners', '--page', 'nowhere.html'], /No page of .* matches nowhere\.html/],
])('%j says what is wrong and what is allowed', async (args, message) => {
  write(site);
  const { code, out, err } = await run(folder, ...args);
  expect([code, out]).toEqual([2, '']);
  expect(err).toMatch(message);
});

test('a folder that is not there, and one without pages', async () => {
  expect((await run(path.join(folder, 'gone'), '--winners')).code).toBe(2);
  fs.mkdirSync(path.join(folder, 'none'));
  const { code, err } = await run(path.join(folder, 'none'), '--winners');
  expect(code).toBe(2);
  expect(err).not.toBe('');
});

test('one element: who says what, and a sentence', async () => {
  write(site);
  const { code, out } = await run(folder, '--page', 'index.html', '--element', 'h1', '--property', 'color');
  expect(code).toBe(0);
  expect(out).toBe(
    [
      'h1 on index.html:5 “h”',
      '  color',
      '    = teal !important  index.html:3  h1 (0,0,1)',
      '    - red  index.html:5  not important',
      '    - navy  css/all.css:3  h1 (0,0,1)  not important',
      '    The embedded block wins. It says !important; the style attribute does not.',
      '',
    ].join('\n'),
  );
  const json = await run(
    folder,
    '--page',
    'index.html',
    '--element',
    'h1',
    '--peel',
    'attribute,1:index.html',
    '--json',
  );
  expect(JSON.parse(json.out)).toMatchObject([
    { name: 'h1', rows: expect.arrayContaining([expect.objectContaining({ property: 'color', value: 'navy' })]) },
  ]);
});

test('a question over all pages', async () => {
  write(site);
  const { code, out } = await run(folder, '--question', 'h1 { color }');
  expect(code).toBe(0);
  expect(out).toContain('color of h1: 1 value on 1 page, 1 element');
  expect(out).toContain('h1 (0,0,1) in an embedded block  1 page: index.html');
  const json = JSON.parse((await run(folder, '--question', 'p { margin-left }', '--json')).out) as {
    values: unknown[];
  };
  expect(json.values).toMatchObject([{ value: '2px', deciders: [{ kind: 'attribute' }] }]);
});

test('overrides, harmless first', async () => {
  write({ ...site, 'index.html': `${site['index.html']}<style>p { color: NAVY }</style>` });
  const { code, out } = await run(folder, '--overrides');
  expect(code).toBe(0);
  expect(out).toContain('2 declarations in pages beat shared ones; 1 only repeat them');
  expect(out.indexOf('copy ')).toBeLessThan(out.indexOf('importance '));
  expect(out).toContain(
    'h1 { color: teal }  over h1, p { navy } in css/all.css  1 page, 1 element; 1 element would change',
  );
});

test.each([
  [['--element', 'h1'], 'Name the page'],
  [['--element', 'h1', '--page', 'none.html'], 'no page none.html'],
  [['--element', 'h1 {', '--page', 'index.html'], 'Browsers refuse'],
  [['--element', 'h9', '--page', 'index.html'], 'No element'],
  [['--question', 'color'], 'is no question'],
  [['--question', 'h1 { colour }'], 'no property'],
  [['--question', 'h1 { color }', '--overrides'], 'one of'],
])('%j is refused in words', async (args, words) => {
  write(site);
  const { code, err } = await run(folder, ...args);
  expect([code, err]).toEqual([2, expect.stringContaining(words)]);
});
