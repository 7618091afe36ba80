import { expect, test } from '@jest/globals';
import { parsePage } from '../../page/parsePage.ts';
import { styleSources } from '../../page/styleSources.ts';
import { proveSites } from '../../proof/proveSites.ts';
import { askChromium } from '../../testing/chromium.ts';
import { siteOf, textIn } from '../../testing/siteOf.ts';
import { applyOperations, describeOperationProblem, type Operation } from '../operation.ts';
import type { LinkPlace } from './linkPlace.ts';

const sheet = 'p { color: teal }\n';

function done(files: Readonly<Record<string, string>>, ...operations: Operation[]) {
  const applied = applyOperations(siteOf({ 's.css': sheet, 'b.css': 'p { margin: 0 }\n', ...files }), operations);
  if (!applied.ok) throw new Error(describeOperationProblem(applied.problem.problem));
  return applied.value.site;
}

const linked = (html: string, place: LinkPlace, more: object = {}): string | undefined =>
  textIn(done({ 'a.html': html }, { kind: 'link-sheet', sheet: 's.css', place, ...more }), 'a.html');

/** Heads as people write them; `|` is where the tag goes, `L` stands for it. */
const heads: readonly (readonly [string, LinkPlace['at'] & ('first' | 'before-blocks' | 'last' | 'after-title' | 'head-end'), string, string])[] = [
  ['after the title', 'last', '<head>\n<title>t</title>\n</head>', '<head>\n<title>t</title>\nL\n</head>'],
  ['before a block, indented', 'before-blocks', '<head>\n\t<title>t</title>\n\t<style>p{}</style>\n</head>', '<head>\n\t<title>t</title>\n\tL\n\t<style>p{}</style>\n</head>'],
  ['behind a block', 'last', '<head>\n<style>p{}</style>\n</head>', '<head>\n<style>p{}</style>\nL\n</head>'],
  ['first', 'first', '<head>\n<link rel="stylesheet" href="b.css">\n</head>', '<head>\nL\n<link rel="stylesheet" href="b.css">\n</head>'],
  ['behind the title, before a link', 'after-title', '<head>\n<title>t</title>\n<link rel="stylesheet" href="b.css">', '<head>\n<title>t</title>\nL\n<link rel="stylesheet" href="b.css">'],
  ['at the end of the head', 'head-end', '<head>\n  <title>t</title>\n  <script></script>\n</head>', '<head>\n  <title>t</title>\n  <script></script>\n  L\n</head>'],
  ['at the end of a head on one line', 'head-end', '<head><title>t</title></head>', '<head><title>t</title>L</head>'],
  ['an empty head', 'last', '<head></head><p>a', '<head>L</head><p>a'],
  ['no head', 'last', '<!DOCTYPE html>\n<p>a', '<!DOCTYPE html>\nL\n<p>a'],
  ['no head, a comment first', 'last', '<!DOCTYPE html>\n<!-- x -->\n<p>a', '<!DOCTYPE html>\n<!-- x -->\nL\n<p>a'],
  ['no head, a title', 'last', '<title>t</title>\n<p>a', '<title>t</title>\nL\n<p>a'],
  ['html and no head', 'last', '<html lang="en">\n<p>a', '<html lang="en">\nL\n<p>a'],
  ['no tag at all', 'first', 'plain text', 'L\nplain text'],
  ['an XML prologue', 'last', '<?xml version="1.0"?>\n<!DOCTYPE html>\n<p>a', '<?xml version="1.0"?>\n<!DOCTYPE html>\nL\n<p>a'],
  ['a frameset', 'last', '<head><title>t</title></head>\n<frameset><frame></frameset>', '<head><title>t</title>L</head>\n<frameset><frame></frameset>'],
  ['a comment with a block is no block', 'before-blocks', '<head>\n<title>t</title>\n<!-- <style>p{}</style> -->\n</head>', '<head>\n<title>t</title>\nL\n<!-- <style>p{}</style> -->\n</head>'],
  ['a conditional comment stays whole', 'last', '<head>\n<title>t</title>\n<!--[if IE]><link rel="stylesheet" href="ie.css"><![endif]-->\n</head>', '<head>\n<title>t</title>\nL\n<!--[if IE]><link rel="stylesheet" href="ie.css"><![endif]-->\n</head>'],
  ['CRLF and tabs', 'last', '<head>\r\n\t<title>t</title>\r\n</head>', '<head>\r\n\t<title>t</title>\r\n\tL\r\n</head>'],
  ['a link in the body', 'last', '<head><title>t</title></head><body>\n<link rel="stylesheet" href="b.css">\n<p>a', '<head><title>t</title></head><body>\n<link rel="stylesheet" href="b.css">\nL\n<p>a'],
]; // oxfmt-ignore

const tag = '<link rel="stylesheet" href="s.css">';

test.each(heads)('a link goes %s (%s)', (_shows, at, html, after) => {
  expect(linked(html, { at })).toBe(after.replace('L', tag));
});

test.each(heads)('unlinked again it has its own bytes: %s (%s)', (_shows, at, html) => {
  const files = { 'a.html': html };
  const there = done(files, { kind: 'link-sheet', sheet: 's.css', place: { at } });
  const back = done({ 'a.html': textIn(there, 'a.html')! }, { kind: 'unlink-sheet', sheet: 's.css' });
  expect(textIn(back, 'a.html')).toBe(html);
});

test('in each of these pages Chromium takes the sheet', async () => {
  const pages = heads.filter(([shows]) => shows !== 'a frameset');
  const answers = await askChromium(
    pages.map(([, at, html]) => ({
      html: linked(html, { at })!,
      files: { 's.css': sheet, 'b.css': '' },
      ask: `[...document.styleSheets].some((s) => (s.href ?? '').endsWith('/s.css') && s.cssRules.length === 1)`,
    })),
  );
  expect(answers).toEqual(pages.map(() => true));
});

test.each([
  ['XHTML', '<head>\n<meta charset="utf-8" />\n</head>', {}, '<link rel="stylesheet" href="s.css" />'],
  ['single quotes', "<head>\n<link rel='stylesheet' href='b.css'>\n</head>", {}, "<link rel='stylesheet' href='s.css'>"],
  ['capitals', '<HEAD>\n<LINK REL="stylesheet" HREF="b.css">\n</HEAD>', {}, '<LINK REL="stylesheet" HREF="s.css">'],
  ['types', '<head>\n<link rel="stylesheet" type="text/css" href="b.css">\n</head>', {}, '<link rel="stylesheet" type="text/css" href="s.css">'],
  ['print', '<head>\n<title>t</title>\n</head>', { media: 'print' }, '<link rel="stylesheet" href="s.css" media="print">'],
  ['a query with a quote', '<head>\n<title>t</title>\n</head>', { media: '(min-width: 40em) and (x: "y")' }, '<link rel="stylesheet" href="s.css" media="(min-width: 40em) and (x: &quot;y&quot;)">'],
  ['the root', '<head>\n<title>t</title>\n</head>', { paths: 'root' }, '<link rel="stylesheet" href="/s.css">'],
  ['a host', '<head>\n<title>t</title>\n</head>', { paths: { host: 'https://www.example.org/a/' } }, '<link rel="stylesheet" href="https://www.example.org/a/s.css">'],
])('the tag is written as the page writes tags: %s', (_shows, html, more, after) => {
  expect(linked(html, { at: 'last' }, more)).toContain(after);
}); // oxfmt-ignore

test('paths count from each page’s folder and are percent-encoded', () => {
  const site = done(
    { 'a b.html': '<title>t</title>', 'x/y/c.html': '<title>t</title>', 'css/ä.css': sheet, 'x/based.html': '<base href="../z/">' },
    { kind: 'link-sheet', sheet: 'css/ä.css', place: { at: 'last' } },
  ); // oxfmt-ignore
  expect(textIn(site, 'a b.html')).toContain('href="css/%C3%A4.css"');
  expect(textIn(site, 'x/y/c.html')).toContain('href="../../css/%C3%A4.css"');
  expect(textIn(site, 'x/based.html')).toContain('href="../css/%C3%A4.css"');
});

const two =
  '<head>\n<link rel="stylesheet" href="b.css">\n<link rel=stylesheet href=s.css>\n<style>p{}</style>\n</head>';

test.each<[string, Operation, string]>([
  ['unlink', { kind: 'unlink-sheet', sheet: 's.css' }, '<head>\n<link rel="stylesheet" href="b.css">\n<style>p{}</style>\n</head>'],
  ['to the front', { kind: 'move-link', sheet: 's.css', place: { at: 'first' } }, '<head>\n<link rel=stylesheet href=s.css>\n<link rel="stylesheet" href="b.css">\n<style>p{}</style>\n</head>'],
  ['behind the block', { kind: 'move-link', sheet: 's.css', place: { at: 'last' } }, '<head>\n<link rel="stylesheet" href="b.css">\n<style>p{}</style>\n<link rel=stylesheet href=s.css>\n</head>'],
  ['before another', { kind: 'move-link', sheet: 's.css', place: { at: 'before', sheet: 'b.css' } }, '<head>\n<link rel=stylesheet href=s.css>\n<link rel="stylesheet" href="b.css">\n<style>p{}</style>\n</head>'],
  ['behind another', { kind: 'move-link', sheet: 'b.css', place: { at: 'after', sheet: 's.css' } }, '<head>\n<link rel=stylesheet href=s.css>\n<link rel="stylesheet" href="b.css">\n<style>p{}</style>\n</head>'],
  ['a medium', { kind: 'set-link', sheet: 's.css', media: 'print' }, '<head>\n<link rel="stylesheet" href="b.css">\n<link rel=stylesheet href=s.css media="print">\n<style>p{}</style>\n</head>'],
  ['a path style', { kind: 'set-link', sheet: 's.css', paths: 'root' }, '<head>\n<link rel="stylesheet" href="b.css">\n<link rel=stylesheet href=/s.css>\n<style>p{}</style>\n</head>'],
  ['to an import', { kind: 'link-to-import', sheet: 'b.css' }, '<head>\n<style>\n@import "b.css";\n</style>\n<link rel=stylesheet href=s.css>\n<style>p{}</style>\n</head>'],
  ['a new name', { kind: 'rename-sheet', sheet: 's.css', to: 'css/site' }, '<head>\n<link rel="stylesheet" href="b.css">\n<link rel=stylesheet href=css/site.css>\n<style>p{}</style>\n</head>'],
])('%s, byte for byte', (_shows, operation, after) => {
  expect(textIn(done({ 'a.html': two }, operation), 'a.html')).toBe(after);
}); // oxfmt-ignore

test('an attribute’s medium is replaced and taken out', () => {
  const html = '<head><link rel="stylesheet" media="screen" href="s.css"></head>';
  const set = (media: string) =>
    textIn(done({ 'a.html': html }, { kind: 'set-link', sheet: 's.css', media }), 'a.html');
  expect(set('print')).toBe('<head><link rel="stylesheet" media="print" href="s.css"></head>');
  expect(set('all')).toBe('<head><link rel="stylesheet" href="s.css"></head>');
});

test('what else a link says is kept: title, integrity, crossorigin', () => {
  const link = '<link rel="alternate stylesheet" title="Night" href="s.css" integrity="sha256-x" crossorigin>';
  const html = `<head>\n<style>p{}</style>\n${link}\n</head>`;
  const after = done({ 'a.html': html }, { kind: 'move-link', sheet: 's.css', place: { at: 'first' } });
  expect(textIn(after, 'a.html')).toBe(`<head>\n${link}\n<style>p{}</style>\n</head>`);
});

test('a renamed sheet takes its addresses, links and imports along; the look stays', () => {
  const files = {
    'a.html': '<link rel="preload" as="style" href="s.css"><link rel=stylesheet href="s.css?v=2"><p>a',
    'x/b.html': '<style>@import url(../s.css);</style><p>b',
    's.css': '@import "t.css";\np { background: url(i/x.png) }\n',
    't.css': 'p { color: red }\n',
    'u.css': '@import url("/s.css") print;\n',
  };
  const before = siteOf(files);
  const after = done(files, { kind: 'rename-sheet', sheet: 's.css', to: 'css/S.css' });
  expect(textIn(after, 's.css')).toBeUndefined();
  expect(textIn(after, 'css/S.css')).toBe('@import "../t.css";\np { background: url(../i/x.png) }\n');
  expect(textIn(after, 'a.html')).toBe(
    '<link rel="preload" as="style" href="css/S.css"><link rel=stylesheet href="css/S.css?v=2"><p>a',
  );
  expect(textIn(after, 'x/b.html')).toBe('<style>@import url(../css/S.css);</style><p>b');
  expect(textIn(after, 'u.css')).toBe('@import url("/css/S.css") print;\n');
  const proof = proveSites(before, after);
  // what is fetched ahead is another file now, and nothing else differs
  expect(proof.pages.map((page) => [page.path, page.verdict, page.notes])).toEqual([
    ['a.html', 'differs', ['The attribute href of link (line 1) changed.']],
    ['x/b.html', 'same', []],
  ]);
  expect(proof.pages.flatMap((page) => page.causes)).toEqual([]);
});

test('a sheet in another encoding keeps its bytes when renamed', () => {
  const bytes = Buffer.from('@charset "iso-8859-1"; p::before { content: "\xe4" }', 'latin1');
  const site = siteOf({ 'old.css': bytes, 'a.html': '<link rel=stylesheet href=old.css>' });
  const after = applyOperations(site, [{ kind: 'rename-sheet', sheet: 'old.css', to: 'new.css' }]);
  expect(after.ok && Buffer.from(after.value.site.files.get('new.css')!.bytes).equals(bytes)).toBe(true);
});

test.each([
  ['one of two', '<style>\n@import "s.css";\np { margin: 1px }\n</style>', '<link rel="stylesheet" href="s.css">\n<style>\np { margin: 1px }\n</style>'],
  ['all, with media', '<style>@import url(s.css) print; @import "b.css";</style>', '<link rel="stylesheet" href="s.css" media="print">\n<link rel="stylesheet" href="b.css">'],
  ['of a block for one medium', '<style media="print">@import "s.css";</style>', '<link rel="stylesheet" href="s.css" media="print">'],
])('imports become links: %s', (_shows, style, links) => {
  const page = (head: string) => `<!DOCTYPE html>\n<title>t</title>\n${head}\n<p>a</p>`;
  const files = { 'a.html': page(style) };
  const after = done(files, { kind: 'import-to-link' });
  expect(textIn(after, 'a.html')).toBe(page(links));
  expect(proveSites(siteOf({ 's.css': sheet, 'b.css': 'p { margin: 0 }\n', ...files }), after).verdict).toBe('same');
}); // oxfmt-ignore

test('imports and links, there and back, look the same', () => {
  const html =
    '<!DOCTYPE html><title>t</title>\n<link rel="stylesheet" href="s.css" media="screen">\n<style>p { color: red }</style>\n<p>a</p>';
  const there = done({ 'a.html': html }, { kind: 'link-to-import', sheet: 's.css' });
  expect(textIn(there, 'a.html')).toContain('@import "s.css" screen;');
  const back = done({ 'a.html': textIn(there, 'a.html')! }, { kind: 'import-to-link' });
  expect(textIn(back, 'a.html')).toBe(html);
});

test('a page’s links are copied to a page that lacks some, in their order', () => {
  const model =
    '<link rel="stylesheet" href="b.css">\n<link rel="stylesheet" href="s.css">\n<link rel="stylesheet" href="p.css" media="print">\n<style>p{}</style>';
  const site = done(
    { 'a.html': model, 'x/b.html': '<link rel="stylesheet" href="../s.css">\n<style>p{}</style>', 'c.html': '<title>t</title>', 'p.css': '' },
    { kind: 'copy-links', from: 'a.html', pages: ['a.html', 'x/b.html', 'c.html'] },
  ); // oxfmt-ignore
  expect(textIn(site, 'a.html')).toBe(model);
  expect(textIn(site, 'x/b.html')).toBe(
    '<link rel="stylesheet" href="../b.css">\n<link rel="stylesheet" href="../s.css">\n<link rel="stylesheet" href="../p.css" media="print">\n<style>p{}</style>',
  );
  const order = styleSources(parsePage(textIn(site, 'c.html')!), 'c.html').sheets.map(
    (s) => s.kind === 'linked' && s.reference,
  );
  expect(order).toEqual(['b.css', 's.css', 'p.css']);
});

test('a baseline goes first, new or old', () => {
  const page = '<head>\n<link rel="stylesheet" href="s.css">\n</head>';
  const fresh = done({ 'a.html': page }, { kind: 'add-baseline', sheet: 'css/base' });
  expect(textIn(fresh, 'a.html')).toBe(
    '<head>\n<link rel="stylesheet" href="css/base.css">\n<link rel="stylesheet" href="s.css">\n</head>',
  );
  expect(textIn(fresh, 'css/base.css')).toContain(':where(body) { margin: 0; }');
  const late = '<head>\n<link rel="stylesheet" href="s.css">\n<link rel="stylesheet" href="b.css">\n</head>';
  const moved = done({ 'a.html': late }, { kind: 'add-baseline', sheet: 'b.css' });
  expect(textIn(moved, 'a.html')).toBe(
    '<head>\n<link rel="stylesheet" href="b.css">\n<link rel="stylesheet" href="s.css">\n</head>',
  );
});

test.each<[Operation, string]>([
  [{ kind: 'link-sheet', sheet: 'none.css', place: { at: 'last' } }, 'sheet-not-there'],
  [{ kind: 'link-sheet', sheet: 's.css', place: { at: 'last' }, pages: ['none.html'] }, 'page-not-found'],
  [{ kind: 'link-sheet', sheet: 's.css', place: { at: 'last' } }, 'linked-already'],
  [{ kind: 'link-sheet', sheet: 's.css', place: { at: 'last' }, paths: { host: 'ftp:x' } }, 'bad-host'],
  [{ kind: 'unlink-sheet', sheet: 'b.css' }, 'not-linked-there'],
  [{ kind: 'move-link', sheet: 's.css', place: { at: 'first' } }, 'stands-there'],
  [{ kind: 'set-link', sheet: 's.css', media: 'all' }, 'says-so-already'],
  [{ kind: 'import-to-link' }, 'no-imports'],
  [{ kind: 'rename-sheet', sheet: 's.css', to: 'b.css' }, 'name-taken'],
  [{ kind: 'rename-sheet', sheet: 's.css', to: 'a b' }, 'new-sheet-path'],
  [{ kind: 'copy-links', from: 'a.html', pages: ['a.html'] }, 'links-alike'],
  [{ kind: 'add-baseline', sheet: 's.css' }, 'baseline-first'],
])('%j is refused in words', (operation, kind) => {
  const site = siteOf({ 's.css': sheet, 'b.css': '', 'a.html': '<link rel="stylesheet" href="s.css"><p>a' });
  const applied = applyOperations(site, [operation]);
  if (applied.ok) throw new Error('not refused');
  expect(applied.problem.problem.kind).toBe(kind);
  expect(describeOperationProblem(applied.problem.problem)).toMatch(/^\S.*\.$/);
});

test('a page whose base is elsewhere is named', () => {
  const site = siteOf({ 's.css': sheet, 'a.html': '<base href="https://example.org/"><p>a' });
  const applied = applyOperations(site, [{ kind: 'link-sheet', sheet: 's.css', place: { at: 'last' } }]);
  expect(!applied.ok && describeOperationProblem(applied.problem.problem)).toContain('a.html');
});

test('in Chromium: any rule beats the baseline, and imports are what their links are', async () => {
  const page =
    '<!DOCTYPE html><title>t</title>\n<style>\n@import "s.css" screen;\n* { box-sizing: content-box }\nbody { margin: 5px }\np { margin: 1px }\n</style>\n<p>a</p>';
  const based = done({ 'a.html': page }, { kind: 'add-baseline', sheet: 'base.css' });
  const linked = done({ 'a.html': page }, { kind: 'import-to-link' });
  const back = done({ 'a.html': textIn(linked, 'a.html')! }, { kind: 'link-to-import', sheet: 's.css' });
  const ask = `(() => { const p = getComputedStyle(document.querySelector('p')); return [p.color, p.marginTop, p.boxSizing, getComputedStyle(document.body).marginTop]; })()`;
  const sheets = { 's.css': sheet, 'base.css': textIn(based, 'base.css')! };
  const states = [page, textIn(based, 'a.html')!, textIn(linked, 'a.html')!, textIn(back, 'a.html')!];
  const asked = states.flatMap((html) =>
    (['screen', 'print'] as const).map((media) => ({ html, path: 'a.html', files: sheets, media, ask })),
  );
  const [screen, print, ...others] = await askChromium(asked);
  expect(screen).toEqual(['rgb(0, 128, 128)', '1px', 'content-box', '5px']);
  expect(print).toEqual(['rgb(0, 0, 0)', '1px', 'content-box', '5px']);
  expect(others).toEqual([screen, print, screen, print, screen, print]);
});
