import { encodeText } from '../source/textCoding.ts';

/**
 * A small site made to mislead: the same rules in other orders, drift, leaks, layers, media, importance, IDs against classes, style
 * attributes, addresses of every form counted from three folders, imports, titles, a page in an older encoding, policies, scripts as
 * old pages have them, shadow trees, values that read the markup, old names of properties, names that differ in case.
 */
export function hostileSite(seed: number): Record<string, string | Uint8Array> {
  const make = new Maker(seed);
  const files: Record<string, string | Uint8Array> = { 'css/old.css': make.oldSheet() };
  for (const [i, folder] of ['', '', 'sub/', 'sub/deep/'].entries()) {
    const text = make.page(i, folder);
    files[`${folder}p${i}.html`] = i === 1 ? encodeText(text, 'windows-1252')! : text;
  }
  return files;
}

class Maker {
  private state: number;
  private readonly pool: readonly string[];

  constructor(seed: number) {
    this.state = seed * 2654435761;
    this.pool = Array.from({ length: 14 }, () => this.wrapped(this.rule()));
  }

  oldSheet(): string {
    return this.pool
      .filter((rule) => !rule.includes('url('))
      .slice(0, 3)
      .concat('p { color: navy }')
      .join('\n');
  }

  page(number: number, folder: string): string {
    const up = '../'.repeat(folder.split('/').length - 1);
    const link = `<link rel="stylesheet" href="${this.maybe(0.5) ? '/' : up}css/old.css">`;
    const sources = [
      this.maybe(0.5) ? link : '',
      this.block(up),
      this.maybe(0.3) ? link : '',
      this.maybe(0.6) ? this.block(up) : '',
    ];
    const charset = number === 1 ? 'windows-1252' : 'utf-8';
    const doctype = this.maybe(0.8) ? '<!DOCTYPE html>' : '';
    const policy = this.maybe(0.07)
      ? `<meta http-equiv="Content-Security-Policy" content="${this.pick(policies)}">`
      : '';
    const head = `<meta charset="${charset}">${policy}<title>${number}</title>\n${sources.filter((x) => x !== '').join('\n')}`;
    return `${doctype}<html><head>${head}\n</head><body>${this.body()}</body></html>\n`;
  }

  private block(up: string): string {
    const own = this.pool.filter(() => this.maybe(0.6));
    if (this.maybe(0.5)) own.sort(() => this.random() - 0.5);
    if (this.maybe(0.5)) own.push(this.wrapped(this.rule()));
    if (this.maybe(0.15)) own.unshift('@layer b, a;');
    if (this.maybe(0.1)) own.unshift(`@import "${up}css/old.css"${this.maybe(0.3) ? ' print' : ''};`);
    const attributes = `${this.maybe(0.1) ? ' media="print"' : ''}${this.maybe(0.06) ? ' title="Plain"' : ''}`;
    return `<style${attributes}>\n${own.join('\n')}\n</style>`;
  }

  private rule(): string {
    if (this.maybe(0.06)) return this.pick(definitions);
    if (this.maybe(0.02)) return this.pick(traps);
    const selector = `${this.pick(selectors)}${this.maybe(0.2) ? `, ${this.pick(selectors)}` : ''}`;
    return `${selector} { ${this.declarations()} }`;
  }

  private declarations(): string {
    const list = Array.from({ length: 1 + Math.floor(this.random() * 3) }, () => this.pick(declarations));
    return list.map((text) => (this.maybe(0.12) ? `${text} !important` : text)).join('; ');
  }

  private wrapped(text: string): string {
    return this.maybe(0.15) && !text.startsWith('@') ? `${this.pick(groups)} { ${text} }` : text;
  }

  private body(): string {
    const attribute = (): string => (this.maybe(0.4) ? ` style="${this.attribute()}"` : '');
    return `<div${attribute()}><h1 id=${this.maybe(0.5) ? 'a' : 'b'}${attribute()}>h</h1><p class="x"${attribute()}>one <a href="#"${attribute()}>l</a></p><p class="x y" title=t>two</p><p${attribute()}></p></div>${this.maybe(0.5) ? `<section><p class=y${attribute()}>s</p><h2 class=x>h</h2></section>` : ''}<ul><li>1<li class=X${attribute()}>2</ul>${this.maybe(0.5) ? '<table width="50%" border=1 cellspacing=0><tr bgcolor="#eee"><td align=center width=40>c<td valign=top><font color=red size=2>f</font></table><p align=right>r' : ''}${this.oldMarkup(attribute)}${this.treeApart(attribute)}${this.maybe(0.2) ? this.pick(scripts) : ''}`;
  }

  /** Elements that only style, and formatting elements that the parser closes and opens again. */
  private oldMarkup(attribute: () => string): string {
    const centred = this.maybe(0.3) ? `<center${attribute()}><p>c</p><b>d</b></center>` : '';
    const words = this.maybe(0.3) ? `<font size=4${attribute()}>f <i>g</i></font>` : '';
    return `${centred}${words}${this.maybe(0.3) ? `<p><b${attribute()}><font color=blue>m<p>n</b>o</font>` : ''}`;
  }

  private treeApart(attribute: () => string): string {
    if (!this.maybe(0.1)) return '';
    return `<div${attribute()}><template shadowrootmode="open"><style>:host([class]) { color: teal }</style><slot></slot></template>s</div>`;
  }

  private attribute(): string {
    return this.maybe(0.5) ? 'color: purple; margin-top: 6px' : this.declarations().replaceAll('"', "'");
  }

  private pick<T>(list: readonly T[]): T {
    return list[Math.floor(this.random() * list.length)]!;
  }

  private maybe(share: number): boolean {
    return this.random() < share;
  }

  private random(): number {
    this.state = (Math.imul(this.state, 1664525) + 1013904223) >>> 0;
    return this.state / 2 ** 32;
  }
}

/** Old names of properties, values with a wrong unit, values that read the markup, names that differ in case. */
const edges = [
  '-webkit-margin-start: 5px',
  '-webkit-padding-end: 3px',
  '-webkit-opacity: 0.5',
  'opacity: 0px',
  'z-index: 0px',
  'order: 0px',
  'order: 0',
  'color: var(x)',
  'color: var(--C)',
  '--C: maroon',
  '--c: a)',
  'text-indent: calc(sibling-index() * 3px)',
  'list-style: cc',
  'corner-start-start-shape: notch',
  'corner-top-left-shape: scoop',
];
const policies = [
  "style-src 'self' 'unsafe-inline'",
  "style-src 'unsafe-inline'",
  "style-src 'self'",
  "default-src 'self'; style-src-attr 'none'",
  "style-src-elem 'unsafe-inline'",
];
/** Roll-overs, menus, switches and measurements, each told by what is seen once the page has loaded. */
const scripts = [
  '<script>var a = document.getElementById("a"); if (a) a.className = "y"</script>',
  '<script>for (const e of document.querySelectorAll(".x")) e.className += " y"</script>',
  '<script>for (const e of document.querySelectorAll("[style]")) e.title = "styled"</script>',
  '<script>document.body.insertAdjacentHTML("beforeend", "<p class=y>made</p>")</script>',
  '<script>if (document.styleSheets.length > 1) document.body.className = "y"</script>',
  '<script>var s = document.createElement("style"); s.textContent = "p { color: gray }"; document.head.appendChild(s)</script>',
  '<script>var b = document.getElementById("b"); if (b) { b.style.color = ""; b.classList.add("x") }</script>',
  '<script>var h = document.querySelector("h1"); if (h && h.getAttribute("style")) h.title = h.getAttribute("style")</script>',
  '<script>for (var i = 0; i < document.links.length; i++) document.links[i].onclick = function () { this.className = "on" }</script>',
  '<img src=x onerror="this.parentNode.className = \'y\'">',
];
const selectors = ['p', 'h1', 'h2', '.x', '.y', '#a', 'div p', 'div > .x', 'p.x', 'h1 + p', 'p:first-child', 'p:nth-child(2)', 'p:not(.x)', ':is(h1, h2)', 'a:hover', 'a:link', 'p::before', '*', 'body', 'section p', 'p:empty', '[title]', ':where(.y) p', 'div:has(a)', 'a:visited', 'p.bogus::nope', 'UL LI', '.X']; // oxfmt-ignore
const declarations = ['color: red', 'color: #00f', 'color: blue', 'margin: 1px', 'margin: 2px 3px', 'margin-left: 9px', 'margin-inline-start: 8px', 'padding: 4px', 'border: 1px solid red', 'border-left: 3px solid', 'border-color: green', 'font: 12px serif', 'font-size: 15px', 'font-weight: bold', 'background: yellow', 'background-color: lime', 'background: none', 'width: 50', 'width: 60px', 'color: bogus', 'colr: red', 'content: "z"', 'content: "\u00e9"', 'all: unset', 'all: revert-layer', 'text-decoration: underline', '--c: teal', 'color: var(--c)', 'line-height: 2', 'font-size: 2em', 'display: block', 'color: inherit', 'color: revert', 'float: left', 'list-style: square', 'list-style-type: disc', 'background: url(i/x.png) 2px 3px', "background-image: url('../i/y.png')", 'list-style-image: url("i/z.gif")', 'background-image: image-set("i/x.png" 1x, url(i/y.png) 2x)', 'cursor: url(/i/c.cur), help', 'background: URL(i\\/w.png)', 'animation: 1s k', 'font-family: F, serif', ...edges]; // oxfmt-ignore
const definitions = ['@font-face { font-family: F; src: url(i/f.woff2) }', '@font-face { font-family: F; src: local(serif) }', '@keyframes k { to { color: red } }', '@keyframes k { to { color: lime } }', '@page { margin: 1cm }', '@counter-style cc { system: cyclic; symbols: A; suffix: " " }', '@counter-style cc { system: cyclic; symbols: a; suffix: " " }', '@property --c { syntax: "<color>"; inherits: false; initial-value: red }']; // oxfmt-ignore
/** What moving styling changes by itself; rare, since a page that has one mostly stays as it is. */
const traps = [
  '@media print { @layer b { q { top: 0 } } }',
  '@layer b { }',
  'p::before { content: attr(class) attr(style) }',
  'p:nope { top: 0 }',
  'body { --u: url(i/q.png) }',
  'p { background-image: var(--u) }',
  '[style] p { top: 1px }',
  '[class="x"] { left: 1px }',
  'style { display: block }',
  'link { display: block; height: 2px }',
  'style + p { top: 2px }',
];
const groups = [
  '@media print',
  '@media (max-width: 500px)',
  '@media (min-width: 501px)',
  '@layer a',
  '@layer b',
  '@supports (display: grid)',
];
