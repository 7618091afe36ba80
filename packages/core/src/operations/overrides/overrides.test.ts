import { expect, test } from '@jest/globals';
import { siteOf, textIn } from '../../testing/siteOf.ts';
import { applyOperations, describeOperationProblem, type Operation } from '../operation.ts';

function done(files: Readonly<Record<string, string>>, operation: Operation) {
  const applied = applyOperations(siteOf(files), [operation]);
  if (!applied.ok) throw new Error(describeOperationProblem(applied.problem.problem));
  return applied.value.site;
}

const drop = (html: string, more: Partial<Extract<Operation, { kind: 'drop-declaration' }>>) =>
  textIn(
    done(
      { 'a.html': html },
      { kind: 'drop-declaration', where: 'block', selector: 'h1', property: 'color', value: '#f00', ...more },
    ),
    'a.html',
  );

test.each([
  ['a line of a rule', '<style>\nh1 {\n  color: red;\n  margin: 0;\n}\n</style>', '<style>\nh1 {\n  margin: 0;\n}\n</style>'],
  ['the last one, without a semicolon', '<style>h1 { margin: 0; color: #F00 }</style>', '<style>h1 { margin: 0; }</style>'],
  ['the first one of a line', '<style>h1 { color: red; margin: 0 }</style>', '<style>h1 { margin: 0 }</style>'],
  ['the whole rule', '<style>\nh1 { color: rgb(255, 0, 0) }\np { margin: 0 }\n</style>', '<style>\np { margin: 0 }\n</style>'],
  ['the whole block', '<head>\n<style>\nh1 { color: red }\n</style>\n</head>', '<head>\n</head>'],
  ['inside a condition', '<style>@media screen {\n  h1 { color: red; margin: 0 }\n}</style>', '<style>@media screen {\n  h1 { margin: 0 }\n}</style>'],
  ['not another value', '<style>h1 { color: red; color: blue }</style>', '<style>h1 { color: blue }</style>'],
  ['a block with a comment stays', '<style>/* mine */ h1 { color: red }</style>', '<style>/* mine */ </style>'],
  ['CRLF', '<style>\r\nh1 {\r\n\tcolor: red;\r\n\tmargin: 0\r\n}\r\n</style>', '<style>\r\nh1 {\r\n\tmargin: 0\r\n}\r\n</style>'],
])('a declaration is dropped from a block: %s', (_shows, before, after) => {
  expect(drop(before, {})).toBe(after);
}); // oxfmt-ignore

test.each([
  ['alone', '<p style="color: red">a', '<p>a'],
  ['first', '<p style="color: red; margin: 0">a', '<p style="margin: 0">a'],
  ['last', "<p style='margin: 0; color: red;'>a", "<p style='margin: 0'>a"],
  ['between, with an entity', '<p style="font-family: &quot;A&quot;; color: red; margin: 0">a', '<p style="font-family: &quot;A&quot;; margin: 0">a'],
])('a declaration is dropped from style attributes: %s', (_shows, before, after) => {
  expect(drop(before, { where: 'attribute' })).toBe(after);
}); // oxfmt-ignore

test('only the chosen pages lose it, and importance counts', () => {
  const html = '<style>h1 { color: red }</style><h1>a';
  const files = { 'a.html': html, 'b.html': html, 'c.html': '<style>h1 { color: red !important }</style>' };
  const after = done(files, {
    kind: 'drop-declaration',
    where: 'block',
    selector: 'h1',
    property: 'color',
    value: 'red',
    pages: ['b.html', 'c.html'],
  });
  expect(textIn(after, 'a.html')).toBe(html);
  expect(textIn(after, 'b.html')).toBe('<h1>a');
  expect(textIn(after, 'c.html')).toBe(files['c.html']);
});

test.each([
  ['in place of the value', 'h1 { color: teal; margin: 0 }\n', 'h1 { color: #f00; margin: 0 }\n'],
  ['behind a rule’s last declaration', 'h1 {\n  margin: 0;\n}\n', 'h1 {\n  margin: 0;\n  color: #f00;\n}\n'],
  ['into an empty rule', 'h1 { }\n', 'h1 { color: #f00; }\n'],
  ['never in a group that means more', 'h1, h2 { color: teal }\n', 'h1, h2 { color: teal }\nh1 { color: #f00; }\n'],
  ['behind what would beat it', 'h1 { margin: 0 }\nh1, h2 { color: teal }\n', 'h1 { margin: 0 }\nh1, h2 { color: teal }\nh1 { color: #f00; }\n'],
  ['in a new rule, not under a condition', '@media print { h1 { color: teal } }', '@media print { h1 { color: teal } }\nh1 { color: #f00; }\n'],
])('a declaration is made shared %s', (_shows, sheet, after) => {
  const site = done(
    { 's.css': sheet, 'a.html': '<link rel=stylesheet href=s.css><style>h1 { color: #f00 }</style>' },
    { kind: 'share-declaration', where: 'block', selector: 'h1', property: 'color', value: '#f00', sheet: 's.css', rule: 'h1' },
  );
  expect(textIn(site, 's.css')).toBe(after);
  expect(textIn(site, 'a.html')).toBe('<link rel=stylesheet href=s.css>');
}); // oxfmt-ignore

test('a shared address is counted from the sheet', () => {
  const site = done(
    { 'css/s.css': 'h1 { background: none }', 'a.html': '<style>h1 { background: url(i/x.png) }</style>' },
    { kind: 'share-declaration', where: 'block', selector: 'h1', property: 'background', value: 'url(i/x.png)', sheet: 'css/s.css', rule: 'h1' },
  ); // oxfmt-ignore
  expect(textIn(site, 'css/s.css')).toBe('h1 { background: url(../i/x.png) }');
});

test('an address that means another file in another folder is not shared', () => {
  const style = '<style>h1 { background: url(i/x.png) }</style>';
  const site = siteOf({ 's.css': 'h1 { background: none }', 'a.html': style, 'x/b.html': style });
  const share = {
    kind: 'share-declaration',
    where: 'block',
    selector: 'h1',
    property: 'background',
    value: 'url(i/x.png)',
    sheet: 's.css',
    rule: 'h1',
  } as const;
  const refused = applyOperations(site, [share]);
  expect(!refused.ok && refused.problem.problem.kind).toBe('address-not-shared');
  const based = siteOf({
    's.css': 'h1 { background: none }',
    'a.html': style,
    'x/b.html': `<base href="../">${style}`,
  });
  expect(applyOperations(based, [share]).ok).toBe(true);
});

const block = '<style>\np { color: red }\n</style>';

test('a block is dropped from its page, and from the pages with an equal one', () => {
  const files = { 'a.html': `${block}\n<p>a`, 'b.html': `<head>\n  ${block}\n</head>`, 'c.html': '<style>p{}</style>' };
  const one = done(files, { kind: 'drop-block', page: 'a.html', source: 0 });
  expect([textIn(one, 'a.html'), textIn(one, 'b.html')]).toEqual(['<p>a', files['b.html']]);
  const all = done(files, { kind: 'drop-block', page: 'a.html', source: 0, pages: ['a.html', 'b.html', 'c.html'] });
  expect([textIn(all, 'a.html'), textIn(all, 'b.html'), textIn(all, 'c.html')]).toEqual([
    '<p>a',
    '<head>\n</head>',
    files['c.html'],
  ]);
});

test('an attribute is dropped from its element, or wherever an equal one stands', () => {
  const html = '<p style="color: red">a<p style="color:#f00">b<p style="margin: 0">c';
  const files = { 'a.html': html, 'b.html': html };
  const element = 'html>body:nth-child(2)>p:nth-child(1)';
  const one = done(files, { kind: 'drop-attribute', page: 'a.html', element });
  expect([textIn(one, 'a.html'), textIn(one, 'b.html')]).toEqual([
    '<p>a<p style="color:#f00">b<p style="margin: 0">c',
    html,
  ]);
  const all = done(files, { kind: 'drop-attribute', page: 'a.html', element, pages: ['a.html', 'b.html'] });
  expect(textIn(all, 'b.html')).toBe('<p>a<p>b<p style="margin: 0">c');
});

test.each<[Operation, string]>([
  [{ kind: 'drop-declaration', where: 'block', selector: 'h2', property: 'color', value: 'red' }, 'not-said-there'],
  [{ kind: 'drop-block', page: 'a.html', source: 7 }, 'not-said-there'],
  [{ kind: 'drop-attribute', page: 'none.html', element: 'html' }, 'page-not-found'],
  [{ kind: 'share-declaration', where: 'block', selector: 'p', property: 'color', value: 'red', sheet: 'z.css', rule: 'p' }, 'no-shared-sheet'],
  [{ kind: 'share-declaration', where: 'block', selector: 'b', property: 'color', value: 'red', sheet: 's.css', rule: 'b' }, 'under-condition'],
])('%j is refused in words', (operation, kind) => {
  const applied = applyOperations(siteOf({ 'a.html': block, 'b.html': '<style>@media print { b { color: red } }</style>', 's.css': 'p { color: blue }' }), [operation]);
  if (applied.ok) throw new Error('not refused');
  expect(applied.problem.problem.kind).toBe(kind);
  expect(describeOperationProblem(applied.problem.problem)).toMatch(/^\S.*\.$/);
}); // oxfmt-ignore
