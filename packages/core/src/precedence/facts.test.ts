import { expect, test } from '@jest/globals';
import { desktop } from '../cascade/environment.ts';
import { askChromium } from '../testing/chromium.ts';
import { siteOf } from '../testing/siteOf.ts';
import { elementTable, type ElementQuery } from './elementTable.ts';

const sheet = 'h1 { color: teal; font-weight: 400 }\n';
const link = '<link rel="stylesheet" href="s.css">';
const page = (head: string, attributes = ''): string =>
  `<!DOCTYPE html><html><head><title>t</title>${head}</head><body><h1 id="top" class="big"${attributes}>h</h1></body></html>`;
const colours: Readonly<Record<string, string>> = { teal: 'rgb(0, 128, 128)', red: 'rgb(255, 0, 0)', navy: 'rgb(0, 0, 128)', black: 'rgb(0, 0, 0)', green: 'rgb(0, 128, 0)' }; // oxfmt-ignore

interface Fact {
  readonly fact: string;
  readonly html: string;
  readonly colour: string;
  readonly peeled?: readonly string[];
  /** The same in the browser. */
  readonly act?: string;
}

const block = '<style>h1 { color: red }</style>';
const all = page(link + block, ' style="color: green"');

/** Facts of the trade (common practice; CSS Cascading and Inheritance Level 5, "Cascade Sorting Order"). */
const facts: readonly Fact[] = [
  { fact: 'a block after the link wins over it', html: page(link + block), colour: 'red' },
  { fact: 'a link after the block flips that', html: page(block + link), colour: 'teal' },
  { fact: 'a style attribute beats an ID', html: page('<style>#top { color: red }</style>', ' style="color: green"'), colour: 'green' },
  { fact: 'important beats a style attribute', html: page('<style>h1 { color: red !important }</style>', ' style="color: green"'), colour: 'red' },
  { fact: 'an important attribute beats an important rule', html: page('<style>#top { color: red !important }</style>', ' style="color: green !important"'), colour: 'green' },
  { fact: 'an ID beats any number of classes', html: page('<style>#top { color: red } .big.big.big.big { color: navy }</style>'), colour: 'red' },
  { fact: 'a class beats any number of types', html: page('<style>.big { color: red } html body h1 { color: navy }</style>'), colour: 'red' },
  { fact: 'declarations that do not conflict combine', html: page(link + '<style>h1 { font-size: 20px }</style>'), colour: 'teal' },
  { fact: 'a medium that is not this one does not count', html: page(link + '<link rel="stylesheet" media="print" href="p.css">'), colour: 'teal' },
  { fact: 'any rule beats an inherited value', html: page('<style>* { color: navy } body { color: red !important }</style>'), colour: 'navy' },
  { fact: 'peeled: the attribute', html: all, colour: 'red', peeled: ['attribute'], act: `h.removeAttribute('style')` },
  { fact: 'peeled: the attribute and the declaration of the block', html: all, colour: 'teal', peeled: ['attribute', `p.html@${all.indexOf('color: red')}`], act: `h.removeAttribute('style'); document.styleSheets[1].cssRules[0].style.removeProperty('color')` },
  { fact: 'peeled: the attribute and the block', html: all, colour: 'teal', peeled: ['attribute', '1:p.html'], act: `h.removeAttribute('style'); document.querySelector('style').remove()` },
  { fact: 'peeled: everything', html: all, colour: 'black', peeled: ['attribute', '1:p.html', '0:s.css'], act: `h.removeAttribute('style'); document.querySelector('style').remove(); document.querySelector('link').remove()` },
]; // oxfmt-ignore

const files = { 's.css': sheet, 'p.css': 'h1 { color: navy }' };

test.each(facts)('$fact', ({ html, colour, peeled = [] }) => {
  const site = siteOf({ 'p.html': html, ...files });
  const query: ElementQuery = {
    page: 'p.html',
    element: 'html>body:nth-child(2)>h1:nth-child(1)',
    environment: desktop,
    peeled,
  };
  const row = elementTable(site, query)!.rows.find((one) => one.property === 'color');
  const wins = row?.entries.find((entry) => entry.state === 'wins');
  if (colour === 'black') expect(wins).toBeUndefined();
  else expect(wins?.value).toBe(colour);
});

test('the same facts in Chromium', async () => {
  const answers = await askChromium(
    facts.map(({ html, act = '' }) => ({
      html,
      path: 'p.html',
      files,
      ask: `(() => { const h = document.querySelector('h1'); ${act}; return getComputedStyle(h).color; })()`,
    })),
  );
  expect(answers.map((answer, i) => [facts[i]!.fact, answer])).toEqual(
    facts.map(({ fact, colour }) => [fact, colours[colour]]),
  );
});

test('colour from the sheet, size from the block: both count', () => {
  const site = siteOf({ 'p.html': page(link + '<style>h1 { font-size: 20px }</style>'), ...files });
  const { rows } = elementTable(site, {
    page: 'p.html',
    element: 'html>body:nth-child(2)>h1:nth-child(1)',
    environment: desktop,
  })!;
  const winner = (property: string) =>
    rows.find((r) => r.property === property)!.entries.find((e) => e.state === 'wins')!.source;
  expect([winner('color'), winner('font-size')]).toEqual(['0:s.css', '1:p.html']);
});
