import { type Random, randomFrom } from '../random.ts';

/**
 * What strikes: two kinds of hands, hands that meet twice within one clap (softly first or after), fingers, a pencil on
 * the table, a cup, a box, jingles.
 */
export const STRUCK_THINGS = [
  'hands',
  'cupped hands',
  'hands meeting twice',
  'hands, softly first',
  'snap',
  'pencil',
  'cup',
  'box',
  'jingles',
] as const;
export type StruckThing = (typeof STRUCK_THINGS)[number];

export const REVERBERATIONS = {
  dry: { seconds: 0, level: 0 },
  classroom: { seconds: 0.45, level: 0.45 },
  hall: { seconds: 1.6, level: 0.6 },
} as const;
export type Reverberation = keyof typeof REVERBERATIONS;

/** A stand-in for a microphone in front of a clapping child. */
export interface SynthesisOptions {
  readonly sampleRate?: number;
  readonly seed?: number;
  readonly thing?: StruckThing;
  readonly reverberation?: Reverberation;
  /** Level of steady noise below full scale, dB; none when left out. */
  readonly noiseDb?: number;
  /** How much the loudness of the claps varies, dB. */
  readonly variesDb?: number;
  /** Seconds of sound; default: a second after the last clap. */
  readonly seconds?: number;
}

interface Part {
  /** Noise through a resonance, or a tone. */
  readonly kind: 'noise' | 'tone';
  readonly hz: number;
  /** Width of the resonance, Hz. */
  readonly width: number;
  readonly level: number;
  /** Seconds until it has died to a third. */
  readonly decay: number;
  /** Seconds by which it comes later than the strike. */
  readonly after?: number;
}

/** Made up from what such sounds are known to be: short noise for skin, resonances for hollow things. */
const PARTS: Readonly<Record<StruckThing, readonly Part[]>> = {
  hands: [
    { kind: 'noise', hz: 1400, width: 1300, level: 1, decay: 0.012 },
    { kind: 'noise', hz: 4200, width: 3000, level: 0.4, decay: 0.006 },
  ],
  'cupped hands': [
    { kind: 'noise', hz: 700, width: 500, level: 1, decay: 0.018 },
    { kind: 'noise', hz: 2600, width: 2500, level: 0.35, decay: 0.006 },
  ],
  'hands meeting twice': [
    { kind: 'noise', hz: 1500, width: 1300, level: 1, decay: 0.01 },
    { kind: 'noise', hz: 1700, width: 1500, level: 0.8, decay: 0.012, after: 0.047 },
  ],
  'hands, softly first': [
    { kind: 'noise', hz: 1900, width: 1500, level: 0.45, decay: 0.006 },
    { kind: 'noise', hz: 1400, width: 1300, level: 1, decay: 0.012, after: 0.028 },
    { kind: 'noise', hz: 1600, width: 1500, level: 0.5, decay: 0.01, after: 0.066 },
  ],
  snap: [
    { kind: 'noise', hz: 2600, width: 1200, level: 1, decay: 0.006 },
    { kind: 'noise', hz: 6500, width: 3000, level: 0.3, decay: 0.003 },
  ],
  pencil: [
    { kind: 'noise', hz: 4800, width: 3500, level: 1, decay: 0.003 },
    { kind: 'tone', hz: 2900, width: 0, level: 0.3, decay: 0.008 },
  ],
  cup: [
    { kind: 'tone', hz: 1830, width: 0, level: 0.8, decay: 0.045 },
    { kind: 'tone', hz: 4270, width: 0, level: 0.5, decay: 0.025 },
    { kind: 'noise', hz: 5000, width: 5000, level: 0.6, decay: 0.003 },
  ],
  box: [
    { kind: 'tone', hz: 180, width: 0, level: 0.9, decay: 0.05 },
    { kind: 'noise', hz: 900, width: 1200, level: 0.7, decay: 0.01 },
    { kind: 'noise', hz: 3500, width: 3500, level: 0.35, decay: 0.004 },
  ],
  jingles: [
    { kind: 'noise', hz: 6000, width: 5000, level: 1, decay: 0.012 },
    { kind: 'tone', hz: 5230, width: 0, level: 0.3, decay: 0.05 },
    { kind: 'tone', hz: 7310, width: 0, level: 0.3, decay: 0.04 },
  ],
};
const STRIKE_SECONDS = 0.2;

/** One strike, its greatest sample 1. */
export function strike(thing: StruckThing, sampleRate: number, random: Random): Float32Array {
  const samples = new Float32Array(Math.round(STRIKE_SECONDS * sampleRate));
  for (const { kind, hz, width, level, decay, after = 0 } of PARTS[thing]) {
    const from = Math.round(after * sampleRate);
    const pole = Math.exp((-Math.PI * width) / sampleRate);
    const turn = 2 * pole * Math.cos((2 * Math.PI * Math.min(hz, 0.45 * sampleRate)) / sampleRate);
    // The gain of the resonance, so that the parts keep their levels at any sampling rate.
    const gain = kind === 'noise' ? Math.sqrt(1 - pole * pole) : 1;
    let [a, b] = [0, 0];
    for (let i = 0; from + i < samples.length; i++) {
      const dies = Math.exp(-i / (decay * sampleRate));
      if (kind === 'tone') {
        samples[from + i]! += hz < sampleRate / 2 ? level * dies * Math.sin((2 * Math.PI * hz * i) / sampleRate) : 0;
        continue;
      }
      [a, b] = [random.normal() * gain + turn * a - pole * pole * b, a];
      samples[from + i]! += level * dies * a;
    }
  }
  const peak = samples.reduce((most, sample) => Math.max(most, Math.abs(sample)), 1e-9);
  return samples.map((sample) => sample / peak);
}

/** Seconds of the reverberation's paths: they share no common time, so that the echoes spread. */
const COMBS = [0.0297, 0.0371, 0.0411, 0.0437] as const;
const DIFFUSERS = [0.0091, 0.0053, 0.0017] as const;
const DIFFUSION = 0.65;

/**
 * Adds the answer of a reverberation: comb filters for its long paths, and all-passes before them that blur the single
 * echo.
 */
export function reverberate(samples: Float32Array, sampleRate: number, reverberation: Reverberation): void {
  const { seconds, level } = REVERBERATIONS[reverberation];
  if (seconds === 0) return;
  const blurred = samples.slice();
  for (const delay of DIFFUSERS) {
    const line = new Float32Array(Math.max(1, Math.round(delay * sampleRate)));
    for (let i = 0; i < blurred.length; i++) {
      const k = i % line.length;
      const held = line[k]!;
      const into = blurred[i]! + DIFFUSION * held;
      line[k] = into;
      blurred[i] = held - DIFFUSION * into;
    }
  }
  for (const delay of COMBS) {
    const line = new Float32Array(Math.max(1, Math.round(delay * sampleRate)));
    const back = 10 ** ((-3 * delay) / seconds);
    for (let i = 0; i < blurred.length; i++) {
      const k = i % line.length;
      const held = line[k]!;
      line[k] = blurred[i]! + back * held;
      samples[i]! += 0.25 * level * held;
    }
  }
}

const LOUDEST = 0.7;

/**
 * The sound of claps at these seconds, mono, -1 to 1; the same seed gives the same sound.
 * @param onsets  seconds, not before 0
 */
export function synthesiseClaps(onsets: readonly number[], options: SynthesisOptions = {}): Float32Array {
  const { sampleRate = 44_100, seed = 1, thing = 'hands', reverberation = 'dry', noiseDb, variesDb = 6 } = options;
  const random = randomFrom(seed);
  const seconds = options.seconds ?? (onsets.at(-1) ?? 0) + 1;
  const samples = new Float32Array(Math.ceil(seconds * sampleRate));
  const strikes = Array.from({ length: 4 }, () => strike(thing, sampleRate, random));
  for (const onset of onsets) {
    const at = Math.round(onset * sampleRate);
    const one = random.pick(strikes);
    const gain = LOUDEST * 10 ** ((-variesDb * random.next()) / 20);
    for (let i = 0; i < one.length && at + i < samples.length; i++) samples[at + i]! += gain * one[i]!;
  }
  reverberate(samples, sampleRate, reverberation);
  if (noiseDb !== undefined) {
    const level = 10 ** (noiseDb / 20);
    for (let i = 0; i < samples.length; i++) samples[i]! += level * random.normal();
  }
  return samples.map((sample) => Math.max(-1, Math.min(1, sample)));
}
