import { expect, test } from '@jest/globals';
import { checkRows, page, row, type Row } from '../testing/proofRows.ts';
import { siteOf } from '../testing/siteOf.ts';
import { proveSites } from './proveSites.ts';

const rows: readonly Row[] = [
  row(
    'revert-layer moves from an attribute to a rule',
    'differs',
    page('<style>p { color: red }</style>', '<p style="color: revert-layer">a'),
    page('<style>p { color: red } .c { color: revert-layer }</style>', '<p class=c>a'),
    true,
  ),
  row(
    'revert-layer as a fallback moves from an attribute to a rule',
    'differs',
    page('<style>p { color: red }</style>', '<p style="color: var(--none, revert-layer)">a'),
    page('<style>p { color: red } .c { color: var(--none, revert-layer) }</style>', '<p class=c>a'),
    true,
  ),
  row(
    'a block whose text the page shows becomes a link',
    'differs',
    page('<style>head, style { display: block } p { color: red }</style>'),
    { ...page('<link rel=stylesheet href=s.css>'), 's.css': 'head, style { display: block } p { color: red }' },
    true,
  ),
  row(
    'one link more, where links make boxes',
    'differs',
    page('', '<style>link { display: block; height: 9px }</style><p>a'),
    {
      ...page('', '<link rel=stylesheet href=s.css><p>a'),
      's.css': 'link { display: block; height: 9px }',
    },
    true,
  ),
  row(
    'a block that a rule hides once more becomes a link',
    'same',
    page('<style>style { display: none } p { color: red }</style>'),
    { ...page('<link rel=stylesheet href=s.css>'), 's.css': 'style { display: none } p { color: red }' },
  ),
  row('a block replaced by a link', 'same', page('<style>p{color:red}</style>'), {
    ...page('<link rel=stylesheet href=s.css>'),
    's.css': 'p{color:red}',
  }),
  row(
    'the same colour, spelled otherwise',
    'same',
    page('<style>p{color:#f00}</style>'),
    page('<style>p{color:rgb(255, 0, 0)}</style>'),
  ),
  row(
    'rules that do not compete change places',
    'same',
    page('<style>p{color:red}h1{top:0}</style>'),
    page('<style>h1{top:0}p{color:red}</style>'),
  ),
  row(
    'a rule nothing matches is added',
    'same',
    page('<style>p{color:red}</style>'),
    page('<style>p{color:red}.none{color:blue}</style>'),
  ),
  row(
    'a weaker rule that is always beaten is added',
    'same',
    page('<style>.x{color:red}</style>'),
    page('<style>p{color:blue}h1{color:blue}.x{color:red}</style>'),
  ),
  row('a value changes', 'differs', page('<style>p{color:red}</style>'), page('<style>p{color:blue}</style>'), true),
  row(
    'precedence flips',
    'differs',
    { ...page('<link rel=stylesheet href=s.css><style>p{color:red}</style>'), 's.css': 'p{color:blue}' },
    { ...page('<style>p{color:red}</style><link rel=stylesheet href=s.css>'), 's.css': 'p{color:blue}' },
    true,
  ),
  row(
    'a rule leaks to a page',
    'differs',
    page(''),
    { ...page('<link rel=stylesheet href=s.css>'), 's.css': 'h1{color:red}' },
    true,
  ),
  row(
    'a style attribute becomes a weaker rule',
    'differs',
    page('<style>#t{color:blue}</style>', '<h1 id=t style="color:red">x</h1>'),
    page('<style>#t{color:blue}.c{color:red}</style>', '<h1 id=t class=c>x</h1>'),
    true,
  ),
  row(
    'a style attribute becomes a rule that wins',
    'same',
    page('', '<h1 style="color:red">x</h1>'),
    page('<style>.c{color:red}</style>', '<h1 class=c>x</h1>'),
  ),
  row(
    'importance goes',
    'differs',
    page('<style>h1{color:red!important}#t{color:blue}</style>'),
    page('<style>h1{color:red}#t{color:blue}</style>'),
    true,
  ),
  row(
    'a misspelt value is repaired',
    'differs',
    page('<style>p{color:rde}</style>'),
    page('<style>p{color:red}</style>'),
    true,
  ),
  row(
    'an invalid value over a valid one hides nothing',
    'differs',
    page('<style>p{color:red;color:bogus(1)}</style>'),
    page('<style>p{color:bogus(1)}</style>'),
    true,
  ),
  row(
    'only when hovered',
    'differs',
    page('<style>a:hover{color:red}</style>'),
    page('<style>a:hover{color:blue}</style>'),
    false,
  ),
  row('only in print', 'differs', page('<style>@media print{p{color:red}}</style>'), page(''), false),
  row(
    'only in narrow windows',
    'differs',
    page('<style>@media (max-width:300px){p{color:red}}</style>'),
    page('<style>@media (max-width:400px){p{color:red}}</style>'),
    false,
  ),
  row(
    'a media query spelled otherwise',
    'same',
    page('<style>@media  PRINT  and (max-width:3px){p{color:red}}</style>'),
    page('<style>@media print and (max-width: 3px){p{color:red}}</style>'),
  ),
  row(
    'a pseudo-element',
    'differs',
    page('<style>p::before{content:"a"}</style>'),
    page('<style>p::before{content:"b"}</style>'),
    true,
  ),
  row(
    'an address counted from another folder',
    'differs',
    { ...page('<style>p{background-image:url(i.png)}</style>'), 'i.png': 'x' },
    { ...page('<link rel=stylesheet href=css/s.css>'), 'css/s.css': 'p{background-image:url(i.png)}', 'i.png': 'x' },
    true,
  ),
  row(
    'an address rewritten',
    'same',
    { ...page('<style>p{background-image:url(i.png)}</style>'), 'i.png': 'x' },
    { ...page('<link rel=stylesheet href=css/s.css>'), 'css/s.css': 'p{background-image:url(../i.png)}', 'i.png': 'x' },
  ),
  row(
    'what an address names changes',
    'differs',
    { ...page('<style>p{background-image:url(i.png)}</style>'), 'i.png': 'x' },
    { ...page('<style>p{background-image:url(i.png)}</style>'), 'i.png': 'y' },
  ),
  row(
    'a shorthand resets what stood before',
    'differs',
    page('<style>p{background-image:none;background-color:red}p{background:blue}</style>'),
    page('<style>p{background:blue}p{background-color:red}</style>'),
    true,
  ),
  row(
    'box sides, one by one or together',
    'same',
    page('<style>p{margin:1px 2px}</style>'),
    page('<style>p{margin-top:1px;margin-right:2px;margin-bottom:1px;margin-left:2px}</style>'),
  ),
  row(
    'flow-relative and physical sides change order',
    'differs',
    page('<style>p{margin-left:1px;margin-inline-start:5px}</style>'),
    page('<style>p{margin-inline-start:5px;margin-left:1px}</style>'),
    true,
  ),
  row(
    'all resets, then not',
    'differs',
    page('<style>p{color:red;all:unset}</style>'),
    page('<style>p{color:red}</style>'),
    true,
  ),
  row(
    'a layer becomes stronger',
    'differs',
    page('<style>@layer a,b;@layer a{p{color:red}}@layer b{p{color:blue}}</style>'),
    page('<style>@layer b,a;@layer a{p{color:red}}@layer b{p{color:blue}}</style>'),
    true,
  ),
  row(
    'a block in the body goes and siblings count otherwise',
    'differs',
    page('', '<style>p:first-child{color:red}</style><p>x</p>'),
    { ...page('<link rel=stylesheet href=s.css>', '<p>x</p>'), 's.css': 'p:first-child{color:red}' },
    true,
  ),
  row(
    'a class is added that a rule asks not to be there',
    'differs',
    page('<style>p:not([class]){color:red}</style>', '<p>x</p>'),
    page('<style>p:not([class]){color:red}</style>', '<p class=c>x</p>'),
    true,
  ),
  row(
    'keyframes in use',
    'differs',
    page('<style>p{animation:k 9s}@keyframes k{from{top:0}}</style>'),
    page('<style>p{animation:k 9s}@keyframes k{from{top:1px}}</style>'),
  ),
  row(
    'keyframes nobody names',
    'same',
    page('<style>p{color:red}</style>'),
    page('<style>p{color:red}@keyframes k{from{top:1px}}</style>'),
  ),
  row(
    'a font face in use goes',
    'differs',
    page('<style>@font-face{font-family:F;src:url(f.woff)}p{font-family:F}</style>'),
    page('<style>p{font-family:F}</style>'),
  ),
  row(
    'a custom property',
    'differs',
    page('<style>:root{--c:red}p{color:var(--c)}</style>'),
    page('<style>:root{--c:blue}p{color:var(--c)}</style>'),
    true,
  ),
  row(
    'an address in a custom property counts from the sheet that uses it',
    'differs',
    page('<style>:root{--u:url(i.png)}p{background-image:var(--u)}</style>'),
    {
      ...page('<style>:root{--u:url(i.png)}</style><link rel=stylesheet href=css/s.css>'),
      'css/s.css': 'p{background-image:var(--u)}',
    },
  ),
  row(
    'var() moves where no custom property holds an address',
    'same',
    page('<style>:root{--c:red}p{color:var(--c)}</style>'),
    { ...page('<style>:root{--c:red}</style><link rel=stylesheet href=css/s.css>'), 'css/s.css': 'p{color:var(--c)}' },
  ),
  row(
    'revert hands over to what stands below',
    'differs',
    page('<style>p{color:red}p{color:revert-layer}</style>'),
    page('<style>p{color:blue}p{color:revert-layer}</style>'),
  ),
  row(
    'an unread sheet changes its place',
    'differs',
    page('<link rel=stylesheet href=http://127.0.0.1:9/x.css><style>p{color:red}</style>'),
    page('<style>p{color:red}</style><link rel=stylesheet href=http://127.0.0.1:9/x.css>'),
  ),
  row(
    'a rule moves past an unread sheet',
    'differs',
    page('<style>h1{color:red}</style><link rel=stylesheet href=gone.css><style>p{color:red}</style>'),
    page('<link rel=stylesheet href=gone.css><style>h1{color:red}p{color:red}</style>'),
  ),
  row(
    'a broken link comes to life',
    'differs',
    page('<link rel=stylesheet href=s.css>'),
    { ...page('<link rel=stylesheet href=s.css>'), 's.css': 'p{color:red}' },
    true,
  ),
  row(
    'an alternate sheet becomes preferred',
    'differs',
    { ...page('<link rel="alternate stylesheet" title=A href=s.css>'), 's.css': 'p{color:red}' },
    { ...page('<link rel=stylesheet title=A href=s.css>'), 's.css': 'p{color:red}' },
    true,
  ),
  row('the text changes', 'differs', page('', '<p>a</p>'), page('', '<p>b</p>')),
  row('an attribute changes', 'differs', page('', '<p title=a>a</p>'), page('', '<p title=b>a</p>')),
  row('an element goes', 'differs', page('', '<p>a</p><p>b</p>'), page('', '<p>a</p>')),
  row(
    'white space where it is kept',
    'differs',
    page('', '<pre>a\n<style></style>\n</pre>'),
    page('', '<pre>a\n</pre>'),
  ),
  row(
    'white space where it is folded',
    'same',
    page('', '<p>a</p>\n<style></style>\n<p>b</p>'),
    page('', '<p>a</p>\n\n<p>b</p>'),
  ),
  row('the doctype goes', 'differs', { 'index.html': '<!DOCTYPE html><p>a' }, { 'index.html': '<p>a' }),
  row('only without scripts', 'differs', page('<noscript><style>p{color:red}</style></noscript>'), page('')),
  row(
    'a nested rule',
    'differs',
    page('<style>p{& a{color:red}}</style>'),
    page('<style>p{& a{color:blue}}</style>'),
    true,
  ),
  row('an unknown property is nothing', 'same', page('<style>p{backgroud:red}</style>'), page('')),
];

checkRows(rows);

test('the reason names who decided and who decides, where', () => {
  const before = siteOf({
    ...page('<link rel=stylesheet href=s.css>\n<style>\nh1 { color: red }\n</style>'),
    's.css': '#t { top: 0 }\n\nh1 { color: blue }',
  });
  const after = siteOf({ ...page('<link rel=stylesheet href=s.css>'), 's.css': '#t { top: 0 }\n\nh1 { color: blue }' });
  const { pages } = proveSites(before, after);
  expect(pages[0]!.differingElements).toBe(1);
  expect(pages[0]!.causes).toMatchObject([
    {
      property: 'color',
      before: {
        value: 'red',
        source: 'embedded',
        selector: 'h1',
        specificity: [0, 0, 1],
        place: { path: 'index.html', line: 5, column: 6 },
      },
      after: { value: 'blue', source: 'linked', place: { path: 's.css', line: 3, column: 6 } },
      reason:
        '`h1` in the embedded block, (0,0,1) does not reach this element any more; `h1` in s.css, (0,0,1) decides now.',
      elements: [{ path: 'html>body:nth-child(2)>h1:nth-child(1)', name: 'h1#t' }],
    },
  ]);
});

test('a page that is gone or new is said to be', () => {
  const proof = proveSites(siteOf({ 'a.html': '<p>', 'b.html': '<p>' }), siteOf({ 'a.html': '<p>', 'c.html': '<p>' }));
  expect(proof.pages.map((p) => `${p.path} ${p.verdict}`)).toEqual(['a.html same', 'b.html removed', 'c.html added']);
  expect(proof.verdict).toBe('differs');
});
