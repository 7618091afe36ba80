/** A small site made to mislead: the same rules in other orders, drift, leaks, layers, media, importance, IDs against classes. */
export function hostileSite(seed: number): Record<string, string> {
  const random = makeRandom(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const maybe = (share: number): boolean => random() < share;
  const declaration = (): string => `${pick(declarations)}${maybe(0.12) ? ' !important' : ''}`;
  const rule = (): string =>
    `${pick(selectors)}${maybe(0.2) ? `, ${pick(selectors)}` : ''} { ${Array.from({ length: 1 + Math.floor(random() * 3) }, declaration).join('; ')} }`;
  const wrapped = (text: string): string => (maybe(0.15) ? `${pick(groups)} { ${text} }` : text);
  const pool = Array.from({ length: 14 }, () => wrapped(rule()));
  const block = (): string => {
    const own = pool.filter(() => maybe(0.6));
    if (maybe(0.5)) own.sort(() => random() - 0.5);
    if (maybe(0.5)) own.push(wrapped(rule()));
    return `<style${maybe(0.1) ? ' media="print"' : ''}>\n${maybe(0.15) ? '@layer b, a;\n' : ''}${own.join('\n')}\n</style>`;
  };
  const files: Record<string, string> = { 'css/old.css': pool.slice(0, 3).concat(rule()).join('\n') };
  const link = '<link rel="stylesheet" href="/css/old.css">';
  for (let i = 0; i < 4; i++) {
    const head = [maybe(0.5) ? link : '', block(), maybe(0.3) ? link : '', maybe(0.6) ? block() : '']
      .filter((x) => x !== '')
      .join('\n');
    const doctype = maybe(0.8) ? '<!DOCTYPE html>' : '';
    files[`p${i}.html`] =
      `${doctype}<html><head><meta charset="utf-8"><title>${i}</title>\n${head}\n</head><body>${body(maybe)}</body></html>\n`;
  }
  return files;
}

const selectors = ['p', 'h1', 'h2', '.x', '.y', '#a', 'div p', 'div > .x', 'p.x', 'h1 + p', 'p:first-child', 'p:nth-child(2)', 'p:not(.x)', ':is(h1, h2)', 'a:hover', 'a:link', 'p::before', '*', 'body', 'section p', 'p:empty', '[title]', ':where(.y) p', 'div:has(a)', 'a:visited', 'p.bogus::nope', 'UL LI', '.X']; // prettier-ignore
const declarations = ['color: red', 'color: #00f', 'color: blue', 'margin: 1px', 'margin: 2px 3px', 'margin-left: 9px', 'margin-inline-start: 8px', 'padding: 4px', 'border: 1px solid red', 'border-left: 3px solid', 'border-color: green', 'font: 12px serif', 'font-size: 15px', 'font-weight: bold', 'background: yellow', 'background-color: lime', 'background: none', 'width: 50', 'width: 60px', 'color: bogus', 'colr: red', 'content: "z"', 'all: unset', 'all: revert-layer', 'text-decoration: underline', '--c: teal', 'color: var(--c)', 'line-height: 2', 'font-size: 2em', 'display: block', 'color: inherit', 'color: revert', 'float: left', 'list-style: square', 'list-style-type: disc']; // prettier-ignore
const groups = [
  '@media print',
  '@media (max-width: 500px)',
  '@media (min-width: 501px)',
  '@layer a',
  '@layer b',
  '@supports (display: grid)',
];

function body(maybe: (share: number) => boolean): string {
  const attribute = maybe(0.4) ? ' style="color: purple; margin-top: 6px"' : '';
  return `<div><h1 id=${maybe(0.5) ? 'a' : 'b'}>h</h1><p class="x"${attribute}>one <a href="#">l</a></p><p class="x y" title=t>two</p><p></p></div>${maybe(0.5) ? '<section><p class=y>s</p><h2 class=x>h</h2></section>' : ''}<ul><li>1<li class=X>2</ul>`;
}

function makeRandom(seed: number): () => number {
  let state = seed * 2654435761;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}
