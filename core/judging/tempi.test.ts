import { describe, expect, it } from 'vitest';
import { judged } from './judged.test-helper.ts';

/** Unsteadiness of a hand, seconds. */
const HAND = [0.013, -0.016, 0.005, -0.01, 0.019, -0.008, 0.014, -0.018, 0.003, 0.011, -0.014];
const human = (beats: readonly number[]) => beats.map((beat, i) => (beat * 60) / 80 - 0.03 + HAND[i % HAND.length]!);

describe('tempi of a take', () => {
  it.each([
    ['half-tempo', [0, 1, 2, 3, 4, 5, 6, 7, 8, 12, 13, 14]],
    ['double-tempo', [0, 1, 2, 3, 4, 4.25, 4.5, 4.75, 5, 6, 7, 8]],
  ] as const)('%s of one measure alone is a slip of the rhythm, at its place', (code, beats) => {
    for (const free of [false, true]) {
      const result = judged(
        '4/4 q q q q | e e e e h | q q h',
        80,
        human(beats).map((time) => time + (free ? 3 : 0)),
        { free },
      );
      expect(result.misreadings).toMatchObject([{ code, measure: 2, part: true }]);
      expect(result.mark).toBe(3);
      expect(result.notes.every(({ verdict }) => verdict === 'on-time')).toBe(true);
    }
  });
  it('every dot ignored is no tempo of its own, though some tempo comes near it', () => {
    const beats = [0, 1, 1.5, 2.5, 3.5, 4.5, 5, 7, 8, 8.5, 9.5];
    const { misreadings } = judged('4/4 q. e q q | q. e h | q. e q q', 80, human(beats));
    expect(misreadings.map(({ code, again }) => [code, again?.length])).toEqual([['dot-too-short', 2]]);
  });
  it.each([0.65, 0.8, 1.2, 1.6])('the rhythm right at %f of the click is a tempo of its own', (part) => {
    const beats = [0, 1, 1.5, 2, 3, 4, 6, 7, 8, 9.5, 10].map((beat) => beat / part);
    const { misreadings, mark, tempo } = judged('4/4 q e e q q | h q q | q. e h', 80, human(beats));
    expect(misreadings.map(({ code }) => code)).toEqual(['own-tempo']);
    expect([mark, Math.round(tempo.bpm / 8)]).toEqual([4, Math.round(part * 10)]);
  });
  const STEPS = [
    0, 1, 1.5, 2, 3, 4, 5, 6, 7, 8, 8.5, 9, 9.5, 10, 12, 13, 14, 14.5, 15, 16, 17, 17.5, 18, 19, 20, 22, 23,
  ];
  const STEPPED = '4/4 q e e q q | q q q q | e e e e h | q q e e q | q e e q q | h q q';
  it.each([
    [1, 0.2, false],
    [2, 0.16, false],
    [3, -0.15, false],
    [4, 0.25, false],
    [2, 0.2, true],
    [2, -0.18, true],
    [3, 0.3, true],
    [4, -0.2, true],
  ])(
    'another tempo from the bar line after measure %i on, %f slower, is said of what follows',
    (after, slower, free) => {
      const line = 4 * after;
      const beats = STEPS.map((beat) => beat + Math.max(0, beat - line) * slower);
      const { misreadings } = judged(
        STEPPED,
        80,
        human(beats).map((time) => time + (free ? 3 : 0)),
        { free },
      );
      const [first, ...more] = misreadings;
      expect(first).toMatchObject({ code: slower > 0 ? 'dragging' : 'rushing', measure: after + 1, count: 6 - after });
      expect(more).toEqual([]);
    },
  );
  it('two measures that began faster were hurried where a click was left, else what follows was slower', () => {
    const beats = STEPS.map((beat) => (beat < 8 ? beat * 0.85 : beat - 1.2));
    const said = (free: boolean) =>
      judged(
        STEPPED,
        80,
        human(beats).map((time) => time + (free ? 3 : 0)),
        { free },
      ).misreadings;
    expect(said(false)).toMatchObject([{ code: 'rushing', measure: 1, again: [{ measure: 2 }] }]);
    expect(said(true)).toMatchObject([{ code: 'dragging', measure: 3, count: 4 }]);
  });
  it.each([
    [[0, 1, 1.5, 2, 3, 4, 4.5, 5, 7, 7.5, 8, 8.5, 9, 11, 11.5, 12, 13, 14], 3],
    [[0, 1, 1.5, 2, 3, 4, 5, 5.5, 6, 7, 8, 8.25, 8.5, 9, 10, 12, 13, 14], 2],
  ])('a measure played again in the place of the next, %j, is said at measure %i', (beats, measure) => {
    const text = '4/4 q e e q q | e e q (q) e e | s s e q h | q q h';
    const written = judged(text, 80, human(beats));
    expect(written.misreadings).toMatchObject([{ code: 'measure-repeated', measure }]);
  });
  it('who misreads much besides has no tempo of its own, but another rhythm', () => {
    const onsets = [0.72, 1.37, 1.72, 2.46, 2.85, 3.25, 3.99, 4.66, 6.5, 7.53];
    const { misreadings } = judged('4/4 e e e e h | q q e e (q) | q. e q q', 83, onsets);
    expect(misreadings.map(({ code }) => code)).not.toContain('own-tempo');
  });
});
