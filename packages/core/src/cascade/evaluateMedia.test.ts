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
] as const;

describe.each([
  { medium: 'screen' as const, width: 1280 },
  { medium: 'screen' as const, width: 400 },
  { medium: 'print' as const, width: 1280 },
])('as Chromium answers: $medium, $width wide', ({ medium, width }) => {
  test('every query', async () => {
    const ask = `${JSON.stringify(queries)}.map((query) => matchMedia(query).matches)`;
    const [answers] = (await askChromium([{ html: '<!DOCTYPE html>', ask, width, media: medium }])) as [
      readonly boolean[],
    ];
    const said = queries.map((query) => evaluateMedia(query, { medium, width, height: 800 }));
    expect(queries.map((query, i) => `${query}: ${said[i]}`)).toEqual(
      queries.map((query, i) => `${query}: ${answers[i]}`),
    );
  });
});

const desktop = { medium: 'screen', width: 1280, height: 800 } as const;

test('what is not known is neither yes nor no, and stays so in company', () => {
  const unknown = '(scan: interlace)';
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
  ['screen/*x*/and (color)', 'screenand (color)'],
])('%j reads as %j', (given, text) => {
  expect(mediaText(given)).toBe(text);
});

test('an empty list and all hold always', () => {
  expect(['', ' ', 'all', ' ALL ', 'screen'].map(isAllMedia)).toEqual([true, true, true, true, false]);
});
