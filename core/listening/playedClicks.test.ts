import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { judge } from '../judging/judge.ts';
import { patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { synthesiseClaps } from '../sound/clapSynth.ts';
import { CLICK_LOUDNESS, CLICK_SOUNDS, type ClickedTake, clickedTake } from './clickedTake.ts';
import { clickSamples } from '../sound/sounds.ts';
import { OnsetDetector, detectOnsets } from './detector.ts';
import { ClickRemover } from './playedClicks.ts';
import { few, trial } from '../../scripts/test/trial.test-helper.ts';

const NEAR = 0.03;

/** Claps that were not heard, and what was heard without a clap, at clicks and elsewhere. */
function faults({ samples, sampleRate, clicks, claps, heard }: ClickedTake) {
  const left = detectOnsets(samples, sampleRate, clicks);
  const lost = claps.filter((clap) => {
    const k = left.findIndex((onset) => Math.abs(onset - clap) < NEAR);
    if (k >= 0) left.splice(k, 1);
    return k < 0;
  });
  const asClaps = left.filter((onset) => heard.some((click) => Math.abs(click - onset) < 0.1));
  return { lost: lost.length, asClaps: asClaps.length, more: left.length - asClaps.length };
}
const NONE = { lost: 0, asClaps: 0, more: 0 };

const RATE = 44_100;

/** Claps and the clicks of the app at a level beside them, the clicks so much late. */
function take(claps: readonly number[], level: number, { times = TIMES, late = 0.02, inMeasure = 4, seed = 3 } = {}) {
  const samples = synthesiseClaps(claps, { seconds: times.at(-1)! + 1.5, noiseDb: -60, variesDb: 3, seed });
  times.forEach((time, i) => {
    const click = clickSamples(i % inMeasure === 0 ? 'measure' : 'beat', RATE);
    click.forEach((sample, k) => (samples[Math.round((time + late) * RATE) + k]! += level * sample));
  });
  return samples;
}
/** A measure of four to count in, then two. */
const TIMES = Array.from({ length: 12 }, (_, i) => 0.3 + i * 0.75);
const PLAYED = { times: TIMES, countIn: 4 };
const PERFECT = TIMES.slice(4);

describe('the clicks of the app', () => {
  it.each(few(CLICK_LOUDNESS, 1))('at %s dB are not taken for claps, and claps around them are heard', (loudness) => {
    expect(faults(clickedTake({ loudness }, CLICK_LOUDNESS.indexOf(loudness) % 2 === 0 ? 7 : 2007))).toEqual(NONE);
  });
  it.each(few(CLICK_SOUNDS, 1))('of another kind, %s, are learned too', (sound) => {
    const loudness = sound === 'noise' || sound === 'beep' ? 0 : -20;
    expect(faults(clickedTake({ loudness, sound, surroundings: 'noise' }, 3007))).toEqual(NONE);
  });
  it.each(few([0.01, 0, 0.2, 1.5], 1))('at a level of %d leave the mark of a perfect take what it is', (level) => {
    for (const off of few([0.06, -0.04], 1)) {
      const onsets = detectOnsets(
        take(
          PERFECT.map((time) => time + 0.02 + off),
          level,
        ),
        RATE,
        PLAYED,
      );
      const judged = judge({ pattern: patternOf('4/4 q q q q | q q q q'), bpm: 80, onsets, start: TIMES[4]! });
      if (!judged.ok) throw new Error('not judged');
      expect({ off, mark: judged.result.mark, notes: judged.result.notes.map(({ verdict }) => verdict) }).toEqual({
        off,
        mark: 4,
        notes: Array.from({ length: 8 }, () => 'on-time'),
      });
    }
  });
  trial('come late from some loudspeakers, and soon after each other', () => {
    for (const late of [0, 0.28]) expect(detectOnsets(take([], 0.3, { late }), RATE, PLAYED)).toEqual([]);
    const times = Array.from({ length: 16 }, (_, i) => 0.3 + i * 0.3);
    expect(detectOnsets(take([], 0.3, { times, late: 0.15 }), RATE, { times, countIn: 4 })).toEqual([]);
  });
  it('that are two, each with a sound of its own, are known by when they come', () => {
    const claps = TIMES.slice(2).map((time) => time + 0.03);
    for (const level of [0, 0.2]) {
      const found = detectOnsets(take(claps, level, { inMeasure: 2 }), RATE, { times: TIMES, countIn: 2 });
      expect(found.map((onset, i) => Math.abs(onset - claps[i]!) < NEAR)).toEqual(claps.map(() => true));
    }
  });
  it('are not learned from a child that claps along with what it hears alone', () => {
    const claps = TIMES.map((time, i) => time + [0.01, -0.02, 0.03, -0.035, 0][i % 5]!);
    const found = detectOnsets(take(claps, 0), RATE, PLAYED);
    expect(found.map((onset, i) => Math.abs(onset - claps[i]!) < NEAR)).toEqual(claps.map(() => true));
    const arrivals = (heard: Float32Array) => {
      const remover = new ClickRemover(RATE, PLAYED);
      remover.push(heard);
      remover.finish();
      return remover.arrivals.length;
    };
    expect([arrivals(take(claps, 0)), arrivals(take(claps.slice(4), 0.5))]).toEqual([0, TIMES.length]);
  });
  it('are as many as there are: without a count-in, or before the sound begins, none is left out', () => {
    const samples = take(PERFECT, 0);
    for (const clicks of [
      { times: [], countIn: 0 },
      { times: TIMES, countIn: 0 },
      { times: TIMES, countIn: 1 },
      { times: [-2, -1.25, -0.5, 0.01, ...PERFECT], countIn: 4 },
      { times: [...TIMES, 60], countIn: 4 },
    ])
      expect(detectOnsets(samples, RATE, clicks)).toHaveLength(PERFECT.length);
    expect(detectOnsets(new Float32Array(10), RATE, PLAYED)).toEqual([]);
  });
  it('are left out however the samples are cut', () => {
    const samples = take(PERFECT, 0.3);
    const whole = detectOnsets(samples, RATE, PLAYED);
    expect(whole).toHaveLength(PERFECT.length);
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 300, max: 30_000 }), { minLength: 1, maxLength: 12 }), (sizes) => {
        const detector = new OnsetDetector(RATE, PLAYED);
        const found: number[] = [];
        for (let from = 0, k = 0; from < samples.length; from += sizes[k++ % sizes.length]!)
          found.push(...detector.push(samples.slice(from, from + sizes[k % sizes.length]!)));
        expect([...found, ...detector.finish()]).toEqual(whole);
      }),
      { numRuns: 2 },
    );
  });
  it('that are fewer than a count-in are waited for, too', () => {
    const times = TIMES.slice(0, 3);
    const samples = take([], 0.4, { times });
    const detector = new OnsetDetector(RATE, { times, countIn: 4 });
    const found: number[] = [];
    for (let from = 0; from < samples.length; from += 512)
      found.push(...detector.push(samples.slice(from, from + 512)));
    expect([...found, ...detector.finish()]).toEqual([]);
  });
  it('hold a clap back for a tenth of a second at most, once the count-in is over', () => {
    const samples = take(PERFECT, 0.3);
    const detector = new OnsetDetector(RATE, PLAYED);
    let heard = 0;
    for (let from = 0; from < samples.length; from += 128)
      for (const onset of detector.push(samples.subarray(from, from + 128))) {
        heard++;
        expect((from + 128) / RATE - onset).toBeLessThan(0.1);
      }
    expect(heard).toBe(PERFECT.length);
  });
});
