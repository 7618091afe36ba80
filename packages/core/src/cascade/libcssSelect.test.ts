import { describe, expect, test } from '@jest/globals';
import fs from 'node:fs';
import { parsePage } from '../page/parsePage.ts';
import { comparableValue } from '../values/comparableValue.ts';
import { buildTree, type DrawnElement } from '../testing/treeOf.ts';
import { siteOf } from '../testing/siteOf.ts';
import { CascadeSession, PageCascade } from './pageCascade.ts';
import { PageOutcomes, type Outcome } from './pageOutcomes.ts';
import { pageRules } from './pageRules.ts';

// libcss 0.9.1, test/data/select/tests1.dat, from Debian's source package netsurf 3.10 (MIT, see libcssSelect.LICENSE): all 124
// cases; of each case's expected values only those that differ from the file's usual ones are kept, the rest are its defaults
interface Case {
  readonly tree: readonly string[];
  readonly medium: string;
  readonly ua: string;
  readonly user: string;
  readonly author: string;
  readonly uaMedia: string;
  readonly userMedia: string;
  readonly authorMedia: string;
  readonly expected: Readonly<Record<string, string>>;
}
const data = JSON.parse(
  fs.readFileSync(new URL('../../testdata/published/libcssSelect.json', import.meta.url), 'utf8'),
) as { readonly defaults: Readonly<Record<string, string>>; readonly cases: readonly Case[] };

function drawn(lines: readonly string[]): { readonly elements: DrawnElement[]; readonly asked: number } {
  const elements: DrawnElement[] = [];
  let asked = 0;
  for (const line of lines) {
    const found = /^\|( +)(?:([\w-]+)=(.*)|(\w+)(\*?))$/.exec(line)!;
    const depth = (found[1]!.length - 1) / 1;
    if (found[2] !== undefined) (elements.at(-1)!.attributes as Record<string, string>)[found[2]] = found[3]!;
    else {
      if (found[5] === '*') asked = elements.length;
      elements.push({ tag: found[4]!, attributes: {}, depth });
    }
  }
  return { elements, asked };
}

/** Origins stand in the same order as layers do, important ones reversed: CSS Cascading 5, "Cascade Sorting Order". */
function sheetOf({ ua, uaMedia, user, userMedia, author, authorMedia }: Case): string {
  const part = (name: string, css: string, media: string): string =>
    `@layer ${name} { @media ${media === '' ? 'all' : media} { ${css} } }`;
  return `@layer ua, user, author; ${part('ua', ua, uaMedia)} ${part('user', user, userMedia)} ${part('author', author, authorMedia)}`;
}

const alike: Readonly<Record<string, string>> = { thin: '1px', medium: '2px', thick: '4px', small: '9.75pt', xlarge: '18pt' }; // oxfmt-ignore

/** libcss prints colours as #aarrggbb and numbers with three decimals. */
function spelled(property: string, text: string): string {
  const value = text
    .replace(
      /#([0-9a-f]{2})([0-9a-f]{6})/gi,
      (_, alpha: string, rest: string) => `#${rest}${alpha.toLowerCase() === 'ff' ? '' : alpha}`,
    ) // oxfmt-ignore
    .replace(/\d+\.\d+/g, (n) => String(Number(n)));
  return comparableValue(property, value.replace(/\b0(px|%|pt|em)/g, '0'));
}

/** Whether the declaration that core says decides is one that gives the expected value. */
function gives(outcome: Outcome, property: string, expected: string, usual: string): boolean {
  if (outcome.kind === 'inherited') return gives(outcome.outcome, property, expected, usual);
  if (outcome.kind === 'initial') return expected === usual;
  if (outcome.kind === 'default') return false;
  const { property: declared, value } = outcome.contender.compiled.declaration;
  const wanted = spelled(property, expected);
  const words = (declared === property ? [value] : [value, ...value.split(/[\s/]+/)]).map((v) => spelled(property, v));
  const forms = words.flatMap((w) => [w, alike[w] ?? w, spelled(property, `${w} ${w}`)]);
  return forms.includes(wanted) || (declared !== property && !forms.includes(wanted) && expected === usual);
}

// what libcss answers after computing, or answered before today's standards: the cascade's part of the answer is right in each
const computed: readonly (readonly [cases: readonly number[], property: RegExp, reason: string])[] = [
  [[2, 3, 4, 5], /-color$/, 'the initial colour of borders is currentcolor, here computed'],
  [[6], /^color$/, 'currentColor, computed'],
  [[3, 43], /^float$/, 'float computes to none on absolutely positioned elements'],
  [[30, 31, 32, 33, 34, 35, 37, 38], /^font-size$/, 'a keyword, computed to points'],
  [[13, 14], /^background-position$/, 'keywords, computed to percentages'],
  [[23, 40], /^(background-image|cursor)$/, 'printed with other quotes and commas'],
  [[41], /^letter-spacing$/, 'percentages are valid since CSS Text 4'],
  [[44], /^column-count$/, 'printed in fixed point'],
  [[46, 47], /^break-before$/, 'always is no value of break-before in Chromium'],
  [[60, 61, 65, 68, 69, 72], /^flex-(grow|shrink|basis)$/, 'what a keyword or a missing part of flex stands for'],
  [[100, 101], /^min-(height|width)$/, 'the initial value is auto today'],
  [[103], /^width$/, 'ex, computed'],
];
const isComputed = (one: number, property: string): boolean =>
  computed.some(([cases, pattern]) => cases.includes(one) && pattern.test(property));

/** Shorthands today; longhands in CSS 2.1. */
const firstLonghand: Readonly<Record<string, string>> = {
  'background-position': 'background-position-x',
  'border-spacing': '-webkit-border-horizontal-spacing',
};

describe('libcss select cases', () => {
  test.each(data.cases.map((one, i) => [i, one] as const))('case %i', (i, one) => {
    const { elements, asked } = drawn(one.tree);
    const css = sheetOf(one);
    const site = siteOf({ 'index.html': `<style>${css}</style>` });
    const session = new CascadeSession();
    const rules = pageRules(parsePage(`<style>${css}</style>`), 'index.html', 'utf-8', site, session.sheets);
    const page = new PageCascade(session, 'index.html', buildTree(elements), rules);
    const outcomes = new PageOutcomes(page, { environment: { medium: 'screen', width: 1280, height: 800 } });
    const element = page.tree.elements[asked]!;
    const declared = new Set([...outcomes.winnersOf(element).keys()]);
    const wrong: string[] = [];
    for (const [property, usual] of Object.entries(data.defaults)) {
      const expected = one.expected[property] ?? usual;
      if (!declared.has(property) && one.expected[property] === undefined) continue;
      const outcome = outcomes.outcomeOf(element, firstLonghand[property] ?? property);
      if (gives(outcome, property, expected, usual) || isComputed(i, property)) continue;
      const said =
        outcome.kind === 'declared'
          ? `${outcome.contender.compiled.declaration.property}: ${outcome.contender.compiled.declaration.value}`
          : outcome.kind;
      wrong.push(`${property}: expected ${expected}, core says ${said}`);
    }
    expect(wrong).toEqual([]);
  });
  test('all cases are there', () => expect(data.cases.length).toBe(124));
});
