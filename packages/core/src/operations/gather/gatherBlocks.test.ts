import { describe, expect, test } from '@jest/globals';
import { proveSites } from '../../proof/proveSites.ts';
import { applyChangeSet } from '../../source/changeSet.ts';
import { askChromium } from '../../testing/chromium.ts';
import { siteOf, textIn } from '../../testing/siteOf.ts';
import { planGatherBlocks, type GatherBlocks } from './gatherBlocks.ts';

const head = (inside: string): string =>
  `<!DOCTYPE html>\n<html><head><meta charset="utf-8"><title>t</title>\n${inside}\n</head><body><p class=n>a</p></body></html>\n`;

function gather(files: Readonly<Record<string, string>>, more: Partial<GatherBlocks> = {}) {
  const before = siteOf(files);
  const plan = planGatherBlocks(before, { kind: 'gather-blocks', folder: 'css', ...more });
  if (!plan.ok) throw new Error(plan.problem.kind);
  const after = applyChangeSet(before, plan.value.changes);
  if (!after.ok) throw new Error(after.problem.kind);
  return { before, after: after.value, sheets: plan.value.sheets };
}

interface Row {
  readonly shows: string;
  readonly head: string;
  readonly becomes: string;
  readonly sheets: Readonly<Record<string, string>>;
}

const rows: readonly Row[] = [
  { shows: 'an import', head: '<style>\n  @import "old.css";\n  p { color: red }\n</style>', becomes: '<link rel="stylesheet" href="css/a.css">', sheets: { 'css/a.css': '@import "../old.css";\np { color: red }\n' } },
  { shows: 'a namespace', head: '<style>@namespace s url(http://x/); p{color:red}</style>', becomes: '<link rel="stylesheet" href="css/a.css">', sheets: { 'css/a.css': '@namespace s url(http://x/); p{color:red}\n' } },
  { shows: 'the order of layers', head: '<style>@layer b, a; @layer a { p{color:red} }</style>', becomes: '<link rel="stylesheet" href="css/a.css">', sheets: { 'css/a.css': '@layer b, a; @layer a { p{color:red} }\n' } },
  { shows: 'a title', head: '<style title="Large print">p{color:red}</style>', becomes: '<link rel="stylesheet" href="css/a.css" title="Large print">', sheets: { 'css/a.css': 'p{color:red}\n' } },
  { shows: 'a medium', head: '<style media=print>p{color:red}</style>', becomes: '<link rel="stylesheet" href="css/a.css" media="print">', sheets: { 'css/a.css': 'p{color:red}\n' } },
  { shows: 'a comment of old pages and a charset', head: '<style>\n<!--\n@charset "latin1";\np{color:red}\n-->\n</style>', becomes: '<link rel="stylesheet" href="css/a.css">', sheets: { 'css/a.css': 'p{color:red}\n' } },
  { shows: 'a rule left open', head: '<style>@media screen { p{color:red</style>', becomes: '<link rel="stylesheet" href="css/a.css">', sheets: { 'css/a.css': '@media screen { p{color:red}}\n' } },
  { shows: 'an address', head: '<style>p{background:url(i/x.png)}</style>', becomes: '<link rel="stylesheet" href="css/a.css">', sheets: { 'css/a.css': 'p{background:url(../i/x.png)}\n' } },
  { shows: 'other letters', head: '<style>p::before{content:"é"}</style>', becomes: '<link rel="stylesheet" href="css/a.css">', sheets: { 'css/a.css': '@charset "utf-8";\n\np::before{content:"é"}\n' } },
  { shows: 'two blocks in a row', head: '<style>p{color:red}</style>\n<style>h1{top:0}</style>', becomes: '<link rel="stylesheet" href="css/a.css">', sheets: { 'css/a.css': 'p{color:red}\n\nh1{top:0}\n' } },
  { shows: 'two blocks round a link', head: '<style>p{color:red}</style>\n<link rel=stylesheet href=old.css>\n<style>p{top:0}</style>', becomes: '<link rel="stylesheet" href="css/a.css">\n<link rel=stylesheet href=old.css>\n<link rel="stylesheet" href="css/a-2.css">', sheets: { 'css/a.css': 'p{color:red}\n', 'css/a-2.css': 'p{top:0}\n' } },
  { shows: 'an import after another block', head: '<style>p{color:red}</style>\n<style>@import "old.css";</style>', becomes: '<link rel="stylesheet" href="css/a.css">\n<link rel="stylesheet" href="css/a-2.css">', sheets: { 'css/a.css': 'p{color:red}\n', 'css/a-2.css': '@import "../old.css";\n' } },
]; // oxfmt-ignore

describe.each(rows)('$shows', ({ head: inside, becomes, sheets }) => {
  const files = { 'a.html': head(inside), 'old.css': 'p { color: blue; left: 1px }' };
  const { before, after } = gather(files);

  test('becomes links in its place', () => {
    expect(textIn(after, 'a.html')).toBe(head(becomes));
    expect(
      Object.fromEntries(
        [...after.files].filter(([path]) => path.startsWith('css/')).map(([path, f]) => [path, f.text]),
      ),
    ).toEqual(sheets);
  });

  test('looks the same', () => {
    expect(proveSites(before, after).verdict).toBe('same');
  });
});

test('Chromium sees no difference in any of these', async () => {
  const ask = `(() => { const s = getComputedStyle(document.querySelector('p')); const b = getComputedStyle(document.querySelector('p'), '::before'); return [...s].map((n) => s.getPropertyValue(n)).join('|').replaceAll(location.origin, '') + b.content; })()`;
  const all = rows.map((row) => gather({ 'a.html': head(row.head), 'old.css': 'p { color: blue; left: 1px }' }));
  const filesOf = (site: ReturnType<typeof siteOf>): Record<string, string> =>
    Object.fromEntries([...site.files].map(([path, file]) => [path, file.text!]));
  const question = (site: ReturnType<typeof siteOf>) => ({ html: textIn(site, 'a.html')!, files: filesOf(site), ask });
  const answers = await askChromium(all.flatMap(({ before, after }) => [question(before), question(after)]));
  rows.forEach((row, i) => expect(`${row.shows} ${answers[2 * i + 1]}`).toBe(`${row.shows} ${answers[2 * i]}`));
});

test('blocks that say the same share a sheet, named for their folder', () => {
  const block = '<style>@import "/old.css";</style>';
  const { sheets } = gather({
    'news/a.html': head(block),
    'news/b.html': head(block),
    'c.html': head('<style>p{}</style>'),
  });
  expect(sheets.map(({ path, pages }) => [path, pages])).toEqual([
    ['css/c.css', ['c.html']],
    ['css/news.css', ['news/a.html', 'news/b.html']],
  ]);
});

test('only what stands on several pages, and under a given name', () => {
  const files = {
    'a.html': head('<style>p{}</style>'),
    'b.html': head('<style>p{}</style>'),
    'c.html': head('<style>h1{}</style>'),
  };
  const { sheets, after } = gather(files, { least: 2 });
  expect(sheets.map((s) => s.pages)).toEqual([['a.html', 'b.html']]);
  expect(textIn(after, 'c.html')).toBe(files['c.html']);
  const named = gather(files, { least: 2, names: { [sheets[0]!.key]: 'css/plain.css' } });
  expect(named.sheets[0]!.path).toBe('css/plain.css');
});

test.each([
  ['nothing to move', head(''), {}, 'no-blocks'],
  ['a block of another type', head('<style type=text/less>p{}</style>'), {}, 'no-blocks'],
  ['a page whose base is elsewhere', head('<base href="http://h/"><style>p{}</style>'), {}, 'no-blocks'],
  ['a comment left open', head('<style>p{} /* x</style>'), {}, 'no-blocks'],
  ['a folder outside', head('<style>p{}</style>'), { folder: '../x' }, 'block-sheet-path'],
  ['a folder that climbs out on its way', head('<style>p{}</style>'), { folder: 'a/../../x' }, 'block-sheet-path'],
])('%s is refused', (_shows, page, more, kind) => {
  const plan = planGatherBlocks(siteOf({ 'a.html': page }), { kind: 'gather-blocks', folder: '', ...more });
  expect(plan).toMatchObject({ ok: false, problem: { kind } });
});
