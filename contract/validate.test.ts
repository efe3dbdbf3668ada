import { describe, expect, it } from 'vitest';
import { ClassSettings } from './schoolClass.ts';
import { TakeUpload } from './take.ts';
import { validator } from './validate.ts';
import { ScoreRequest } from './commandLine.ts';

const score = validator(ScoreRequest);
const upload = validator(TakeUpload);
const settings = validator(ClassSettings);
const SCORE = { pattern: '4/4 q', bpm: 60, onsets: [] };

describe('what crosses a boundary', () => {
  it.each([
    [{}, true, ''],
    [{ id: 7, start: 0.5, ages: 'musician', free: false }, true, ''],
    [{ bpm: '60' }, false, 'bpm'],
    [{ bpm: 0 }, false, 'bpm'],
    [{ onsets: [1, null] }, false, 'onsets.1'],
    [{ onsets: [1e9] }, false, 'onsets.0'],
    [{ ages: '40' }, false, 'ages'],
    [{ pattern: '' }, false, 'pattern'],
    [{ pattern: undefined }, false, 'pattern'],
    [{ loud: true }, false, 'loud'],
  ])('a score request with %j: %s %s', (change, ok, field) => {
    const checked = score({ ...SCORE, ...change });
    expect(checked.ok).toBe(ok);
    if (!checked.ok)
      expect([checked.field, checked.message]).toEqual([field, expect.stringContaining(field) as unknown]);
  });
  it.each([[null], ['text'], [[]], [3]])('%j is no request', (data) => {
    expect(score(data).ok).toBe(false);
    expect(upload(data).ok).toBe(false);
  });
  it.each([
    [{ houseWords: { ta: { quarter: 'taa' } }, wordSet: null, naming: 'crotchets' }, true],
    [{ houseWords: { ta: 'taa' } }, false],
    [{ houseWords: { ta: { quarter: 'x'.repeat(60) } } }, false],
    [{ wordSet: { title: '', cells: {} } }, false],
    [{ wordSet: { title: 'Boats', cells: { q: 'tug' } } }, true],
  ])('class settings with %j: %s', (change, ok) =>
    expect(settings({ name: 'Gulls', ages: '9-10', school: 'ta', rests: null, ...change }).ok).toBe(ok),
  );
});
