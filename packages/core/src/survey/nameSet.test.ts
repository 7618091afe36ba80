import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Interner } from '../cascade/interner.ts';
import { NameSet } from './nameSet.ts';

const name = fc.constantFrom('p', '.p', '#p', '.notice', '#form', 'x-y', '.é', '', '__proto__');
const names = fc.array(name, { maxLength: 12 });

test('sets of one table say what sets of the same names say, in the same order', () => {
  fc.assert(
    fc.property(fc.array(names, { maxLength: 5 }), names, (lists, others) => {
      const interner = new Interner();
      const sets = lists.map((list) => new NameSet(interner, list));
      lists.forEach((list, i) => {
        const plain = [...new Set(list)];
        const set = sets[i]!;
        expect([...set]).toEqual(plain);
        expect(set.size).toBe(plain.length);
        for (const one of [...list, ...others]) {
          expect(set.has(one)).toBe(plain.includes(one));
          expect(set.indexOf(one)).toBe(plain.indexOf(one));
        }
        expect([...set.with(others)]).toEqual([...new Set([...list, ...others])]);
      });
    }),
    { endOnFailure: true },
  );
});

test('asking for a name does not put it into the table', () => {
  const interner = new Interner();
  const set = new NameSet(interner, ['p', '.p', 'p']);
  expect([set.has('q'), set.indexOf('q'), set.with(['p'])]).toEqual([false, -1, set]);
  expect(interner.size).toBe(2);
});
