import { describe, expect, test } from '@jest/globals';
import { applyChangeSet } from '../../source/changeSet.ts';
import { encodeText } from '../../source/textCoding.ts';
import { askChromium } from '../../testing/chromium.ts';
import { pageOf, siteOf, textIn } from '../../testing/siteOf.ts';
import { proveSites } from '../../proof/proveSites.ts';
import { planGatherRules, type GatherRules } from './gatherRules.ts';
import { applyOperations, describeOperationProblem } from '../operation.ts';

function gather(files: Readonly<Record<string, string | Uint8Array>>, operation: Partial<GatherRules> = {}) {
  const site = siteOf(files);
  const plan = planGatherRules(site, { kind: 'gather-rules', sheet: 'css/site.css', ...operation });
  if (!plan.ok) throw new Error(describeOperationProblem(plan.problem));
  const applied = applyChangeSet(site, plan.value.changes);
  if (!applied.ok) throw new Error(applied.problem.kind);
  return { site, after: applied.value, plan: plan.value, proof: proveSites(site, applied.value) };
}

const head = (style: string): string => pageOf(style, '<h1>a</h1><p>b</p>');

describe('pages, byte for byte', () => {
  test.each([
    [
      'a link stands where the block was',
      head('<style>p{color:red}</style>'),
      head('<link rel="stylesheet" href="css/site.css">'),
    ],
    [
      'indentation stays',
      head('  <style>\n    p{color:red}\n  </style>'),
      head('  <link rel="stylesheet" href="css/site.css">'),
    ],
    [
      'XHTML closes its tag',
      head('<meta charset="utf-8" />\n<style type="text/css">p{color:red}</style>'),
      head('<meta charset="utf-8" />\n<link rel="stylesheet" type="text/css" href="css/site.css" />'),
    ],
    [
      'upper case and single quotes',
      head("<META NAME='x'>\n<STYLE TYPE='text/css'>p{color:red}</STYLE>"),
      head("<META NAME='x'>\n<LINK REL='stylesheet' TYPE='text/css' HREF='css/site.css'>"),
    ],
    [
      'CRLF and a byte order mark stay',
      '\uFEFF' + head('<style>p{color:red}</style>').replaceAll('\n', '\r\n'),
      '\uFEFF' + head('<link rel="stylesheet" href="css/site.css">').replaceAll('\n', '\r\n'),
    ],
    [
      'a second block goes with its line',
      head('<style>p{color:red}</style>\n<style>h1{color:red}</style>\n<!-- x -->'),
      head('<link rel="stylesheet" href="css/site.css">\n<!-- x -->'),
    ],
    [
      'the comments of old browsers go along',
      head('<style><!--\np{color:red}\n--></style>'),
      head('<link rel="stylesheet" href="css/site.css">'),
    ],
    [
      'a link that is there is enough',
      head('<link rel=stylesheet href="css/site.css">\n<style>p{color:red}</style>'),
      head('<link rel=stylesheet href="css/site.css">\n').replace('\n\n', '\n'),
    ],
    [
      'astral characters before it',
      head('<meta charset=utf-8><title>\u{1F6A2}</title><style>p{color:red}</style>'),
      head('<meta charset=utf-8><title>\u{1F6A2}</title><link rel="stylesheet" href="css/site.css">'),
    ],
  ])('%s', (_shows, before, after) => {
    const files: Record<string, string> = before.includes('css/site.css')
      ? { 'a.html': before, 'css/site.css': '' }
      : { 'a.html': before };
    const result = gather(files);
    expect(textIn(result.after, 'a.html')).toBe(after);
    expect(result.proof.verdict).toBe('same');
  });

  test('emptied blocks stay when asked', () => {
    const { after } = gather({ 'a.html': head('<style>p{color:red}</style>') }, { keepEmptyBlocks: true });
    expect(textIn(after, 'a.html')).toBe(head('<link rel="stylesheet" href="css/site.css">\n<style></style>'));
  });

  test('a page in windows-1252 stays in it, and the sheet says its own charset', () => {
    const page = encodeText(head('<meta charset=windows-1252><style>p::before{content:"–"}</style>'), 'windows-1252')!;
    const { after, proof } = gather({ 'a.html': page });
    expect(textIn(after, 'css/site.css')).toBe('@charset "utf-8";\n\np::before{content:"–"}\n');
    expect(after.files.get('a.html')!.encoding).toBe('windows-1252');
    expect(proof.verdict).toBe('same');
  });

  test('one rule of three leaves no hole', () => {
    const block =
      '<style>\n  /* one */\n  h1 { color: red }\n\n  /* two */\n  p { color: red }\n\n  b { color: red }\n</style>';
    const { after } = gather({ 'a.html': head(block) }, { rules: [{ family: 'p' }] });
    expect(textIn(after, 'a.html')).toBe(
      head(
        '<link rel="stylesheet" href="css/site.css">\n<style>\n  /* one */\n  h1 { color: red }\n\n  b { color: red }\n</style>',
      ),
    );
    expect(textIn(after, 'css/site.css')).toBe('/* two */\np { color: red }\n');
  });
});

describe('sheets', () => {
  test('one copy of what many pages hold, addresses counted from the sheet', () => {
    const { after, plan, proof } = gather({
      'a.html': head('<style>p{background:url(img/x.png)}</style>'),
      'sub/b.html': head('<style>p{background:url("../img/x.png")}</style>'),
      'img/x.png': '',
    });
    expect(textIn(after, 'css/site.css')).toBe('p{background:url(../img/x.png)}\n');
    expect(textIn(after, 'sub/b.html')).toContain('href="../css/site.css"');
    expect(plan.moved).toHaveLength(1);
    expect(proof.verdict).toBe('same');
  });

  test('comments of all copies, each once; the order pages agree on', () => {
    const { after } = gather({
      'a.html': head('<style>/* first */\nh1{color:red}\np{color:red}</style>'),
      'b.html': head('<style>/* first */ h1{color:red}\n/* of b */\np{color:red}\ni{top:0}</style>'),
    });
    expect(textIn(after, 'css/site.css')).toBe('/* first */\nh1{color:red}\n\n/* of b */\np{color:red}\n\ni{top:0}\n');
  });

  test('conditions stay: @media, and the media attribute of a block', () => {
    const { after, proof } = gather({
      'a.html': head('<style media=print>p{color:red}</style>\n<style>@media (max-width:1px){p{color:blue}}</style>'),
    });
    expect(textIn(after, 'css/site.css')).toBe(
      '@media print {\n  p{color:red}\n}\n\n@media (max-width: 1px) {\n  p{color:blue}\n}\n',
    );
    expect(proof.verdict).toBe('same');
  });

  test('an existing sheet grows at its end; what it says already is not said twice', () => {
    const { after } = gather({
      'a.html': head('<link rel=stylesheet href=css/site.css><style>p{color:red}h1{top:0}</style>'),
      'css/site.css': 'p { color: #f00 }',
    });
    expect(textIn(after, 'css/site.css')).toBe('p { color: #f00 }\n\nh1{top:0}\n');
  });

  test('a block left open is closed before another follows', () => {
    const { after, proof } = gather({ 'a.html': head('<style>p{color:red</style>\n<style>h1{color:blue</style>') });
    expect(textIn(after, 'css/site.css')).toBe('p{color:red}\n\nh1{color:blue}\n');
    expect(proof.verdict).toBe('same');
  });

  test('characters beyond ASCII are escaped where the sheet does not say its charset', () => {
    const { after, proof } = gather({
      'a.html': head(
        '<meta charset=utf-8><link rel=stylesheet href=css/site.css><style>p::before{content:"é"}</style>',
      ),
      'css/site.css': 'b{top:0}\n',
    });
    expect(textIn(after, 'css/site.css')).toBe('b{top:0}\n\np::before{content:"\\e9 "}\n');
    expect(proof.pages[0]!.verdict).toBe('differs'); // spelled otherwise: the proof cannot tell, so it does not say same
  });

  test('gathering twice changes nothing more', () => {
    const { after } = gather({ 'a.html': head('<style>p{color:red}</style>') });
    expect(planGatherRules(after, { kind: 'gather-rules', sheet: 'css/site.css' })).toMatchObject({
      ok: false,
      problem: { kind: 'nothing-to-gather' },
    });
  });
});

test('a page that counts its addresses from another site gets no link', () => {
  const site = siteOf({ 'a.html': head('<base href="http://h/"><style>p{color:red}</style>') });
  const plan = planGatherRules(site, { kind: 'gather-rules', sheet: 'site.css' });
  expect(plan).toMatchObject({ ok: false, problem: { kind: 'nothing-to-gather' } });
});

test.each([
  ['a title', '<style title=x>p{color:red}</style>', 'titled'],
  ['another type', '<style type=text/less>p{color:red}</style>', 'not-css'],
  ['what a template writes into', '<style>p{color:{{ colour }}}</style>', 'template'],
  ['an import', '<style>@import "x.css"; p{color:red}</style>', 'has-import'],
  ['a namespace', '<style>@namespace url(x); p{color:red}</style>', 'has-namespace'],
  ['a string left open', '<style>p{content:"x</style>', 'unclosed-string'],
  ['an address that climbs out', '<style>p{background:url(../../x.png)}</style>', 'reference-cannot-move'],
  ['an order of layers', '<style>@layer b, a; p{color:red}</style>', 'has-layer-order'],
])('%s stays, with its reason', (_shows, style, reason) => {
  const site = siteOf({ 'a.html': head(`${style}\n<style>h1{top:0}</style>`) });
  const plan = planGatherRules(site, { kind: 'gather-rules', sheet: 'site.css' });
  expect(plan).toMatchObject({ ok: true, value: { left: [{ page: 'a.html', reason }] } });
});

test.each([
  ['css/my site.css', 'unsafe-name'],
  ['css/site.html', 'other-ending'],
  ['../site.css', 'bad-path'],
  ['/site.css', 'bad-path'],
  ['', 'bad-path'],
  ['CSS/Base', 'clash'],
  ['.css', 'unsafe-name'],
  ['css/:x', 'unsafe-name'],
])('the sheet name %j is refused', (sheet, kind) => {
  const site = siteOf({ 'a.html': head('<style>p{top:0}</style>'), 'css/base.css': '' });
  const plan = planGatherRules(site, { kind: 'gather-rules', sheet });
  expect(plan).toMatchObject({ ok: false, problem: { kind: 'sheet-path', path: { kind } } });
  if (!plan.ok) expect(describeOperationProblem(plan.problem)).toMatch(/\.$/);
});

test('.css is added when left out', () => {
  expect(gather({ 'a.html': head('<style>p{top:0}</style>') }, { sheet: 'styles/site' }).plan.sheet).toBe(
    'styles/site.css',
  );
});

test('orders that cannot be joined: the rarer rule stays', () => {
  const one = '<style>.a{color:red}\n.b{color:blue}</style>';
  const two = '<style>.b{color:blue}\n.a{color:red}</style>';
  const { plan } = gather({
    '1.html': head(one),
    '2.html': head(two),
    '3.html': head('<style>.b{color:blue}</style>'),
  });
  expect(plan.left.map((l) => `${l.page} ${l.label} ${l.reason}`)).toEqual([
    '1.html .a order-conflict',
    '2.html .a order-conflict',
  ]);
});

describe('scoped to a group of pages', () => {
  const shared = '.n { color: red }';
  const own = '.n { color: blue } body { top: 0 } body > p, .m { left: 1px }';
  const page = (style: string, body: string): string =>
    `<!DOCTYPE html><title>t</title><style>${style}</style>${body}<p class=n>a</p><p class=m>b</p></body>`;
  const scopeTo = (body: string, more: Partial<GatherRules> = {}) => {
    const before = siteOf({ 'a.html': page(shared, '<body>'), 'b.html': page(own, body) });
    const steps = [
      { kind: 'gather-rules', sheet: 'site.css', pages: ['a.html'] },
      { kind: 'gather-rules', sheet: 'site.css', pages: ['b.html'], scope: 'news', ...more },
    ] as const;
    const done = applyOperations(before, steps);
    return { before, done };
  };

  test('one sheet serves both groups, and each page looks as it did', () => {
    const { before, done } = scopeTo('<body id=x>');
    if (!done.ok) throw new Error(describeOperationProblem(done.problem.problem));
    expect(textIn(done.value.site, 'site.css')).toBe(
      '.n { color: red }\n\n:where(.news) .n { color: blue }\nbody:where(.news) { top: 0 }\nbody:where(.news) > p, :where(.news) .m { left: 1px }\n',
    );
    expect(textIn(done.value.site, 'b.html')).toContain('<body class="news" id=x>');
    expect(proveSites(before, done.value.site)).toMatchObject({ verdict: 'same' });
  });

  test('Chromium computes the same on both pages', async () => {
    const { before, done } = scopeTo('<body id=x>');
    if (!done.ok) throw new Error(describeOperationProblem(done.problem.problem));
    const ask = `[...document.querySelectorAll('body, p')].map((e) => [...getComputedStyle(e)].map((name) => getComputedStyle(e).getPropertyValue(name)).join('|'))`;
    const states = [before, done.value.site];
    const questions = ['a.html', 'b.html'].flatMap((path) =>
      states.map((site) => ({
        html: textIn(site, path)!,
        files: { 'site.css': textIn(site, 'site.css') ?? '' },
        ask,
      })),
    );
    const answers = await askChromium(questions);
    expect(answers[1]).toEqual(answers[0]);
    expect(answers[3]).toEqual(answers[2]);
  });

  test.each([
    ['<body class=old>', '<body class="old news">'],
    ["<BODY class='old'>", "<BODY class='old news'>"],
    ['<body class="news">', '<body class="news">'],
    ['<BODY BGCOLOR=red>', '<BODY CLASS="news" BGCOLOR=red>'],
  ])('%s becomes %s', (body, becomes) => {
    const { done } = scopeTo(body);
    expect(done.ok && textIn(done.value.site, 'b.html')).toContain(becomes);
  });

  test('a page without a body tag, and a rule for the root, stay', () => {
    const { done } = scopeTo('');
    expect(done).toMatchObject({ ok: false, problem: { problem: { kind: 'nothing-to-gather' } } });
    const site = siteOf({ 'b.html': page('html { top: 0 } :root p { top: 0 } p { top: 0 }', '<body>') });
    const plan = planGatherRules(site, { kind: 'gather-rules', sheet: 'site.css', scope: 'news' });
    expect(plan).toMatchObject({ ok: true, value: { left: [{ reason: 'no-scope' }, { reason: 'no-scope' }] } });
  });

  test.each(['two words', 'n'])('the class %s is refused', (scope) => {
    const { done } = scopeTo('<body>', { scope });
    expect(done).toMatchObject({ ok: false, problem: { problem: { kind: 'scope-name', name: scope } } });
  });
});

describe('a place in a sheet that is there', () => {
  const sheet = '@charset "utf-8";\n@import "x.css";\n\n/* Site */\n\n/* head */\nh1 { top: 0 }\n\n@media print {\n  p { top: 1px }\n}\n\nu { top: 2px }\n';
  const put = (place: GatherRules['place']) => {
    const site = siteOf({ 'a.html': pageOf('<style>/* new */ i { left: 0 }</style>', '<i>'), 'site.css': sheet, 'x.css': '' });
    return applyOperations(site, [{ kind: 'gather-rules', sheet: 'site.css', ...(place ? { place } : {}) }]);
  };
  const rule = '/* new */\ni { left: 0 }\n';

  test.each<[string, GatherRules['place'], string]>([
    ['its end', undefined, `${sheet}\n${rule}`],
    ['its start, behind imports and a comment on the whole', 'start', sheet.replace('/* head */', `${rule}\n/* head */`)],
    ['before a rule', { before: 'u' }, sheet.replace('u { top', `${rule}\nu { top`)],
    ['before a rule with its comment', { before: 'h1' }, sheet.replace('/* head */', `${rule}\n/* head */`)],
    ['before the group of a rule', { before: '@media print { p' }, sheet.replace('@media', `${rule}\n@media`)],
  ])('%s', (_shows, place, expected) => {
    const done = put(place);
    if (!done.ok) throw new Error(describeOperationProblem(done.problem.problem));
    expect(textIn(done.value.site, 'site.css')).toBe(expected);
  });

  test('a rule that is not there is refused in words', () => {
    const done = put({ before: '.none' });
    expect(done.ok ? '' : describeOperationProblem(done.problem.problem)).toMatch(/site\.css has no rule \.none/);
  });
}); // oxfmt-ignore
