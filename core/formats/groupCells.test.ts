import { describe, expect, it } from 'vitest';
import { ZERO, frac, toNumber } from '../rhythm/fraction.ts';
import { groupCells } from './groupCells.ts';

/** Onsets in thirty-seconds; a measure of 32 of them. The cells as `from-to` and their group. */
function cut(onsets: readonly number[], near = 0.004, exact = true): string {
  const times = onsets.map((onset) => onset / 32);
  const cells = groupCells(ZERO, frac(1), times, times.slice(1), near, exact);
  if (!cells) return 'none';
  return cells
    .map(({ at, length, division, group }) => {
      const from = toNumber(at) * 32;
      const place = `${from}-${from + toNumber(length) * 32}`;
      return group ? `${place} ${group.n}:${group.m}` : `${place} in ${division}`;
    })
    .join(', ');
}

describe('groups of a measure', () => {
  it.each<[string, readonly number[], string]>([
    ['none', [0, 8, 12, 31], '0-32 in 32'],
    ['three that begin off the beat', [0, 4, 4 + 8 / 3, 4 + 16 / 3, 12, 16], '0-4 in 4, 4-12 3:2, 12-32 in 20'],
    ['three over two beats', [0, 16 / 3, 32 / 3, 16], '0-16 3:2, 16-32 in 16'],
    ['two groups in a row', [0, 8 / 3, 16 / 3, 8, 8 + 8 / 3, 8 + 16 / 3, 16], '0-8 3:2, 8-16 3:2, 16-32 in 16'],
    ['five off the beat', [0, 4, 5.6, 7.2, 8.8, 10.4, 12], '0-4 in 4, 4-12 5:4, 12-32 in 20'],
    ['four in a dotted quarter', [0, 3, 6, 9, 12], '0-32 in 32'],
    ['a note beside every group', [0, 0.37, 16], 'none'],
  ])('%s', (_, onsets, cells) => expect(cut(onsets)).toBe(cells));
  it('one note beside its place proves three, and where notes are moved nothing rarer', () => {
    expect(cut([0, 16 / 3, 8])).toBe('0-8 3:2, 8-32 in 24');
    expect(cut([0, 3.2, 8])).toBe('0-8 5:4, 8-32 in 24');
    expect(cut([0, 3.2, 8], 0.004, false)).toBe('none');
  });
  it('a measure that is no whole number of thirty-seconds has none', () =>
    expect(groupCells(ZERO, frac(1, 3), [0], [], 0.004, true)).toBe(undefined));
});
