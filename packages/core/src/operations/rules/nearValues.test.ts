import { expect, test } from '@jest/globals';
import { parseSheet } from '../../sheet/parseSheet.ts';
import { nearValues } from './nearValues.ts';

const near = (text: string) =>
  nearValues(parseSheet(text)).map(({ property, values }) => [
    property,
    ...values.map(({ value, uses }) => `${value} ${uses}`),
  ]);

test('colours that eyes hardly tell apart, whatever their notation; the one said most first', () => {
  expect(near('a { color: #0b5563 } b { color: #0B5564; background: rgb(11, 85, 99) } i { color: #a00 }')).toEqual([
    [undefined, '#0b5563 2', '#0B5564 1'],
  ]);
  expect(near('a { color: #fff; background: #000 }')).toEqual([]);
});

test('lengths of one property and unit', () => {
  expect(near('a { padding: 11px } b { padding: 12px 1em } i { padding: 12px; margin: 11px; width: 40px }')).toEqual([
    ['padding', '12px 2', '11px 1'],
  ]);
  expect(
    near('a { font-size: 0.9em } b { font-size: .95em } i { font-size: 12px } u { --x: 11px; top: 11px }'),
  ).toEqual([
    // oxfmt-ignore
    ['font-size', '0.9em 1', '.95em 1'],
  ]);
});
