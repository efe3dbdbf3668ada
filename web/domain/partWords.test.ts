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
    ['wordSet', null, 'the usual one'],
    ['children', null, 'the whole class'],
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
    ['counts', { school: 'ta' }, { school: 'numbers' }, 'Counts as: Ta ti (by value)', 'Counts as: Numbers (1 e & a)'],
    ['paper', 'a4', 'letter', 'A4', 'Letter'],
    ['naming', 'quarters', 'unknown', 'whole, half, quarter, eighth', 'unknown'],
    [
      'parts',
      [{ key: 1, kind: 'true-false', count: 4, level: 2, elements: ['eighth-rest', 'tie'] }],
      [],
      'true false, how many 4, level 2, about eighth rest, tie',
      'without it',
    ],
    [
      'passes',
      [{ activity: 'say-clap', who: 'i-go' }],
      [{ activity: 'clap', who: 'together' }],
      'say clap, by I go, you go',
      'clap, by together',
    ],
    ['chunks', { kind: 'whole' }, { kind: 'joined', by: 2 }, 'whole', 'joined, in parts of 2'],
  ])('%s: only what differs is said', (part, theirs, mine, there, here) =>
    expect(bothWords(part, theirs, mine)).toEqual([there, here]),
  );

  it('things are called by their names, not by their ids', () => {
    const names = { room: 'Harbour 2' };
    expect(bothWords('classId', 'room', 'other', names)).toEqual(['Harbour 2', 'other']);
    expect(bothWords('plan', { children: ['room'] }, { children: null }, names)[0]).toBe('Who: Harbour 2');
  });

  it('parts have names, and a view may have its own', () => {
    expect([partName('text'), partName('text', { text: 'Line' }), partName('what')]).toEqual([
      'Rhythm',
      'Line',
      'what',
    ]);
  });
});
