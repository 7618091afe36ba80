import { describe } from '@jest/globals';
import { link, pages, style, type CheckCase } from '../testing/checkCases.ts';
import { checkCases } from '../testing/runCheckCases.ts';
import { pageOf } from '../testing/siteOf.ts';

const bytes = (...list: (string | number)[]): Uint8Array =>
  Uint8Array.from(list.flatMap((one) => (typeof one === 'number' ? [one] : [...one].map((c) => c.charCodeAt(0)))));
const linked = (css: string | Uint8Array) => ({ 'a.html': pageOf(link('s.css'), '<p>x'), 's.css': css });

const cases: Readonly<Record<string, readonly CheckCase[]>> = {
  'markup-in-sheet': [
    [
      'the tags came along; in a comment or a string they do no harm',
      linked('<style type="text/css">\np { color: red }\n</style>\n'),
      '`s.css` holds `<style type="text/css">`, which is page markup; the rule after it is lost',
      linked('/* out of <style> */ p::before { content: "<style>" } a > b { top: 0 } <!-- p{} -->'),
    ],
    [
      'a doctype',
      linked('<!DOCTYPE html>\np { color: red }'),
      '`s.css` holds `<!DOCTYPE html>`, which is page markup; the rule after it is lost',
      linked('a<b{} p{top:0}'),
    ],
  ],
  'empty-sheet': [
    [
      'linked and empty',
      linked('/* soon */'),
      '`s.css` is linked by a page and holds no rule',
      linked('@font-face { font-family: x; src: url(x.woff) }'),
    ],
  ],
  'unlinked-sheet': [
    [
      'nobody links it; imported counts',
      { 'a.html': pageOf('', ''), 's.css': 'p{}' },
      'No page links `s.css`',
      { 'a.html': pageOf(link('t.css'), ''), 't.css': '@import "s.css";', 's.css': 'p{}' },
    ],
  ],
  'sheet-charset': [
    [
      'UTF-8 read by a page in windows-1252; only ASCII reads alike',
      { ...linked('p::before { content: "é" }'), 'a.html': pageOf(`<meta charset=windows-1252>${link('s.css')}`, '') },
      '`s.css` is written in utf-8 and does not say so; a page reads it as windows-1252',
      { ...linked('p::before { content: "e" }'), 'a.html': pageOf(`<meta charset=windows-1252>${link('s.css')}`, '') },
    ],
    [
      'not the encoding it says',
      linked(bytes('@charset "utf-8"; p::before{content:"', 0xe9, '"}')),
      '`s.css` says it is utf-8, and is not',
      linked(bytes('@charset "windows-1252"; p::before{content:"', 0xe9, '"}')),
    ],
  ],
  'opaque-file': [
    [
      'bytes that are no text in the page’s encoding',
      { 'a.html': bytes('<meta charset=utf-8><p>', 0xe9, '</p>') },
      '`a.html` does not encode back to the same bytes as utf-8: kept as they are, never edited',
      { 'a.html': bytes('<meta charset=windows-1252><p>', 0xe9, '</p>') },
    ],
  ],
  'file-name': [
    [
      'a space',
      { 'a.html': pageOf('', ''), 'img/Harbour Map.png': '' },
      '`img/Harbour Map.png` has a space in its name; servers and links often part it there',
      { 'a.html': pageOf('', ''), 'img/HarbourMap.png': '' },
    ],
    [
      'two names, one file',
      { 'a.html': pageOf('', ''), 'x.png': '', 'X.png': '' },
      '`X.png` and `x.png` differs from it in capitals only; on many computers they are one file',
      { 'a.html': pageOf('', ''), 'x.png': '', 'n/X.png': '' },
    ],
    [
      'a character that means something in an address',
      { 'a.html': pageOf('', ''), 'a#1.png': '' },
      '`a#1.png` has `#` in its name, which means something else in an address',
      { 'a.html': pageOf('', ''), 'a_1~(2).png': '' },
    ],
  ],
  'reference-missing': [
    [
      'still counted from the pages’ folder',
      {
        'a.html': pageOf(link('css/s.css'), ''),
        'css/s.css': 'p{background:url("img/x.png") no-repeat}',
        'img/x.png': '',
      },
      '`css/s.css` asks for `url(img/x.png)`, counted from the pages’ folder; from the sheet’s there is no such file',
      {
        'a.html': pageOf(link('css/s.css'), ''),
        'css/s.css': 'p{background:url("../img/x.png?v=2#a"),url(data:,x),url(#f),url(//h/x.png)}',
        'img/x.png': '',
      },
    ],
    [
      'in a page, and no file of that name at all',
      { 'a.html': pageOf(style('p{background:url(gone.png)}'), '') },
      '`a` asks for `url(gone.png)`, and there is no such file',
      { 'a.html': pageOf('<style type="text/plain">p{background:url(gone.png)}</style>', '') },
    ],
    [
      'in a style attribute',
      { 'n/a.html': pageOf('', '<p style="background:url(x.png)">'), 'x.png': '' },
      '`n/a` asks for `url(x.png)`, and there is no such file; `x.png` is there',
      { 'n/a.html': pageOf('', '<p style="background:url(../x.png)">'), 'x.png': '' },
    ],
  ],
  'reference-wrong-case': [
    [
      'other capitals',
      { 'a.html': pageOf(style('p{background:url(IMG/x.png)}'), ''), 'img/x.png': '' },
      '`a` asks for `url(IMG/x.png)`, but the file is `img/x.png`, another name on most servers',
      { 'a.html': pageOf(style('p{background:URL(img/x.png)}'), ''), 'img/x.png': '' },
    ],
  ],
  'unknown-property': [
    [
      'a slip of the pen; names for other browsers are none',
      { 'a.html': pageOf(style('p{backgroud-color:red}'), '') },
      '`a` says `backgroud-color`, which does nothing; `background-color` is a property',
      {
        'a.html': pageOf(
          style(
            'p{-moz-border-radius:1px;*zoom:1;_height:1px;--backgroud:red;scrollbar-face-color:red}@font-face{font-display:swap;src:url(x)}',
          ),
          '',
        ),
      },
    ],
    [
      'no property is near',
      { 'a.html': pageOf(style('p{sparkle:yes}'), '') },
      '`a` says `sparkle`, which no browser knows',
      { 'a.html': pageOf(style('/* sparkle: yes */'), '') },
    ],
  ],
  'invalid-value': [
    [
      'a keyword misspelt; a value for other browsers beside one for all',
      { 'a.html': pageOf(style('p{text-align:centre}'), '') },
      '`a` says `text-align: centre`, which browsers drop; `center` is right',
      { 'a.html': pageOf(style('p{text-align:-moz-center;width:expression(1);display:-ms-grid;width:calc(1px*}'), '') },
    ],
    [
      'a length without a unit; on a page in quirks mode it counts',
      { 'a.html': pageOf(style('p{width:300}'), '') },
      '`a` says `width: 300`, which browsers drop; `300px` is right',
      { 'a.html': '<style>p{width:300;line-height:2;margin:0}</style>' },
    ],
    [
      'in a sheet',
      linked('p{color:gren}'),
      '`s.css` says `color: gren`, which browsers drop; `green` is right',
      linked('p{color:GREEN;color:gren}'),
    ],
  ],
  'no-generic-font': [
    [
      'a list and a shorthand; keywords and generic names end well',
      { 'a.html': pageOf(style('p{font:13px Verdana, "DejaVu Sans"}q{font-family:Georgia}'), '') },
      '`a` has a font list without a generic end',
      {
        'a.html': pageOf(
          style(
            'p{font:13px Verdana, sans-serif}q{font-family:inherit}b{font:caption}i{font-family:monospace}@font-face{font-family:Own;src:url(x)}u{font-family:var(--f)}',
          ),
          '',
        ),
      },
    ],
    [
      'twice in one sheet',
      linked('p{font-family:Georgia}q{font:13px Verdana}'),
      '`s.css` has a font list without a generic end',
      linked('p{font-family:Georgia, serif}q{font:13px Verdana, sans-serif}'),
    ],
  ],
  'hidden-declaration': [
    [
      'said twice',
      linked('p { color: red; top: 0; color: blue }'),
      '`s.css` says `color: red` and then `color: blue` in one rule; the first never counts',
      linked('p { color: red; color: rgb(0 0 0 / 50%); display: block; display: grid; height: 100px; height: 50vh }'),
    ],
    [
      'a longhand before its shorthand; after it, it counts',
      linked('p { margin-top: 1px; margin: 0 }'),
      '`s.css` says `margin-top: 1px` and then `margin: 0` in one rule; the first never counts',
      linked('p { margin: 0; margin-top: 1px } q { color: red !important; color: blue }'),
    ],
  ],
  'name-with-space': [
    [
      'an element nobody knows after a class',
      linked('.crew card { float: left }'),
      '`.crew card` in `s.css` looks for an element `card` inside; a name has no space in it',
      linked('.crew address, .crew x-card, .crew .card, svg.x feBlend { float: left }'),
    ],
    [
      'an ID with a space',
      { 'a.html': pageOf('', '<p id="main text">') },
      '`a` has the ID `main text`; a name has no space in it, so no selector reaches it',
      { 'a.html': pageOf('', '<p class="main text" id="text">') },
    ],
  ],
  'renamed-class': [
    [
      'the sheet says it otherwise',
      { ...linked('.notice-box { color: red }'), 'a.html': pageOf(link('s.css'), '<p class="x  noticebox">') },
      '`a` says `noticebox`, `s.css` says `.notice-box`: neither meets the other',
      {
        ...linked('.notice-box { color: red } .noticebox { top: 0 }'),
        'a.html': pageOf(link('s.css'), '<p class=noticebox>'),
      },
    ],
    [
      'one slip; a script may know the name',
      { ...linked('.notice { color: red }'), 'a.html': pageOf(link('s.css'), '<p class=notise>') },
      '`a` says `notise`, `s.css` says `.notice`: neither meets the other',
      {
        ...linked('.notice { color: red }'),
        'a.html': pageOf(link('s.css'), '<p class=notise><script>find("notise")</script>'),
      },
    ],
  ],
  'duplicate-id': [
    [
      'one ID on two elements',
      { 'a.html': pageOf('', '<p id=mate><b id=mate>') },
      '`a` has `#mate` on more than one element',
      {
        'a.html': pageOf('', '<p id=mate><b id=Mate>'),
        'b.html': pageOf('', '<p id=mate><template><p id=mate></template>'),
      },
    ],
  ],
  drift: [
    [
      'one page of three differs',
      { ...pages(2, style('.n{color:#f00;top:0}')), 'z.html': pageOf(style('.n{color:blue;top:0}'), '') },
      '3 pages hold `.n` in 2 versions; `z` differs',
      { ...pages(2, style('.n{color:#f00;top:0}')), 'z.html': pageOf(style('.n { top: 0.0px; color: RED }'), '') },
    ],
    [
      'where every page has a rule of its own there is no common one',
      { ...pages(2, style('.n{margin:0;margin-top:1px}')), 'z.html': pageOf(style('.n{margin-top:1px;margin:0}'), '') },
      '3 pages hold `.n` in 2 versions; `z` differs',
      {
        'a.html': pageOf(style('.n{top:1px}'), ''),
        'b.html': pageOf(style('.n{top:2px}'), ''),
        'c.html': pageOf(style('.n{top:3px}'), ''),
      },
    ],
  ],
};

describe('sheets, blocks and attributes', () => checkCases(cases));
