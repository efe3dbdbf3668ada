import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { judge } from '../judging/judge.ts';
import { simulate } from '../judging/simulatedChild.ts';
import { CONDITIONS, RATE_OF, under } from '../sound/conditions.ts';
import { randomFrom } from '../random.ts';
import { patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { OnsetDetector, detectOnsets } from './detector.ts';
import { REVERBERATIONS, type Reverberation, STRUCK_THINGS, synthesiseClaps } from '../sound/clapSynth.ts';
import { EVERYTHING, few } from '../../scripts/test/trial.test-helper.ts';

const NEAR = 0.03;

/** Claps found, claps missed, and what was no clap. */
function compare(
  truth: readonly number[],
  found: readonly number[],
): { missed: number; extra: number; spread: number } {
  const errors = truth.flatMap((time) => {
    const near = found
      .filter((onset) => Math.abs(onset - time) <= NEAR)
      .sort((a, b) => Math.abs(a - time) - Math.abs(b - time))[0];
    return near === undefined ? [] : [near - time];
  });
  const middle = [...errors].sort((a, b) => a - b)[errors.length >> 1] ?? 0;
  const off = errors.map((error) => Math.abs(error - middle)).sort((a, b) => a - b);
  return {
    missed: truth.length - errors.length,
    extra: found.length - errors.length,
    spread: off[off.length >> 1] ?? 0,
  };
}

const TRUTH = [0.5, 1.02, 1.3, 1.61, 2.2, 2.35, 2.5, 2.66, 3.3, 4.1];
const added = (samples: Float32Array, more: (i: number) => number) => samples.map((sample, i) => sample + more(i));

/** Another room comes first with each thing. */
const ROOMS_OF = (thing: (typeof STRUCK_THINGS)[number]): readonly Reverberation[] => {
  const rooms = Object.keys(REVERBERATIONS) as Reverberation[];
  const first = STRUCK_THINGS.indexOf(thing) % rooms.length;
  return [...rooms.slice(first), ...rooms.slice(0, first)];
};

describe('the detector', () => {
  for (const thing of STRUCK_THINGS) {
    it.each(few(ROOMS_OF(thing), 1))(`hears ${thing} in a %s room`, (room) => {
      const { missed, extra, spread } = compare(
        TRUTH,
        detectOnsets(synthesiseClaps(TRUTH, { thing, reverberation: room, seed: 5 }), 44_100),
      );
      expect({ missed, extra }).toEqual({ missed: 0, extra: 0 });
      expect(spread).toBeLessThan(0.0008);
    });
  }
  it.each(CONDITIONS)('hears what a child claps under: %s', (condition) => {
    let [right, found, written] = [0, 0, 0];
    // Every other thing, and the others under the next condition.
    const turn = CONDITIONS.indexOf(condition) % 2;
    STRUCK_THINGS.forEach((thing, i) => {
      if (i % 2 !== turn) return;
      const sampleRate = RATE_OF(condition);
      const claps = synthesiseClaps(TRUTH, { thing, sampleRate, reverberation: 'classroom', seed: 20 + i });
      const heard = detectOnsets(under(condition, claps, TRUTH, 7 + i), sampleRate);
      right += TRUTH.length - compare(TRUTH, heard).missed;
      found += heard.length;
      written += TRUTH.length;
    });
    // Before the child itself claps, nobody knows that the neighbour's claps are not meant.
    expect((2 * right) / (found + written)).toBeGreaterThan(condition === 'neighbour' ? 0.78 : 0.94);
  });
  it('hears one clap of several bursts once, two hands in turn twice', () => {
    const bursts = TRUTH.flatMap((time) => [time, time + 0.03, time + 0.078]);
    const heard = detectOnsets(synthesiseClaps(bursts, { variesDb: 3, seed: 3 }), 44_100);
    expect(compare(TRUTH, heard)).toMatchObject({ missed: 0, extra: 0 });
    const turns = TRUTH.slice(0, 4).flatMap((time) => [time, time + 0.1]);
    const both = detectOnsets(synthesiseClaps(turns, { variesDb: 3, seed: 3 }), 44_100);
    expect(compare(turns, both)).toMatchObject({ missed: 0, extra: 0 });
  });
  it('leaves out the claps of another child, much softer, once it knows this one', () => {
    const seconds = 5;
    const own = synthesiseClaps(TRUTH, { variesDb: 3, seconds });
    const theirs = synthesiseClaps([1.45, 1.9, 2.9, 3.7], { variesDb: 1, seconds, seed: 4 });
    const both = own.map((sample, i) => sample + 0.12 * theirs[i]!);
    expect(compare(TRUTH, detectOnsets(both, 44_100))).toMatchObject({ missed: 0, extra: 0 });
    expect(
      detectOnsets(
        theirs.map((sample) => 0.12 * sample),
        44_100,
      ),
    ).toHaveLength(4);
  });
  it.each(few([8000, 48_000, 16_000, 22_050, 96_000], 2))('hears at %i samples a second', (sampleRate) => {
    expect(
      compare(TRUTH, detectOnsets(synthesiseClaps(TRUTH, { sampleRate, reverberation: 'classroom' }), sampleRate)),
    ).toMatchObject({ missed: 0, extra: 0 });
  });
  it('hears soft and hard claps in one take', () => {
    expect(compare(TRUTH, detectOnsets(synthesiseClaps(TRUTH, { variesDb: 14, seed: 9 }), 44_100))).toMatchObject({
      missed: 0,
      extra: 0,
    });
  });
  it('hears through hiss, hum and clipping', () => {
    const claps = synthesiseClaps(TRUTH, { noiseDb: -42 });
    expect(compare(TRUTH, detectOnsets(claps, 44_100))).toMatchObject({ missed: 0, extra: 0 });
    const hum = added(
      claps,
      (i) => 0.2 * Math.sin((2 * Math.PI * 50 * i) / 44_100) + 0.05 * Math.sin((2 * Math.PI * 150 * i) / 44_100),
    );
    expect(compare(TRUTH, detectOnsets(hum, 44_100))).toMatchObject({ missed: 0, extra: 0 });
    expect(
      compare(
        TRUTH,
        detectOnsets(
          claps.map((sample) => Math.max(-0.2, Math.min(0.2, sample * 3))),
          44_100,
        ),
      ),
    ).toMatchObject({ missed: 0, extra: 0 });
  });
  it('is not taken in by a voice that hums and swells', () => {
    const voice = (i: number) => {
      const time = i / 44_100;
      const swell = Math.max(0, Math.sin(2 * Math.PI * 1.7 * time)) ** 2;
      return (
        swell * 0.15 * [1, 2, 3, 4, 5, 6, 8, 10].reduce((sum, n) => sum + Math.sin(2 * Math.PI * 190 * n * time) / n, 0)
      );
    };
    expect(compare(TRUTH, detectOnsets(added(synthesiseClaps(TRUTH), voice), 44_100))).toMatchObject({
      missed: 0,
      extra: 0,
    });
    expect(detectOnsets(added(new Float32Array(5 * 44_100), voice), 44_100)).toEqual([]);
  });
  it('hears nothing in silence, in noise alone, and in sounds of no length', () => {
    const random = randomFrom(4);
    expect(detectOnsets(new Float32Array(44_100), 44_100)).toEqual([]);
    expect(
      detectOnsets(
        Float32Array.from({ length: 3 * 44_100 }, () => 0.02 * random.normal()),
        44_100,
      ),
    ).toEqual([]);
    expect(detectOnsets(new Float32Array(0), 44_100)).toEqual([]);
    expect(detectOnsets(new Float32Array(3), 8000)).toEqual([]);
  });
  it('gives the same answer however the samples are cut', () => {
    const samples = synthesiseClaps(TRUTH, { reverberation: 'hall', noiseDb: -50 });
    const whole = detectOnsets(samples, 44_100);
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 9000 }), { minLength: 1, maxLength: 40 }), (sizes) => {
        const detector = new OnsetDetector(44_100);
        const found: number[] = [];
        for (let from = 0, k = 0; from < samples.length; k++) {
          const size = sizes[k % sizes.length]!;
          found.push(...detector.push(samples.subarray(from, from + size)));
          from += size;
        }
        expect([...found, ...detector.finish()]).toEqual(whole);
      }),
      { numRuns: EVERYTHING ? 15 : 2 },
    );
  });
  it('knows a clap within sixty thousandths of a second', () => {
    const samples = synthesiseClaps(TRUTH, {});
    const detector = new OnsetDetector(44_100);
    for (let from = 0; from < samples.length; from += 128) {
      for (const onset of detector.push(samples.subarray(from, from + 128)))
        expect((from + 128) / 44_100 - onset).toBeLessThan(0.06);
    }
  });
});

describe('from sound to mark', () => {
  it('gives notes the verdict that the true onsets give', () => {
    const pattern = patternOf('4/4 q e e (q) q | q. e h | e e e e q (q)');
    let notes = 0;
    let alike = 0;
    for (let seed = 0; seed < 8; seed++) {
      const onsets = simulate(pattern, 84, { spread: 0.022, lead: 0.03, leavesOut: 0.03 }, seed).onsets.map(
        (time) => time + 1,
      );
      const heard = detectOnsets(
        synthesiseClaps(onsets, {
          seed,
          reverberation: 'classroom',
          noiseDb: -40,
          thing: STRUCK_THINGS[seed % STRUCK_THINGS.length]!,
        }),
        44_100,
      );
      const [a, b] = [onsets, heard].map((times) => judge({ pattern, bpm: 84, onsets: times, start: 1 }));
      if (!a!.ok || !b!.ok) throw new Error('not judged');
      a!.result.notes.forEach((note, i) => {
        notes++;
        if (note.verdict === b!.result.notes[i]!.verdict) alike++;
      });
    }
    expect(alike / notes).toBeGreaterThan(0.97);
  });
});
