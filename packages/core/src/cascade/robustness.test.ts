import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import fs from 'node:fs';
import { fileURLToPath } from 'node:url';
import { parsePage } from '../page/parsePage.ts';
import { parseSelectorList } from '../selectors/parseSelector.ts';
import { parseSheet } from '../sheet/parseSheet.ts';
import type { Rule } from '../sheet/sheet.ts';
import { makeSite } from '../source/site.ts';
import { desktop } from './environment.ts';
import { siteWinners } from './siteWinners.ts';

// the nightly form asks for 20000
const numRuns = Number(process.env['FUZZ_CASES'] ?? 400);
const demo = fileURLToPath(new URL('../../../../demo/', import.meta.url));
const encode = (text: string): Uint8Array => new TextEncoder().encode(text);

/** The winners of a page `p.html` that may link `s.css`. */
function winnersOf(html: string | Uint8Array, css: string, environments = [desktop]): number {
  const site = makeSite([
    ['p.html', typeof html === 'string' ? encode(html) : html],
    ['s.css', encode(css)],
  ]);
  let count = 0;
  for (const environment of environments) for (const lines of siteWinners(site, { environment })) count += lines.length;
  return count;
}

const cssScraps = ['{', '}', '(', ')', '[', ']', ';', ':', ',', '"', "'", '\\', '/*', '*/', '<!--', '-->', '@', '#', '.', '&', '>', '~', '+', '|', '||', '*', '!important', ' ', '\n', '\0', 'é', '🚢', '\ud800', 'p', 'div', '.a', '#x', ':hover', '::before', ':is(', ':not(', ':has(', ':nth-child(2n+1 of ', ':lang(', ':host(', '::slotted(', ':scope', '[a=b i]', 'svg|a', '@media ', '@media (width>1px){', '@supports (display:grid){', '@supports not (', '@layer a.b{', '@layer x;', '@scope (.a) to (.b){', '@import "s.css";', '@import url(s.css) layer(x) supports(', '@container (', '@font-face{', '@keyframes k{', '@property --x{', '@namespace svg url(x);', '@charset "utf-8";', 'color:red', 'margin:1px 2px', 'font:', 'var(--x', '--x:', 'calc(1px + ', 'url(', 'url("s.css")', 'all:unset', 'revert-layer', 'inherit', '1e999px', '-0', 'U+26', '\\110000 ', '\\0 ']; // oxfmt-ignore
const htmlScraps = ['<', '>', '</', '/>', '<p>', '<div class=a id=x>', '</div>', '<table border=1><td>', '<svg><style>', '<math>', '<template>', '<noscript>', '<style>', '</style>', '<style media="', '<link rel=stylesheet href=s.css>', '<link rel="alternate stylesheet" title=A href=s.css>', '<base href="//x/">', '<meta charset=utf-16>', '<!--', '-->', '<![CDATA[', '<!DOCTYPE html>', '<p style="', '" ', "' ", 'color:red;', '&amp', '&#0;', '<select><option>', '<input required>', '<frameset>', '<plaintext>', '<script>', '<b><i></b>', '<font color=chucknorris size=+9>', 'dir=auto>', 'x', '\0', '\r']; // oxfmt-ignore

const text = (scraps: readonly string[]): fc.Arbitrary<string> =>
  fc
    .array(
      fc.oneof({ weight: 8, arbitrary: fc.constantFrom(...scraps) }, fc.string({ maxLength: 4, unit: 'binary' })),
      { maxLength: 40 },
    )
    .map((parts) => parts.join(''));

test('pages and sheets of any text: no throw, and every span lies in its text', () => {
  fc.assert(
    fc.property(text(htmlScraps), text(cssScraps), text(cssScraps), (html, block, css) => {
      winnersOf(`${html}<link rel=stylesheet href=s.css><style>${block}</style>${html}`, css, [
        desktop,
        { ...desktop, medium: 'print' },
      ]);
      expect(parsePage(html).text).toBe(html);
      const inside = (rules: readonly Rule[], from: number, to: number): void => {
        let at = from;
        for (const rule of rules) {
          expect(rule.span.start).toBeGreaterThanOrEqual(at);
          expect(rule.span.end).toBeLessThanOrEqual(to);
          at = rule.span.end;
          if (rule.kind === 'group') inside(rule.rules, rule.span.start, rule.span.end);
        }
      };
      inside(parseSheet(css).rules, 0, css.length);
    }),
    { seed: 4870, numRuns },
  );
});

test('selectors of any text: no throw', () => {
  fc.assert(
    fc.property(text(cssScraps), (selector) => void parseSelectorList(selector)),
    { seed: 4870, numRuns },
  );
});

/** A file with bytes put in, taken out and turned over at random places. */
const mutated = (bytes: Uint8Array): fc.Arbitrary<Uint8Array> =>
  fc.array(fc.tuple(fc.nat(bytes.length), fc.nat(30), fc.uint8Array({ maxLength: 3 })), { minLength: 1, maxLength: 5 }).map((cuts) => {
    let out = Buffer.from(bytes);
    for (const [at, length, put] of cuts) out = Buffer.concat([out.subarray(0, at), put, out.subarray(at + length)]);
    return new Uint8Array(out);
  }); // oxfmt-ignore

test('mutated pages of the demo: no throw', () => {
  const pages = ['crew.html', 'tickets/season.html', 'cy/index.html']
    .filter((name) => fs.existsSync(demo + name))
    .map((name) => fs.readFileSync(demo + name));
  expect(pages.length).toBeGreaterThan(1);
  const css = fs.readFileSync(`${demo}css/site.css`, 'utf8');
  fc.assert(
    fc.property(fc.constantFrom(...pages), fc.gen(), (page, gen) => void winnersOf(gen(mutated, page), css)),
    { seed: 4870, numRuns: Math.ceil(numRuns / 20) },
  );
});

const many = (part: string, count: number): string => part.repeat(count);
const page = (body: string): string => `<!DOCTYPE html><link rel=stylesheet href=s.css><body>${body}`;

// a reader that recurses throws on some of these, one that backtracks never ends: a hang shows as the runner's time limit
const list = (count: number, one: (i: number) => string, between = ''): string =>
  Array.from({ length: count }, (_, i) => one(i)).join(between);
const pathological: readonly (readonly [what: string, html: string, css: string])[] = [
  ['elements 3000 deep', page(many('<div>', 3000)), 'div{color:red} div div div{top:0}'],
  ['formatting elements left open', page(many('<b><i><u><p>', 1000)), 'b{color:red}'],
  ['tables in tables', page(many('<table border=1 rules=all><td bgcolor=red>', 300)), 'td td td{color:red}'],
  ['blocks 200,000 deep', page('<p>'), many('a{', 200_000)],
  ['parentheses 200,000 deep', page('<p>'), `p{width:${many('(', 200_000)}}p{color:red}`],
  ['conditions 20,000 deep', page('<p>'), `${many('@media all{', 20_000)}p{color:red}`],
  ['nesting 5000 deep', page('<p>'), `${many('&{', 5000)}color:red`],
  ['nesting that doubles at each level', page(many('<p>x', 100)), `${many('&,& p{', 60)}color:red`],
  ['rules 40 deep on elements as deep', page(many('<div>', 45)), `body{${many('& div{', 40)}color:red`],
  ['rules 40 deep, each read in two ways', page(many('<div>', 45)), `body{${many(':is(:-moz-x,&) div{', 40)}color:red`],
  ['rules 40 deep in a scope', page(many('<div>', 45)), `@scope(body){div{${many('& div{', 40)}color:red`],
  [':is() 5000 deep', page('<p>'), `${many(':is(', 5000)}p${many(')', 5000)}{color:red}`],
  [':is() that doubles', page(many('<p>', 100)), `${many(':is(p,', 25)}p${many(')', 25)}{color:red}`],
  [':not() in :not()', page(many('<p>', 500)), `${many(':not(:not(', 30)}p${many('))', 30)}{color:red}`],
  ['30 descendant combinators, one name missing', page(many('<div>', 400)), `${many('div ', 30)}.q div div div{color:red}`],
  ['child in descendant combinators', page(many('<div>', 400)), `z ${many('div > div ', 15)}{color:red}`],
  ['12 sibling combinators', page(many('<p></p>', 2000)), `z ~ ${list(12, () => 'p', ' ~ ')}{color:red} z ~ ${list(12, () => 'p + p', ' ~ ')}{top:0}`],
  [':has() asked of every element', page(many('<div>', 300) + many('<p></p>', 2000)), ':has(.z) p, div:has(~ .z), p:has(+ .z){color:red}'],
  [':nth-child(of) of 5000 siblings', page(many('<p></p>', 5000)), 'p:nth-child(2n+1 of .a, p){color:red} p:nth-last-of-type(3n){top:0}'],
  ['scopes in scopes', page(many('<div>', 100)), `${many('@scope (div) to (.z) {', 10)}div{color:red}`],
  ['a selector of a megabyte', page('<p class=a>x'), `${'.a '.repeat(350_000)}{top:0}`],
  ['100,000 rules', page(many('<p class="c5 c77">x', 200)), list(100_000, (i) => `.c${i}{color:red;top:${i}px}`)],
  ['a sheet of 3 MB', page('<p>'), list(60_000, (i) => `.cls${i} a:hover{background:url(x${i}.png);margin:0 ${i}px}\n`)],
  ['3 MB of signs', page('<p>'), many('!@#$%^&*()_+{}[];:"\'\\ <!-- /* */ ', 90_000)],
  ['a value of 2 MB', page('<p>'), `p{background:${many('url(x),', 300_000)}red}`],
  ['long lists of values', page('<p>'), `p{grid-template-columns:${many('[a] 1fr ', 20_000)};font-family:${many('a b c, ', 20_000)}d;transition:${many('all 1s ease, ', 20_000)}all 1s;box-shadow:${many('1px 1px red,', 20_000)}1px 1px}`],
  ['calculations 5000 deep', page('<p>'), `p{width:calc(${many('(1px + ', 5000)}1px${many(')', 5000)});height:calc(${many('1px + ', 50_000)}1px)}`],
  ['a name of 1 MB', page('<p>'), `.${many('a', 1_000_000)}{color:red}`],
  ['50,000 escapes', page('<p>'), `p{${many('\\63 olor:red;', 50_000)}}`],
  ['conditions of many and of deep parts', page('<p>'), `@media ${many('screen and (min-width:1px),', 10_000)}all{p{color:red}} @media ${many('(', 50_000)}{p{color:red}} @supports ${many('not (', 50_000)}{p{}}`],
  ['variables in a chain', page('<p>'), `p{${list(20_000, (i) => `--v${i}:var(--v${i + 1})`, ';')};color:var(--v0)}`],
  ['20,000 style attributes', page(many('<p style="color:red;top:0">x', 20_000)), ''],
  ['an element of 50,000 attributes', page(`<p ${list(50_000, (i) => `a${i}=1`, ' ')}>`), '[a1][a49999]{color:red}'],
  ['elements of 3000 classes', page(many(`<p class="${list(3000, (i) => `a${i}`, ' ')}">`, 20)), '.a1.a2999{color:red}'],
  ['a sheet that imports itself', page('<p>'), `${many('@import "s.css";', 300)}p{color:red}`],
  ['20,000 layers', page('<p>'), list(20_000, (i) => `@layer l${i}{p{color:red}}`)],
  ['5000 embedded blocks', page(many('<style>p{color:red}</style>', 5000)), ''],
  ['a language of 100,000 parts', page(`<p lang="${many('a-', 50_000)}">`), ':lang(a-a-a){color:red} [lang|=a]{top:0}'],
]; // oxfmt-ignore

test.each(pathological)(
  '%s ends',
  (_what, html, css) => {
    expect(winnersOf(html, css)).toBeGreaterThanOrEqual(0);
  },
  120_000,
);
