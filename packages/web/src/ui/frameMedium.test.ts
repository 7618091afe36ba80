import { expect, test } from '@jest/globals';
import { asPrinted } from './frameMedium.ts';

test.each([
  ['print', 'all'],
  ['screen', 'not all'],
  ['', ''],
  ['all and (min-width: 400px)', 'all and (min-width: 400px)'],
  ['(min-width: 400px)', '(min-width: 400px)'],
  ['only print and (color), tv', 'all and (color), not all'],
  ['not print', 'not all'],
  ['not screen and (color)', 'all'],
  ['not print and (min-width: 1px)', 'not all and (min-width: 1px)'],
  ['not (color)', 'not (color)'],
  ['SCREEN, Print', 'not all, all'],
])('media %j in print', (written, shown) => {
  expect(asPrinted(written)).toBe(shown);
});
