import { expect, test } from '@jest/globals';
import { askChromium } from '../testing/chromium.ts';
import { pageOf, siteOf } from '../testing/siteOf.ts';
import { proveSites } from './proveSites.ts';

const body =
  '<div class=w><a href=x>l</a><p class=n lang=cy>one</p><p class=m>two</p><button>x</button><input type=search></div>';
const state = (css: string): string => pageOf(`<style>${css}</style>`, body);

/** What Chromium drops and another browser may take: oracle/engines.ts asks Gecko and WebKit. */
const differing: readonly (readonly [before: string, after: string])[] = [
  // selectors
  ['button::-moz-focus-inner{border:0}', ''],
  ['button::-moz-focus-inner{border:0}', 'button::-moz-focus-inner{border:1px solid}'],
  [
    'p::-moz-selection{color:red} p::-moz-selection{color:blue}',
    'p::-moz-selection{color:blue} p::-moz-selection{color:red}',
  ],
  ['.n::-moz-selection, .q{color:red}', '.q{color:red}'],
  ['input:-ms-input-placeholder{color:red}', ''],
  ['p:-moz-any(.n,.q){color:red}', ''],
  ['p:lang("cy"){color:red}', ''],
  ['p:lang(cy,en){color:red}', ''],
  ['p[class=n s]{color:red}', ''],
  [':is(:-moz-focusring,.q){color:red}', ''],
  ['.n{&::-moz-selection{color:red}}', ''],
  ['.n, p::scroll-marker{color:red}', '.n{color:red} p::scroll-marker{color:red}'],
  ['.n{color:red} .q:open{color:red}', '.n, .q:open{color:red}'],
  // groups
  ['@-moz-document url-prefix(){p{color:red}}', ''],
  ['@-moz-document url-prefix(){p{color:red}}', '@-moz-document url-prefix(){p{color:blue}}'],
  ['@scope (p:-moz-any(.n)){:scope{color:red}}', ''],
  // declarations
  ['button{-moz-appearance:none}', ''],
  ['p{-moz-hyphens:auto;-moz-hyphens:none}', 'p{-moz-hyphens:none;-moz-hyphens:auto}'],
  ['.n{-moz-appearance:none} .n{appearance:auto}', '.n{appearance:auto} .n{-moz-appearance:none}'],
  [
    '.n{-moz-border-radius:1px} .n{border-top-left-radius:2px}',
    '.n{border-top-left-radius:2px} .n{-moz-border-radius:1px}',
  ],
  ['p{hanging-punctuation:first}', ''],
  ['p{color-adjust:exact}', ''],
  ['p{transform-origin:0 0;transform-origin-x:1px}', 'p{transform-origin-x:1px;transform-origin:0 0}'],
  ['p{cursor:-moz-grab}', ''],
  // what stands before a value that not all take
  ['p{width:9px;width:stretch}', 'p{width:stretch}'],
  ['a{text-decoration:none;text-decoration:underline dotted red}', 'a{text-decoration:underline dotted red}'],
  ['p{margin-left:9px;-webkit-margin-start:2px}', 'p{-webkit-margin-start:2px}'],
  ['.n{color:blue} :-webkit-any(.n,.m){color:red}', ':-webkit-any(.n,.m){color:red}'],
  ['button{vertical-align:center}', ''],
  ['p{color:red;color:--f()} @function --f(){result:blue}', 'p{color:--f()} @function --f(){result:blue}'],
];

/** What no browser takes, or what reaches nothing in any. */
const same: readonly (readonly [before: string, after: string])[] = [
  ['b::-moz-selection{color:red}', ''],
  ['.q::-moz-selection, q:-moz-broken{color:red}', ''],
  ['.n::-moz-selection{color:red} p::-moz-selection{color:blue}', 'p::-moz-selection{color:blue} .n::-moz-selection{color:red}'],
  ['.n, p::scroll-marker{color:red} .m{color:blue}', '.m{color:blue} .n, p::scroll-marker{color:red}'],
  ['.n, .m{color:red}', '.n{color:red} .m{color:red}'],
  ['p[a=b=c]{color:red}', ''],
  ['p / q{color:red}', ''],
  ['p:not(.a,){color:red}', ''],
  ['p{backgroud:red}', ''],
  ['q{-moz-hyphens:auto}', ''],
  ['p{-moz-hyphens:auto} p{color:red}', 'p{color:red} p{-moz-hyphens:auto}'],
]; // oxfmt-ignore

const verdict = ([before, after]: readonly [string, string]): string =>
  proveSites(siteOf({ 'p.html': state(before) }), siteOf({ 'p.html': state(after) })).pages[0]!.verdict;

/** What Chromium itself takes or drops, and a grammar or a table of names once told otherwise. */
const here: readonly (readonly [before: string, after: string])[] = [
  ['p{color:red;color:rgb(from blue r g b)}', 'p{color:red}'],
  ['p{color:red;color:menu}', 'p{color:red}'],
  ['p{border:1px solid, red}', ''],
  ['p{text-shadow:1px 1px;text-shadow:1px 1px -1px}', 'p{text-shadow:1px 1px -1px}'],
  ['p{transform-origin:0 0;transform-origin:top 1px}', 'p{transform-origin:top 1px}'],
  ['.n{color:blue} .n, .n::before:hover{color:red}', '.n, .n::before:hover{color:red}'],
  ['.n{color:blue} .n, .q::part(.a){color:red}', '.n, .q::part(.a){color:red}'],
  ['.n{color:blue} .n, q::-webkit-autofill{color:red}', '.n, q::-webkit-autofill{color:red}'],
  ['.w::-webkit-scrollbar-button:disabled{color:red}', ''],
];

test.each(here)('%s → %s: our browser shows it', (...row) => {
  expect(verdict(row)).toBe('differs');
});

test.each(differing)('%s → %s: another browser may show it', (...row) => {
  expect(verdict(row)).toBe('differs');
});

test.each(same)('%s → %s: nobody does', (...row) => {
  expect(verdict(row)).toBe('same');
});

test('rules nested deep, each read in two ways, are read twice and not a thousand times', () => {
  const nested = (value: string): string =>
    `body{${':is(:-moz-broken,&) div{'.repeat(40)}color:${value}${'}'.repeat(41)}`;
  const page = (css: string): string => pageOf(`<style>${css}</style>`, '<div>'.repeat(41));
  const proof = proveSites(siteOf({ 'p.html': page(nested('red')) }), siteOf({ 'p.html': page(nested('blue')) }));
  expect(proof.pages[0]!.verdict).toBe('differs');
});

test('Chromium shows that these rows differ', async () => {
  const ask = `[...document.querySelectorAll('body *')].map((e) => {
    const style = getComputedStyle(e);
    return [...style].map((name) => style.getPropertyValue(name)).join('|');
  }).join('\\n')`;
  const shown = here.filter(([text]) => !text.includes('scrollbar'));
  const answers = await askChromium(shown.flat().map((css) => ({ html: state(css), ask })));
  for (let i = 0; i < shown.length; i++) expect(answers[2 * i]).not.toBe(answers[2 * i + 1]);
  expect(answers).toHaveLength(2 * shown.length);
}, 60_000);

test('where our browser drops it, it wins nothing in it: Chromium shows all these rows alike', async () => {
  const ask = `[...document.querySelectorAll('body *')].map((e) => [null, '::before', '::selection'].map((p) => {
    const style = getComputedStyle(e, p);
    return [...style].map((name) => style.getPropertyValue(name)).join('|');
  }).join('/')).join('\\n')`;
  const rows = [...differing, ...same].filter(([text]) => !/appearance:auto|border-top-left/.test(text));
  const answers = await askChromium(rows.flat().map((css) => ({ html: state(css), ask })));
  for (let i = 0; i < rows.length; i++) expect(answers[2 * i]).toBe(answers[2 * i + 1]);
  expect(answers).toHaveLength(2 * rows.length);
}, 60_000);
