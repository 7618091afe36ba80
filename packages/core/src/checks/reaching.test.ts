import { describe } from '@jest/globals';
import { link, pages, style, type CheckCase } from '../testing/checkCases.ts';
import { checkCases } from '../testing/runCheckCases.ts';
import { pageOf } from '../testing/siteOf.ts';

const wrapped = '<div id=wrap><p>x</p><p>y</p></div>';
const needing = '#wrap p{top:0} #wrap h1{top:0} p{left:0}';

const cases: Readonly<Record<string, readonly CheckCase[]>> = {
  'rule-not-reached': [
    [
      'the rule is in a sheet this page does not link',
      { 'a.html': pageOf(link('s.css'), ''), 'b.html': pageOf('', '<p class=seat>'), 's.css': '.seat{top:0}' },
      '`b` uses `.seat`, whose rules are in `s.css`; it does not link it',
      {
        'a.html': pageOf(link('s.css'), ''),
        'b.html': pageOf(style('.seat{left:0}'), '<p class=seat>'),
        's.css': '.seat{top:0}',
      },
    ],
    [
      'a sheet of pages in another folder is another matter',
      { 'n/a.html': pageOf(link('s.css'), ''), 'n/b.html': pageOf('', '<p id=seat>'), 'n/s.css': '#seat{top:0}' },
      '`n/b` uses `#seat`, whose rules are in `n/s.css`; it does not link it',
      { 'n/a.html': pageOf(link('s.css'), ''), 'b.html': pageOf('', '<p id=seat>'), 'n/s.css': '#seat{top:0}' },
    ],
  ],
  'container-missing': [
    [
      'one page lacks what wraps the others; what stands small on them is no container',
      { ...pages(4, link('s.css'), wrapped), 'z.html': pageOf(link('s.css'), '<p>x'), 's.css': needing },
      '`z` links `s.css` but has no `#wrap`, which 2 rules of it need; 4 other pages have it',
      {
        ...pages(4, link('s.css'), '<p id=wrap></p><p>1<p>2<p>3<p>4<p>5<p>6'),
        'z.html': pageOf(link('s.css'), '<p>x'),
        's.css': needing,
      },
    ],
  ],
  'unused-rule': [
    [
      'no element of any page; one that waits for the mouse is used',
      { ...pages(2, link('s.css'), '<p class=a>'), 's.css': 'p{top:0}.gone{top:0}' },
      '1 rule of `s.css` has no element on any page: `.gone`',
      {
        ...pages(2, link('s.css'), '<p class=a>'),
        's.css': 'p:hover{top:0}.a::before{top:0}@media print{p{top:0}}b,p{top:0}',
      },
    ],
    [
      'a script may make its elements, or a server write them',
      { ...pages(2, link('s.css'), '<p><script>var told = "made"</script>'), 's.css': 'p{top:0}p.made{top:0}' },
      '1 rule of `s.css` has no element on any page: `p.made`',
      {
        'a.html': pageOf(link('s.css'), '<p><script>document.write("<p class=made>")</script>'),
        'b.html': pageOf(link('t.css'), '<p><!--#include virtual="x" -->'),
        's.css': 'p{top:0}p.made{top:0}',
        't.css': 'p{top:0}ol .written{top:0}',
      },
    ],
  ],
  override: [
    [
      'a leftover rule of one page beats the sheet; the same value does not',
      {
        ...pages(3, link('s.css')),
        'z.html': pageOf(link('s.css') + style('p{color:blue}'), '<p>x'),
        's.css': 'p{color:red}',
      },
      '`p` on `z` wins over `p` in `s.css` on 1 element: `color`',
      {
        ...pages(3, link('s.css')),
        'z.html': pageOf(link('s.css') + style('p{color:#f00;top:0}'), '<p>x'),
        's.css': 'p{color:red}',
      },
    ],
    [
      'a style attribute; not against an important rule',
      { 'a.html': pageOf(link('s.css'), '<p style="color:blue">x<p style="color:blue">y'), 's.css': 'p{color:red}' },
      '`style="…"` on `a` wins over `p` in `s.css` on 2 elements: `color`',
      { 'a.html': pageOf(link('s.css'), '<p style="color:blue">x'), 's.css': 'p{color:red!important}' },
    ],
    [
      'a stronger selector; before the link a weaker or equal one loses',
      { 'a.html': pageOf(style('#x{color:blue}') + link('s.css'), '<p id=x>x'), 's.css': 'p{color:red}' },
      '`#x` on `a` wins over `p` in `s.css` on 1 element: `color`',
      { 'a.html': pageOf(style('p{color:blue}') + link('s.css'), '<p id=x>x'), 's.css': 'p{color:red}' },
    ],
  ],
  'own-picture': [
    [
      'the page keeps its own picture where the shared rule has another',
      {
        ...pages(3, link('s.css')),
        'z.html': pageOf(link('s.css') + style('#b{background:url(b.png)}'), '<p id=b>'),
        's.css': '#b{background:red url(a.png)}',
        'a.png': '',
        'b.png': '',
      },
      '`z` keeps its own picture on `#b`, against `s.css`: a change there passes it by, and without its own rule the picture is gone',
      {
        ...pages(3, link('s.css')),
        'z.html': pageOf(link('s.css') + style('#b{background:url("./a.png")}'), '<p id=b>'),
        's.css': '#b{background:url(a.png)}',
        'a.png': '',
        'b.png': '',
      },
    ],
  ],
  'quirks-page': [
    [
      'one page without a doctype among others; where all lack it they read alike',
      { ...pages(2, link('s.css')), 'z.html': `${link('s.css')}<p>x`, 's.css': 'p{width:300}' },
      '`z` has no doctype a browser trusts, so shared rules can read differently: `s.css` says `width: 300`, which counts only there',
      { 'y.html': `${link('s.css')}<p>x`, 'z.html': `${link('s.css')}<p>x`, 's.css': 'p{width:300}' },
    ],
  ],
  'page-not-read': [
    [
      'pages that a server runs',
      {
        'a.html': pageOf('', ''),
        'b.php': `<?php go() ?>${pageOf('', '')}`,
        'c.php': pageOf('', ''),
      },
      '2 files ending in `.php` hold whole pages that a server runs; they are not read: `b.php` and `c.php`',
      { 'a.html': pageOf('', ''), 'part.php': '<?php go() ?><p>x', 'code.php': '<?php go() ?>' },
    ],
  ],
  'script-style': [
    [
      'a script that sets style',
      { 'a.html': pageOf('<script src=js/x.js></script>', ''), 'js/x.js': 'row.style.top = 0' },
      '`js/x.js`, run by `a`, reads or sets styles; what a script does is outside the proof',
      { 'a.html': pageOf('<script>total = style + 1 // the style of it</script>', '') },
    ],
  ],
  'template-in-style': [
    [
      'a server writes inside a block',
      { 'a.html': pageOf('<style>p{color:<?php echo $c ?>}</style>', '') },
      '`a` has `<?php` inside styling: a server writes something there, so it stays byte for byte',
      { 'a.html': pageOf(style('p{color:red}'), '<?php echo $c ?><p>{{ name }}</p>') },
    ],
    [
      'in a style attribute and a link',
      { 'a.html': pageOf('', '<p style="width:{{ w }}px">') },
      '`a` has `{{` inside styling: a server writes something there, so it stays byte for byte',
      { 'a.html': pageOf('', '<p style="width:{" title="{{ w }}">') },
    ],
  ],
};

describe('what reaches what', () => checkCases(cases));
