import { describe, expect, it } from 'vitest';
import { patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { resultOf, troubleWith } from './judged.test-helper.ts';
import { frac } from '../rhythm/fraction.ts';
import { scheduleOf } from '../timing/schedule.ts';
import type { Misreading } from './takeResult.ts';
import { feetAndHoldsSentences } from '../wording/feetAndHolds.ts';
import { PLAIN_VOICE } from '../wording/voice.ts';
import { simulateReleases, simulateSteps, simulateTake } from './simulatedChild.ts';

/** Steps that a line of slowing down runs through, and none is near. */
const UNSTEADY = [0.19, 1.23, 2.17, 2.87, 4.13, 5.1, 6.09, 6.83, 8.06, 9.16, 9.31, 11.17, 12.4, 13.32, 14.58, 14.59];

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
      stepped: 'beat',
      misreadings: [],
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
  it('a foot that bounces is one step', () => {
    const feet = [0, 0.05, 1, 2, 3, 4, 5, 6, 7];
    expect(resultOf({ pattern, bpm: 60, onsets: hands, feet }).feet).toMatchObject({ onBeat: 8, extras: 0 });
  });
  it.each([
    ['4/4 q e e h | h q q | q q h | w', [0, 2, 4, 6, 8, 10, 12, 14], 'other-beats'],
    ['4/4 q e e h | h q q | q q h | w', [1, 3, 5, 7, 9, 11, 13, 15], 'other-beats'],
    ['4/4 q e e h | h q q | q q h | w', [0, 4, 8, 12], 'first-beats'],
    ['4/4 q e e h | h q q', [0, 1, 2, 3, 4, 5, 6, 7].flatMap((beat) => [beat, beat + 0.5]), 'parts'],
    ['6/8 q e e e e | q. q e', [0, 1, 2, 3].flatMap((beat) => [beat, beat + 1 / 3, beat + 2 / 3]), 'parts'],
    ['4/4 q e e h | h q q', hands, 'rhythm'],
    ['4/4 q q q q | h h', [0, 1, 2, 3, 5, 7], 'beat'],
    ['4/4 q e e h | h q q', [0, 1, 2.2, 2.9, 4.3, 5.1, 5.8, 6.6], 'beat'],
    ['4/4 q e e h | h q q', [], 'beat'],
    // One step less than there are beats, just where the rhythm has none either.
    ['4/4 q q q q | q q h', [0, 1, 2, 3, 4, 5, 6], 'beat'],
    ['4/4 q q h', [0, 1, 2], 'beat'],
  ])('%s stepped at %j is %s', (text, feet, stepped) => {
    for (const free of [false, true]) {
      const pattern = patternOf(text);
      const onsets = scheduleOf(pattern, 60).notes.map(({ time }) => time);
      expect(resultOf({ pattern, bpm: 60, onsets, feet, free }).feet).toMatchObject({ stepped });
    }
  });
  const beats = Array.from({ length: 16 }, (_, i) => i);
  const long = patternOf('4/4 q e e h | h q q | q q e e q | h h');
  it.each<[string, readonly number[], readonly Partial<Misreading>[]]>([
    ['all of them', beats, []],
    ['one or two missing', beats.filter((i) => i !== 0 && i !== 7 && i !== 8), []],
    ['from the third beat', beats.slice(2), [{ code: 'joined-late', event: 2, measure: 1, beat: frac(3) }]],
    ['to the fourteenth', beats.slice(0, 14), [{ code: 'stopped-early', event: 14, measure: 4, beat: frac(3) }]],
    [
      'none in measure 2',
      beats.filter((i) => i < 4 || i > 7),
      [{ code: 'measure-silent', event: 4, until: { played: 2, measure: 3, beat: frac(1) } }],
    ],
    [
      'off the beat in measure 2',
      beats.map((i) => (i > 3 && i < 8 ? i + 0.5 : i)).filter((time) => time !== 7.5),
      [{ code: 'lost-and-recovered', event: 4, until: { played: 2, measure: 3, beat: frac(1) } }],
    ],
    ['ever faster', beats.map((i) => i - 0.005 * i * i), [{ code: 'rushing' }]],
    ['ever slower', beats.map((i) => i + 0.005 * i * i), [{ code: 'dragging' }]],
    ['at a tempo of their own', beats.map((i) => i * 0.8), [{ code: 'own-tempo', kept: { bpm: 75, click: 60 } }]],
    ['here and there', beats.map((i) => i + [0, 0.4, -0.35, 0.3][i % 4]!), []],
    ['very unsteady', UNSTEADY, []],
    ['none', [], []],
  ])('steps on the beat, %s', (_, feet, misreadings) => {
    const onsets = scheduleOf(long, 60).notes.map(({ time }) => time);
    expect(resultOf({ pattern: long, bpm: 60, onsets, feet }).feet).toMatchObject({ stepped: 'beat', misreadings });
  });
  it('what hands and feet did together is said of the hands', () => {
    const own = (time: number) => time * 0.8;
    const onsets = scheduleOf(long, 60).notes.map(({ time }) => own(time));
    const { feet, misreadings } = resultOf({ pattern: long, bpm: 60, onsets, feet: beats.map(own) });
    expect(misreadings.map(({ code }) => code)).toEqual(['own-tempo']);
    expect(feet).toMatchObject({ onBeat: 16, handsLaterMs: 0, misreadings: [] });
    // The feet with the click, the hands not.
    expect(resultOf({ pattern: long, bpm: 60, onsets, feet: beats }).feet).toMatchObject({ onBeat: 16 });
  });
  it('without a click feet that ran away from the hands did not leave off', () => {
    const onsets = scheduleOf(long, 60).notes.map(({ time }) => time);
    for (const pace of [0.72, 0.8, 0.84, 0.88, 1.2]) {
      const feet = beats.map((i) => i * pace);
      expect(resultOf({ pattern: long, bpm: 60, onsets, feet, free: true }).feet!.misreadings).toEqual([]);
    }
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
    [
      { feet: hands },
      [
        'Feet: 6 of 8 beats were stepped on time, and 1 step was too many. The feet stepped the rhythm with the ' +
          'hands. Step the beat alone first, then clap above it.',
      ],
    ],
    [
      { feet: [0, 1, 2, 3, 4] },
      [
        'Feet: 5 of 8 beats were stepped on time. From measure 2, beat 2 on there was no step. ' +
          'Hands and feet came together.',
      ],
    ],
    [
      { feet: [2, 3, 4, 5, 6, 7] },
      [
        'Feet: 6 of 8 beats were stepped on time. The first step came at measure 1, beat 3. ' +
          'Hands and feet came together.',
      ],
    ],
    [
      { feet: [0, 1, 5, 6, 7] },
      [
        'Feet: 5 of 8 beats were stepped on time. From measure 1, beat 3 there was no step; the feet were back at ' +
          'measure 2, beat 2. Hands and feet came together.',
      ],
    ],
    [
      { feet: [0, 1, 2, 3, 4, 5, 6, 7].map((time) => time * 0.8) },
      [
        expect.stringMatching(
          /^Feet: \d of 8 beats were .* The feet kept a steady 75 beats a minute; the click was at 60\./,
        ),
      ],
    ],
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
