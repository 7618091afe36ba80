import { expect, test } from '@jest/globals';
import { pageOf, siteOf } from '../testing/siteOf.ts';
import { askChromium } from '../testing/chromium.ts';
import { proveSites } from './proveSites.ts';

const body = '<h1 style="border-style: solid">x</h1><p class="a">y';
const before = 'h1 { color: #0b5563; border-color: #0b5563 }\n.a { margin: 1em }\n';
const page = (head = '') => pageOf(`<link rel="stylesheet" href="s.css">${head}`, body);

const rows: readonly (readonly [shows: string, after: string, verdict: string, head?: string])[] = [
  ['one name for a colour', ':root { --sea: #0b5563 }\nh1 { color: var(--sea); border-color: var( --sea ) }\n.a { margin: 1em }\n', 'same'],
  ['another value', ':root { --sea: #0b5564 }\nh1 { color: var(--sea); border-color: #0b5563 }\n.a { margin: 1em }\n', 'differs'],
  ['tokens, not lengths: em counts where it is used', ':root { --gap: 1em }\nh1 { color: #0b5563; border-color: #0b5563 }\n.a { margin: var(--gap) }\n', 'same'],
  ['said again for some', ':root { --sea: #0b5563 }\nh1 { color: var(--sea); border-color: #0b5563 }\n.a { margin: 1em; --sea: red }\n', 'differs'],
  ['under a condition', '@media screen { :root { --sea: #0b5563 } }\nh1 { color: var(--sea); border-color: #0b5563 }\n.a { margin: 1em }\n', 'differs'],
  ['not on the root', 'h1 { --sea: #0b5563; color: var(--sea); border-color: #0b5563 }\n.a { margin: 1em }\n', 'differs'],
  ['with a fallback', ':root { --sea: #0b5563 }\nh1 { color: var(--sea, red); border-color: #0b5563 }\n.a { margin: 1em }\n', 'differs'],
  ['a block of the page says it', ':root { --sea: #0b5563 }\nh1 { color: var(--sea); border-color: #0b5563 }\n.a { margin: 1em }\n', 'differs', '<style>body { --sea: red }</style>'],
  ['a script may set it', ':root { --sea: #0b5563 }\nh1 { color: var(--sea); border-color: #0b5563 }\n.a { margin: 1em }\n', 'differs', '<script>document.body.style.setProperty("--" + "sea", "red")</script>'],
  ['a sheet that is not here may say it', ':root { --sea: #0b5563 }\nh1 { color: var(--sea); border-color: #0b5563 }\n.a { margin: 1em }\n', 'differs', '<link rel="stylesheet" href="https://example.org/x.css">'],
  ['a block says it with an escape', ':root { --sea: #0b5563 }\nh1 { color: var(--sea); border-color: #0b5563 }\n.a { margin: 1em }\n', 'differs', '<style>body { --se\\61 : red }</style>'],
  ['a block says it with an escaped hyphen', ':root { --sea: #0b5563 }\nh1 { color: var(--sea); border-color: #0b5563 }\n.a { margin: 1em }\n', 'differs', '<style>body { \\2d-sea: red }</style>'],
  ['a style attribute says it with a character reference', ':root { --sea: #0b5563 }\nh1 { color: var(--sea); border-color: #0b5563 }\n.a { margin: 1em }\n', 'differs', '<div style="--se&#97;: red"></div>'],
  ['a style attribute says it with a hyphen by number', ':root { --sea: #0b5563 }\nh1 { color: var(--sea); border-color: #0b5563 }\n.a { margin: 1em }\n', 'differs', '<div style="&#x2D;-sea: red"></div>'],
  ['a block imports a sheet that is not here', ':root { --sea: #0b5563 }\nh1 { color: var(--sea); border-color: #0b5563 }\n.a { margin: 1em }\n', 'differs', '<style>@import "https://example.org/x.css";</style>'],
  ['a sheet imports one that is not here', ':root { --sea: #0b5563 }\nh1 { color: var(--sea); border-color: #0b5563 }\n.a { margin: 1em }\n', 'differs', '<link rel="stylesheet" href="data:text/css,@import%20url(https://example.org/x.css)">'],
  ['a shadow tree uses the sheet', ':root { --sea: #0b5563 }\nh1 { color: var(--sea); border-color: #0b5563 }\n.a { margin: 1em }\n', 'differs', '<div><template shadowrootmode="open"><link rel="stylesheet" href="s.css"><h1>z</h1></template></div>'],
  ['a word that is no value of its own', ':root { --sea: inherit }\nh1 { color: #0b5563; border-color: #0b5563 }\n.a { margin: 1em; color: var(--sea) }\n', 'differs'],
  ['words that would grow together', ':root { --sea: 1em }\nh1 { color: #0b5563; border-color: #0b5563 }\n.a { margin: var(--sea)0 }\n', 'differs'],
  ['inside a string', ':root { --sea: x }\nh1 { color: #0b5563; border-color: #0b5563 }\n.a { margin: 1em; content: "var(--sea)" }\n', 'differs'],
  ['registered', '@property --sea { syntax: "<color>"; inherits: false; initial-value: red }\n:root { --sea: #0b5563 }\nh1 { color: var(--sea); border-color: #0b5563 }\n.a { margin: 1em }\n', 'differs'],
]; // oxfmt-ignore

test.each(rows)('%s', (_shows, after, verdict, head = '') => {
  const sites = [before, after].map((css) => siteOf({ 'a.html': page(head), 's.css': css }));
  expect(proveSites(sites[0]!, sites[1]!).verdict).toBe(verdict);
  // and back
  expect(proveSites(sites[1]!, sites[0]!).verdict).toBe(verdict);
});

test('renamed everywhere it is the same', () => {
  const said = (name: string) =>
    siteOf({ 'a.html': page(), 's.css': `:root { ${name}: teal }\nh1 { color: var(${name}) }\n` });
  expect(proveSites(said('--sea'), said('--water')).verdict).toBe('same');
});

test('what is called the same is the same in Chromium', async () => {
  const look = `[...document.querySelectorAll('h1, .a')].map((e) => { const s = getComputedStyle(e); return [s.color, s.borderTopColor, s.marginTop].join(); })`;
  const answers = await askChromium(
    [before, ...rows.filter(([, , verdict]) => verdict === 'same').map(([, after]) => after)].map((css) => ({
      html: page(),
      files: { 's.css': css },
      ask: look,
    })),
  );
  for (const answer of answers) expect(answer).toEqual(answers[0]);
});

test('in Chromium an escape and a character reference say the property too', async () => {
  const css = ':root { --sea: #0b5563 }\nh1 { color: var(--sea) }';
  const colour = `getComputedStyle(document.querySelector('h1')).color`;
  const answers = await askChromium([
    { html: pageOf(`<style>${css} body { --se\\61 : red }</style>`, '<h1>x'), ask: colour },
    { html: pageOf(`<style>${css} body { \\2d-sea: red }</style>`, '<h1>x'), ask: colour },
    { html: pageOf(`<style>${css}</style>`, '<div style="--se&#97;: red"><h1>x'), ask: colour },
    { html: pageOf(`<style>${css}</style>`, '<div style="&#x2D;-sea: red"><h1>x'), ask: colour },
  ]);
  expect(answers).toEqual(Array(4).fill('rgb(255, 0, 0)'));
});
