import { expect, test } from '@jest/globals';
import { createHash } from 'node:crypto';
import { askChromium, type Question } from '../testing/chromium.ts';
import { siteOf } from '../testing/siteOf.ts';
import type { Verdict } from './proof.ts';
import { proveSites } from './proveSites.ts';

type Files = Readonly<Record<string, string>>;
/** What it shows, the two states of p.html (with sheets), the verdict, and whether Chromium shows the same. */
type Row = readonly [
  shows: string,
  before: string | Files,
  after: string | Files,
  verdict: Verdict,
  browser: 'same' | 'other',
];

const page = (head: string, body = '<p id=a class=n>one</p>'): string =>
  `<!DOCTYPE html><html><head><meta charset="utf-8"><title>t</title>${head}</head><body>${body}</body></html>`;
const css = (text: string, body?: string): string => page(`<style>${text}</style>`, body);
const hash = (text: string): string => `sha256-${createHash('sha256').update(text).digest('base64')}`;
const policy = (content: string): string => `<meta http-equiv="content-security-policy" content="${content}">`;
const meta = (language: string): string => `<meta http-equiv=content-language content="${language}">`;
const shadow = (inside: string, host = ''): string =>
  `<div${host}><template shadowrootmode="open">${inside}</template></div>`;

const rows: readonly Row[] = [
  // rolled back to the browser's own
  ['rolled back where nobody says anything', css(''), css('p{color:revert;margin-top:revert}'), 'same', 'same'],
  ['… where something stronger says more', css('#a{color:red}'), css('#a{color:red} p{color:revert}'), 'same', 'same'],
  ['… of the browser\'s own, which is no initial value', css('', '<a href=x id=a>z</a><h1>h</h1>'), css('a{color:revert;text-decoration-line:revert} h1{font-size:revert}', '<a href=x id=a>z</a><h1>h</h1>'), 'same', 'same'],
  ['… where an attribute says something, which goes as well', css('', '<table><tr><td bgcolor=red id=a>z</table>'), css('td{background-color:revert}', '<table><tr><td bgcolor=red id=a>z</table>'), 'differs', 'other'],
  ['… where a weaker rule says something', css('p{color:red}'), css('p{color:red} #a{color:revert}'), 'differs', 'other'],
  ['… important, it beats an animation', css('p{animation:k 9s paused} @keyframes k{from,to{color:red}}'), css('p{animation:k 9s paused} @keyframes k{from,to{color:red}} p{color:revert!important}'), 'differs', 'other'],
  ['… only in some states', css(''), css('p:hover{color:revert}'), 'differs', 'same'],
  ['… in a drawing, where attributes style', css('', '<svg><rect fill=red id=a width=9 height=9></svg>'), css('rect{fill:revert}', '<svg><rect fill=red id=a width=9 height=9></svg>'), 'differs', 'other'],
  ['… a layer alone', css('@layer x{p{color:red}}'), css('@layer x{p{color:red}} p{color:revert-layer}'), 'differs', 'same'],
  ['… of a control, which is drawn otherwise once an author says something of it', css('', '<button id=a>z</button>'), css('button{background-color:revert}', '<button id=a>z</button>'), 'differs', 'same'],
  ['… inherited from what is styled', css('body{color:red}'), css('body{color:red} p{color:revert}'), 'same', 'same'],
  // which sheets a browser takes
  ['a policy without inline styles: the block counts for nothing', page(`${policy("style-src 'self'")}<style>p{color:red}</style>`), page(policy("style-src 'self'")), 'same', 'same'],
  ['… a link in its place does', { 'p.html': page(`${policy("style-src 'self'")}<style>p{color:red}</style>`), 's.css': 'p{color:red}' }, { 'p.html': page(`${policy("style-src 'self'")}<link rel=stylesheet href=s.css>`), 's.css': 'p{color:red}' }, 'differs', 'other'],
  ['… nor does a style attribute', page(policy("style-src 'self'"), '<p style="color:red">x'), page(policy("style-src 'self'"), '<p>x'), 'same', 'same'],
  ['a policy for attributes alone', page(`${policy("style-src-attr 'none'")}<style>p{color:red}</style>`), page(policy("style-src-attr 'none'")), 'differs', 'other'],
  ['a name of a policy with a space in it is none', page('<meta http-equiv=" content-security-policy" content="style-src \'none\'"><style>p{color:red}</style>'), page('<meta http-equiv=" content-security-policy" content="style-src \'none\'">'), 'differs', 'other'],
  ['a hash lets one block in', page(`${policy(`default-src '${hash('p{color:red}')}'`)}<style>p{color:red}</style>`), page(policy(`default-src '${hash('p{color:red}')}'`)), 'differs', 'other'],
  ['… and no other', page(`${policy(`default-src '${hash('p{color:red}')}'`)}<style>p{color:blue}</style>`), page(policy(`default-src '${hash('p{color:red}')}'`)), 'same', 'same'],
  ['a nonce takes the word of unsafe-inline', page(`${policy("style-src 'nonce-k' 'unsafe-inline'")}<style>p{color:red}</style>`), page(policy("style-src 'nonce-k' 'unsafe-inline'")), 'same', 'same'],
  ['a policy counts for what comes after it', page(`<style>p{color:red}</style>${policy("style-src 'none'")}`), page(policy("style-src 'none'")), 'differs', 'other'],
  ['a policy forbids what a block imports', { 'p.html': page(`${policy("style-src 'unsafe-inline'")}<style>@import "s.css";</style>`), 's.css': 'p{color:red}' }, page(`${policy("style-src 'unsafe-inline'")}<style></style>`), 'same', 'same'],
  ['integrity kept', { 'p.html': page(`<link rel=stylesheet href=s.css integrity="${hash('p{color:red}')}">`), 's.css': 'p{color:red}' }, { 'p.html': page('<link rel=stylesheet href=s.css>'), 's.css': 'p{color:red}' }, 'same', 'same'],
  ['integrity broken by an edit', { 'p.html': page(`<link rel=stylesheet href=s.css integrity="${hash('p{color:red}')}">`), 's.css': 'p{color:red}' }, { 'p.html': page(`<link rel=stylesheet href=s.css integrity="${hash('p{color:red}')}">`), 's.css': 'p{color:red} ' }, 'differs', 'other'],
  ['integrity of an algorithm nobody has', { 'p.html': page('<link rel=stylesheet href=s.css integrity="md5-x">'), 's.css': 'p{color:red}' }, { 'p.html': page('<link rel=stylesheet href=s.css>'), 's.css': 'p{color:red}' }, 'same', 'same'],
  ['a path that climbs above the root', { 'p.html': page('<link rel=stylesheet href="../../s.css">'), 's.css': 'p{color:red}' }, { 'p.html': page('<link rel=stylesheet href="../../s.css">'), 's.css': 'p{color:blue}' }, 'differs', 'other'],
  ['a base counts for what comes after it', { 'p.html': page('<link rel=stylesheet href=s.css><base href="d/">'), 's.css': 'p{color:red}', 'd/s.css': 'p{color:blue}' }, { 'p.html': page('<base href="d/"><link rel=stylesheet href=s.css>'), 's.css': 'p{color:red}', 'd/s.css': 'p{color:blue}' }, 'differs', 'other'],
  ['a sheet in the encoding of the one that imports it', { 'p.html': page('<link rel=stylesheet href=i.css>'), 'i.css': '@charset "windows-1251"; @import "s.css";', 's.css': 'p::after{content:"\u00e9"}' }, { 'p.html': page('<link rel=stylesheet href=s.css>'), 's.css': 'p::after{content:"\u00e9"}' }, 'differs', 'other'],
  ['a link that names an encoding with spaces around it, which browsers read otherwise', { 'p.html': page('<link rel=stylesheet href=s.css charset=" windows-1251 ">'), 's.css': 'p::after{content:"\u00e9"}' }, { 'p.html': page('<link rel=stylesheet href=s.css>'), 's.css': 'p::after{content:"\u00e9"}' }, 'differs', 'same'],
  ['… around ASCII it counts for nothing', { 'p.html': page('<link rel=stylesheet href=s.css charset=" windows-1251 ">'), 's.css': 'p{color:red}' }, { 'p.html': page('<link rel=stylesheet href=s.css>'), 's.css': 'p{color:red}' }, 'same', 'same'],
  ['an encoding of private characters', { 'p.html': page('<link rel=stylesheet href=s.css charset=x-user-defined>'), 's.css': 'p::after{content:"\u00e9"}' }, { 'p.html': page('<link rel=stylesheet href=s.css>'), 's.css': 'p::after{content:"\u00e9"}' }, 'differs', 'other'],
  ['an encoding that browsers replace by nothing', { 'p.html': page('<link rel=stylesheet href=s.css charset=iso-2022-kr>'), 's.css': 'p::after{content:"\u00e9"}' }, { 'p.html': page('<link rel=stylesheet href=s.css>'), 's.css': 'p::after{content:"\u00e9"}' }, 'differs', 'other'],
  // values
  ['a number with a unit is dropped', css('p{order:0px;order:1} p{order:0px}'), css('p{order:0px;order:1} p{order:0}'), 'differs', 'other'],
  ['a length of zero needs none', css('p{margin:0px 0em;box-shadow:0px 0px 3px}'), css('p{margin:0 0;box-shadow:0 0 3px}'), 'same', 'same'],
  ['var() that names nothing is dropped', css('p{color:red} p{color:var(nope)}'), css('p{color:var(nope)}'), 'differs', 'other'],
  ['var() that names one is not', css('p{color:red} p{color:var(--nope)}'), css('p{color:var(--nope)}'), 'same', 'same'],
  ['custom names keep their case', css(':root{--Ab:red;--ab:blue} p{color:var(--Ab)}'), css(':root{--Ab:red;--ab:blue} p{color:var(--ab)}'), 'differs', 'other'],
  ['a custom property with a bracket too many is dropped', css('p{--c:red;color:var(--c)} p{--c:blue)}'), css('p{--c:red;color:var(--c)}'), 'same', 'same'],
  ['an old name and a flow-relative one share a place', css('p{-webkit-padding-start:50px} p{padding-left:1px}'), css('p{padding-left:1px} p{-webkit-padding-start:50px}'), 'differs', 'other'],
  ['an old name is the new one', css('p{-webkit-opacity:.5} p{opacity:1}'), css('p{opacity:1} p{-webkit-opacity:.5}'), 'differs', 'other'],
  ['a custom property with a bang is dropped', css('p{--c:red;color:var(--c)} p{--c:blue !x}'), css('p{--c:red;color:var(--c)}'), 'same', 'same'],
  ['a declaration with a bang is dropped', css('p{color:red} p{color:blue !ie}'), css('p{color:red}'), 'same', 'same'],
  ['var() with a bang is dropped', css('p{color:red} p{color:var(--c) !ie}'), css('p{color:red}'), 'same', 'same'],
  ['a function of the author, which other browsers drop', css('p{color:red} p{color:--f(1)}'), css('p{color:--f(1)}'), 'differs', 'same'],
  ['a number with a point is no integer', css('p{z-index:1.0}'), css('p{z-index:1}'), 'differs', 'other'],
  ['… whichever the browser drops', css('p{order:2} p{order:1.0}'), css('p{order:2}'), 'differs', 'same'],
  ['what a browser gives a popover', css('', '<div popover id=a>z</div>'), css('div{background-color:transparent}', '<div popover id=a>z</div>'), 'differs', 'other'],
  ['what a list inherits from a summary', css('ul{list-style-type:square}', '<details open><summary><ul><li>z</ul></summary></details>'), css('ul{list-style:square}', '<details open><summary><ul><li>z</ul></summary></details>'), 'differs', 'other'],
  // definitions
  ['symbols keep their case', css('@counter-style z{system:cyclic;symbols:A} ol{list-style:z}', '<ol><li>x</ol>'), css('@counter-style z{system:cyclic;symbols:a} ol{list-style:z}', '<ol><li>x</ol>'), 'differs', 'same'],
  ['a frame of an animation with a unit', css('@keyframes k{from,to{opacity:0}} p{animation:k 9s}'), css('@keyframes k{from,to{opacity:0px}} p{animation:k 9s}'), 'differs', 'other'],
  ['a name said with an escape', css('@keyframes roll{from,to{color:red}} p{animation:r\\6fll 9s}'), css('p{animation:r\\6fll 9s}'), 'differs', 'other'],
  ['a definition nobody asks for', css('@keyframes roll{from,to{color:red}} p{top:0}'), css('p{top:0}'), 'same', 'same'],
  ['a font that a shadow tree asks for', css('@font-face{font-family:X;src:url(x.woff)}', shadow('<style>p{font-family:X}</style><p>x</p>')), page('', shadow('<style>p{font-family:X}</style><p>x</p>')), 'differs', 'same'],
  ['a registered property that a shadow tree reads', css('@property --x{syntax:"<color>";inherits:true;initial-value:red}', shadow('<style>p{color:var(--x)}</style><p>x</p>')), page('', shadow('<style>p{color:var(--x)}</style><p>x</p>')), 'differs', 'other'],
  ['a font of the name that browsers take unasked', css('@font-face{font-family:"Times New Roman";src:local("DejaVu Sans Mono")}'), page(''), 'differs', 'other'],
  // layers and imports
  ['a layer under a condition that fails orders nothing', css('@media print{@layer b{q{top:0}}} @layer a{p{color:red}} @layer b{p{color:blue}}'), css('@layer b{p{color:blue}} @layer a{p{color:red}}'), 'differs', 'other'],
  ['an empty layer orders', css('@layer b{} @layer a{p{color:red}} @layer b{p{color:blue}}'), css('@layer a{p{color:red}} @layer b{p{color:blue}}'), 'differs', 'other'],
  ['a malformed one does not', css('@layer b c{} @layer a{p{color:red}} @layer b{p{color:blue}}'), css('@layer a{p{color:red}} @layer b{p{color:blue}}'), 'same', 'same'],
  ['keyframes of the later layer', css('@layer a,b;@layer b{@keyframes k{from,to{color:red}}}@layer a{@keyframes k{from,to{color:blue}}}p{animation:k 9s}'), css('@layer b,a;@layer b{@keyframes k{from,to{color:red}}}@layer a{@keyframes k{from,to{color:blue}}}p{animation:k 9s}'), 'differs', 'other'],
  ['an import after a rule browsers drop', { 'p.html': css('q:nope{} @nope x{} @import "s.css";'), 's.css': 'p{color:red}' }, css(''), 'differs', 'other'],
  ['an import after a rule they keep', { 'p.html': css('q{} @import "s.css";'), 's.css': 'p{color:red}' }, css('q{}'), 'same', 'same'],
  ['an import behind a layer statement behind an import', { 'p.html': css('@import "t.css"; @layer x; @import "s.css";'), 's.css': 'p{color:red}', 't.css': '' }, { 'p.html': css('@import "t.css"; @layer x;'), 't.css': '' }, 'same', 'same'],
  ['an import into a layer without a name', { 'p.html': css('@import "s.css" layer(a b);'), 's.css': 'p{color:red}' }, css(''), 'differs', 'same'],
  // what reads the markup
  ['attr() of a class that came', css('p::after{content:attr(class)}', '<p style="color:red">x'), css('p::after{content:attr(class)} .r{color:red}', '<p class=r>x'), 'differs', 'other'],
  ['attr() of another attribute', css('p::after{content:attr(title)}', '<p title=t style="color:red">x'), css('p::after{content:attr(title)} .r{color:red}', '<p title=t class=r>x'), 'same', 'same'],
  ['attr() in a function of the author', page('<style>@function --t(){result:attr(style)} p::after{content:--t()}</style>', '<p style="color:red">x'), page('<style>@function --t(){result:attr(style)} p::after{content:--t()} .r{color:red}</style>', '<p class=r>x'), 'unsure', 'other'],
  ['… by another function', page('<style>@function --s(){result:attr(style)} @function --t(){result:--s()} p::after{content:--t()}</style>', '<p style="color:red">x'), page('<style>@function --s(){result:attr(style)} @function --t(){result:--s()} p::after{content:--t()} .r{color:red}</style>', '<p class=r>x'), 'unsure', 'other'],
  ['… of another attribute', page('<style>@function --t(){result:attr(title)} p::after{content:--t()}</style>', '<p title=t style="color:red">x'), page('<style>@function --t(){result:attr(title)} p::after{content:--t()} .r{color:red}</style>', '<p title=t class=r>x'), 'same', 'same'],
  ['attr() in an animation', page('<style>@keyframes k{from,to{content:attr(class)}} p::after{content:"";animation:k 9s paused}</style>', '<p style="color:red">x'), page('<style>@keyframes k{from,to{content:attr(class)}} p::after{content:"";animation:k 9s paused} .r{color:red}</style>', '<p class=r>x'), 'unsure', 'other'],
  ['a namespace without quotes is none', css('@namespace x;p{color:red}'), css('p{color:red}'), 'same', 'same'],
  ['… a prefix without an address neither', css('@namespace a x;p{color:red}'), css('p{color:red}'), 'same', 'same'],
  ['a block gone from before an element that counts its siblings', css('p{width:calc(10px*sibling-index())}', '<style></style><p>x'), css('p{width:calc(10px*sibling-index())}', '<p>x'), 'differs', 'other'],
  // trees of their own
  ['text in a shadow tree', page('', shadow('<p>x</p>')), page('', shadow('<p>yy</p>')), 'differs', 'same'],
  ['a host whose class its shadow tree asks for', page('', shadow('<style>:host(:not([class])){color:red}</style>x', ' style="top:0"')), css('.t{top:0}', shadow('<style>:host(:not([class])){color:red}</style>x', ' class=t')), 'unsure', 'other'],
  ['a host whose shadow tree asks for nothing', page('', shadow('<p>x</p>', ' style="color:red"')), css('.t{color:red}', shadow('<p>x</p>', ' class=t')), 'same', 'same'],
  ['an object that held a block alone', page('', '<object><style>p{color:red}</style></object><p>x'), css('p{color:red}', '<object></object><p>x'), 'differs', 'other'],
  ['… and an address of its own', page('', '<object><param name=a><style>p{color:red}</style></object><p>x'), css('p{color:red}', '<object><param name=a></object><p>x'), 'differs', 'other'],
  ['… or text as well', page('', '<object>t<style>p{color:red}</style></object><p>x'), css('p{color:red}', '<object>t</object><p>x'), 'same', 'same'],
  ['a host that held a block alone', page('', '<div><template shadowrootmode=open><slot><i>z</i></slot></template><style>p{color:red}</style></div><p>x'), css('p{color:red}', '<div><template shadowrootmode=open><slot><i>z</i></slot></template></div><p>x'), 'differs', 'other'],
  ['… a host that a script makes', page('', '<x-y><style>p{color:red}</style></x-y><script>customElements.define("x-y", class extends HTMLElement { connectedCallback() { this.attachShadow({ mode: "open" }).innerHTML = "<slot><p>z</p></slot>" } })</script><p>x'), css('p{color:red}', '<x-y></x-y><script>customElements.define("x-y", class extends HTMLElement { connectedCallback() { this.attachShadow({ mode: "open" }).innerHTML = "<slot><p>z</p></slot>" } })</script><p>x'), 'differs', 'other'],
  ['a sheet linked in a select', { 'p.html': page('', '<select><link rel=stylesheet href=s.css><option>x</select><p>x'), 's.css': 'p{color:red}' }, { 'p.html': page('', '<select><link rel=stylesheet href=s.css><option>x</select><p>x'), 's.css': 'p{color:blue}' }, 'unsure', 'other'],
  ['a select with more than options', css('select b{color:red}', '<select size=2><option><b>x</b></select>'), page('', '<select size=2><option><b>x</b></select>'), 'unsure', 'other'],
  ['a style element of a formula styles nothing', page('', '<math><style>p{color:red}</style></math><p>x'), page('', '<math><style>p{color:blue}</style></math><p>x'), 'differs', 'same'],
  // languages and directions
  ['a language told by the metadata', page(`${meta('cy')}<style>p:lang(cy){color:red}</style>`), page(meta('cy')), 'differs', 'other'],
  ['… in any case, and a part of it', page(`${meta('CY-gb')}<style>p:lang(cy){color:red}</style>`), page(meta('CY-gb')), 'differs', 'other'],
  ['… the last one counts', page(`${meta('cy')}${meta('en')}<style>p:lang(en){color:red}</style>`), page(meta('cy') + meta('en')), 'differs', 'other'],
  ['… in the body as well', css('p:lang(cy){color:red}', `<p>x${meta('cy')}`), page('', `<p>x${meta('cy')}`), 'differs', 'other'],
  ['… not where an element says another', page(`${meta('cy')}<style>p:lang(cy){color:red}</style>`, '<p lang="">x'), page(meta('cy'), '<p lang="">x'), 'same', 'same'],
  ['… two of them, which browsers read in their own ways', page(`${meta('cy,en')}<style>p:lang(cy){color:red}</style>`), page(meta('cy,en')), 'differs', 'same'],
  ['told by nobody, the server may', css('p:lang(cy){color:red}'), page(''), 'differs', 'same'],
  ['a language with an escape', css('p:lang(\\63 y){color:red}', '<p lang=cy>x'), page('', '<p lang=cy>x'), 'differs', 'other'],
  ['a language in a drawing', css('g:lang(cy){color:red}', '<svg><g lang=en xml:lang=cy>x</g></svg>'), page('', '<svg><g lang=en xml:lang=cy>x</g></svg>'), 'differs', 'other'],
  ['a mark that runs from right to left', css('p:dir(rtl){color:red}', '<p dir=auto>\u200fx'), page('', '<p dir=auto>\u200fx'), 'differs', 'other'],
  ['a rare script that does', css('p:dir(rtl){color:red}', '<p dir=auto>\u{10800}'), page('', '<p dir=auto>\u{10800}'), 'differs', 'other'],
  // addresses that are put together where they are used
  ['a text of a property becomes an address', css('p{--i:"a.png";background:image-set(var(--i) 1x)}'), { 'p.html': page('<link rel=stylesheet href=d/s.css>'), 'd/s.css': 'p{--i:"a.png";background:image-set(var(--i) 1x)}' }, 'differs', 'other'],
  // conditions by what they ask
  ['a state by another way to the element', css('a:hover{color:red}', '<nav><a href="#">x</a></nav>'), css(':where(nav) a:hover{color:red}', '<nav><a href="#">x</a></nav>'), 'same', 'same'],
  ['two states in another order', css('a:hover:focus{color:red}', '<a href="#">x</a>'), css('a:focus:hover{color:red}', '<a href="#">x</a>'), 'same', 'same'],
  ['another state', css('a:hover{color:red}', '<a href="#">x</a>'), css('a:focus{color:red}', '<a href="#">x</a>'), 'differs', 'same'],
  ['a state of what is around it', css('nav:hover a{color:red}', '<nav><a href="#">x</a></nav>'), css('a:hover{color:red}', '<nav><a href="#">x</a></nav>'), 'differs', 'same'],
  ['a state it must not be in', css('a:not(:hover){color:red}', '<a href="#">x</a>'), css('a:hover{color:red}', '<a href="#">x</a>'), 'differs', 'other'],
  ['a width by its old name', css('@media (width >= 400px){p{color:red}}'), css('@media (min-width: 400px){p{color:red}}'), 'same', 'same'],
  ['only, and all', css('@media only screen{p{color:red}} @media all and (color){p{top:0}}'), css('@media screen{p{color:red}} @media (color){p{top:0}}'), 'same', 'same'],
  // pages that are not read here
  ['a page sent as XML whose sheet changed', { 'p.html': css(''), 'm.xhtml': page('<link rel="stylesheet" href="s.css" />'), 's.css': 'p{top:0}' }, { 'p.html': css(''), 'm.xhtml': page('<link rel="stylesheet" href="s.css" />'), 's.css': 'p{top:0} b{top:0}' }, 'same', 'same'],
  // text
  ['a form feed shows', page('', '<p>x\fy'), page('', '<p>x y'), 'differs', 'same'],
  ['a head that shows', css('head,title{display:block;white-space:pre}'), `${css('head,title{display:block;white-space:pre}').replace('</head>', '\n\n</head>')}`, 'differs', 'other'],
]; // oxfmt-ignore

const ask = `(() => {
  for (const a of document.getAnimations()) { a.pause(); a.currentTime = 100; }
  const names = [...getComputedStyle(document.documentElement)];
  return [...document.querySelectorAll('*')].filter((e) => !e.matches('style, link')).map((e) =>
    [null, '::before', '::after'].map((p) => names.map((n) => getComputedStyle(e, p).getPropertyValue(n)).join('|').replaceAll(location.origin, '')).join('/')).join('\\n');
})()`;

const filesOf = (state: string | Files): Files => (typeof state === 'string' ? { 'p.html': state } : state);
const question = (state: string | Files): Question => ({
  html: filesOf(state)['p.html']!,
  files: filesOf(state),
  path: 'p.html',
  ask,
});

test.each(rows.map(([shows, before, after, verdict]) => ({ shows, before, after, verdict })))(
  '$verdict: $shows',
  ({ before, after, verdict }) => {
    const proof = proveSites(siteOf(filesOf(before)), siteOf(filesOf(after)));
    expect(proof.pages.find(({ path }) => path === 'p.html')!.verdict).toBe(verdict);
  },
);

test('a page that is not read: the same while neither it nor a sheet it names changes', () => {
  const xml = { 'm.xhtml': page('<link rel="stylesheet" href="s.css" />'), 's.css': 'p{top:0}', 't.css': 'p{top:0}' };
  const verdict = (files: Files): Verdict => proveSites(siteOf(xml), siteOf({ ...xml, ...files })).pages[0]!.verdict;
  expect(verdict({ 't.css': 'p{top:1px}' })).toBe('same');
  expect(verdict({ 's.css': 'p{top:0} b{top:0}' })).toBe('unsure');
  expect(verdict({ 'm.xhtml': page('') })).toBe('unsure');
});

test('Chromium shows another look wherever these rows say so, and where the proof says same it does not', async () => {
  const answers = await askChromium(rows.flatMap(([, before, after]) => [question(before), question(after)]));
  const shown = rows.map(([shows, , , verdict], i) => ({
    shows,
    verdict,
    browser: answers[2 * i] === answers[2 * i + 1] ? 'same' : 'other',
  }));
  expect(shown).toEqual(rows.map(([shows, , , verdict, browser]) => ({ shows, verdict, browser })));
  expect(shown.filter(({ verdict, browser }) => verdict === 'same' && browser === 'other')).toEqual([]);
}, 120_000);
