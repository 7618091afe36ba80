import { describe, expect, test } from '@jest/globals';
import { checkRows, page, row, type Row } from '../testing/proofRows.ts';
import { siteOf } from '../testing/siteOf.ts';
import { proveSites } from './proveSites.ts';

const inner = '<div class=x><p class=y>a <a href="#">l</a></p><ul><li>i</ul><table><tr><td>c</table></div>';
const rules = (one: string): Row['before'] => page(`<style>${one}</style>`, inner);
const same = (before: string, after: string): Row => row(`${before} = ${after}`, 'same', rules(before), rules(after));
const differs = (before: string, after: string, visible: boolean): Row =>
  row(`${before} ≠ ${after}`, 'differs', rules(before), rules(after), visible);

describe('equal by value is equal', () =>
  checkRows([
    same('.x { border: 1px solid #b9ced2 }', '.x { border: #B9CED2 solid 1px }'),
    same('.x { border: 1px solid red }', '.x { border-width: 1px; border-style: solid; border-color: red }'),
    same('.x { border: 1px solid red }', '.x { border: 2px solid blue; border-width: 1px; border-color: #f00 }'),
    same(
      '.x { border-left: 2px dotted }',
      '.x { border-left-width: 2px; border-left-style: dotted; border-left-color: currentColor }',
    ),
    same('.x { margin: 0 }', '.x { margin: 0 0 0 0 }'),
    same('.x { margin: 0 }', '.x { margin: 0px; }'),
    same('.x { margin: 1px 2px }', '.x { margin-top: 1px; margin-right: 2px; margin-bottom: 1px; margin-left: 2px }'),
    same('.x { background: #fff }', '.x { background-color: white }'),
    same('.x { background: red none }', '.x { background: red }'),
    same('.x { background: url(a.png) no-repeat }', '.x { background: no-repeat url("a.png") 0% 0% }'),
    same(
      '.y { font: 12px Arial }',
      '.y { font-size: 12px; font-family: Arial; line-height: normal; font-weight: 400; font-style: normal }'.replace(
        '400',
        'normal',
      ),
    ),
    same(".y { font-family: 'Courier New', serif }", '.y { font-family: Courier New, serif }'),
    same('.y { font-family: "Arial" }', '.y { font-family: Arial }'),
    same('a { text-decoration: none }', 'a { text-decoration-line: none }'),
    same('ul { list-style: none }', 'ul { list-style-type: none }'),
    same('ul { list-style: square inside }', 'ul { list-style: inside square }'),
    same('.x { overflow: hidden }', '.x { overflow-x: hidden; overflow-y: hidden }'),
    same('.x { gap: 1em }', '.x { gap: 1em 1em }'),
    same('.x { border-radius: 3px }', '.x { border-radius: 3px 3px 3px 3px }'),
    // what a state or a medium says again
    same('a { color: red } a:hover { color: red }', 'a { color: #f00 }'),
    same('a { color: red } @media print { a { color: red } }', 'a { color: red }'),
    same('.x { flex: 1 }', '.x { flex: 1 1 0% }'),
  ]));

const moving = (css: string): Row['before'] =>
  rules(`@keyframes k { from, to { list-style-position: inside } } .x { animation: k 1s infinite } ul { ${css} }`);
const list = (css: string): string => `<ul style="${css}"><li>i</ul>`;
const slotted = (css: string): Row['before'] =>
  page(
    '',
    `<div><template shadowrootmode=open><p style="list-style-position: inside"><slot></slot></p></template>${list(css)}</div>`,
  );
const scripted = (css: string): Row['before'] =>
  page('', `<div>${list(css)}</div><script>document.querySelector('div').style.listStylePosition = 'inside'</script>`);

const quirky = (css: string): Row['before'] => ({
  'index.html': `<title>t</title><style>li { ${css} }</style><div><li>i</div>`,
});

describe('what is nearly equal is not', () =>
  checkRows([
    // what is inherited may come from where no rule says it
    row('an animation around it', 'differs', moving('list-style: none'), moving('list-style-type: none'), true),
    row('a slot around it', 'differs', slotted('list-style: none'), slotted('list-style-type: none'), true),
    row('an item in quirks mode', 'differs', quirky('list-style: none'), quirky('list-style-type: none'), true),
    row('a script around it', 'differs', scripted('list-style: none'), scripted('list-style-type: none'), true),
    // the shorthand is dropped in standards mode, the first longhand is not
    differs('p { margin: 5px 6 }', 'p { margin-top: 5px; margin-right: 6; margin-bottom: 5px; margin-left: 6 }', true),
    differs(
      '.x { border-image: url(b.png) } div.x { border: 1px solid }',
      '.x { border-image: url(b.png) } div.x { border-width: 1px; border-style: solid; border-color: currentcolor }',
      true,
    ),
    differs(
      '.x { background-image: url(b.png) } div.x { background: red }',
      '.x { background-image: url(b.png) } div.x { background-color: red }',
      true,
    ),
    differs(
      'div { list-style-position: inside } ul { list-style: none }',
      'div { list-style-position: inside } ul { list-style-type: none }',
      true,
    ),
    differs(
      '.x { font-kerning: none } .y { font: 12px Arial }',
      '.x { font-kerning: none } .y { font-size: 12px; font-family: Arial; line-height: normal; font-weight: normal; font-style: normal }',
      true,
    ),
    differs('.y { font-family: serif }', '.y { font-family: "serif" }', true),
    differs('.y { font-family: Arial Black }', '.y { font-family: Arial, Black }', true),
    differs('.x { flex: 1 }', '.x { flex: 1 1 0px }', true),
    differs(
      'a { color: red } a:hover { color: blue } a:focus { color: red }',
      'a { color: red } a:hover { color: blue }',
      false,
    ),
    differs(
      'a { color: red } a:hover { color: red !important }',
      'a { color: red } a:hover { color: red } a { transition: color 1s }',
      true,
    ),
    differs(
      'a { text-decoration: underline red } a:hover { color: blue }',
      'a { text-decoration: underline } a:hover { color: blue }',
      true,
    ),
  ]));

const causes = (before: string, after: string): readonly string[] =>
  proveSites(siteOf(rules(before)), siteOf(rules(after))).pages[0]!.causes.map(
    (cause) => `${cause.property}: ${cause.before?.value ?? '-'} → ${cause.after?.value ?? '-'}. ${cause.reason}`,
  );

test.each([
  [
    '.x { border: 1px solid red }',
    '.x { border: 1px solid blue }',
    ['border-color: red → blue. `.x` in the embedded block, (0,1,0) says `blue` now; it said `red`.'],
  ],
  [
    '.x { border-left: 1px solid red }',
    '.x { border-left: 2px solid red }',
    ['border-left-width: 1px → 2px. `.x` in the embedded block, (0,1,0) says `2px` now; it said `1px`.'],
  ],
  [
    '.x { margin: 0 }',
    '.x { margin: 1px 2px }',
    ['margin: 0 → 1px 2px. `.x` in the embedded block, (0,1,0) says `1px 2px` now; it said `0`.'],
  ],
  [
    '.x { margin: 0 }',
    '.x { margin: 0 0 3px }',
    ['margin-bottom: 0 → 3px. `.x` in the embedded block, (0,1,0) says `3px` now; it said `0`.'],
  ],
  [
    '.y { font: 12px Arial }',
    '.y { font: 13px Arial }',
    ['font-size: 12px → 13px. `.y` in the embedded block, (0,1,0) says `13px` now; it said `12px`.'],
  ],
  [
    '.y { font: 12px Verdana, "Gill Sans", serif }',
    '.y { font: 12px Arial }',
    [
      'font-family: Verdana, "Gill Sans", serif → Arial. `.y` in the embedded block, (0,1,0) says `Arial` now; it said `Verdana, "Gill Sans", serif`.',
    ],
  ],
  [
    '.x { padding: 3px } .x { padding-top: 5px }',
    '.x { padding: 3px }',
    ['padding-top: 5px → 3px. `.x` in the embedded block, (0,1,0) says `3px` now; it said `5px`.'],
  ],
  [
    '.x { padding: 3px }',
    '.y { margin: 1px }',
    [
      "padding: 3px → -. `.x` in the embedded block, (0,1,0) does not reach this element any more; the browser's default applies now.",
      'margin: - → 1px. `.y` in the embedded block, (0,1,0) reaches this element now; nothing set margin here before.',
    ],
  ],
  [
    '.x { background: url(a.png), red }',
    '.x { background-color: blue }',
    [
      "background: url(a.png), red → -. `.x` in the embedded block, (0,1,0) does not set background any more; the browser's default applies now.",
      'background-color: url(a.png), red (as background) → blue. `.x` in the embedded block, (0,1,0) says `blue` now; it said `url(a.png), red (as background)`.',
    ],
  ],
  [
    'a { color: red !important } a { color: blue }',
    'a { color: red } a { color: blue }',
    ['color: red → blue. `a` in the embedded block, (0,0,1) says `blue` now; it said `red`.'],
  ],
])('%s → %s names what differs', (before, after, expected) => {
  expect(causes(before, after)).toEqual(expected);
});
