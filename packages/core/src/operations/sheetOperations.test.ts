import fs from 'node:fs';
import path from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { proveSites } from '../proof/proveSites.ts';
import { askChromium } from '../testing/chromium.ts';
import { pageOf, siteOf } from '../testing/siteOf.ts';
import { applyOperations, describeOperationProblem, type Operation } from './operation.ts';

type Files = Readonly<Record<string, string>>;

const after = (files: Files, operation: Operation): Files => {
  const applied = applyOperations(siteOf(files), [operation]);
  if (!applied.ok) throw new Error(describeOperationProblem(applied.problem.problem));
  return Object.fromEntries([...applied.value.site.files].map(([name, { text }]) => [name, text ?? '']));
};

/** What is there after, of the files that are not as before; null for those that are gone. */
const changed = (files: Files, operation: Operation): Readonly<Record<string, string | null>> => {
  const now = after(files, operation);
  const names = new Set([...Object.keys(files), ...Object.keys(now)]);
  return Object.fromEntries(
    [...names].filter((name) => files[name] !== now[name]).map((name) => [name, now[name] ?? null]),
  );
};

const sheet =
  '/* heads */\nh1 { color: red; margin: 0 }\n\n.note {\n  color: teal;\n}\n\nh2 { color: red; margin: 0 }\n\n@media print {\n  .note { display: none }\n}\n';
const page =
  '<!DOCTYPE html>\n<html><head><title>t</title>\n<link rel="stylesheet" href="css/s.css">\n</head>\n<body>\n<h1>A</h1><p class="note big">b<h2>C</h2>\n</body></html>\n';
const files: Files = { 'a.html': page, 'css/s.css': sheet };

describe('rules of a sheet: what is written, byte for byte', () => {
  test.each<readonly [string, Operation, string]>([
    // what it shows, operation, the sheet after
    ['a value in its place', { kind: 'change-rule', sheet: 'css/s.css', rule: { selector: '.note' }, set: [{ property: 'color', value: 'navy' }] }, sheet.replace('teal', 'navy')],
    ['a property more, as the author writes', { kind: 'change-rule', sheet: 'css/s.css', rule: { selector: '.note' }, set: [{ property: 'top', value: '0', important: true }] }, sheet.replace('teal;\n', 'teal;\n  top: 0 !important;\n')],
    ['a property more on one line', { kind: 'change-rule', sheet: 'css/s.css', rule: { selector: 'h1' }, set: [{ property: 'top', value: '0' }] }, sheet.replace('h1 { color: red; margin: 0 }', 'h1 { color: red; margin: 0; top: 0 }')],
    ['a property out', { kind: 'change-rule', sheet: 'css/s.css', rule: { selector: 'h1' }, drop: ['color'] }, sheet.replace('h1 { color: red; margin', 'h1 { margin')],
    ['other selectors', { kind: 'change-rule', sheet: 'css/s.css', rule: { selector: '.note' }, selector: '.note, .tip' }, sheet.replace('.note {\n', '.note, .tip {\n')],
    ['inside an at-rule', { kind: 'change-rule', sheet: 'css/s.css', rule: { selector: '.note', under: ['@media print'] }, set: [{ property: 'display', value: 'block' }] }, sheet.replace('none', 'block')],
    ['a new rule at the end', { kind: 'add-rule', sheet: 'css/s.css', selector: 'p', declarations: [{ property: 'top', value: '0' }] }, `${sheet}p { top: 0; }\n`],
    ['a new rule before another and its comment', { kind: 'add-rule', sheet: 'css/s.css', selector: 'p', declarations: [{ property: 'top', value: '0' }], before: { selector: 'h1' } }, `p { top: 0; }\n${sheet}`],
    ['a rule out, with its comment', { kind: 'delete-rules', sheet: 'css/s.css', rules: [{ selector: 'h1' }] }, sheet.slice(sheet.indexOf('.note {'))],
    ['a rule kept as a comment', { kind: 'delete-rules', sheet: 'css/s.css', rules: [{ selector: 'h2' }], keep: 'comment' }, sheet.replace('h2 { color: red; margin: 0 }', '/* h2 { color: red; margin: 0 } */')],
    ['before another rule', { kind: 'move-rules', sheet: 'css/s.css', rules: [{ selector: 'h2' }], to: 'css/s.css', before: { selector: 'h1' } }, `h2 { color: red; margin: 0 }\n${sheet.replace('h2 { color: red; margin: 0 }\n\n', '')}`],
    ['equal rules become one', { kind: 'group-rules', sheet: 'css/s.css' }, 'NOT GROUPED'],
    ['a rule parted', { kind: 'split-rule', sheet: 'css/s.css', rule: { selector: 'h1' } }, 'ONE SELECTOR'],
  ])('%s', (_shows, operation, wanted) => {
    // .note says color between the two: these cannot be grouped
    if (wanted === 'NOT GROUPED') expect(() => after(files, operation)).toThrow('has no equal rules');
    else if (wanted === 'ONE SELECTOR') expect(() => after(files, operation)).toThrow('nothing to part');
    else expect(changed(files, operation)).toEqual({ 'css/s.css': wanted });
  });

  test.each<readonly [string, string, Operation, string]>([
    ['grouped', 'h1 { top: 0 }\np { color: red }\nh2 { TOP: 0px; }\n', { kind: 'group-rules', sheet: 'css/s.css' }, 'h1, h2 { top: 0 }\np { color: red }\n'],
    ['parted', 'h1,\nh2 > :is(a, b) { top: 0 }\n', { kind: 'split-rule', sheet: 'css/s.css', rule: { selector: 'h1, h2 > :is(a, b)' } }, 'h1 { top: 0 }\nh2 > :is(a, b) { top: 0 }\n'],
    ['what is said twice', 'p { top: 0; top: 1px }\nb { left: 0 }\nb { left: 0 }\n', { kind: 'drop-duplicates', sheet: 'css/s.css' }, 'p { top: 1px }\nb { left: 0 }\n'],
    ['a comment that is a rule again', '/* p { top: 0 } */\n', { kind: 'comment-in', sheet: 'css/s.css', selector: 'p' }, 'p { top: 0 }\n'],
    ['CRLF and tabs', 'p {\r\n\ttop: 0;\r\n}\r\n', { kind: 'change-rule', sheet: 'css/s.css', rule: { selector: 'p' }, set: [{ property: 'left', value: '0' }] }, 'p {\r\n\ttop: 0;\r\n\tleft: 0;\r\n}\r\n'],
    ['an empty rule', 'p {}\n', { kind: 'change-rule', sheet: 'css/s.css', rule: { selector: 'p' }, set: [{ property: 'left', value: '0' }] }, 'p { left: 0; }\n'],
    ['a colour by one name in one place', '@import "x.css";\nh1 { color: #0B5563; border: 1px solid #0b5563 }\n.teal { background: url(a.png) #0b5563; --x: #0b5563 }\n', { kind: 'values-to-properties', sheet: 'css/s.css', values: [{ value: '#0b5563', name: '--sea' }] }, '@import "x.css";\n\n:root {\n  --sea: #0b5563;\n}\nh1 { color: var(--sea); border: 1px solid var(--sea) }\n.teal { background: url(a.png) var(--sea); --x: #0b5563 }\n'],
    ['fonts by a name', 'h1 { font-family: Georgia, serif }\nb { font-family: Georgia,serif }\n', { kind: 'values-to-properties', sheet: 'css/s.css', values: [{ value: 'Georgia, serif', name: '--text' }] }, ':root {\n  --text: Georgia, serif;\n}\n\nh1 { font-family: var(--text) }\nb { font-family: var(--text) }\n'],
    ['colours as #rrggbb', 'h1 { color: Teal; border: 1px solid rgb(0, 128, 128); content: "teal"; animation: teal 1s; color: rgb(0 0 0 / 0.3); background: transparent }\n', { kind: 'colour-notation', sheet: 'css/s.css', to: 'hex' }, 'h1 { color: #008080; border: 1px solid #008080; content: "teal"; animation: teal 1s; color: rgb(0 0 0 / 0.3); background: transparent }\n'],
    ['colours as rgb()', 'h1 { color: #fff; background: #0008 }\n', { kind: 'colour-notation', sheet: 'css/s.css', to: 'rgb' }, 'h1 { color: rgb(255, 255, 255); background: #0008 }\n'],
    ['rules no page has an element for', 'h1 { top: 0 }\n/* old */\n.gone { top: 0 }\n.note:hover b { top: 0 }\n@media print {\n  .far, .note { top: 0 }\n  h3 { top: 0 }\n}\n', { kind: 'drop-unused', sheet: 'css/s.css' }, 'h1 { top: 0 }\n@media print {\n  .far, .note { top: 0 }\n}\n'],
    ['what never wins', 'h1 { top: 0; left: 0 }\nh1 { top: 1px; margin-top: 2px }\nbody h1 { margin: 0 }\n.note { color: red; color: teal }\n.note:hover { color: blue }\n@media print { .note { color: black } }\np.note { color: red }\n.gone { top: 0 }\nh1 { top: 2px !important }\n', { kind: 'drop-beaten', sheet: 'css/s.css' }, 'h1 { left: 0 }\nbody h1 { margin: 0 }\n.note:hover { color: blue }\np.note { color: red }\n.gone { top: 0 }\nh1 { top: 2px !important }\n'],
    ['sorted where order decides nothing', '.b { top: 0 }\n/* all */\np { top: 0 }\n.a { left: 0; color: red }\n\nh1 { top: 0 }\n\n/* Part two */\n\n.z { top: 0 }\n.b { color: blue }\n@media print { .y { top: 0 } b { top: 0 } }\n#i { top: 0 } body { top: 0 }\n', { kind: 'sort-rules', sheet: 'css/s.css' }, 'h1 { top: 0 }\n/* all */\np { top: 0 }\n.a { left: 0; color: red }\n\n.b { top: 0 }\n\n/* Part two */\n\n.b { color: blue }\n.z { top: 0 }\n@media print { b { top: 0 } .y { top: 0 } }\nbody { top: 0 } #i { top: 0 }\n'],
    ['what may decide the same keeps its order', '.b { top: 1px }\n.a { top: 0 }\np { top: 2px }\n', { kind: 'sort-rules', sheet: 'css/s.css' }, 'p { top: 2px }\n.b { top: 1px }\n.a { top: 0 }\n'],
    ['near colours become one', 'h1 { color: #0b5563; border: 1px solid #0B5564 }\n.b { background: #0b5564 }\n', { kind: 'unite-values', sheet: 'css/s.css', values: ['#0b5564'], to: '#0b5563' }, 'h1 { color: #0b5563; border: 1px solid #0b5563 }\n.b { background: #0b5563 }\n'],
    ['sizes of one property', 'h1 { padding: 11px 2em; top: 11px }\n', { kind: 'unite-values', sheet: 'css/s.css', values: ['11px'], to: '12px', property: 'padding' }, 'h1 { padding: 12px 2em; top: 11px }\n'],
    ['kept as comments', 'h1 { top: 0 }\n.gone { top: 0 }\n', { kind: 'drop-unused', sheet: 'css/s.css', keep: 'comment' }, 'h1 { top: 0 }\n/* .gone { top: 0 } */\n'],
    ['a sheet that is not closed', 'p { top: 0', { kind: 'add-rule', sheet: 'css/s.css', selector: 'b', declarations: [{ property: 'top', value: '0' }] }, 'p { top: 0}\nb {\n  top: 0;\n}\n'],
  ])('%s', (_shows, text, operation, wanted) => {
    expect(changed({ ...files, 'css/s.css': text }, operation)).toEqual({ 'css/s.css': wanted });
  });
}); // oxfmt-ignore

describe('whole sheets', () => {
  const linked = (...names: string[]) => pageOf(names.map((name) => `<link rel="stylesheet" href="${name}">`).join('\n'), '<p class="note">x');

  test('a sheet that is sorted is told so', () => {
    expect(() => after({ 's.css': 'h1 { top: 0 }\n.a { top: 0 }\n' }, { kind: 'sort-rules', sheet: 's.css' })).toThrow('stand in order');
  });

  test("one page's rules out of a shared sheet, and back", () => {
    const two = { 'a.html': linked('s.css'), 'n/b.html': pageOf('<link rel="stylesheet" href="../s.css">\n<style>i { top: 0 }</style>', '<p><b>x'), 's.css': 'p { top: 0 }\n/* bold */\nb { left: 0 }\n@media print {\n  b { top: 0 }\n}\ni { top: 0 }\n' };
    const parted = after(two, { kind: 'part-page', sheet: 's.css', page: 'n/b.html', to: 'n/b.css' });
    expect(parted['s.css']).toBe('p { top: 0 }\ni { top: 0 }\n');
    expect(parted['n/b.css']).toBe('/* bold */\nb { left: 0 }\n@media print {\nb { top: 0 }\n}\n');
    expect(parted['n/b.html']).toContain('<link rel="stylesheet" href="../s.css">\n<link rel="stylesheet" href="b.css">\n<style>');
    expect(proveSites(siteOf(two), siteOf(parted as Record<string, string>)).verdict).toBe('same');
    const back = after(parted, { kind: 'merge-sheets', sheet: 'n/b.css', into: 's.css' });
    expect(back['n/b.html']).toBe(two['n/b.html']);
    expect(proveSites(siteOf(two), siteOf(back as Record<string, string>)).verdict).toBe('same');
  });

  test('a new one, linked; deleted again nothing is left of it', () => {
    const made = after(files, { kind: 'new-sheet', sheet: 'css/new', text: 'p { top: 0 }\n', pages: ['a.html'] });
    expect(made['css/new.css']).toBe('p { top: 0 }\n');
    expect(made['a.html']).toContain('<link rel="stylesheet" href="css/s.css">\n<link rel="stylesheet" href="css/new.css">\n');
    expect(after(made, { kind: 'delete-sheet', sheet: 'css/new.css' })).toEqual(files);
  });

  test('deleted with its imports', () => {
    const there = { 'a.html': linked('a.css'), 'a.css': '@import "b.css";\np { top: 0 }\n', 'b.css': 'b { top: 0 }' };
    expect(changed(there, { kind: 'delete-sheet', sheet: 'b.css' })).toEqual({ 'a.css': 'p { top: 0 }\n', 'b.css': null });
  });

  test('parted at a rule: links and imports follow, addresses count from the new folder', () => {
    const there = {
      'a.html': linked('css/s.css').replace('<link rel="stylesheet"', '<link rel="stylesheet" media="screen"'),
      'b.html': pageOf('<style>@import "css/s.css" print;</style>', '<p>x'),
      'css/s.css': 'p { top: 0 }\n\n/* pictures */\n.pic { background: url(../img/x.png) }\n',
      'img/x.png': '',
    };
    const parted = changed(there, { kind: 'split-sheet', sheet: 'css/s.css', from: { selector: '.pic' }, to: 'pictures.css' });
    expect(parted['css/s.css']).toBe('p { top: 0 }\n\n');
    expect(parted['pictures.css']).toBe('/* pictures */\n.pic { background: url(img/x.png) }\n');
    expect(parted['a.html']).toContain('<link rel="stylesheet" media="screen" href="css/s.css">\n<link rel="stylesheet" media="screen" href="pictures.css">');
    expect(parted['b.html']).toContain('@import "css/s.css" print;@import "pictures.css" print;');
    expect(proveSites(siteOf(there), siteOf(after(there, { kind: 'split-sheet', sheet: 'css/s.css', from: { selector: '.pic' }, to: 'pictures.css' }))).verdict).toBe('same');
  });

  test.each([
    ['at its end where it is linked behind', ['a.css', 'b.css'], 'p { top: 0 }\nb { top: 0 }\n'],
    ['at its start where it is linked before', ['b.css', 'a.css'], 'b { top: 0 }\np { top: 0 }\n'],
  ])('put into another, %s', (_shows, names, wanted) => {
    const there = { 'a.html': linked(...names), 'a.css': 'p { top: 0 }\n', 'b.css': '@charset "utf-8";\nb { top: 0 }\n' };
    const merged = after(there, { kind: 'merge-sheets', sheet: 'b.css', into: 'a.css' });
    expect(merged).toEqual({ 'a.html': linked('a.css'), 'a.css': wanted });
  });

  test('put into another for its medium; a page that had only this one gets the other', () => {
    const there = { 'a.html': linked('a.css').replace('</head>', '<link rel="stylesheet" media="print" href="b.css">\n</head>'), 'b.html': linked('b.css').replace('sheet"', 'sheet" media="print"'), 'a.css': 'p { top: 0 }', 'b.css': 'b { top: 0 }' };
    const merged = after(there, { kind: 'merge-sheets', sheet: 'b.css', into: 'a.css' });
    expect(merged['a.css']).toBe('p { top: 0 }\n@media print {\nb { top: 0 }\n}\n');
    expect(merged['b.html']).toContain('media="print" href="a.css"');
  });

  test('put into another where blocks import it: the import goes, or leads to the other', () => {
    const there = { 'a.html': pageOf('<style>@import "a.css";\n@import "b.css";</style>', ''), 'b.html': pageOf('<style>@import "b.css";</style>', ''), 'a.css': 'p { top: 0 }\n', 'b.css': 'b { top: 0 }\n' };
    const merged = after(there, { kind: 'merge-sheets', sheet: 'b.css', into: 'a.css' });
    expect(merged['a.html']).toContain('<style>@import "a.css";\n</style>');
    expect(merged['b.html']).toContain('<style>@import "a.css";</style>');
    expect(() => after({ ...there, 'b.html': pageOf('<style>@import "b.css" print;</style>', '') }, { kind: 'merge-sheets', sheet: 'b.css', into: 'a.css' })).toThrow('under a condition');
  });

  test('rules go to another sheet with comments, at-rules and addresses', () => {
    const there = { 'a.html': linked('css/a.css', 'b.css'), 'css/a.css': 'p { top: 0 }\n/* ropes */\n@media print {\n  .rope { background: url(../r.png) }\n}\n', 'b.css': 'b { top: 0 }\n', 'r.png': '' };
    const moved = changed(there, { kind: 'move-rules', sheet: 'css/a.css', rules: [{ selector: '.rope', under: ['@media print'] }], to: 'b.css' });
    expect(moved['b.css']).toBe('b { top: 0 }\n/* ropes */\n@media print {\n.rope { background: url(r.png) }\n}\n');
    expect(moved['css/a.css']).toBe('p { top: 0 }\n');
  });
}); // oxfmt-ignore

describe('refusals say what is wrong and what is allowed', () => {
  test.each<readonly [string, Operation, string]>([
    ['no such rule', { kind: 'delete-rules', sheet: 'css/s.css', rules: [{ selector: '.gone' }] }, 'has no rule .gone there'],
    ['no such sheet', { kind: 'group-rules', sheet: 'x.css' }, 'There is no sheet x.css'],
    ['a selector', { kind: 'add-rule', sheet: 'css/s.css', selector: 'h1,', declarations: [{ property: 'top', value: '0' }] }, 'Browsers cannot read the selector h1,'],
    ['a value that breaks out', { kind: 'change-rule', sheet: 'css/s.css', rule: { selector: 'h1' }, set: [{ property: 'top', value: '0 } b { left: 0' }] }, 'would end the rule'],
    ['parted inside an at-rule', { kind: 'split-sheet', sheet: 'css/s.css', from: { selector: '.note', under: ['@media print'] }, to: 'x.css' }, 'stands inside an at-rule'],
    ['parted into what is there', { kind: 'split-sheet', sheet: 'css/s.css', from: { selector: 'h2' }, to: 'css/s.css' }, 'is there already'],
    ['a name that is there', { kind: 'new-sheet', sheet: 'css/s.css', text: '' }, 'is there already'],
    ['into itself', { kind: 'merge-sheets', sheet: 'css/s.css', into: 'css/s.css' }, 'it is the same sheet'],
    ['a class with a space', { kind: 'rename-name', of: 'class', from: 'note', to: 'big note' }, 'holds a space'],
    ['a class that begins with a digit', { kind: 'rename-name', of: 'class', from: 'note', to: '2nd' }, 'a letter first'],
    ['a class that is there', { kind: 'rename-name', of: 'class', from: 'note', to: 'big' }, '.big is there already, in a.html'],
    ['a class nobody has', { kind: 'rename-name', of: 'class', from: 'nowhere', to: 'x' }, 'No page and no sheet has the class nowhere'],
    ['a property without dashes', { kind: 'rename-name', of: 'custom-property', from: '--a', to: 'b' }, 'two dashes'],
    ['a value that would be dropped', { kind: 'unite-values', sheet: 'css/s.css', values: ['red'], to: '12px' }, 'color does not take 12px'],
    ['a value that breaks out', { kind: 'unite-values', sheet: 'css/s.css', values: ['red'], to: 'red } b {' }, 'would end the rule'],
    ['no rules of one page', { kind: 'part-page', sheet: 'css/s.css', page: 'b.html', to: 'css/b.css' }, 'no rule that only b.html'],
    ['a part where a file is', { kind: 'part-page', sheet: 'css/s.css', page: 'a.html', to: 'css/s.css' }, 'is there already'],
    ['nothing beaten', { kind: 'drop-beaten', sheet: 'css/s.css' }, 'Everything css/s.css says wins'],
    ['nothing unused', { kind: 'drop-unused', sheet: 'css/s.css' }, 'Every rule of css/s.css has an element'],
    ['a name without dashes', { kind: 'values-to-properties', sheet: 'css/s.css', values: [{ value: 'red', name: 'brand' }] }, 'such as --brand'],
    ['a value nobody says', { kind: 'values-to-properties', sheet: 'css/s.css', values: [{ value: '#123456', name: '--brand' }] }, 'No style rule of the sheet says #123456'],
    ['an element that is gone', { kind: 'give-class', name: 'x', elements: [{ page: 'a.html', element: 'html>body:nth-child(9)' }] }, 'Pick it again'],
    ['a class they all have', { kind: 'give-class', name: 'note', selector: '.note' }, 'No element is chosen that lacks the class note'],
    ['a class none of them has', { kind: 'give-class', name: 'x', take: true, selector: 'p' }, 'None of these elements has the class x'],
  ])('%s', (_shows, operation, sentence) => {
    expect(() => after(files, operation)).toThrow(sentence);
  });
}); // oxfmt-ignore

describe('names over sheets and pages', () => {
  test.each<readonly [string, Operation, Files, Files]>([
    [
      'a class: selectors, inside functions and attributes, elements',
      { kind: 'rename-name', of: 'class', from: 'note', to: 'remark' },
      { 'a.html': pageOf('<style>p:not(.note), [class~="note"] { top: 0 }</style>', '<p class=" big\tnote notes"><b class=note>'), 's.css': '.note > .notes, :is(.a, .note)::before { content: ".note" }\n#note {}' },
      { 'a.html': pageOf('<style>p:not(.remark), [class~="remark"] { top: 0 }</style>', '<p class=" big\tremark notes"><b class=remark>'), 's.css': '.remark > .notes, :is(.a, .remark)::before { content: ".note" }\n#note {}' },
    ],
    [
      'an ID: labels, fragments on all pages, ARIA, drawings',
      { kind: 'rename-name', of: 'id', from: 'top', to: 'start' },
      { 'a.html': pageOf('', '<h1 id="top">x</h1><a href="#top">up</a><label for=top>l</label><i aria-labelledby="x top">y</i><svg><rect fill="url(#top)"/></svg>'), 'd/b.html': pageOf('', '<a href="../a.html#top">a</a><a href="#top">none here</a><a href="c.html#top">c</a>'), 's.css': '#top, a[href="#top"] { top: 0 }' },
      { 'a.html': pageOf('', '<h1 id="start">x</h1><a href="#start">up</a><label for=start>l</label><i aria-labelledby="x start">y</i><svg><rect fill="url(#start)"/></svg>'), 'd/b.html': pageOf('', '<a href="../a.html#start">a</a><a href="#top">none here</a><a href="c.html#top">c</a>'), 's.css': '#start, a[href="#top"] { top: 0 }' },
    ],
    [
      'a custom property: declarations, var(), style attributes',
      { kind: 'rename-name', of: 'custom-property', from: '--sea', to: '--water' },
      { 'a.html': pageOf('<style>p { color: var(--sea, red) }</style>', '<p style="--sea: &quot;x&quot;; top: calc(var(--sea) * 1)">'), 's.css': ':root { --sea: teal; --seaside: navy }\n/* --sea */' },
      { 'a.html': pageOf('<style>p { color: var(--water, red) }</style>', '<p style="--water: &quot;x&quot;; top: calc(var(--water) * 1)">'), 's.css': ':root { --water: teal; --seaside: navy }\n/* --sea */' },
    ],
    [
      'a class given by selector and by hand',
      { kind: 'give-class', name: 'lead', selector: 'h1 + p', elements: [{ page: 'a.html', element: 'html>body:nth-child(2)>h1:nth-child(1)' }] },
      { 'a.html': pageOf('', "<H1>x</H1><p class='a'>y<p>z"), 'b.html': pageOf('', '<h1 class>x</h1><p class=a>y') },
      { 'a.html': pageOf('', '<H1 CLASS="lead">x</H1><p class=\'a lead\'>y<p>z'), 'b.html': pageOf('', '<h1 class>x</h1><p class="a lead">y') },
    ],
    [
      'a class taken',
      { kind: 'give-class', name: 'a', take: true, selector: 'p' },
      { 'a.html': pageOf('', '<p class="a">x<p class="a b">y<p class="b  a c">z<p class=b>n') },
      { 'a.html': pageOf('', '<p>x<p class="b">y<p class="b c">z<p class=b>n') },
    ],
  ])('%s', (_shows, operation, before, wanted) => {
    expect(after(before, operation)).toEqual(wanted);
  });

  test('a rule for what a script may make is needed', () => {
    const made = { 'a.html': page.replace('</body>', '<script>var p = document.createElement("p"); p.className = "late"; document.body.append(p)</script></body>'), 'css/s.css': 'p.late { top: 0 }\n.gone { top: 0 }\n' };
    expect(changed(made, { kind: 'drop-unused', sheet: 'css/s.css' })).toEqual({ 'css/s.css': 'p.late { top: 0 }\n' });
  });

  test('a script that says the name is named as a risk', () => {
    const there = { 'a.html': pageOf('<script>document.querySelector(".note").hidden = true</script>', '<p class="note">x') };
    const applied = applyOperations(siteOf(there), [{ kind: 'rename-name', of: 'class', from: 'note', to: 'remark' }]);
    expect(applied.ok && applied.value.steps[0]!.sentence).toContain('Scripts of a.html say note as well');
  });
}); // oxfmt-ignore

const root = path.join(import.meta.dirname, '../../../../demo');
const demo = Object.fromEntries(
  fs
    .readdirSync(root, { recursive: true, encoding: 'utf8' })
    .filter((name) => fs.statSync(path.join(root, name)).isFile())
    .map((name) => [name.replaceAll('\\', '/'), fs.readFileSync(path.join(root, name))]),
);

describe('on the demo the look stays', () => {
  const site = siteOf(demo);
  const operations: readonly (readonly [string, Operation])[] = [
    ['grouped', { kind: 'group-rules', sheet: 'css/booking.css' }],
    ['duplicates dropped', { kind: 'drop-duplicates', sheet: 'css/site.css' }],
    ['a sheet parted', { kind: 'split-sheet', sheet: 'css/base.css', from: { selector: 'h1' }, to: 'css/heads.css' }],
    ['a class renamed', { kind: 'rename-name', of: 'class', from: 'notice', to: 'bulletin' }],
    ['an ID renamed', { kind: 'rename-name', of: 'id', from: 'banner', to: 'masthead' }],
    [
      'colours by name',
      { kind: 'values-to-properties', sheet: 'css/booking.css', values: [{ value: '#0b5563', name: '--sea' }] },
    ],
    ['colours in one notation', { kind: 'colour-notation', sheet: 'css/base.css', to: 'rgb' }],
    ['sorted', { kind: 'sort-rules', sheet: 'css/base.css' }],
    ['what never wins dropped', { kind: 'drop-beaten', sheet: 'css/site.css' }],
    ['what no page needs dropped', { kind: 'drop-unused', sheet: 'css/site.css' }],
    ['a sheet renamed', { kind: 'rename-sheet', sheet: 'css/site.css', to: 'styles/main.css' }],
  ];

  test.each(operations)('as the proof says: %s', (_shows, operation) => {
    const applied = applyOperations(site, [operation]);
    if (!applied.ok) {
      // nothing of the kind is there to do
      expect(applied.problem.problem.kind).toMatch(/^nothing-/);
      return;
    }
    const proof = proveSites(site, applied.value.site);
    expect(
      proof.pages
        .filter(({ verdict }) => verdict !== 'same')
        .map(({ path, notes, causes, doubts }) => ({ path, notes, causes: causes.slice(0, 1), doubts })),
    ).toEqual([]);
  });

  /** All computed values of all elements and of what stands before and after them. */
  const look = `[...document.querySelectorAll('body, body *')].map((e) => ['', '::before', '::after'].map((p) => { const s = getComputedStyle(e, p); return [...s].filter((n) => !n.startsWith('--')).map((n) => s.getPropertyValue(n)).join('|'); }).join('//'))`;

  test('as Chromium computes it', async () => {
    const pages = ['booking.html', 'index.html', 'islands/hesk.html'];
    const seen: Operation = {
      kind: 'add-rule',
      sheet: 'css/base.css',
      selector: 'p',
      declarations: [{ property: 'letter-spacing', value: '3px', important: true }],
    };
    const after = [...operations.map(([, operation]) => operation), seen].flatMap((operation) => {
      const applied = applyOperations(site, [operation]);
      return applied.ok ? [applied.value.site] : [];
    });
    const states = [site, ...after];
    const textsOf = ({ files }: typeof site) =>
      Object.fromEntries(
        [...files.values()].flatMap(({ path: name, kind, text }) =>
          kind === 'sheet' && text !== undefined ? [[name, text] as const] : [],
        ),
      );
    const answers = await askChromium(
      states.flatMap((state) =>
        pages.map((page) => ({ html: state.files.get(page)!.text!, path: page, files: textsOf(state), ask: look })),
      ),
    );
    expect(states.length).toBeGreaterThan(6);
    expect((answers[0] as string[]).length).toBeGreaterThan(20);
    answers.slice(0, -pages.length).forEach((answer, i) => expect(answer).toEqual(answers[i % pages.length]));
    // and it would be seen
    expect(answers.at(-pages.length)).not.toEqual(answers[0]);
  });
});
