import { expect, test } from '@jest/globals';
import { pageOf, siteOf } from '../testing/siteOf.ts';
import { driftedProperties, familiesOf } from './families.ts';
import { pageBands } from './pageBands.ts';
import { surveySite } from './surveySite.ts';

const site = siteOf({
  'a.html': pageOf(
    '<link rel=stylesheet href=css/s.css>\n<style>.n{color:#f00}\n@media print{p{color:black}}</style>',
    '<p style="color:red">x</p><table bgcolor=red><td align=left>c</table><center>y</center>',
  ),
  'b.html': pageOf(
    '<link rel=stylesheet href=css/S.css><link rel=stylesheet href=gone.css><link rel=stylesheet href=//h/x.css>\n<style>.n{color:red}\n@media print{p{color:black}}</style>',
    '<p>x</p>',
  ),
  'c.html': pageOf('<style>.n{color:blue;top:0}</style><style>@import "css/s.css";</style>', ''),
  'css/s.css': '@import "i.css";\nh1{color:red}',
  'css/i.css': 'h2{color:red}h3{color:red}',
  'x.png': 'x',
});

test('sources in document order, with what cannot be read', () => {
  const { pages } = surveySite(site);
  const words = pages.map((p) =>
    p.sources
      .map((s) =>
        `${s.kind} ${s.target ?? ''} ${s.problem ?? ''} ${s.rules}/${s.declarations}/${s.count}`.replace(/ +/g, ' '),
      )
      .join(', '),
  );
  expect(words).toEqual([
    'imported css/i.css 2/2/1, linked css/s.css 1/1/1, embedded 2/2/1, attribute 0/1/1, presentational 0/3/3',
    'linked css/S.css wrong-case 0/0/1, linked gone.css missing 0/0/1, linked //h/x.css remote 0/0/1, embedded 2/2/1',
    'embedded 1/2/1, imported css/i.css 2/2/1, imported css/s.css 1/1/1, embedded 0/0/1',
  ]);
  expect(pages.map((p) => [p.embeddedRules, p.styleAttributes, p.sharedBytes > 0])).toEqual([
    [2, 1, true],
    [2, 0, false],
    [1, 0, true],
  ]);
});

test('sheets, and who links or imports them', () => {
  expect(surveySite(site).sheets.map((s) => `${s.path} ${s.rules} ${s.pages.join(' ')}`)).toEqual([
    'css/i.css 2 a.html c.html',
    'css/s.css 1 a.html c.html',
  ]);
});

test('repeated blocks are told apart by meaning', () => {
  const { repeatedBlocks } = surveySite(site);
  expect(
    repeatedBlocks.map((b) => `${b.selectors.join(' + ')}: ${b.versions.map((v) => v.pages.join(' ')).join(' | ')}`),
  ).toEqual(['.n + @media print { p: a.html b.html']);
});

test('families and their versions; what drifted', () => {
  const families = familiesOf(site);
  expect(families.map((f) => `${f.id}: ${f.versions.map((v) => v.pages.length).join('+')}`)).toEqual([
    '.n: 2+1',
    '@media print { p: 2',
  ]);
  expect(driftedProperties(families[0]!)).toEqual(['color', 'top']);
  expect(driftedProperties(families[1]!)).toEqual([]);
});

test('one page opened: its sources in order, what each rule does there, where it stands', () => {
  const page = pageOf(
    '<link rel=stylesheet href=css/s.css>\n<style>\nh1{color:blue}\n.none{top:0}\n@media print{p{color:black}}</style>',
    '<h1>x</h1><p style="color:red">a</p><p style="COLOR: #f00">b</p><td align=left>',
  );
  const { bands, text } = pageBands(
    siteOf({ 'a.html': page, 'css/s.css': '@import "i.css";\nh1{color:red;margin:0}', 'css/i.css': 'p{top:0}' }),
    'a.html',
  )!;
  const told = bands.map(
    (b) =>
      `${b.kind} ${b.name} ${b.line}-${b.endLine}: ${b.rules.map((r) => `${r.label} line ${r.line} ${r.elements} loses ${r.loses} [${r.spans.map((s) => text.slice(s.start, s.end)).join('|')}]`).join('; ')}`,
  );
  expect(told).toEqual([
    'imported css/i.css 3-3: p line 1 2 loses 0 []',
    'linked css/s.css 3-3: h1 line 2 1 loses 1 []',
    'embedded  4-7: h1 line 5 1 loses 0 [h1{color:blue}]; .none line 6 0 loses 0 [.none{top:0}]; p line 7 2 loses 2 [p{color:black}]',
    'attribute  8-8: p line 8 2 loses 0 [style="color:red"|style="COLOR: #f00"]',
  ]);
});

test.each([
  ['white space and commas', 'h1,h2 >  p{top:0}', 'h1 , h2>p { top: 0 }', 'h1, h2 > p'],
  [
    'inside brackets nothing changes but white space',
    '.a:is( b,c ) [x~="a > b"]{top:0}',
    '.a:is(b, c) [x~="a > b"]{top:0}',
    '.a:is(b, c) [x~="a > b"]',
  ],
  ['conditions in one spelling', '@media  PRINT{p{top:0}}', '@media print { p{top:0} }', '@media print { p'],
])('one family, however it is spelled: %s', (_shows, one, other, id) => {
  const families = familiesOf(
    siteOf({ 'a.html': pageOf(`<style>${one}</style>`, ''), 'b.html': pageOf(`<style>${other}</style>`, '') }),
  );
  expect(families.map((f) => `${f.id}: ${f.pages.length} in ${f.versions.length}`)).toEqual([`${id}: 2 in 1`]);
});

test.each<[shows: string, one: string, other: string, same: boolean]>([
  ['colour notation', 'color: rgb(255, 255, 0)', 'color:YELLOW', true],
  ['zero', 'margin: 0px 0.50em', 'margin:0 .5em', true],
  ['quotes', "content: 'a'", 'content: "a"', true],
  ['order of what does not touch', 'color: red; top: 0; left: 0', 'left:0;color:red;top:0', true],
  [
    'a shorthand and its own longhand keep their order',
    'margin: 0; margin-top: 1px',
    'margin-top: 1px; margin: 0',
    false,
  ],
  [
    'a flow-relative side and the physical one it may be',
    'margin-inline-start: 1px; margin-left: 2px',
    'margin-left: 2px; margin-inline-start: 1px',
    false,
  ],
  ['what no browser here knows keeps its place', 'sparkle: 1; color: red', 'color: red; sparkle: 1', false],
  ['a custom property’s value is text', '--a: 0px', '--a: 0', false],
  ['important', 'color: red !important', 'color: red', false],
])('one version or two: %s', (_shows, one, other, same) => {
  const [family] = familiesOf(
    siteOf({ 'a.html': pageOf(`<style>p{${one}}</style>`, ''), 'b.html': pageOf(`<style>p{${other}}</style>`, '') }),
  );
  expect(family!.versions.length).toBe(same ? 1 : 2);
});

test('the same declarations under another selector are told', () => {
  const families = familiesOf(siteOf({ 'a.html': pageOf('<style>.a{top:0}.b{TOP:0px}.c{top:1px}</style>', '') }));
  expect(families.map((f) => f.twins)).toEqual([['.b'], ['.a'], []]);
});
