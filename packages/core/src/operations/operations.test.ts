import { describe, expect, test } from '@jest/globals';
import { compileBlock } from '../cascade/compileBlock.ts';
import { parsePage } from '../page/parsePage.ts';
import { parseDeclarations } from '../sheet/parseSheet.ts';
import { siteBase } from '../values/urls.ts';
import { siteOf, textIn } from '../testing/siteOf.ts';
import { smallestEdit } from '../source/smallestEdit.ts';
import type { Orderable } from './gather/compete.ts';
import { mergeOrder } from './gather/mergeOrder.ts';
import { applyOperations, describeOperationProblem, type Operation } from './operation.ts';
import { pageSyntax, printLink } from '../page/pageSyntax.ts';
import { asciiText, closingText, dedented, rebasedText } from './gather/printRule.ts';
import { indentationAt, wholeLines, wholeLinesAndGap } from '../source/removal.ts';

describe('order of rules that many pages hold', () => {
  const rule = (label: string, css: string): Orderable => ({
    key: label,
    kind: 'rule',
    label,
    declarations: compileBlock(parseDeclarations(css), { base: siteBase('a'), fingerprint: undefined }).declarations,
  });
  const rules = new Map(
    [
      rule('.a', 'color:red'),
      rule('.b', 'color:blue'),
      rule('.c', 'top:0'),
      rule('p', 'color:green'),
      rule('.d', 'color:red'),
      rule('.e', 'margin:0'),
      rule('.f', 'margin-left:1px'),
    ].map((r) => [r.key, r]),
  );
  test.each([
    [
      'first appearance where order is free',
      [
        ['.a', '.c'],
        ['.c', 'p', '.a'],
      ],
      '.a .c p',
      '',
    ],
    ['a later page decides what an earlier left open', [['.a'], ['.b', '.a']], '.b .a', ''],
    [
      'other specificity does not compete',
      [
        ['p', '.a'],
        ['.a', 'p'],
      ],
      'p .a',
      '',
    ],
    [
      'equal values do not compete',
      [
        ['.a', '.d'],
        ['.d', '.a'],
      ],
      '.a .d',
      '',
    ],
    [
      'a shorthand competes with its longhand',
      [
        ['.f', '.a'],
        ['.e', '.f'],
      ],
      '.a .e .f',
      '',
    ],
    ['a cycle: the rarest is left', [['.a', '.b'], ['.b', '.a'], ['.b']], '.b', '.a'],
    ['no page at all', [], '', ''],
  ])('%s', (_shows, sequences, order, left) => {
    const result = mergeOrder(rules, sequences);
    expect([result.order.join(' '), result.left.join(' ')]).toEqual([order, left]);
  });
});

test.each([
  ['the smallest stretch', 'a{color:red}', 'a{color:blue}', { span: { start: 8, end: 11 }, text: 'blue' }],
  ['nothing', 'a', 'a', undefined],
  ['an insertion', 'ab', 'axb', { span: { start: 1, end: 1 }, text: 'x' }],
  ['never half a pair', '\u{1F6A2}', '\u{1F6A3}', { span: { start: 0, end: 2 }, text: '\u{1F6A3}' }],
  ['never half a line end', 'a\r\nb', 'a\nb', { span: { start: 1, end: 3 }, text: '\n' }],
])('an edit is %s', (_shows, before, after, edit) => {
  expect(smallestEdit(before, after)).toEqual(edit);
});

describe('editing a sheet', () => {
  const site = siteOf({ 'a.html': '<p>', 's.css': 'p{color:red}\r\n' });
  const edit = (over: Partial<Extract<Operation, { kind: 'edit-sheet' }>>): Operation => ({
    kind: 'edit-sheet',
    path: 's.css',
    hash: site.files.get('s.css')!.hash,
    text: 'p{color:blue}\r\n',
    ...over,
  });
  test('changes what was typed and nothing else', () => {
    const draft = applyOperations(site, [edit({})]);
    expect(draft.ok && textIn(draft.value.site, 's.css')).toBe('p{color:blue}\r\n');
  });
  test.each([
    ['another version', { hash: 'x' }, 'sheet-changed'],
    ['no such sheet', { path: 'x.css' }, 'no-such-sheet'],
    ['a page', { path: 'a.html' }, 'no-such-sheet'],
    ['page markup pasted in', { text: '<style>p{}</style>' }, 'page-markup'],
  ])('refuses %s', (_shows, over, kind) => {
    const draft = applyOperations(site, [edit(over)]);
    expect(draft).toMatchObject({ ok: false, problem: { index: 0, problem: { kind } } });
    if (!draft.ok) expect(describeOperationProblem(draft.problem.problem)).toMatch(/\.$/);
  });
});

test.each([
  ['<meta charset="utf-8"><link rel="icon" href="x">', '<link rel="stylesheet" href="a&amp;b.css">'],
  ['<meta charset="utf-8" /><br />', '<link rel="stylesheet" href="a&amp;b.css" />'],
  ["<link rel='stylesheet' type='text/css' href='x'>", "<link rel='stylesheet' type='text/css' href='a&amp;b.css'>"],
  ['<STYLE TYPE="text/css"></STYLE>', '<LINK REL="stylesheet" TYPE="text/css" HREF="a&amp;b.css">'],
])('a page that writes %s links with %s', (head, link) => {
  expect(printLink(pageSyntax(parsePage(`<!DOCTYPE html>${head}`)), 'a&b.css')).toBe(link);
});

describe('text on the move', () => {
  test.each([
    ['a{b:c', '}'],
    ['@media x{a{b:c(', ')}}'],
    ['a{b:"x', undefined],
    ['a{/* x', undefined],
    ['a{b:url(x', undefined],
    ['a{b:c\\', undefined],
    ['a{}', ''],
  ])('%j is closed by %j', (text, closing) => {
    expect(closingText(text)).toBe(closing);
  });
  test.each([
    ['é outside comments', '/* é */ a{content:"é"}', '/* é */ a{content:"\\e9 "}'],
    ['astral characters', '.\u{1F6A2}{}', '.\\1f6a2 {}'],
    ['ASCII stays', 'a{}', 'a{}'],
  ])('as ASCII: %s', (_shows, text, ascii) => {
    expect(asciiText(text)).toBe(ascii);
  });
  test('moved to the margin, but never inside a string that runs over lines', () => {
    expect(dedented('a {\r\n    b: c;\r\n  }', '  ', '\n')).toBe('a {\n  b: c;\n}');
    expect(dedented('a {\n  b: "x\\\n  y" }', '  ', '\n')).toBe('a {\n  b: "x\\\n  y" }');
  });
  test('addresses are rewritten in the form they had', () => {
    const text = 'a{b:url(x.png) url( "y.png" );c:image-set("z.png" 1x)}';
    expect(rebasedText(text, siteBase('p/a.html'), 'css/s.css')).toBe(
      'a{b:url(../p/x.png) url( "../p/y.png" );c:image-set("../p/z.png" 1x)}',
    );
    expect(rebasedText('a{b:url(../../x.png)}', siteBase('a.html'), 'css/s.css')).toBeUndefined();
  });
});

describe('taking out lines', () => {
  const cut = (text: string, span: { start: number; end: number }): string =>
    text.slice(0, span.start) + text.slice(span.end);
  const spanOf = (text: string, part: string) => ({ start: text.indexOf(part), end: text.indexOf(part) + part.length });
  test.each([
    ['alone on its line', 'a\n  X\nb', 'a\nb'],
    ['not alone', 'a X b', 'a  b'],
    ['CRLF', 'a\r\nX\r\nb', 'a\r\nb'],
    ['the last line', 'a\nX', 'a\n'],
  ])('%s', (_shows, text, rest) => {
    expect(cut(text, wholeLines(text, spanOf(text, 'X')))).toBe(rest);
  });
  test('of two blank lines one goes', () => {
    const text = 'a\n\nX\n\nb';
    expect(cut(text, wholeLinesAndGap(text, spanOf(text, 'X'), { start: 0, end: text.length }))).toBe('a\n\nb');
  });
  test('indentation is white space at the start of a line only', () => {
    expect([indentationAt('\n\t x', 3), indentationAt('a  x', 3), indentationAt('x', 0)]).toEqual(['\t ', '', '']);
  });
});

test.each([
  [
    'pages added later link what their folder links, in its order, before their blocks',
    { 'n/new.html': '<title>t</title>\n  <style>p{}</style>' },
    ['n/new.html'],
    '<title>t</title>\n  <link rel="stylesheet" href="../b.css">\n  <link rel="stylesheet" href="../a.css">\n  <style>p{}</style>',
  ],
  [
    'what one of two has is not common; alone in its folder, a page goes by all',
    { 'm/new.html': '<TITLE>t</TITLE>\r\n<LINK REL=STYLESHEET HREF="../a.css">\r\n' },
    ['m/new.html'],
    '<TITLE>t</TITLE>\r\n<LINK REL=STYLESHEET HREF="../a.css">\r\n<LINK REL="stylesheet" HREF="../b.css">\r\n',
  ],
])('%s', (_shows, added, pages, text) => {
  const site = siteOf({
    'n/1.html': '<link rel=stylesheet href=../b.css><link rel=stylesheet href=../a.css>',
    'n/2.html':
      '<link rel=stylesheet href=../b.css><link rel=stylesheet href=../a.css><link rel=stylesheet href=../c.css>',
    'a.css': 'p{}',
    'b.css': 'p{}',
    'c.css': 'p{}',
    ...added,
  });
  const draft = applyOperations(site, [{ kind: 'link-alike', pages }]);
  expect(draft.ok && textIn(draft.value.site, pages[0]!)).toBe(text);
  expect(draft.ok && applyOperations(draft.value.site, [{ kind: 'link-alike', pages }])).toMatchObject({
    ok: false,
    problem: { problem: { kind: 'linked-alike' } },
  });
});

test.each([
  ['a finding that is not there', { kind: 'mend', finding: 'drift p' }, 'no-such-finding'],
  ['a kind nobody knows', { kind: 'mend', finding: 'bad' }, 'no-such-finding'],
  ['a finding nobody can mend', { kind: 'mend', finding: 'unlinked-sheet a.css' }, 'nothing-to-mend'],
  ['a page that is not there', { kind: 'link-alike', pages: ['x.html'] }, 'page-not-found'],
] as const)('refuses %s', (_shows, operation, kind) => {
  const refused = applyOperations(siteOf({ 'a.html': '<p>', 'a.css': 'p{}' }), [operation]);
  expect(refused).toMatchObject({ ok: false, problem: { index: 0, problem: { kind } } });
  if (!refused.ok) expect(describeOperationProblem(refused.problem.problem)).toMatch(/\.$/);
});
