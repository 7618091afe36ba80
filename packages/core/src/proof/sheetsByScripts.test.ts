import { describe, expect, test } from '@jest/globals';
import { askChromium, type Question } from '../testing/chromium.ts';
import { pageOf, siteOf } from '../testing/siteOf.ts';
import { proveSites } from './proveSites.ts';

type Files = Readonly<Record<string, string>>;
interface Row {
  readonly shows: string;
  readonly before: Files;
  readonly after: Files;
  readonly verdict: 'same' | 'unsure';
  /** That a browser shows another look. */
  readonly seen?: true;
}
const words = '<p id=a>one</p>';
const script = (text: string): string => `<script>${text}</script>`;
const make = (href: string): string =>
  `var l=document.createElement("link");l.rel="stylesheet";l.href=${href};document.head.append(l)`;

/** The page stays, its sheet `s.css` becomes another. */
const edited = (shows: string, head: string, inside = words, more: Files = {}): Row => {
  const files = (sheet: string): Files => ({ 'index.html': pageOf(head, inside), 's.css': sheet, ...more });
  return { shows, before: files('p{color:red}'), after: files('p{color:blue}'), verdict: 'unsure', seen: true };
};
/** A block becomes a sheet that is linked before what `head` holds. */
const gathered = (shows: string, head: string): Row => ({
  shows,
  before: { 'index.html': pageOf(`${head}<style>p{color:blue}</style>`, words), 's.css': 'p{color:red}' },
  after: {
    'index.html': pageOf(`<link rel=stylesheet href=n.css>${head}`, words),
    's.css': 'p{color:red}',
    'n.css': 'p{color:blue}',
  },
  verdict: 'unsure',
  seen: true,
});

const rows: readonly Row[] = [
  edited('written', script('document.write("<link rel=stylesheet href=s.css>")')),
  edited('made', script(make('"s.css"'))),
  edited('made of parts', script(make('"s."+"css"'))),
  edited('made of a name and an end', script(`var theme="s";${make('theme+".css"')}`)),
  edited('made in a template', script(`var theme="s";${make('`${theme}.css`')}`)),
  edited('in a file', '<script src=x.js></script>', words, { 'x.js': make('"s.css"') }),
  edited('in a file, of a name and an end', '<script src=x.js></script>', words, { 'x.js': `var t="s";${make('t+".css"')}` }), // oxfmt-ignore
  edited('fetched early, then taken', '<link rel=preload as=style href=s.css onload="this.rel=\'stylesheet\'">'),
  edited('… by another script', '<link id=x rel=preload as=style href=s.css>', words + script('x.rel="stylesheet"')),
  edited('a type of its own', '<link rel="stylesheet/less" href=s.css>', words + script('document.querySelector("link").rel="stylesheet"')), // oxfmt-ignore
  edited('switched on', '<link rel=stylesheet disabled href=s.css id=x>', words + script('x.disabled=false')),
  edited('switched on by its type', '<link rel=stylesheet type=text/x href=s.css id=x>', words + script('x.type="text/css"')), // oxfmt-ignore
  edited('named by a data attribute', '', `<div data-theme="s.css"></div>${words}${script(make('document.querySelector("[data-theme]").dataset.theme'))}`), // oxfmt-ignore
  edited('named by an option', '', `<select><option value="s.css">x</select>${words}${script(make('document.querySelector("select").value'))}`), // oxfmt-ignore
  edited('named in data', '', `<script type=application/json id=j>{"css":"s.css"}</script>${words}${script(make('JSON.parse(j.textContent).css'))}`), // oxfmt-ignore
  edited('named in a file of data', '', words + script(`fetch("c.json").then(r=>r.json()).then(c=>{${make('c.css')}})`), { 'c.json': '{"css":"s.css"}' }), // oxfmt-ignore
  edited('in a comment that is read', '<!--<link rel=stylesheet href=s.css>-->', words + script('for (const c of document.head.childNodes) if (c.nodeType===8) document.head.insertAdjacentHTML("beforeend", c.data)')), // oxfmt-ignore
  edited('in a template that is put in', '', `<template id=t><link rel=stylesheet href=s.css></template>${words}${script('document.body.append(t.content)')}`), // oxfmt-ignore
  edited('in a text field', '', `<textarea id=t hidden><link rel=stylesheet href=s.css></textarea>${words}${script('document.head.insertAdjacentHTML("beforeend", t.value)')}`), // oxfmt-ignore
  edited('a module of CSS', '', `${words}<script type=module>import s from "./s.css" with {type:"css"};document.adoptedStyleSheets=[s]</script>`), // oxfmt-ignore
  edited('asked for by a request', '', words + script('var x=new XMLHttpRequest();x.open("GET","s.css",false);x.send();document.write("<style>"+x.responseText+"</style>")')), // oxfmt-ignore
  edited('imported by a rule that is put in', '<style>b{top:0}</style>', words + script("document.styleSheets[0].insertRule('@import \"s.css\"',0)")), // oxfmt-ignore
  edited('linked by this site’s own scheme', '<link rel=stylesheet href=http:s.css>'),
  { ...edited('linked by a whole address, which may be this site', '<link rel=stylesheet href="https://example.com/shop/s.css">'), seen: undefined }, // oxfmt-ignore
  { ...edited('from a base that may be this site', '<base href="https://example.com/"><link rel=stylesheet href=s.css>'), seen: undefined }, // oxfmt-ignore
  gathered('fetched early, then taken', '<link rel=preload as=style href=s.css onload="this.onload=null;this.rel=\'stylesheet\'">'), // oxfmt-ignore
  gathered('switched on', `<link rel=stylesheet disabled id=x href=s.css>${script('x.disabled=false')}`),
  gathered('a type of its own', `<link rel="stylesheet/less" id=x href=s.css>${script('x.rel="stylesheet"')}`),
  ...[
    edited('the name in a text people read, and a script that makes elements', '', `<p>edit s.css</p>${script('document.body.append(document.createElement("i"))')}`), // oxfmt-ignore
    edited('a comment that nobody reads', '<!--<link rel=stylesheet href=s.css>-->', words + script('document.body.append("x")')), // oxfmt-ignore
    edited('fetched early, and no more', '<link rel=preload as=style href=s.css>'),
    edited('a library that sets styles', '', `${words}${script('var q={css(){}};q.css("color")')}`),
    edited('another folder’s whole address', '<link rel=stylesheet href="https://example.com/other-s.css">'),
  ].map((row): Row => ({ ...row, verdict: 'same', seen: undefined })),
];

test.each(rows.map((row) => [row.shows, row] as const))('%s', (_shows, { before, after, verdict }) => {
  const [found] = proveSites(siteOf(before), siteOf(after)).pages;
  expect(found!.verdict).toBe(verdict);
  if (verdict === 'unsure') expect(found!.doubts.map(({ sentence }) => sentence).join('\n')).toMatch(/s\.css|sheet/);
});

test('Chromium shows another look wherever a row says so', async () => {
  const ask = `new Promise((done) => setTimeout(() => done([...document.querySelectorAll('p')].map((e) => getComputedStyle(e).color).join()), 120))`;
  const question = (files: Files): Question => ({ html: files['index.html']!, files, ask });
  const asked = rows.filter(({ seen, verdict }) => seen || verdict === 'same');
  const answers = await askChromium(asked.flatMap(({ before, after }) => [question(before), question(after)]));
  const wrong = asked.filter((row, i) => (answers[2 * i] !== answers[2 * i + 1]) !== (row.seen ?? false));
  expect(wrong.map(({ shows }) => shows)).toEqual([]);
});

describe('what a page shows of another brings its links', () => {
  const head = '<link rel="stylesheet" href="s.css">';
  const site = (sheet: string, shown: Files): Files => ({
    'index.html': '<!DOCTYPE html><html><head><!--#include virtual="head.html" --><title>t</title></head><body><p>x</body></html>',
    's.css': sheet,
    ...shown,
  }); // oxfmt-ignore
  const proof = (shown: Files) =>
    proveSites(siteOf(site('p{color:red}', shown)), siteOf(site('p{color:blue}', shown))).pages.find(
      ({ path }) => path === 'index.html',
    )!;

  test('a common head', () => {
    const found = proof({ 'head.html': head });
    expect(found.verdict).toBe('unsure');
    expect(found.doubts.map(({ sentence }) => sentence).join()).toContain('head.html');
  });

  test('a head in a head', () => {
    expect(proof({ 'head.html': '<!--#include virtual="links.html" -->', 'links.html': head }).verdict).toBe('unsure');
  });

  test('a part that a script of the site asks for by its name', () => {
    const files = (sheet: string): Files => ({
      'index.html': pageOf('<script src="x.js"></script>', '<p id=a>x'),
      'x.js':
        'fetch("part.html").then((r) => r.text()).then((t) => { document.body.insertAdjacentHTML("beforeend", t) })',
      'part.html': head,
      's.css': sheet,
    });
    const { pages } = proveSites(siteOf(files('p{color:red}')), siteOf(files('p{color:blue}')));
    expect(pages.find(({ path }) => path === 'index.html')!.verdict).toBe('unsure');
  });

  test('another sheet in it', () => {
    expect(proof({ 'head.html': '<link rel="stylesheet" href="t.css">', 't.css': '' }).verdict).toBe('same');
  });
});
