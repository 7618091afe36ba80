import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { MinHeap } from './minHeap.ts';

test('hands out the least first, whatever comes in between', () => {
  fc.assert(
    fc.property(fc.array(fc.option(fc.integer())), (steps) => {
      const heap = new MinHeap<number>((a, b) => a < b);
      const held: number[] = [];
      for (const step of steps) {
        if (step !== null) {
          heap.push(step);
          held.push(step);
          continue;
        }
        held.sort((a, b) => a - b);
        expect(heap.pop()).toBe(held.shift());
      }
      expect(heap.size).toBe(held.length);
    }),
  );
});
