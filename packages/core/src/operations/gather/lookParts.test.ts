import { describe, expect, test } from '@jest/globals';
import { planLookKeepingAttributes } from '../../plan/planAttributes.ts';
import { parseDeclarations } from '../../sheet/parseSheet.ts';
import { askChromium } from '../../testing/chromium.ts';
import { pageOf, siteOf, textIn } from '../../testing/siteOf.ts';
import { lookParts } from './lookParts.ts';

/** Each font with each size with each indent: 24 looks of 9 declarations. */
const fonts = ['font-family: monospace', 'font-family: serif'];
const sizes = ['font-size: 13px', 'font-size: 14px', 'font-size: 15px; line-height: 20px'];
const indents = ['padding-left: 8px', 'padding-left: 16px', 'padding-left: 24px', 'padding-left: 32px'];
const looks = fonts.flatMap((font) => sizes.flatMap((size) => indents.map((indent) => `${font}; ${size}; ${indent}`)));

const partsOf = (list: readonly string[]): readonly string[] | undefined => {
  const found = lookParts(list.map((css) => parseDeclarations(css)));
  return (
    found &&
    [...new Set([...found.values()].flat())].map(({ declarations }) =>
      declarations.map(({ property, value }) => `${property}: ${value}`).join('; '),
    )
  );
};

describe('looks are taken apart', () => {
  test('where they are combinations of few declarations; what always goes together is one part', () => {
    expect([...partsOf(looks)!].sort()).toEqual([...fonts, ...sizes, ...indents].sort());
  });

  test.each([
    ['few looks', looks.slice(0, 11)],
    ['looks that share nothing', looks.map((_, i) => `top: ${i}px; left: ${i}px`)],
    ['declarations that hang on each other', looks.map((css) => `padding: 0; ${css}`)],
    ['important ones', looks.map((css) => `${css.replaceAll(';', ' !important;')} !important`)],
    ['flow-relative ones', looks.map((css) => css.replace('padding-left', 'padding-inline-start'))],
  ])('not %s', (_shows, list) => {
    expect(partsOf(list)).toBeUndefined();
  });

  test('one that needs more classes stays whole, the others are taken apart', () => {
    const odd = `${looks[0]!}; color: red; top: 1px`;
    const found = lookParts([...looks, odd, `${looks[1]!}; color: red`].map((css) => parseDeclarations(css)))!;
    expect(found.get(0)).toHaveLength(3);
    expect([found.has(24), found.has(25)]).toEqual([false, false]);
  });
});

test('elements get a class for each part, and look the same: core and Chromium', async () => {
  const body = looks.map((css, i) => `<p${i % 3 === 0 ? ' class="own"' : ''} style="${css}">p`).join('\n');
  const site = siteOf({ 'a.html': pageOf('<style>p { margin: 0 }</style>', body) });
  const plan = planLookKeepingAttributes(site, { kind: 'gather-attributes', sheet: 'a.css', newNames: true });
  if (!plan.ok) throw new Error(plan.problem.kind);
  const { value } = plan;
  expect([value.proof.verdict, value.stayed]).toEqual(['same', []]);
  const sheet = textIn(value.site, 'a.css')!;
  expect(sheet.match(/^[^{]+(?= \{)/gm)).toEqual([
    '.text-mono',
    '.text-size-13',
    '.text-indent-8',
    '.text-indent-16',
    '.text-indent-24',
    '.text-indent-32',
    '.text-size-14',
    '.text-size-15-lines-20',
    '.text-lettered',
  ]);
  const page = textIn(value.site, 'a.html')!;
  expect(page).toContain('<p class="own text-mono text-size-13 text-indent-8">p');
  const ask = `[...document.querySelectorAll('p')].map((e) => { const s = getComputedStyle(e); return [...s].map((n) => s.getPropertyValue(n)).join('|'); })`;
  const [old, now] = await askChromium([
    { html: textIn(site, 'a.html')!, ask },
    { html: page, files: { 'a.css': sheet }, ask },
  ]);
  expect(now).toEqual(old);
  // named by hand, a look is one class again
  const named = planLookKeepingAttributes(site, {
    kind: 'gather-attributes',
    sheet: 'a.css',
    newNames: true,
    names: { [value.plan.groups[0]!.key]: 'mine' },
  });
  expect(named.ok && textIn(named.value.site, 'a.html')).toContain('<p class="own mine">p');
});
