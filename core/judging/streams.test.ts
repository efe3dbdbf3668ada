import { describe, expect, it } from 'vitest';
import { patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { resultOf, troubleWith } from './judged.test-helper.ts';
import { feetAndHoldsSentences } from '../wording/feetAndHolds.ts';
import { PLAIN_VOICE } from '../wording/voice.ts';
import { simulateReleases, simulateSteps, simulateTake } from './simulatedChild.ts';

describe('two streams and held notes', () => {
  const pattern = patternOf('4/4 q e e h | h q q');
  const hands = [0, 1, 1.5, 2, 4, 6, 7];
  it('judges the feet on their own, and how far the two are apart', () => {
    const feet = [0, 1, 2, 3, 4, 5, 6, 7].map((time) => time - 0.02);
    expect(resultOf({ pattern, bpm: 60, onsets: hands, feet }).feet).toEqual({
      onBeat: 8,
      beats: 8,
      extras: 0,
      leadMs: 20,
      handsLaterMs: 20,
      apartMs: 0,
    });
    expect(resultOf({ pattern, bpm: 60, onsets: hands, feet: [0, 1.4, 2, 2.5, 4] }).feet).toMatchObject({
      onBeat: 3,
      extras: 2,
    });
  });
  it('takes the lead of the feet off, not that of the hands', () => {
    const feet = [0, 1, 2, 3, 4, 5, 6, 7].map((time) => time + 0.07);
    expect(
      resultOf({ pattern, bpm: 60, onsets: hands.map((time) => time - 0.05), feet, ages: '11-13' }).feet,
    ).toMatchObject({ onBeat: 8, leadMs: -70, handsLaterMs: -120 });
  });
  it('without a click the beat is the child’s own', () => {
    const own = (time: number) => 5 + time * 1.2;
    const feet = [0, 1, 2, 3, 4, 5, 6, 7].map(own);
    expect(resultOf({ pattern, bpm: 60, onsets: hands.map(own), feet, free: true }).feet).toMatchObject({
      onBeat: 8,
      extras: 0,
      apartMs: 0,
    });
  });
  it('late steps are measured in full, and judged as far as such a lag is taken off', () => {
    const late = [0, 1, 2, 3, 4, 5, 6, 7].map((time) => time + 0.16);
    expect(resultOf({ pattern, bpm: 60, onsets: hands, feet: late }).feet).toMatchObject({ leadMs: -160, onBeat: 8 });
    const later = late.map((time) => time + 0.04);
    expect(resultOf({ pattern, bpm: 60, onsets: hands, feet: later }).feet).toMatchObject({ leadMs: -200, onBeat: 0 });
  });
  it('a step is compared with the hand on its own beat, not with one that came near it', () => {
    const quick = patternOf('4/4 e e e e h');
    const at = (beats: readonly number[]) => beats.map((beat) => (beat * 60) / 140);
    // The second beat has no clap; the one before it is a fifth of a second away.
    const result = resultOf({ pattern: quick, bpm: 140, onsets: at([0, 0.5, 1.5, 2]), feet: at([0, 1, 2, 3]) });
    expect(result.feet).toMatchObject({ onBeat: 4, handsLaterMs: 0, apartMs: 0 });
  });
  it('a key that bounces does not cut what is held', () => {
    const held = resultOf({ pattern: patternOf('4/4 h h'), bpm: 60, onsets: [0, 2, 2.03], releases: [1.9, 2.02, 3.9] });
    expect(held.holds!.map(({ verdict }) => verdict)).toEqual(['kept', 'kept']);
  });
  it.each([
    [0.84, 'cut'],
    [0.86, 'kept'],
  ])('a long note held for %f of its time is %s', (part, verdict) => {
    const taken = { onsets: [0, 2], releases: [2 * part, 3.9] };
    expect(resultOf({ pattern: patternOf('4/4 h h'), bpm: 60, ...taken }).holds![0]!.verdict).toBe(verdict);
  });
  it('a release that is not known is not judged', () => {
    const releases = [0.3, 1.2, 1.6, null, 4.8, 6.2, 7.2];
    expect(resultOf({ pattern, bpm: 60, onsets: hands, releases }).holds).toEqual([
      { index: 4, verdict: 'cut', heldS: 0.8, writtenS: 2 },
    ]);
  });
  it('a steady simulated child steps on the beat and holds on', () => {
    const child = { spread: 0.01, lead: 0.03 };
    const onsets = simulateTake(pattern, 60, child, 3);
    const { feet, holds } = resultOf({
      pattern,
      bpm: 60,
      onsets,
      feet: simulateSteps(pattern, 60, child, 3),
      releases: simulateReleases(pattern, 60, onsets, child, 3),
    });
    expect(feet).toMatchObject({ onBeat: 8, beats: 8, extras: 0 });
    expect(holds!.map(({ verdict }) => verdict)).toEqual(['kept', 'kept']);
  });
  it.each([
    [{ feet: [0, 1, 2, 3, 4, 5, 6, 7] }, ['Feet: every step was on the beat. Hands and feet came together.']],
    [
      { feet: [0, 1, 2, 3, 4, 5, 6, 6.5] },
      ['Feet: 7 of 8 beats were stepped on time, and 1 step was too many. Hands and feet came together.'],
    ],
    [
      { feet: [-0.05, 0.95, 1.95, 2.95, 3.95, 4.95, 5.95, 6.95] },
      ['Feet: every step was on the beat. The hands came 50 ms after the feet.'],
    ],
    [{ feet: [] }, ['Feet: 0 of 8 beats were stepped on time.']],
    [{ releases: [0.3, 1.2, 1.6, 3.9, 5.9, 6.2, 7.2] }, ['Long notes: all 2 were held for their time.']],
    [
      { releases: [0.3, 1.2, 1.6, 3.9, 6.9, 6.9, 7.2] },
      [
        'Long notes: 1 of 2 was held for its time. ' +
          'Measure 2, beat 1: held too long. Let go where the next note or rest begins.',
      ],
    ],
    [{}, []],
  ])('says of %j: %j', (more, sentences) =>
    expect(feetAndHoldsSentences(resultOf({ pattern, bpm: 60, onsets: hands, ...more }), PLAIN_VOICE)).toEqual(
      sentences,
    ),
  );
  it('tells long notes that were kept from those that were cut or held over', () => {
    const releases = [0.3, 1.2, 1.6, 3.9, 4.8, 6.2, 7.2];
    expect(resultOf({ pattern, bpm: 60, onsets: hands, releases }).holds).toEqual([
      { index: 3, verdict: 'kept', heldS: 1.9, writtenS: 2 },
      { index: 4, verdict: 'cut', heldS: 0.8, writtenS: 2 },
    ]);
    expect(
      resultOf({ pattern, bpm: 60, onsets: hands, releases: releases.map((time, i) => (i === 4 ? 6.9 : time)) })
        .holds![1]!.verdict,
    ).toBe('held-over');
  });
  it.each([
    [{ feet: [1, 0] }, 'steps'],
    [{ releases: [1] }, 'release'],
    [{ releases: hands.map((time) => time - 1) }, 'release'],
  ])('refuses %j', (more, word) => {
    expect(troubleWith({ pattern, bpm: 60, onsets: hands, ...more })).toContain(word);
  });
});
