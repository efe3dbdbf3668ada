import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { CHANGE_OVER, dealt, lineOf, ownBpm, turnTime, turnToCome } from './lineUp.ts';

const children = ['Zoe', 'Ada', 'Émil', 'Bo'].map((name, i) => ({ id: String(i), name }));
const names = (line: readonly { name: string }[]) => line.map(({ name }) => name).join(' ');

describe('the line', () => {
  it('is as in the list, by name, or first who has not yet', () => {
    expect(names(lineOf(children, 'list', 1))).toBe('Zoe Ada Émil Bo');
    expect(names(lineOf(children, 'name', 1))).toBe('Ada Bo Émil Zoe');
    expect(names(lineOf(children, 'not-yet', 1, new Set(['0', '2'])))).toBe('Ada Bo Zoe Émil');
  });
  it('is shuffled alike by the same seed, and has everybody once', () => {
    const many = Array.from({ length: 20 }, (_, i) => ({ id: String(i), name: `c${i}` }));
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 2 ** 31 }), (seed) => {
        const line = lineOf(many, 'shuffled', seed);
        expect(line).toEqual(lineOf(many, 'shuffled', seed));
        expect([...line].sort((a, b) => Number(a.id) - Number(b.id))).toEqual(many);
      }),
    );
    expect(names(lineOf(many, 'shuffled', 1))).not.toBe(names(lineOf(many, 'shuffled', 2)));
  });
});

describe('patterns dealt out', () => {
  it('differ between neighbours, come equally often, and go on for whoever comes late', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 7 }),
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 0, max: 2 ** 31 }),
        (kinds, count, seed) => {
          const patterns = Array.from({ length: kinds }, (_, i) => i);
          const out = dealt(patterns, count, seed);
          expect(out).toHaveLength(count);
          out.forEach((one, i) => i > 0 && expect(one).not.toBe(out[i - 1]));
          const times = patterns.map((pattern) => out.filter((one) => one === pattern).length);
          expect(Math.max(...times) - Math.min(...times)).toBeLessThanOrEqual(1);
          expect(dealt(patterns, count + 1, seed).slice(0, count)).toEqual(out);
        },
      ),
    );
  });
  it('of one pattern are that one, of none nothing', () => {
    expect(dealt(['a'], 3, 5)).toEqual(['a', 'a', 'a']);
    expect(dealt([], 3, 5)).toEqual([]);
  });
});

describe('a turn', () => {
  it.each([
    ['4/4 q q q q', 60, 4 + 4],
    ['4/4 q q q q', 120, 4],
    ['3/4 q q q | h.', 60, 3 + 6],
    ['4/4 ^ q | w', 60, 5 + 4],
  ])('of %s at %i takes its count-in, its time and the change-over', (text, bpm, seconds) =>
    expect(turnTime(patternOf(text), bpm)).toBeCloseTo(seconds + CHANGE_OVER, 6),
  );
  it('is slower for whom it is made easier', () => {
    expect([ownBpm(72, null), ownBpm(72, {}), ownBpm(72, { slower: 0.75 }), ownBpm(75, { slower: 0.5 })]).toEqual([
      72, 72, 54, 38,
    ]);
  });
  it('is of the first who waits, then of whoever was passed over, of nobody who is away', () => {
    const line = (...states: ('waiting' | 'heard' | 'absent' | 'skipped')[]) =>
      states.map((state, i) => ({ state, i }));
    expect(turnToCome(line('heard', 'skipped', 'absent', 'waiting'))?.i).toBe(3);
    expect(turnToCome(line('heard', 'skipped', 'absent', 'skipped'))?.i).toBe(1);
    expect(turnToCome(line('heard', 'absent'))).toBeUndefined();
  });
});
