import { describe, expect, it } from 'vitest';
import { bothWords, partName, partWords } from './partWords.ts';

describe('two versions side by side', () => {
  it.each([
    ['title', null, 'nothing'],
    ['title', '', 'nothing'],
    ['folder', undefined, 'nothing'],
    ['name', 'Ada', 'Ada'],
    ['bpm', 72, '72'],
    ['large', true, 'yes'],
    ['clickCounts', false, 'no'],
    ['takenAt', +new Date(2026, 10, 27, 9), '27 Nov 2026'],
    ['order', ['half', 'tie'], 'half, tie'],
    ['order', [], 'nothing'],
    ['blocks', [{ kind: 'line-up', key: 1 }, { kind: 'echo' }], 'line up, echo'],
    ['passes', [{ activity: 'say', who: 'together' }], 'say'],
    ['holidays', [{ from: '2026-10-01', until: '2026-10-09' }], '1 entry'],
    ['contents', [[], []], '2 entries'],
    ['adaptations', { wider: 1.5, noClick: true }, 'wider: 1.5, noClick: yes'],
    ['wordSet', {}, 'nothing'],
    ['wordSet', { title: 'Boats', cells: { q: 'tug' } }, 'Title: Boats, cells: q: tug'],
  ])('%s %j is “%s”', (part, value, words) => expect(partWords(part, value)).toBe(words));

  it.each([
    ['title', 'Ada', 'Bo', 'Ada', 'Bo'],
    ['bpm', null, 72, 'nothing', '72'],
    [
      'slots',
      [
        { day: 1, starts: '09:00' },
        { day: 3, starts: '10:00' },
      ],
      [
        { day: 1, starts: '09:00' },
        { day: 4, starts: '10:00' },
      ],
      'Day 3, Begins 10:00',
      'Day 4, Begins 10:00',
    ],
    ['holidays', ['a', 'b'], ['a'], 'b', 'without it'],
    ['order', ['half', 'tie'], ['tie', 'half'], 'half; tie', 'tie; half'],
    [
      'blocks',
      [{ kind: 'line-up', key: 'k', bpm: 60 }],
      [{ kind: 'line-up', key: 'k', bpm: 72 }],
      'line up, Tempo 60',
      'line up, Tempo 72',
    ],
    [
      'wordSet',
      { title: 'Boats', cells: { q: 'tug' } },
      { title: 'Boats', cells: { q: 'sloop' } },
      'cells: q: tug',
      'cells: q: sloop',
    ],
    ['contents', [['half'], []], [[], []], 'half', 'without it'],
  ])('%s: only what differs is said', (part, theirs, mine, there, here) =>
    expect(bothWords(part, theirs, mine)).toEqual([there, here]),
  );

  it('parts have names, and a view may have its own', () => {
    expect([partName('text'), partName('text', { text: 'Line' }), partName('what')]).toEqual([
      'Rhythm',
      'Line',
      'what',
    ]);
  });
});
