import { describe, expect, it } from 'vitest';
import { keyedPoints } from './paperKeys.ts';

describe('a mark that is keyed', () => {
  it.each([
    // Out of 9 and less every figure is all.
    ['', '7', 8, '7', true],
    ['', '0', 24, '0', true],
    // A second figure may follow: 1 may become 17.
    ['', '1', 24, '1', false],
    ['1', '17', 24, '17', true],
    ['', '3', 24, '3', true],
    ['', '1', 10, '1', false],
    ['1', '10', 10, '10', true],
    ['1', '11', 10, '11', false],
    // Letters are one key for what has two figures.
    ['', 'a', 24, '10', true],
    ['', 'O', 24, '24', true],
    ['', 'z', 60, '35', true],
    // Halves, and what is no mark, are waited for; what is taken back is not complete.
    ['7', '7.', 8, '7.', false],
    ['7.', '7.5', 8, '7.5', false],
    ['', '?', 8, '?', false],
    ['17', '1', 24, '1', false],
    ['1', '', 24, '', false],
  ])('%j, then %j out of %i: %j', (before, text, outOf, entered, done) =>
    expect(keyedPoints(before, text, outOf)).toEqual({ text: entered, done }),
  );
});
