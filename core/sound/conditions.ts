import { type Random, randomFrom } from '../random.ts';
import { synthesiseClaps } from './clapSynth.ts';

/** What surrounds a clapping child in a classroom, or stands between it and the app. */
export const CONDITIONS = [
  'fan and hum',
  'talk',
  'one voice',
  'noises',
  'neighbour',
  'clipped',
  'laptop',
  'laptop, 8 kHz',
] as const;
export type Condition = (typeof CONDITIONS)[number];

/** How far below the claps the surroundings are, dB, root mean square beside that of a clap's first 50 ms. */
const BELOW_DB: Readonly<Record<'fan' | 'hum' | 'talk' | 'voice', number>> = { fan: 10, hum: 10, talk: 8, voice: 10 };
const CLAP_SECONDS = 0.05;
const TAU = 2 * Math.PI;

/** Mean power of some samples. */
export const meanSquare = (samples: Float32Array) =>
  samples.reduce((sum, x) => sum + x * x, 0) / Math.max(1, samples.length);

/** Adds noise at so many dB below a level. */
export function addAtLevel(samples: Float32Array, noise: Float32Array, level: number, belowDb: number): void {
  const gain = (level * 10 ** (-belowDb / 20)) / Math.sqrt(meanSquare(noise) + 1e-12);
  for (let i = 0; i < samples.length; i++) samples[i]! += gain * noise[i]!;
}

/** A resonance of two poles over a sound, its gain about 1. */
function resonate(samples: Float32Array, sampleRate: number, hz: number, width: number): Float32Array {
  const pole = Math.exp((-Math.PI * width) / sampleRate);
  const turn = 2 * pole * Math.cos((TAU * Math.min(hz, 0.45 * sampleRate)) / sampleRate);
  let [a, b] = [0, 0];
  return samples.map((x) => {
    [a, b] = [x * (1 - pole) + turn * a - pole * pole * b, a];
    return a;
  });
}

const FORMANTS = [
  [750, 1250, 2600],
  [350, 2200, 2900],
  [500, 1800, 2500],
  [450, 850, 2500],
  [350, 750, 2400],
] as const;

/** A voice saying syllables that mean nothing: pulses through formants, hissed and burst consonants before them. */
export function voice(length: number, sampleRate: number, random: Random): Float32Array {
  const out = new Float32Array(length);
  const pitch = 110 + 190 * random.next();
  for (let at = Math.floor(0.3 * random.next() * sampleRate); at < length;) {
    const seconds = 0.1 + 0.15 * random.next();
    const voiced = new Float32Array(Math.floor(seconds * sampleRate));
    let phase = 0;
    const bend = 0.2 * (random.next() - 0.5);
    for (let i = 0; i < voiced.length; i++) {
      phase += (pitch * (1 + (bend * i) / voiced.length)) / sampleRate;
      if (phase >= 1) {
        phase -= 1;
        voiced[i] = Math.sin((Math.PI * Math.min(i, voiced.length - i)) / voiced.length);
      }
    }
    const sound = random
      .pick(FORMANTS)
      .map((hz, k) => resonate(voiced, sampleRate, hz, 80 + 40 * k).map((x) => x / (1 + k)))
      .reduce((sum, one) => sum.map((x, i) => x + one[i]!));
    const most = sound.reduce((max, x) => Math.max(max, Math.abs(x)), 1e-9);
    const hissed = Math.floor((0.02 + 0.06 * random.next()) * sampleRate);
    const burst = random.next() < 0.4;
    for (let i = 0; i < hissed && at + i < length; i++) {
      const swell = burst ? Math.exp((-6 * i) / hissed) : Math.sin((Math.PI * i) / hissed);
      out[at + i]! += 0.12 * swell * random.normal();
    }
    const from = at + (random.next() < 0.6 ? hissed : 0);
    for (let i = 0; i < sound.length && from + i < length; i++) out[from + i]! += sound[i]! / most;
    at = from + sound.length + Math.floor((random.next() < 0.2 ? 0.35 : 0.04) * sampleRate);
  }
  return out;
}

/** A fan that turns, and the hum of the mains from a projector. */
function fanAndHum(samples: Float32Array, sampleRate: number, random: Random, level: number): void {
  const turns = 3 + 6 * random.next();
  const air = resonate(
    samples.map(() => random.normal()),
    sampleRate,
    350,
    600,
  ).map((x, i) => x * (1 + 0.4 * Math.sin((TAU * turns * i) / sampleRate)));
  addAtLevel(samples, air, level, BELOW_DB.fan);
  const hum = samples.map((_, i) =>
    [1, 2, 3, 5].reduce((sum, n) => sum + Math.sin((TAU * 50 * n * i) / sampleRate) / n, 0),
  );
  addAtLevel(samples, hum, level, BELOW_DB.hum);
}

/** A chair that scrapes, a cough, a door: they swell, however fast. */
function noises(samples: Float32Array, sampleRate: number, random: Random, onsets: readonly number[]): void {
  for (let k = 0; k < 5; k++) {
    const [hz, width, seconds, attack] = random.pick([
      [2500, 2500, 0.5, 0.2],
      [900, 900, 0.35, 0.04],
      [120, 150, 0.5, 0.03],
    ] as const);
    const at = Math.floor((onsets.at(-1) ?? 1) * random.next() * sampleRate);
    const noise = new Float32Array(Math.floor(seconds * sampleRate)).map(() => random.normal());
    const shaped = resonate(noise, sampleRate, hz, width).map((x, i) => {
      const time = i / sampleRate;
      return x * Math.min(1, time / attack) * Math.exp(-Math.max(0, time - attack) / (seconds / 4));
    });
    const most = shaped.reduce((max, x) => Math.max(max, Math.abs(x)), 1e-9);
    const loud = 0.1 + 0.15 * random.next();
    for (let i = 0; i < shaped.length && at + i < samples.length; i++) samples[at + i]! += (loud * shaped[i]!) / most;
  }
}

/** Another child claps at a third of the loudness, never just with this one. */
function neighbour(samples: Float32Array, sampleRate: number, random: Random, onsets: readonly number[]): void {
  const theirs: number[] = [];
  for (let time = 0.9; time < (onsets.at(-1) ?? 0); time += random.pick([0.5, 0.7, 1.1]))
    if (onsets.every((onset) => Math.abs(onset - time) > 0.1)) theirs.push(time);
  const other = synthesiseClaps(theirs, {
    sampleRate,
    seed: random.below(1e6),
    reverberation: 'classroom',
    variesDb: 3,
    seconds: samples.length / sampleRate,
  });
  // A clap of the child itself is some 4.5 dB below its loudest, as often as not.
  for (let i = 0; i < samples.length; i++) samples[i]! += (other[i]! / 3) * 10 ** (-4.5 / 20);
}

/** The little microphone of a laptop: nothing low, a gain that pumps, soft clipping. */
export function laptop(samples: Float32Array, sampleRate: number): Float32Array {
  const kept = Math.exp((-TAU * 350) / sampleRate);
  let [low, envelope, gain] = [0, 0, 1];
  return samples.map((x) => {
    low = kept * low + (1 - kept) * x;
    const cut = x - low;
    envelope = Math.max(Math.abs(cut), envelope * (1 - 1 / (0.05 * sampleRate)));
    const wanted = Math.min(8, 0.12 / (envelope + 1e-4));
    gain += (wanted - gain) / ((wanted < gain ? 0.008 : 0.6) * sampleRate);
    return Math.tanh(2.2 * gain * cut);
  });
}

/** Sampling rate at which a condition delivers its sound; Hz. */
export const RATE_OF = (condition: Condition): number =>
  ({ laptop: 16_000, 'laptop, 8 kHz': 8000 })[condition as string] ?? 44_100;

/**
 * The same claps, as they are heard under a condition; the same seed gives the same sound.
 * @param samples  claps alone, at `RATE_OF(condition)` samples a second
 * @param onsets  their seconds
 */
export function under(
  condition: Condition,
  samples: Float32Array,
  onsets: readonly number[],
  seed: number,
): Float32Array {
  const sampleRate = RATE_OF(condition);
  const random = randomFrom(seed);
  const out = samples.slice();
  const claps = onsets.map((onset) => {
    const from = Math.round(onset * sampleRate);
    return Math.sqrt(meanSquare(samples.subarray(from, from + Math.round(CLAP_SECONDS * sampleRate))));
  });
  const level = [...claps].sort((a, b) => a - b)[claps.length >> 1] ?? 0.1;
  switch (condition) {
    case 'fan and hum':
      fanAndHum(out, sampleRate, random, level);
      break;
    case 'talk': {
      const voices = Array.from({ length: 5 }, () => voice(out.length, sampleRate, random));
      addAtLevel(
        out,
        voices.reduce((sum, one) => sum.map((x, i) => x + one[i]!)),
        level,
        BELOW_DB.talk,
      );
      break;
    }
    case 'one voice':
      addAtLevel(out, voice(out.length, sampleRate, random), level, BELOW_DB.voice);
      break;
    case 'noises':
      noises(out, sampleRate, random, onsets);
      break;
    case 'neighbour':
      neighbour(out, sampleRate, random, onsets);
      break;
    case 'clipped':
      return out.map((x) => Math.max(-0.9, Math.min(0.9, 6 * x)));
    default:
      return laptop(out, sampleRate);
  }
  return out;
}
