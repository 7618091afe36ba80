import { declarations } from './generatedDeclarations.ts';
import { compound, selectorList } from './generatedSelector.ts';
import { Random } from '../packages/core/src/testing/random.ts';

export interface GeneratedSite {
  readonly files: Readonly<Record<string, string>>;
  readonly page: string;
}

/** A page with its sheets, made from a seed by a small grammar of everything the cascade knows. */
export function generatedSite(seed: number): GeneratedSite {
  const random = new Random(seed);
  const files: Record<string, string> = {};
  const sheet = (name: string, depth: number): string => {
    files[name] ??=
      (random.chance(0.3) ? '@charset "utf-8";\n' : '') + imports(random, depth, sheet) + rules(random, 1, 5);
    return name;
  };
  const head = random.times(1, 4, () => source(random, sheet)).join('\n');
  const doctype = random.pick([
    '<!DOCTYPE html>',
    '<!DOCTYPE html>',
    '<!DOCTYPE html>',
    '',
    '<!DOCTYPE HTML PUBLIC "-//W3C//DTD HTML 4.01 Transitional//EN">',
  ]);
  const inBody = random.chance(0.3) ? source(random, sheet) : '';
  const body = content(random, 0);
  const page = `${doctype}<html${attributes(random)}><head><meta charset="utf-8"><title>t</title>${random.chance(0.1) ? '<base href="/s/">' : ''}${head}</head><body${attributes(random)}>${body}${inBody}${content(random, 0)}</body></html>`;
  return { files: { ...files, 'd/page.html': page }, page: 'd/page.html' };
}

type MakeSheet = (name: string, depth: number) => string;
const media = ['print', 'screen', 'all', 'screen and (min-width: 600px)', '(max-width: 500px)', 'not print', 'only screen', 'tv', '(width > 600px)', '(min-width: 400px) and (max-width: 1300px)', 'screen, print', '(orientation: portrait)', '(bogus)', 'not all', '(hover)']; // oxfmt-ignore

function source(random: Random, sheet: MakeSheet): string {
  const extra = `${random.chance(0.2) ? ` media="${random.pick(media)}"` : ''}${random.chance(0.08) ? ' title="A"' : ''}`;
  if (random.chance(0.4)) {
    const name = sheet(`s/${random.pick(['one', 'two', 'three'])}.css`, 0);
    const rel = random.pick(['stylesheet', 'stylesheet', 'STYLESHEET', 'stylesheet', 'alternate stylesheet']);
    const type = random.chance(0.15) ? random.pick([' type="text/css"', ' type="text/less"', ' disabled']) : '';
    return `<link rel="${rel}" href="/${name}"${type}${extra}>`;
  }
  const type = random.chance(0.1) ? random.pick([' type="text/css"', ' type="text/x"', ' type=""']) : '';
  const css = imports(random, 0, sheet) + rules(random, 2, 7);
  const text = random.chance(0.1) ? `<!--\n${css}\n-->` : css;
  if (random.chance(0.05)) return `<noscript><style>${css}</style></noscript>`;
  if (random.chance(0.05)) return `<!-- <style>${css.replaceAll('--', '')}</style> -->`;
  return `<style${type}${extra}>${text}${random.chance(0.06) ? ' p { color: green; margin: 1px' : ''}</style>`;
}

function imports(random: Random, depth: number, sheet: MakeSheet): string {
  if (depth > 2 || !random.chance(0.2)) return '';
  const name = `s/i${depth}.css`;
  sheet(name, depth + 1);
  const tail = random.pick([
    '',
    '',
    ' screen',
    ' layer(one)',
    ' layer',
    ' supports(display: grid)',
    ' layer(two) supports(not (display: x)) print',
  ]);
  return `@import ${random.pick([`url(/${name})`, `"/${name}"`, `url("/${name}")`])}${tail};\n`;
}

function rules(random: Random, low: number, high: number, depth = 0, nested = false): string {
  return random.times(low, high, () => rule(random, depth, nested)).join('\n');
}

const supports = ['(display: grid)', '(display: bogus)', 'not (display: bogus)', '(color: red) and (margin: 0)', 'selector(:has(a))', 'selector(:bogus)', '(--x: y)', '((color: red) or (color: bogus))', 'bogus(x)']; // oxfmt-ignore

function rule(random: Random, depth: number, nested: boolean): string {
  const inside = (): string =>
    `${nested && random.chance(0.5) ? `${declarations(random, 1, 2)};` : ''}${rules(random, 1, 3, depth + 1, nested)}`;
  if (depth < 3 && random.chance(0.28))
    switch (random.below(8)) {
      case 0:
      case 1:
        return `@media ${random.pick(media)} { ${inside()} }`;
      case 2:
        return `@supports ${random.pick(supports)} { ${inside()} }`;
      case 3:
        return `@layer ${random.pick(['one', 'two', 'one.in', ''])} { ${inside()} }`;
      case 4:
        return nested ? '' : `@layer ${random.pick(['two, one', 'one.in', 'three'])};`;
      case 5:
        return `@scope (${compound(random, 2)})${random.chance(0.4) ? ` to (${compound(random, 2)})` : ''} { ${rules(random, 1, 3, depth + 1, false)} }`;
      case 6:
        return random.pick([
          '@font-face { font-family: x; src: url(x.woff) }',
          '@keyframes k { from { color: red } to { color: blue } }',
          '@page { margin: 1cm }',
          '@bogus { p { color: red } }',
          '@bogus x;',
          '@property --v { syntax: "*"; inherits: false }',
          '<!--',
          '-->',
        ]);
      default:
        return `/* ${random.pick(['c', '} p {', '*'])} */`;
    }
  const more =
    depth < 3 && random.chance(0.15)
      ? ` ${rules(random, 1, 2, depth + 1, true)} ${random.chance(0.5) ? declarations(random, 1, 2) : ''}`
      : '';
  return `${selectorList(random, nested)} { ${declarations(random, 1, 4)}${more === '' ? '' : `;${more}`} }`;
}

const classNames = ['a', 'b', 'c', 'A', 'note', 'a b', 'b c a', 'c-1', '1x'];

function attributes(random: Random): string {
  let out = '';
  if (random.chance(0.5)) out += ` class="${random.pick(classNames)}"`;
  if (random.chance(0.15)) out += ` id="${random.pick(['x', 'y', 'X', 'main'])}"`;
  if (random.chance(0.15)) out += ` style='${declarations(random, 1, 3).replaceAll("'", '"')}'`;
  if (random.chance(0.08))
    out += random.pick([' lang=en', ' lang="de-AT"', ' dir=rtl', ' title="t"', ' title=""', ' data-k=v', ' hidden']);
  return out;
}

const hints: Readonly<Record<string, readonly string[]>> = {
  p: [' align=center'],
  div: [' align=right'],
  td: [' bgcolor=red', ' width=40', ' nowrap', ' valign=top', ' align=char'],
  table: [
    ' border=1',
    ' cellpadding=4 cellspacing=2',
    ' align=center',
    ' width="50%"',
    ' rules=rows',
    ' bordercolor=blue border',
    ' frame=above',
  ],
  img: [' width=20 height=10', ' hspace=3', ' border=2', ' align=left'],
  ul: [' type=square'],
  li: [' type=i'],
  font: [' color=red', ' size=5', ' face="Arial, x"'],
  hr: [' noshade', ' size=5', ' color=red width=20', ' align=left'],
};

function content(random: Random, depth: number): string {
  return random.times(2, depth === 0 ? 5 : 3, () => node(random, depth)).join(random.chance(0.3) ? ' ' : '');
}

function node(random: Random, depth: number): string {
  if (depth > 3 || random.chance(0.2)) return random.pick(['text', 'x &amp; y', '<!-- c -->', 'שלום', '<br>']);
  const tag = random.pick([
    'p',
    'div',
    'div',
    'section',
    'ul',
    'table',
    'a',
    'span',
    'em',
    'b',
    'h2',
    'img',
    'hr',
    'input',
    'label',
    'select',
    'svg',
    'font',
    'center',
    'details',
    'blockquote',
    'bdo',
  ]);
  const own = attributes(random) + (hints[tag] && random.chance(0.4) ? random.pick(hints[tag]) : '');
  const inner = (): string => content(random, depth + 1);
  switch (tag) {
    case 'ul':
      return `<ul${own}>${random.times(1, 3, () => `<li${attributes(random)}${random.chance(0.2) ? random.pick(hints['li']!) : ''}>${inner()}`).join('')}</ul>`;
    case 'table':
      return `<table${own}>${random.times(1, 2, () => `<tr>${random.times(1, 2, () => `<td${attributes(random)}${random.chance(0.3) ? random.pick(hints['td']!) : ''}>x`).join('')}`).join('')}</table>`;
    case 'a':
      return `<a${random.chance(0.7) ? ` href="${random.pick(['/x', '#y', 'https://example.org/'])}"` : ''}${own}>link</a>`;
    case 'img':
    case 'hr':
      return `<${tag}${own}>`;
    case 'input':
      return `<input${random.pick([' type=text', ' type=checkbox checked', ' type=radio', ' disabled', ' required', ' placeholder=p', ' readonly', ' type=number min=1 value=0'])}${own}>`;
    case 'select':
      return `<select${own}><option selected>1<option>2</select>`;
    case 'svg':
      return `<svg${own} viewBox="0 0 9 9"><linearGradient class=a /><rect fill=red class="b"${random.chance(0.3) ? ' style="fill: blue"' : ''} /></svg>`;
    case 'details':
      return `<details${random.chance(0.5) ? ' open' : ''}${own}><summary>s</summary>${inner()}</details>`;
    default:
      return `<${tag}${own}>${inner()}</${tag}>`;
  }
}
