import { describe, expect, test } from '@jest/globals';
import { askChromium } from '../testing/chromium.ts';
import { conditionsHold, describeCondition } from './conditions.ts';
import { evaluateMedia } from './evaluateMedia.ts';
import { isAllMedia, mediaText } from './mediaText.ts';

// Media Queries 4, "Media Query Lists", "Media Types", "Combining Media Features", "Evaluating Media Features in a Range Context"
const queries = [
  '',
  'all',
  'screen',
  'SCREEN',
  'print',
  'screen, print',
  'not print',
  'not screen',
  'only screen',
  'screen and (min-width:1px)',
  'not tv',
  'tv',
  'tty, handheld, projection, braille, embossed, aural',
  'speech',
  'bogus',
  'screen,',
  ',',
  'and',
  '(min-width: 600px)',
  '(max-width: 600px)',
  '(min-width: 40em)',
  '(max-width: 20rem)',
  '(min-width: 300px) and (max-width: 900px)',
  '(width >= 600px)',
  '(width < 600px)',
  '(600px <= width)',
  '(300px < width <= 900px)',
  'not (min-width: 600px)',
  'not all and (min-width: 600px)',
  '(min-width: 2000px) or (max-width: 900px)',
  '(not (min-width: 600px)) and (min-height: 1px)',
  '(orientation: landscape)',
  '(orientation: portrait)',
  '(min-height: 700px)',
  'print and (min-width: 1px), (min-width: 600px)',
  '(min-width: 6in)',
  '(min-width: 0)',
  '(min-width: 600)',
  '(color)',
  '(monochrome)',
  '(prefers-color-scheme: light)',
  '(min-width:',
  'screen and',
  'screen or (min-width: 1px)',
  'not all',
  'not (foo)',
  '(foo) or (width>0px)',
  'not (foo) or (width>0px)',
  '((width) and (height) or (color)) or (width)',
  '(width) and (height) or (color)',
  'screen and (width) or (height)',
  'screen and not (print)',
  'screen and not (foo)',
  'screen or (width)',
  'not screen and (foo)',
  'not print and (foo)',
  'screen and (width),foo(',
  '(width:0)',
  '(width>0)',
  '(width>=-1px)',
  '(0<width<2000px)',
  '(0px<width<2000px)',
  '(2000px>width>0px)',
  '(0px<width>3px)',
  '(0px=width)',
  '(width=1280px)',
  '(min-width:10em)',
  '(min-width:10vw)',
  '(min-width: 1e2px)',
  '(width : 1280PX)',
  '(foo: bar, baz)',
  'foo',
  'screen foo',
  '(width) foo',
  'or',
  'layer',
  '(layer)',
  'not',
  'only',
  'only (width)',
  'not not (width)',
  'not (not (width))',
  '(not (width))',
  '((width))',
  '(screen)',
  '(a(b)) or (width)',
  'foo(bar)',
  'foo(bar) or (width)',
  'not foo(bar)',
  '(width) and(height)',
  'screen and(width)',
  'screen/**/and/**/(width)',
  'screen and/**/(width)',
  '(width)and (height)',
  '(width) and not (height)',
  '(not (color)) or (hover)',
  '(min-width:)',
  '(min-width)',
  '(max-width)',
  '(min-width > 1px)',
  '(orientation > 1)',
  '(width: 1280px 3)',
  '(1280px = width)',
  '(1 < aspect-ratio < 2)',
  '(aspect-ratio: 1.6)',
  '(aspect-ratio: 1.6/1)',
  '(aspect-ratio: 0/0)',
  '(resolution: infinite)',
  '(min-resolution: 0dpcm)',
  '(min-resolution:.5x)',
  '(max-resolution:1dppx)',
  '(resolution: -1dppx)',
  '(color: -1)',
  '(min-color:-1)',
  '(grid: 0)',
  '(grid: -0)',
  '(min-grid: 0)',
  '(grid: 2)',
  'handheld',
  'braille',
  'unknown-type',
  'not unknown-type',
  '(color-index: 0)',
  'all and (color)',
  'ALL',
  'Screen AND (Width)',
  '(prefers-color-scheme)',
  '(prefers-reduced-motion)',
  '(--custom)',
  '(width: initial)',
  '(width: 100%)',
  '(width: 1280.0px)',
  '(width: env(x, 1280px))',
  '(width:var(--x))',
  '(-webkit-min-device-pixel-ratio:1)',
  '(-webkit-max-device-pixel-ratio:1.0)',
  '(-webkit-device-pixel-ratio:1)',
  '(min--webkit-device-pixel-ratio:1)',
  '(-webkit-min-device-pixel-ratio:.5)',
  '(device-width: 1280px)',
  '(min-device-width:0)',
  '[foo]',
  '{}',
  'screen;',
  '"a"',
  '(width) or (height) or (color)',
  '(width) or ((height) and (color))',
  '(width) and ((height) or (foo))',
  '(width) or (not (foo))',
  'url(x)',
  'screen and (min-width: 3px) and (max-width: 9999px)',
  'not all and (width)',
  'only all and not (width)',
  '(hover:hover',
  'screen and (width',
  '\\73 creen',
  '(w\\69 dth)',
  '(width: 1280\\70x)',
  '(update: fast) and (scripting: enabled)',
  '(scan:progressive)',
  '(height>0px)and(width>0px)',
  '1px<width',
  '(1px<width)',
  '(1px < width <= 3000px)',
  '(1px < width >= 3px)',
  '(width >= 1px <= 3000px)',
  '(1px = width = 1px)',
  '(foo < 3px)',
  '(3px < foo)',
  '(width < foo)',
  '(width==3px)',
  '(width > = 3px)',
  '(width >/**/= 3px)',
  '(width >=3px)',
  '((foo: bar) or (width))',
  '(!)',
  '(width ! )',
  '(;)',
  '(})',
  '(width))',
  'not(width)',
  'not (width',
  'not/**/(foo)',
] as const;

const names =
  'any-hover any-pointer aspect-ratio color color-gamut color-index device-aspect-ratio device-height device-posture device-width display-mode dynamic-range forced-colors grid height horizontal-viewport-segments hover inverted-colors monochrome orientation overflow-block overflow-inline pointer prefers-color-scheme prefers-contrast prefers-reduced-data prefers-reduced-motion prefers-reduced-transparency resolution scan scripting update vertical-viewport-segments video-dynamic-range width -webkit-device-pixel-ratio -webkit-transform-2d -webkit-transform-3d'.split(
    ' ',
  );
const values = ['none', 'hover', 'fine', 'srgb', 'p3', 'browser', 'folded', 'standard', 'active', 'progressive', 'enabled', 'fast', 'landscape', 'LIGHT', 'dark', 'no-preference', 'reduce', 'scroll', 'paged', '0', '1', '8', '-1', '1/1', '16/10', '1.5', '1dppx', '96dpi', '2x', '1280px', '0px', '10vmin', '3Q']; // oxfmt-ignore
const features = names.flatMap((name) => {
  const prefixed = name.startsWith('-webkit-')
    ? ['min', 'max'].map((p) => `-webkit-${p}-${name.slice(8)}`)
    : [`min-${name}`, `max-${name}`];
  const asked = [
    name,
    `${name} > 0`,
    `1 <= ${name}`,
    `0px<${name}<1281px`,
    ...values.flatMap((v) => [name, ...prefixed].map((n) => `${n}: ${v}`)),
  ];
  return asked.flatMap((feature) => [`(${feature})`, `not (${feature})`]);
});

describe.each([
  { medium: 'screen' as const, width: 1280 },
  { medium: 'screen' as const, width: 400 },
  { medium: 'print' as const, width: 1280 },
])('as Chromium answers: $medium, $width wide', ({ medium, width }) => {
  test('every query, every feature with every value', async () => {
    const asked = [...queries, ...features];
    const ask = `${JSON.stringify(asked)}.map((query) => matchMedia(query).matches)`;
    const [answers] = (await askChromium([{ html: '<!DOCTYPE html>', ask, width, media: medium }])) as [
      readonly boolean[],
    ];
    const said = asked.map((query) => evaluateMedia(query, { medium, width, height: 800 }));
    const unsure = asked.filter((_, i) => said[i] === undefined);
    expect(unsure.every((query) => /aspect-ratio.*(vmin|3Q)/.test(query))).toBe(true);
    expect(asked.filter((_, i) => said[i] !== undefined && said[i] !== answers[i])).toEqual([]);
  });
});

const desktop = { medium: 'screen', width: 1280, height: 800 } as const;

test('what hangs on a font is neither yes nor no, and stays so in company', () => {
  const unknown = '(width > 3ex)';
  expect([evaluateMedia(unknown, desktop), evaluateMedia(`not ${unknown}`, desktop)]).toEqual([undefined, undefined]);
  expect(evaluateMedia(`print and ${unknown}`, desktop)).toBe(false);
  expect(evaluateMedia(`${unknown}, screen`, desktop)).toBe(true);
});

test('conditions hold together', () => {
  const media = (text: string) => ({ kind: 'media', text }) as const;
  const set = (preferred: boolean) => ({ kind: 'sheet-set', text: 'A', preferred }) as const;
  const supports = { kind: 'supports', text: '(display: grid)' } as const;
  expect(conditionsHold([], desktop)).toBe(true);
  expect(conditionsHold([media('screen'), set(true)], desktop)).toBe(true);
  expect(conditionsHold([media('screen'), set(false)], desktop)).toBe(false);
  expect(conditionsHold([supports, media('print')], desktop)).toBe(false);
  expect(conditionsHold([supports, media('screen')], desktop)).toBe(true);
  const container = { kind: 'container', text: '(width > 1px)' } as const;
  expect(conditionsHold([container, supports], desktop)).toBeUndefined();
  expect(conditionsHold([container, media('print')], desktop)).toBe(false);
  expect([media('print'), supports, set(true)].map(describeCondition)).toEqual([
    '@media print',
    '@supports (display: grid)',
    'the sheet set “A”',
  ]);
});

test.each([
  ['  PRINT  and (max-width:3px)', 'print and (max-width: 3px)'],
  ['screen ,print', 'screen, print'],
  ['(  min-width : 3px  )', '(min-width: 3px)'],
  ['screen/*x*/and (color)', 'screen/**/and (color)'],
])('%j reads as %j', (given, text) => {
  expect(mediaText(given)).toBe(text);
});

test('an empty list and all hold always', () => {
  expect(['', ' ', 'all', ' ALL ', 'screen'].map(isAllMedia)).toEqual([true, true, true, true, false]);
});
