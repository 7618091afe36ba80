import { expect, test } from '@jest/globals';
import { PageSet } from './pageSet.ts';

const setOf = (...pages: readonly number[]): PageSet => {
  const set = PageSet.empty(100);
  for (const page of pages) set.add(page);
  return set;
};

test('pages as bits behave as a set, also over the edges of words', () => {
  const set = setOf(0, 31, 32, 63, 99);
  expect([...set]).toEqual([0, 31, 32, 63, 99]);
  expect(set.size).toBe(5);
  expect([set.has(31), set.has(33)]).toEqual([true, false]);
  expect([...set.beyond(setOf(31, 99, 5))]).toEqual([0, 32, 63]);
  expect([...set.beyond(setOf(31, 99, 5), setOf(31, 63, 7, 0))]).toEqual([0, 63]);
  expect([set.meets(setOf(63)), set.meets(setOf(64))]).toEqual([true, false]);
  const copy = set.copy();
  copy.addAll(setOf(64));
  expect([copy.size, set.size]).toEqual([6, 5]);
  expect(setOf(1, 40).key).toBe(setOf(40, 1).key);
  expect(setOf(1).key).not.toBe(setOf(33).key);
});
