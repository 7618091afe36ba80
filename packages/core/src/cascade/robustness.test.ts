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
const numRuns = Number(process.env['FUZZ_CASES'] ?? 1000);
const demo = fileURLToPath(new URL('../../../../demo/', import.meta.url));
const encode = (text: string): Uint8Array => new TextEncoder().encode(text);

/** All winners of a page `p.html` that may link `s.css`; also read for print, so that conditions are evaluated both ways. */
function winnersOf(html: string | Uint8Array, css: string): number {
  const site = makeSite([
    ['p.html', typeof html === 'string' ? encode(html) : html],
    ['s.css', encode(css)],
  ]);
  let count = 0;
  for (const environment of [desktop, { ...desktop, medium: 'print' as const }])
    for (const lines of siteWinners(site, { environment })) count += lines.length;
  return count;
}

const cssScraps = ['{', '}', '(', ')', '[', ']', ';', ':', ',', '"', "'", '\\', '/*', '*/', '<!--', '-->', '@', '#', '.', '&', '>', '~', '+', '|', '||', '*', '!important', ' ', '\n', '\0', 'é', '🚢', '\ud800', 'p', 'div', '.a', '#x', ':hover', '::before', ':is(', ':not(', ':has(', ':nth-child(2n+1 of ', ':lang(', ':host(', '::slotted(', ':scope', '[a=b i]', 'svg|a', '@media ', '@media (width>1px){', '@supports (display:grid){', '@supports not (', '@layer a.b{', '@layer x;', '@scope (.a) to (.b){', '@import "s.css";', '@import url(s.css) layer(x) supports(', '@container (', '@font-face{', '@keyframes k{', '@property --x{', '@namespace svg url(x);', '@charset "utf-8";', 'color:red', 'margin:1px 2px', 'font:', 'var(--x', '--x:', 'calc(1px + ', 'url(', 'url("s.css")', 'all:unset', 'revert-layer', 'inherit', '1e999px', '-0', 'U+26', '\\110000 ', '\\0 ']; // prettier-ignore
const htmlScraps = ['<', '>', '</', '/>', '<p>', '<div class=a id=x>', '</div>', '<table border=1><td>', '<svg><style>', '<math>', '<template>', '<noscript>', '<style>', '</style>', '<style media="', '<link rel=stylesheet href=s.css>', '<link rel="alternate stylesheet" title=A href=s.css>', '<base href="//x/">', '<meta charset=utf-16>', '<!--', '-->', '<![CDATA[', '<!DOCTYPE html>', '<p style="', '" ', "' ", 'color:red;', '&amp', '&#0;', '<select><option>', '<input required>', '<frameset>', '<plaintext>', '<script>', '<b><i></b>', '<font color=chucknorris size=+9>', 'dir=auto>', 'x', '\0', '\r']; // prettier-ignore

const text = (scraps: readonly string[]): fc.Arbitrary<string> =>
  fc.array(fc.oneof({ weight: 8, arbitrary: fc.constantFrom(...scraps) }, fc.string({ maxLength: 4, unit: 'binary' })), { maxLength: 40 }).map((parts) => parts.join('')); // prettier-ignore

test('pages and sheets of any text: no throw, and every span lies in its text', () => {
  fc.assert(
    fc.property(text(htmlScraps), text(cssScraps), text(cssScraps), (html, block, css) => {
      winnersOf(`${html}<link rel=stylesheet href=s.css><style>${block}</style>${html}`, css);
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
  }); // prettier-ignore

test('mutated pages of the demo: no throw', () => {
  const pages = ['crew.html', 'tickets/season.html', 'cy/index.html'].filter((name) => fs.existsSync(demo + name)).map((name) => fs.readFileSync(demo + name)); // prettier-ignore
  expect(pages.length).toBeGreaterThan(1);
  const css = fs.readFileSync(`${demo}css/site.css`, 'utf8');
  fc.assert(
    fc.property(fc.constantFrom(...pages), fc.gen(), (page, gen) => void winnersOf(gen(mutated, page), css)),
    { seed: 4870, numRuns: Math.ceil(numRuns / 20) },
  );
});

const many = (part: string, count: number): string => part.repeat(count);
const page = (body: string): string => `<!DOCTYPE html><link rel=stylesheet href=s.css><body>${body}`;

// each took minutes or threw with a reader that recurses or backtracks; a hang shows as the runner's time limit
const pathological: readonly (readonly [what: string, html: string, css: string])[] = [];

test.each(pathological)(
  '%s ends',
  (_what, html, css) => {
    expect(winnersOf(html, css)).toBeGreaterThanOrEqual(0);
  },
  120_000,
);
