import { expect, test } from '@jest/globals';
import { planWords } from './usePlanProgress.ts';

test.each([
  [undefined, 'Planning …'],
  [{ step: 'reading', done: 12, total: 3000 }, 'Reading, 12 of 3,000 …'],
  [{ step: 'reading', done: 26, total: 26 }, 'Ordering the rules …'],
  [{ step: 'proving', done: 4, total: 26 }, 'Proving, 4 of 26 …'],
] as const)('%j is said as "%s"', (progress, words) => {
  expect(planWords(progress)).toBe(words);
});
