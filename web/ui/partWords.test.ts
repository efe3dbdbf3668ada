import { describe, expect, it } from 'vitest';
import { partName, partWords } from './partWords.ts';

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

  it('parts have names, and a view may have its own', () => {
    expect([partName('text'), partName('text', { text: 'Line' }), partName('what')]).toEqual([
      'Rhythm',
      'Line',
      'what',
    ]);
  });
});
