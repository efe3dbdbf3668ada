import { describe, expect, it } from 'vitest';
import { randomFrom } from '../random.ts';
import { scoreOfText } from '../rhythm/arbitraryScore.test-helper.ts';
import { scheduleOf } from '../timing/schedule.ts';
import { resultOf } from './judged.test-helper.ts';
import { simulateTake } from './simulatedChild.ts';
import { type HeardPart, togetherOf } from './together.ts';

const SCORE = scoreOfText('4/4 [clap] q e e h | q q q q | e e q h [stamp]* h h');

/** Both parts clapped at 60, each note of a part moved by some ms; undefined leaves it out. */
function heard(moved: (part: number, note: number) => number | undefined): HeardPart[] {
  return SCORE.parts.map(({ pattern }, part) => {
    const onsets = scheduleOf(pattern, 60).notes.flatMap(({ time }, note) => {
      const ms = moved(part, note);
      return ms === undefined ? [] : [time + ms / 1000];
    });
    return { part, onsets, result: resultOf({ pattern, bpm: 60, onsets }) };
  });
}

describe('two parts together', () => {
  it('are apart by what one comes later, and that one follows', () => {
    expect(
      togetherOf(
        SCORE,
        heard((part) => (part === 1 ? 40 : 0)),
      ),
    ).toMatchObject({
      shared: 6,
      apartMs: 40,
      leads: { part: 0, byMs: 40 },
    });
    expect(
      togetherOf(
        SCORE,
        heard((part) => (part === 0 ? 30 : 0)),
      )!.leads,
    ).toEqual({ part: 1, byMs: 30 });
    // Nobody hears who is first by so little.
    expect(
      togetherOf(
        SCORE,
        heard((part) => part * 10),
      )!.leads,
    ).toBeUndefined();
  });

  it('are furthest apart at one place', () => {
    const { worst, apartMs, leads } = togetherOf(
      SCORE,
      heard((part, note) => (part === 1 && note === 3 ? 90 : 0)),
    )!;
    expect(worst).toMatchObject({ measure: 2, beat: { n: 3, d: 1 }, apartMs: 90 });
    expect(apartMs).toBe(15);
    expect(leads).toBeUndefined();
  });

  it('are compared only where both were heard, and led by nobody where few notes are shared', () => {
    const few = togetherOf(
      SCORE,
      heard((part, note) => (part === 1 && note > 2 ? undefined : part * 50)),
    );
    expect(few).toMatchObject({ shared: 3, apartMs: 50 });
    expect(few!.leads).toBeUndefined();
    expect(
      togetherOf(
        SCORE,
        heard((part) => (part === 1 ? undefined : 0)),
      ),
    ).toBeUndefined();
  });

  it('are not led by one that is first no more often than last', () => {
    const found = togetherOf(
      SCORE,
      heard((part, note) => (part === 1 ? (note % 2 === 0 ? 30 : -26) : 0)),
    )!;
    expect(found.apartMs).toBe(28);
    expect(found.leads).toBeUndefined();
  });

  it('are as far apart as simulated hands are', () => {
    const random = randomFrom(4);
    const parts = SCORE.parts.map(({ pattern }, part): HeardPart => {
      const onsets = simulateTake(pattern, 60, { spread: 0.02 }, random.below(1000));
      return { part, onsets, result: resultOf({ pattern, bpm: 60, onsets }) };
    });
    const { apartMs, worst } = togetherOf(SCORE, parts)!;
    expect(apartMs).toBeGreaterThan(5);
    expect(apartMs).toBeLessThan(60);
    expect(worst.apartMs).toBeGreaterThan(apartMs);
  });
});
