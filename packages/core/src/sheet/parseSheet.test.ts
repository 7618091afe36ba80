import { expect, test } from '@jest/globals';
import { textOf } from '../source/span.ts';
import { parseDeclarations, parseSheet } from './parseSheet.ts';
import type { Rule } from './sheet.ts';
import { printReference, urlReferences } from './urlReferences.ts';

const shape = (rules: readonly Rule[]): readonly string[] =>
  rules.map((rule) => {
    switch (rule.kind) {
      case 'style':
        return `${rule.selector}{${rule.declarations.map((d) => `${d.property}:${d.value}${d.important ? '!' : ''}`).join(';')}${rule.nested.length > 0 ? ` ${shape(rule.nested).join(' ')}` : ''}}`;
      case 'group':
        return `@${rule.name} ${rule.prelude}{${shape(rule.rules).join(' ')}}`;
      case 'import':
        return `@import ${rule.reference} layer=${rule.layer} supports=${rule.supports} media=${rule.media}`;
      case 'definition':
        return `@${rule.name} ${rule.prelude}{}`;
      case 'statement':
        return `@${rule.name} ${rule.prelude};`;
      case 'declarations':
        return rule.declarations.map((d) => `${d.property}:${d.value}`).join(';');
      case 'dropped':
        return 'dropped';
    }
  });

test.each([
  ['a rule', 'p { color : red }', ['p{color:red}']],
  ['important, with spaces and comments', 'p{color:red ! /**/ important}', ['p{color:red!}']],
  ['a custom property keeps a block', 'p{--x:{a:b};color:red}', ['p{--x:{a:b};color:red}']],
  ['names fold case, custom ones do not', 'p{COLOR:Red;--Ab:1}', ['p{color:Red;--Ab:1}']],
  ['escaped names', 'p{c\\6f lor:red}', ['p{color:red}']],
  ['nesting', 'p{color:red;a:hover{x:y}& b{z:w}}', ['p{color:red a:hover{x:y} & b{z:w}}']],
  ['a pseudo-class is not a declaration', 'p{a:hover{color:red}}', ['p{ a:hover{color:red}}']],
  ['media', '@media print and (x){p{}q{a:b}}', ['@media print and (x){p{} q{a:b}}']],
  ['comments in a prelude', '@media/*x*/print{}', ['@media print{}']],
  [
    'imports',
    '@import "a.css" screen;@import url(b.css) layer(x.y) supports(display:grid) print;@import url("c") layer;',
    [
      '@import a.css layer=undefined supports=undefined media=screen',
      '@import b.css layer=x.y supports=display:grid media=print',
      '@import c layer=null supports=undefined media=',
    ],
  ],
  ['a malformed import', '@import a.css;', ['dropped']],
  ['definitions', '@font-face{font-family:x}@keyframes k{from{}}', ['@font-face {}', '@keyframes k{}']],
  ['statements', '@charset "x";@layer a, b;', ['@charset "x";', '@layer a, b;']],
  ['what a style element leaves behind', '<style>p{a:b}</style>', ['<style>p{a:b}', 'dropped']],
  ['CDO and CDC', '<!-- p{a:b} -->', ['p{a:b}']],
  ['the end closes all', '@media x{p{color:red', ['@media x{p{color:red}}']],
])('%s', (_shows, css, expected) => {
  expect(shape(parseSheet(css).rules)).toEqual(expected);
});

test('spans count from the start of the whole text', () => {
  const page = '\uFEFF<style>\r\n/* é */ p { color: red !important; }\r\n</style>';
  const sheet = parseSheet(page, page.indexOf('>') + 1, page.indexOf('</'));
  const [rule] = sheet.rules;
  if (rule?.kind !== 'style') throw new Error('no rule');
  expect(textOf(page, rule.span)).toBe('p { color: red !important; }');
  expect(textOf(page, rule.declarations[0]!.span)).toBe('color: red !important');
  expect(textOf(page, rule.declarations[0]!.valueSpan)).toBe('red');
  expect(sheet.comments.map((c) => textOf(page, c))).toEqual(['/* é */']);
});

test('very deep nesting is read to a depth and no further, in bounded time', () => {
  const css = 'a{'.repeat(5000) + 'color:red' + '}'.repeat(5000);
  expect(parseSheet(css).rules).toHaveLength(1);
});

test('a style attribute', () => {
  expect(
    parseDeclarations('color:red;;margin:0 !important; bad; x:y').map(
      (d) => `${d.property}:${d.value}${d.important ? '!' : ''}`,
    ),
  ).toEqual(['color:red', 'margin:0!', 'x:y']);
});

test.each([
  ['a{b:url(x.png)}', ['x.png']],
  ['a{b:url( "x y.png" )}', ['x y.png']],
  ["a{b:URL('x')}", ['x']],
  ['a{b:url(x\\29 .png)}', ['x).png']],
  ['@import "a.css"; b{c:"not"}', ['a.css']],
  ['a{b:image-set("x.png" 1x, url(y.png) 2x)}', ['x.png', 'y.png']],
  ['a{b:src("x")}', ['x']],
  ['/* url(no) */ a{content:"url(no)"}', []],
])('%s points at %j', (css, references) => {
  expect(urlReferences(css).map((r) => r.reference)).toEqual(references);
});

test.each([
  ['../x.png', 'url(x.png)', 'url(../x.png)'],
  ['../x y.png', 'url(x.png)', 'url("../x y.png")'],
  ['../x.png', '"x.png"', '"../x.png"'],
  ["../it's.png", "'x'", "'../it\\'s.png'"],
])('%s in the form of %s is %s', (reference, original, printed) => {
  expect(printReference(reference, original)).toBe(printed);
});
