import { describe, expect, test } from '@jest/globals';
import { planLookKeepingAttributes } from '../../plan/planAttributes.ts';
import { parseDeclarations } from '../../sheet/parseSheet.ts';
import { parseSelectorList } from '../../selectors/parseSelector.ts';
import { compareSpecificity, type Specificity } from '../../selectors/selector.ts';
import { askChromium } from '../../testing/chromium.ts';
import { pageOf, siteOf, textIn } from '../../testing/siteOf.ts';
import { isPlainClassName, proposeClassName } from './className.ts';
import { planGatherAttributes } from './gatherAttributes.ts';
import { applyOperations, describeOperationProblem } from '../operation.ts';
import { raisedSelector } from './raisedSelector.ts';

const gather = { kind: 'gather-attributes', sheet: 'css/a.css', newNames: true } as const;

/** Body before and after, and the sheet. */
function gathered(
  body: string,
  head = '',
  more: Readonly<Record<string, string>> = {},
): { readonly body: string; readonly sheet: string } {
  const done = applyOperations(siteOf({ 'a.html': pageOf(head, body), ...more }), [gather]);
  if (!done.ok) throw new Error(describeOperationProblem(done.problem.problem));
  const text = textIn(done.value.site, 'a.html')!;
  return {
    body: text.slice(text.indexOf('<body>') + 6, text.indexOf('</body>')),
    sheet: textIn(done.value.site, 'css/a.css')!,
  };
}

describe('the tag keeps its own writing', () => {
  test.each([
    ['no class yet', '<p style="top:0">', '<p class="text-top-0">'],
    ['single quotes, capitals', "<P STYLE='top:0' id=x>", "<P CLASS='text-top-0' id=x>"],
    ['a class before it', '<p class="a" style="top:0">', '<p class="a text-top-0">'],
    ['a class after it, on its own line', '<p style="top:0"\n   class=" a b ">', '<p\n   class=" a b text-top-0">'],
    ['a bare class', '<p class=a style=top:0>', '<p class="a text-top-0">'],
    ['a class without a value', '<p class style="top:0">', '<p class="text-top-0">'],
    ['a tag that the parser opens twice', '<p><b style="top:0">a<p>b</b>c', '<p><b class="words-top-0">a<p>b</b>c'],
    ['an empty class', '<p class="" style="top:0">', '<p class="text-top-0">'],
  ])('%s', (_shows, before, after) => {
    expect(gathered(before).body).toBe(after);
  });
});

describe('the rule', () => {
  test.each([
    [
      'equal by meaning are one, in the first one’s words',
      '<p style="color: #F00; top: 0">a<p style="top:0px;color:red">b',
      '',
      '.text-red-top-0 {\n  color: #F00;\n  top: 0;\n}\n',
    ],
    ['important stays important', '<p style="top:0!important">', '', '.text-top-0 {\n  top: 0 !important;\n}\n'],
    [
      'a stronger rule of the page: the element’s type helps',
      '<p style="top:0">',
      '<style>body p.x, p.text-top-0-2, p:first-child{top:1px}</style>',
      'p.text-top-0 { top: 0; }\n',
    ],
    [
      'an ID: as strong without being one',
      '<p id=x style="top:0">',
      '<style>#x{top:1px}</style>',
      '.text-top-0:not(#_) { top: 0; }\n',
    ],
    [
      'what says nothing of the same does not raise it',
      '<p id=x style="top:0">',
      '<style>#x{left:1px}</style>',
      '.text-top-0 { top: 0; }\n',
    ],
    [
      'a name no page and no sheet has',
      '<p class="text-top-0" style="top:0">',
      '<style>.TEXT-TOP-0-2{left:0}</style>',
      '.text-top-0-3 { top: 0; }\n',
    ],
    [
      'addresses count from the sheet',
      '<p style="background:url(img/x.png)">',
      '',
      '.text-shaded {\n  background: url(../img/x.png);\n}\n',
    ],
    [
      'only ASCII',
      "<p style=\"quotes: '«' '»'\">",
      '<meta charset=utf-8>',
      ".text-quotes {\n  quotes: '\\ab ' '\\bb ';\n}\n",
    ],
  ])('%s', (_shows, body, head, sheet) => {
    expect(gathered(body, head).sheet).toBe(sheet);
  });
});

test.each<[reason: string, body: string, more: Readonly<Record<string, string>>]>([
  ['script', '<p style="font-weight:bold"><script>row.style.fontWeight = 1</script>', {}],
  ['template', '<p style="width:{{ w }}px">', {}],
  ['unclosed', '<p style="quotes: \'a">', {}],
  ['drawing', '<svg><path style="width:9"/></svg>', {}],
  ['not-written', '<math><mi style="color:red">x</mi></math>', {}],
])('stays: %s', (reason, body, more) => {
  const plan = planGatherAttributes(siteOf({ 'a.html': pageOf('', `${body}<p style="left:0">`), ...more }), gather);
  expect(plan.ok && plan.value.left.map((one) => one.reason)).toEqual([reason]);
  expect(plan.ok && plan.value.groups.length).toBe(1);
});

test('a script that may set anything keeps all attributes of its page', () => {
  const site = siteOf({
    'a.html': pageOf('<script src=x.js></script>', '<p style="top:0">'),
    'x.js': 'e.style.cssText = ""',
  });
  expect(planGatherAttributes(site, gather)).toMatchObject({ ok: false, problem: { kind: 'no-attributes' } });
});

test.each<[shows: string, needed: Specificity, strictly: boolean, selector: string]>([
  ['nothing to beat', [0, 1, 0], false, '.n'],
  ['a class that comes later', [0, 1, 0], true, 'p.n'],
  ['two classes', [0, 2, 0], false, '.n.n'],
  ['two classes and a type', [0, 2, 1], false, 'p.n.n'],
  ['an ID', [1, 0, 0], false, '.n:not(#_)'],
  ['many classes', [0, 9, 3], false, '.n:not(#_)'],
  ['two IDs and a class, strictly', [2, 1, 0], true, 'p.n:not(#_):not(#_)'],
])('just strong enough: %s', (_shows, needed, strictly, selector) => {
  expect(raisedSelector('n', 'p', needed, strictly)).toBe(selector);
  const has = parseSelectorList(selector)![0]!.specificity;
  expect(compareSpecificity(has, needed)).toBeGreaterThanOrEqual(strictly ? 1 : 0);
});

test.each([
  [['td'], 'text-align: right; color: red', 'cell-right-red'],
  [['h2', 'h3'], 'background: #eee', 'heading-on-pearl'],
  [['p', 'td'], 'margin: 0', 'spaced-0'],
  [['x-card'], 'zoom: 1', 'x-card-zoom-1'],
  [['path'], 'fill: none; stroke: red', 'shape-drawn-red'],
])('a name for %j with %s', (tags, css, name) => {
  expect(proposeClassName(tags, parseDeclarations(css), new Set())).toBe(name);
  expect(isPlainClassName(name)).toBe(true);
});

test.each([
  ['what a rule says already', '<style>p { color: red }</style>', 'color: #f00', '<p>'],
  ['in a shorthand', '<style>p { margin: 1px 2px }</style>', 'margin-left: 2px', '<p>'],
  ['not what a rule says in a state only', '<style>p:hover { color: red }</style>', 'color: red', '<p class="text-red">'],
  ['not what a rule says under a condition', '<style>@media print { p { color: red } }</style>', 'color: red', '<p class="text-red">'],
  ['not what another rule beats in a state', '<style>p { color: red } p:hover { color: teal }</style>', 'color: red', '<p class="text-red">'],
  ['not what a rule says otherwise', '<style>p { color: blue }</style>', 'color: red', '<p class="text-red">'],
  ['not more than rules say', '<style>p { color: red }</style>', 'color: red; top: 0', '<p class="text-red-top-0">'],
])('an attribute that says nothing new goes: %s', (_shows, head, css, after) => {
  const site = siteOf({ 'a.html': pageOf(head, `<p style="${css}">a`) });
  const plan = planLookKeepingAttributes(site, gather);
  if (!plan.ok) throw new Error(plan.problem.kind);
  expect(plan.value.proof.verdict).toBe('same');
  expect(textIn(plan.value.site, 'a.html')).toContain(`<body>${after}a</body>`);
}); // oxfmt-ignore

test('what most looks of one kind of element have is in no name', () => {
  const looks = ['fill: red', 'fill: gold', 'fill: teal', 'opacity: 0.5', ''].map(
    (css) => `${css}; stroke-width: 2; stroke: black`,
  );
  const { sheet } = gathered(`<svg>${looks.map((css) => `<path style="${css}"/>`).join('')}</svg>`);
  expect([...sheet!.matchAll(/^\.([\w-]+)/gm)].map(([, name]) => name)).toEqual([
    'shape-filled-red',
    'shape-filled-amber',
    'shape-filled-teal',
    'shape-opacity-0-5',
    'shape-pen-2-drawn-black',
  ]);
});

const scripted = '<script>document.body.append(document.createElement("div"))</script><i class=hot></i>';

test('names that are there are no names for a look where a script makes elements that may have them', () => {
  const body = '<div class=box><b style="color: red">a</b><div>c</div></div>';
  const files = (script: string) => ({
    'css/a.css': '.y { left: 0 }',
    'a.html': pageOf('<link rel=stylesheet href=css/a.css>', body + script),
  });
  const selectors = (script: string): readonly string[] => {
    const plan = planGatherAttributes(siteOf(files(script)), { ...gather, newNames: false });
    return plan.ok ? plan.value.groups.map(({ selector }) => selector) : [];
  };
  expect(selectors('')).toEqual(['.box b']);
  expect(selectors(scripted)).toEqual(['.words-red']);
});

test('a class is as strong as what a script may bring to its element', () => {
  const head = '<style>#top .hot p, .hot.hot { color: teal } .cold { color: blue }</style>';
  const site = siteOf({ 'a.html': pageOf(head, `<div id=top><p style="color: red">a</div>${scripted}`) });
  const plan = planLookKeepingAttributes(site, gather);
  if (!plan.ok) throw new Error(plan.problem.kind);
  expect(plan.value.stayed).toEqual([]);
  const { specificity } = parseSelectorList(plan.value.plan.groups[0]!.selector)![0]!;
  expect(compareSpecificity(specificity, [1, 1, 1])).toBeGreaterThanOrEqual(0);
});

test('names and problems in words', () => {
  const site = siteOf({ 'a.html': pageOf('', '<p class=used style="top:0">') });
  const named = (name: string) => applyOperations(site, [{ ...gather, names: { 'top:0': name } }]);
  const good = named('first-line');
  expect(good.ok && textIn(good.value.site, 'css/a.css')).toContain('.first-line {');
  for (const [name, kind] of [
    ['two words', 'class-name'],
    ['used', 'class-taken'],
  ] as const)
    expect(named(name)).toMatchObject({ ok: false, problem: { problem: { kind } } });
  const none = applyOperations(siteOf({ 'a.html': '<p>' }), [gather]);
  expect(none.ok || describeOperationProblem(none.problem.problem)).toBe(
    'No style attribute on these pages can be gathered.',
  );
});

test('an ID in place of a class, where an element alone has its group and its ID', () => {
  const site = siteOf({
    'a.html': pageOf('<style>#x, body #y{top:9px}</style>', '<p id=x style="top:0">a<p  style="top:1px" id=y>b<p id=z style="top:2px">c<p style="top:3px">d<p style="top:3px" id=w>e'), // oxfmt-ignore
    'b.html': pageOf('', '<p id=z>c'),
  });
  const plan = planLookKeepingAttributes(site, { ...gather, ids: true });
  if (!plan.ok) throw new Error(plan.problem.kind);
  expect(plan.value.plan.groups.map(({ selector }) => selector)).toEqual([
    '#x',
    '#y:not(#_)',
    '.text-top-2',
    '.text-top-3',
  ]);
  expect(textIn(plan.value.site, 'a.html')).toContain(
    '<p id=x>a<p id=y>b<p id=z class="text-top-2">c<p class="text-top-3">d<p class="text-top-3" id=w>e',
  );
  expect(plan.value.proof.verdict).toBe('same');
});

test('what an attribute selector would notice is taken back, the rest goes; twice changes nothing more', () => {
  const site = siteOf({
    'a.html': pageOf('<style>[style*=top]{left:1px}</style>', '<p style="top:0">a<p style="color:red">b'),
  });
  const plan = planLookKeepingAttributes(site, gather);
  if (!plan.ok) throw new Error(plan.problem.kind);
  expect(plan.value.proof.verdict).toBe('same');
  expect(plan.value.plan.groups.map((g) => g.selector)).toEqual(['.text-red']);
  expect(plan.value.stayed.map((one) => one.key)).toEqual(['top:0']);
  expect(planLookKeepingAttributes(plan.value.site, gather)).toMatchObject({
    ok: false,
    problem: { kind: 'no-attributes' },
  });
});

test('Chromium computes the same before and after, whatever stands against the attribute', async () => {
  const rules =
    '<style>p{color:blue!important;top:3px}#x{left:1px;margin:9px}.a.b.c{left:2px}p:not(#y#z){bottom:1px}@media screen{p{right:4px}}@layer l{p{top:8px!important}}</style>';
  const bodies = [
    '<p style="color:red;top:1px">a</p>',
    '<p id=x class="a b c" style="left:7px;margin-left:1px;bottom:5px;right:6px">a</p>',
    '<table><td style="padding:0;text-align:center" align=right width=50>c</td></table>',
    '<svg fill=red><path style="fill:none;stroke:rgb(0,0,0);stroke-width:2.16" stroke=red d="M0 0h9"/><linearGradient style="color:red"/></svg><p style="top:1px">',
    '<p class=a style="top:2px!important;color:lime!important">a</p><p class=a style="COLOR:lime!important;top:2.0px !important">b</p>',
  ];
  const ask = `[...document.body.querySelectorAll('p, td, svg, svg *')].map((e) => [...getComputedStyle(e)].map((name) => name + ':' + getComputedStyle(e).getPropertyValue(name)).join(';')).join('\\n')`;
  const cases = bodies.flatMap((body) => {
    const plan = planLookKeepingAttributes(siteOf({ 'a.html': pageOf(rules, body) }), { ...gather, sheet: 'a.css' });
    if (!plan.ok) return [];
    const { site } = plan.value;
    // the sheet in place of its link, since one page is asked at a time
    const after = textIn(site, 'a.html')!.replace(/<link [^>]*>/, () => `<style>${textIn(site, 'a.css')!}</style>`);
    return [
      { html: pageOf(rules, body), ask },
      { html: after, ask },
    ];
  });
  expect(cases.length).toBeGreaterThanOrEqual(8);
  const answers = await askChromium(cases);
  for (let i = 0; i < answers.length; i += 2) expect(answers[i + 1]).toBe(answers[i]);
});

test('important declarations in place of stronger selectors, when asked: and the look stays', async () => {
  const head = '<style>#i { color: red } p.x { top: 1px }</style>';
  const body = '<p id=i style="color: lime">a<p class=x style="top: 2px">b<p style="left: 0">c';
  const site = siteOf({ 'a.html': pageOf(head, body) });
  const plan = planLookKeepingAttributes(site, { ...gather, important: true });
  if (!plan.ok) throw new Error(plan.problem.kind);
  expect(plan.value.stayed).toEqual([]);
  expect(plan.value.plan.groups.map(({ selector, declarations }) => [selector, declarations[0]!.important])).toEqual([
    ['.text-lime', true],
    ['.text-top-2', true],
    ['.text-left-0', false],
  ]);
  const ask = `[...document.querySelectorAll('p')].map((p) => getComputedStyle(p).color + getComputedStyle(p).top + getComputedStyle(p).left).join()`;
  const states = [site, plan.value.site].map((one) => ({
    html: textIn(one, 'a.html')!,
    files: { 'css/a.css': textIn(one, 'css/a.css') ?? '' },
    ask,
  }));
  const [before, after] = await askChromium(states);
  expect(after).toBe(before);
});

test('important declarations stay away where an animation runs', () => {
  const head = '<style>@keyframes k { to { color: blue } } #i { color: red; animation: k 1s }</style>';
  const plan = planLookKeepingAttributes(
    siteOf({ 'a.html': pageOf(head, '<p id=i style="color: lime">a<p style="top: 0">b') }),
    { ...gather, important: true },
  );
  expect(plan.ok && plan.value.stayed.map(({ key }) => key)).toEqual(['color:#00ff00']);
});
