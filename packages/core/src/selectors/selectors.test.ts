import { describe, expect, test } from '@jest/globals';
// @ts-expect-error its package.json hides its types
import bramus from '@bramus/specificity';
import fs from 'node:fs';
import { parsePage } from '../page/parsePage.ts';
import { askChromium } from '../testing/chromium.ts';
import { matchList } from './matchSelector.ts';
import { parseSelectorList } from './parseSelector.ts';
import { compareSpecificity } from './selector.ts';

// CSS 2.1, "Calculating a selector's specificity"; Selectors 3 and 4, the same
const rows = JSON.parse(
  fs.readFileSync(new URL('../testing/fixtures/specificity.json', import.meta.url), 'utf8'),
) as readonly { selector: string; specificity: [number, number, number] }[];

describe('specificity', () => {
  test.each(rows.map((row) => [row.selector, row.specificity] as const))('%s', (selector, expected) => {
    expect(parseSelectorList(selector)![0]!.specificity).toEqual(expected);
  });
  test.each(rows.map((row) => row.selector))('%s: the same by @bramus/specificity 2.4.3 (npm)', (selector) => {
    const other = (bramus as unknown as { calculate: (s: string) => { a: number; b: number; c: number }[] }).calculate(
      selector,
    )[0]!;
    expect(parseSelectorList(selector)![0]!.specificity).toEqual([other.a, other.b, other.c]);
  });
  test('compares part by part, without carrying over', () => {
    expect(compareSpecificity([1, 0, 0], [0, 300, 300])).toBeGreaterThan(0);
    expect(compareSpecificity([0, 1, 1], [0, 1, 0])).toBeGreaterThan(0);
    expect(compareSpecificity([0, 1, 1], [0, 1, 1])).toBe(0);
  });
});

const body = `<div id=main class="a b"><p id=p1 class=x title="Q r" lang=en-GB>one <em>two</em></p><p class="x y">three<b></b></p><!-- c --><p></p>
<ul><li>1<li class=item>2<li>3<li class=item>4<li>5</ul><a href="#">l</a><a name=n>n</a><input type=TEXT disabled><input type=checkbox checked>
<svg viewBox="0 0 1 1"><linearGradient id=lg></linearGradient><foreignObject><p>f</p></foreignObject></svg><table><tr><td bgcolor=RED>c<td></table>
<section dir=rtl lang=cy><h2>h</h2><h2 class=x>h</h2><span>s</span> <span>t</span></section><p style="color:red" data-k="v-w">z</p></div>`;
const selectors = (
  `*|p|.x|p.x|#p1|#main p|#main > p|p + p|p ~ p|p:first-child|p:last-child|p:only-child|em:only-child|p:empty|b:empty|:root|html|body > *|` +
  `[title]|[title="Q r"]|[title~=Q]|[title^=Q]|[title$=r]|[title*=" "]|[title|=Q]|[lang|=en]|[title="q r" i]|[type=text]|[bgcolor=red]|[TITLE]|[data-k|=v]|[style*=red]|[class=x]|` +
  `li:nth-child(2)|li:nth-child(odd)|li:nth-child(2n+1)|li:nth-child(-n+2)|li:nth-last-child(2)|li:nth-child(2 of .item)|li:nth-of-type(3)|h2:nth-last-of-type(1)|li:nth-child(n+2):nth-child(-n+4)|` +
  `:is(h2, em)|:is(h2, ::bogus)|p:not(.x)|p:not(.x, :empty)|:where(.a) p|div:has(> ul)|div:has(em)|p:has(+ p)|p:has(~ ul)|p:not(:has(*))|:is()|p:is(:not(:first-child))|` +
  `a:any-link|:lang(en)|:lang(cy) h2|p:lang(en-gb)|:dir(rtl)|h2:first-of-type|h2:last-of-type|span:only-of-type|linearGradient|lineargradient|foreignObject|[viewBox]|svg p|*|*|*|p|` +
  `.X|#P1|P|.a.b|.a .x.y|div p em|p , em|td:empty|tr > td + td|ul li.item ~ li|:not(*)|:not(p):not(li)|.x:not([title])|section > :not(span)|\\70|.\\78|p:nth-child(0)|li:nth-child(-1)`
)
  .replace(/\*\|\*\|\*\|p\|/, '§')
  .split('|');
// the split sign stands in some of them: put these back whole
const all = [
  ...new Set(
    selectors
      .join('|')
      .replace('§', '')
      .split('|')
      .filter((s) => s !== '' && !/^\[(lang|title|data-k)$|^=/.test(s)),
  ),
  '[title|=Q]',
  '[lang|=en]',
  '[data-k|=v]',
  '*|*',
  '*|p',
];
const invalid = [
  'p:bogus',
  'p::bogus',
  'p >',
  '> p',
  'p,',
  ',p',
  '.1a',
  '#1a',
  '.-',
  'p..x',
  '[a!=b]',
  '[a=]',
  ':nth-child(x)',
  ':not()',
  ':has()',
  ':has(:has(p))',
  'p:matches(a)',
  'a:contains(b)',
  '::before.x',
  'p:lang("en")',
  '[a=b s]',
  'ns|p',
  'p:nth-of-type(2 of a)',
  '#',
  '.',
  '[',
  '::-moz-focus-inner',
  ':-ms-input-placeholder',
];

describe.each([
  ['standards', '<!DOCTYPE html>'],
  ['quirks', ''],
])('matching in %s mode, as Chromium matches', (_mode, doctype) => {
  const html = `${doctype}<html><head></head><body>${body}</body></html>`;
  test('every selector on every element', async () => {
    const ask = `${JSON.stringify(all)}.map((s) => { const found = new Set(document.querySelectorAll(s)); return [...document.querySelectorAll('*')].map((e) => (found.has(e) ? 1 : 0)).join(''); })`;
    const [answers] = (await askChromium([{ html, ask }])) as [readonly string[]];
    const page = parsePage(html);
    const said = all.map((selector) => {
      const list = parseSelectorList(selector);
      return page.elements
        .map((e) => (list && matchList(e, list, { quirks: page.mode === 'quirks', state: 'rest' }) === 2 ? 1 : 0))
        .join('');
    });
    expect(all.map((s, i) => `${s} ${said[i]}`)).toEqual(all.map((s, i) => `${s} ${answers[i]}`));
    expect(all.length).toBeGreaterThan(80);
  });
});

test('what Chromium refuses is refused, what it takes is taken', async () => {
  const both = [
    ...all,
    ...invalid,
    ':hover',
    'a:visited',
    'input:checked',
    '::selection',
    'p::first-line',
    '::-webkit-scrollbar',
    '::-webkit-anything',
    '::part(a)',
    ':host',
    ':target',
    ':focus-within',
    'p::before::marker',
    ':nth-child(2n + 1)',
    ':nth-child(+3)',
  ];
  const ask = `${JSON.stringify(both)}.map((s) => { const sheet = new CSSStyleSheet(); sheet.replaceSync(s + '{}'); return sheet.cssRules.length === 1; })`;
  const [answers] = (await askChromium([{ html: '<!DOCTYPE html>', ask }])) as [readonly boolean[]];
  expect(both.map((s) => `${s} ${parseSelectorList(s) !== undefined}`)).toEqual(
    both.map((s, i) => `${s} ${answers[i]}`),
  );
});

test('a state is neither yes nor no', () => {
  const page = parsePage('<a id=l href=x>l</a><a id=n>n</a>');
  const at = (id: string) => page.elements.find((e) => e.id === id)!;
  const ask = (id: string, selector: string) =>
    matchList(at(id), parseSelectorList(selector)!, { quirks: false, state: 'any' });
  expect([
    ask('l', 'a:hover'),
    ask('l', 'a:link'),
    ask('n', 'a:link'),
    ask('l', 'a:not(:visited)'),
    ask('l', 'b:hover'),
    ask('l', 'a:is(:hover, a)'),
  ]).toEqual([1, 1, 0, 1, 0, 2]);
});
