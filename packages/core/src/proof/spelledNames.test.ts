import { expect, test } from '@jest/globals';
import { mayBeSpelled } from '../survey/spelledNames.ts';
import { askChromium, type Question } from '../testing/chromium.ts';
import { pageOf, siteOf } from '../testing/siteOf.ts';
import { proveSites } from './proveSites.ts';

type Files = Readonly<Record<string, string>>;
const far = './'.repeat(200);
const comment = `/* ${'x;'.repeat(200)} */`;
/** Ways to spell `s.css` in a head (and a sheet beside it). */
const heads: readonly (readonly [string, Files?])[] = [
  ['<link rel=stylesheet href="s&#46;css">'],
  [`<link rel=stylesheet href="${far}s&#46;css">`],
  ['<link rel=stylesheet href="a>b/../s&#46;css">'],
  ['<link rel=stylesheet href="a;b/../s&period;css">'],
  ['<link rel=stylesheet href=s&#x2e;css>'],
  ['<link title=">" rel=stylesheet href=\'s&#46css\'>'],
  ['<link rel=stylesheet class=a"b href=s&#46;css>'],
  ['<base href="s&#46;css"><link rel=stylesheet href="?x">'],
  ['<style>@import "s\\2e css";</style>'],
  [`<style>@import "${far}s\\2e css";</style>`],
  ['<style>@import url(a;b/../s\\2e css);</style>'],
  ['<style>@import "a;b/../s\\2e css";</style>'],
  [`<style>@import ${comment} "s\\2e css";</style>`],
  ['<style>@i\\6dport "s\\2e css";</style>'],
  ['<link rel=stylesheet href=t.css>', { 't.css': '@i\\6dport url(s\\2e css);' }],
  ['<link rel=stylesheet href=t.css>', { 't.css': `@import ${comment} "s\\2e css";` }],
  ['<svg><style>@import "s&#46;css";</style></svg>'],
];
const files = ([head, more = {}]: (typeof heads)[number], sheet: string): Files => ({
  'index.html': pageOf(head, '<p>x'),
  's.css': sheet,
  ...more,
});

test.each(heads.map((row) => [row[0], row] as const))('%s', (_head, row) => {
  const verdict = proveSites(siteOf(files(row, 'p{color:red}')), siteOf(files(row, 'p{color:blue}'))).verdict;
  expect(verdict).toBe('differs');
});

test('Chromium takes the sheet from each', async () => {
  const question = (row: (typeof heads)[number]): Question => ({
    html: files(row, '')['index.html']!,
    files: files(row, 'p{color:red}'),
    ask: 'getComputedStyle(document.querySelector("p")).color',
  });
  const answers = await askChromium(heads.map(question));
  expect(heads.filter((_row, i) => answers[i] !== 'rgb(255, 0, 0)').map(([head]) => head)).toEqual([]);
});

test.each([
  '<a href="a%20b.html">x &amp; y</a> the driver\'s import; 100 %',
  '<link rel=stylesheet href="css/s.css"><p>a\\b & c',
  '<style>@import "s.css"; p::after{content:"\\201c"}</style>',
  '<style>@import url(s.css) screen;\nb{top:0} /* 100% */</style>',
])('nothing is spelled in %s', (text) => {
  expect(mayBeSpelled(text)).toBe(false);
});
