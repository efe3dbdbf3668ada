import fc from 'fast-check';
import { expect, it } from 'vitest';
import { Heap } from './minHeap.ts';

it('gives back what was pushed, the least first, however pushes and pops mix', () => {
  fc.assert(
    fc.property(fc.array(fc.option(fc.integer({ min: 0, max: 50 }), { freq: 3 })), (moves) => {
      const heap = new Heap<{ promise: number }>();
      const left: number[] = [];
      for (const move of moves) {
        if (move === null) {
          left.sort((a, b) => a - b);
          expect(heap.least).toBe(left[0] ?? Infinity);
          expect(heap.pop()?.promise).toBe(left.shift());
        } else {
          heap.push({ promise: move });
          left.push(move);
        }
      }
    }),
  );
});
