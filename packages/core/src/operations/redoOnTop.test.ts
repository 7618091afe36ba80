import { expect, test } from '@jest/globals';
import { operationsBeyond, redoOnTop } from './redoOnTop.ts';
import type { Operation } from './operation.ts';

const mend = (finding: string): Operation => ({ kind: 'mend', finding });
const list = (text: string): Operation[] => [...text].map(mend);
const written = (operations: readonly Operation[]): string =>
  operations.map((o) => (o.kind === 'mend' ? o.finding : '?')).join('');

test.each([
  // what it shows                                   from    mine     now      out
  ['one more, on a list somebody added to', 'ab', 'abc', 'abx', 'abcx'],
  ['one taken out, on a list somebody added to', 'abc', 'ac', 'abcx', 'acx'],
  ['one taken out that is gone already', 'abc', 'ac', 'ac', 'ac'],
  ['one changed in its place', 'abc', 'aBc', 'abcx', 'aBcx'],
  ['one put first', 'ab', 'cab', 'xab', 'cxab'],
  ['behind one that is gone: at the end', 'ab', 'abc', 'a', 'ac'],
  ['all of it, when a revision ended the draft', '', 'abc', '', 'abc'],
  ['what was saved meanwhile is not done twice', 'ab', 'abc', '', 'c'],
  ['the same one twice counts twice', 'aa', 'aaa', 'aab', 'aaab'],
  ['nothing done', 'ab', 'ab', 'xy', 'xy'],
])('%s', (_shows, from, mine, now, out) => {
  expect(written(redoOnTop(list(from), list(mine), list(now)))).toBe(out);
});

test('fields in another order say the same', () => {
  const one: Operation = { kind: 'wrap-content', pages: ['a.html'], name: '.main' };
  const turned = { name: '.main', kind: 'wrap-content', pages: ['a.html'] } as const;
  expect(redoOnTop([one], [], [turned])).toEqual([]);
  expect(operationsBeyond([one, mend('a')], [turned])).toBe(1);
});
