import type { Seconds } from '../timing/units.ts';
import { PowerSpectrum } from './fft.ts';
import { VOWEL_WEIGHTS } from './vowelWeights.ts';

/** One period of a low voice's first harmonics fits in twice. */
const FRAME: Seconds = 0.0232;
const HOP: Seconds = 0.004;
/** Edges of the bands, Hz: the murmur of m, n and l lies below, vowels reach up to the middle, hiss is above. */
const EDGES_HZ = [100, 300, 500, 800, 1200, 1800, 2600, 3800, 6000];
const BANDS = EDGES_HZ.length - 1;
/** Softer than so much below the loudest frame nothing is told from nothing, dB. */
const DEEPEST_DB = 36;
/** Stretches of frames before and after a place, whose mean loudness is looked at: first and last of each. */
const STRETCHES = [
  [-24, -15],
  [-14, -9],
  [-8, -5],
  [-4, -3],
  [-2, -1],
  [0, 1],
  [2, 3],
  [4, 7],
  [8, 14],
] as const;
const MARGIN = 24;
/** Frames of silence before the first sample: a word that begins with its vowel has it there. */
const SILENT = 20;
/** Logarithm of a likelihood: less is no difference. And frames that are another syllable. */
const AS_LIKELY = 0.5;
const APART = 8;
/** Part of a word's sound that has surely gone before its second syllable. */
const FIRST_PART = 0.15;

/** How loud each band of each frame is: 0 for the loudest frame of all bands, -3.6 for 36 dB less. */
function bandFrames(samples: Float32Array, sampleRate: number): Float64Array[] {
  const size = 2 ** Math.round(Math.log2(FRAME * sampleRate));
  const hop = Math.round(HOP * sampleRate);
  const edges = EDGES_HZ.map((hz) => Math.min(size / 2, Math.round((hz * size) / sampleRate)));
  const window = Float64Array.from({ length: size }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / size));
  const spectrum = new PowerSpectrum(size);
  const frame = new Float64Array(size);
  const power = new Float64Array(size / 2 + 1);
  const peak = samples.reduce((most, sample) => Math.max(most, Math.abs(sample)), 1e-9);
  let loudest = -Infinity;
  const frames = Array.from({ length: Math.ceil(samples.length / hop) + 1 + SILENT + SILENT / 2 }, (_, f) => {
    const first = (f - SILENT) * hop - size / 2;
    for (let i = 0; i < size; i++) frame[i] = ((samples[first + i] ?? 0) / peak) * window[i]!;
    spectrum.of(frame, power);
    const levels = Float64Array.from({ length: BANDS }, (_level, band) => {
      let sum = 0;
      for (let k = edges[band]!; k < edges[band + 1]!; k++) sum += power[k]!;
      return sum;
    });
    loudest = Math.max(
      loudest,
      levels.reduce((a, b) => a + b, 0),
    );
    return levels;
  });
  const most = Math.log10(loudest + 1e-9);
  return frames.map((levels) =>
    levels.map((level) => Math.min(0, Math.max(-DEEPEST_DB / 10, Math.log10(level + 1e-9) - most))),
  );
}

/** What is looked at in each frame: loudness around it, and how much of the word has gone by. */
function features(frames: readonly Float64Array[]): Float64Array[] {
  const nothing = new Float64Array(BANDS).fill(-DEEPEST_DB / 10);
  const sums = [new Float64Array(BANDS)];
  const margin = Array.from({ length: MARGIN }, () => nothing);
  for (const frame of [...margin, ...frames, ...margin]) sums.push(frame.map((level, b) => sums.at(-1)![b]! + level));
  const sizes = frames.map((frame) => frame.reduce((sum, level) => sum + 10 ** (level / 2), 0));
  const all = sizes.reduce((a, b) => a + b, 0);
  let gone = 0;
  return frames.map((_, f) => {
    const around = STRETCHES.flatMap(([from, to]) =>
      Array.from({ length: BANDS }, (_band, b) => {
        const sum = sums[f + MARGIN + to + 1]![b]! - sums[f + MARGIN + from]![b]!;
        return sum / (to - from + 1) + DEEPEST_DB / 20;
      }),
    );
    const part = gone / all;
    gone += sizes[f]!;
    return Float64Array.from([...around, Math.sqrt(part), part, Math.min(part, FIRST_PART) * 8]);
  });
}

/**
 * Where the first vowel of a spoken word begins: what has to fall on the beat. A murmur or a glide before it (mi, la,
 * one, three) is no vowel yet. In a word without a vowel ("sh") it is where the sound has swelled.
 * @param samples  one word, mono, -1 to 1
 */
export function vowelOnset(samples: Float32Array, sampleRate: number): Seconds {
  const { hidden } = VOWEL_WEIGHTS;
  const scores = features(bandFrames(samples, sampleRate)).map((row) =>
    hidden.reduce((sum, { from, bias, weight }) => {
      let z = bias;
      for (let i = 0; i < row.length; i++) z += row[i]! * from[i]!;
      return sum + weight * Math.tanh(z);
    }, 0),
  );
  const best = scores.reduce((at, score, f) => (score > scores[at]! ? f : at), 0);
  // Of two syllables that are as likely the first is meant.
  const first = scores.findIndex(
    (score, f) =>
      score >= scores[best]! - AS_LIKELY && score >= (scores[f - 1] ?? score) && score >= (scores[f + 1] ?? score),
  );
  return Math.max(0, (best - first > APART ? first : best) - SILENT) * HOP;
}
