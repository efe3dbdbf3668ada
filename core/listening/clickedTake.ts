import { type Random, randomFrom } from '../random.ts';
import type { PlayedClicks } from './playedClicks.ts';
import { REVERBERATIONS, type Reverberation, STRUCK_THINGS, reverberate, synthesiseClaps } from '../sound/clapSynth.ts';
import { CONDITIONS, RATE_OF, under } from '../sound/conditions.ts';
import { clickSamples } from '../sound/sounds.ts';

/** How loud the app's clicks are at the microphone, dB beside the loudest sample of a usual clap; one is not heard. */
export const CLICK_LOUDNESS = ['none', -40, -30, -20, -12, -6, 0, 6, 12] as const;
export type ClickLoudness = (typeof CLICK_LOUDNESS)[number];

/** What the app clicks with, and three sounds of others: short noise, a block of wood, a beep. */
export const CLICK_SOUNDS = ['app', 'noise', 'wood', 'beep'] as const;
export type ClickSound = (typeof CLICK_SOUNDS)[number];

export interface ClickedTake {
  readonly samples: Float32Array;
  readonly sampleRate: number;
  readonly clicks: PlayedClicks;
  /** Seconds at which clicks are heard, where they are. */
  readonly heard: readonly number[];
  /** Seconds of the claps, none in the count-in. */
  readonly claps: readonly number[];
}

export interface ClickedTakeOptions {
  readonly loudness: ClickLoudness;
  readonly sound?: ClickSound;
  readonly surroundings?: 'quiet' | 'noise' | (typeof CONDITIONS)[number];
}

/** Claps come so much after the clicks; seconds. */
const BESIDE = { from: -0.04, to: 0.06 };

function clickOf(sound: ClickSound, accent: boolean, rate: number, random: Random): Float32Array {
  const shape = (seconds: number, of: (time: number) => number) =>
    Float32Array.from({ length: Math.round(seconds * rate) }, (_, i) => of(i / rate));
  const wave = (hz: number, time: number) => Math.sin(2 * Math.PI * hz * time);
  switch (sound) {
    case 'app':
      return clickSamples(accent ? 'measure' : 'beat', rate);
    case 'noise': {
      // What a loudspeaker does not play any more goes.
      const hiss = shape(0.021, () => random.normal());
      return shape(0.02, (time) => {
        const i = Math.round(time * rate);
        return 0.3 * Math.exp(-time * 250) * (0.5 * hiss[i]! + 0.35 * hiss[i + 1]! + 0.15 * (hiss[i + 2] ?? 0));
      });
    }
    case 'wood':
      return shape(
        0.06,
        (time) =>
          wave(accent ? 1250 : 930, time) * Math.exp(-time * 110) * 0.6 +
          wave(2450, time) * Math.exp(-time * 200) * 0.3,
      );
    case 'beep':
      return shape(
        0.06,
        (time) => wave(accent ? 2000 : 1000, time) * 0.5 * Math.min(1, time / 0.001, (0.06 - time) / 0.005),
      );
  }
}

/** A take with the click all through, as a microphone hears it; the same seed gives the same sound. */
export function clickedTake(
  { loudness, sound = 'app', surroundings = 'quiet' }: ClickedTakeOptions,
  seed: number,
): ClickedTake {
  const random = randomFrom(seed);
  const condition = CONDITIONS.find((one) => one === surroundings);
  const sampleRate = condition ? RATE_OF(condition) : random.pick([44_100, 48_000, 48_000, 16_000]);
  const beat = 60 / (60 + random.below(90));
  const inMeasure = 2 + random.below(3);
  const first = 0.15 + 0.4 * random.next();
  const count = inMeasure * (4 + random.below(3));
  const late = random.pick([0.004, 0.012, 0.03, 0.09, 0.2]) * (0.8 + 0.4 * random.next());
  // The clock of the microphone runs a little faster or slower than that of the loudspeaker.
  const drift = 1 + (random.next() - 0.5) * 1e-4;
  const times = Array.from({ length: count }, (_, i) => first + i * beat);
  const heard = times.map((time) => (time + Math.min(late, 0.4 * beat)) * drift);
  const claps: number[] = [];
  heard.slice(inMeasure).forEach((time) => {
    const what = random.next();
    if (what < 0.75) claps.push(time + BESIDE.from + (BESIDE.to - BESIDE.from) * random.next());
    if (what > 0.5 && beat > 0.45) claps.push(time + beat / 2 + 0.02 * random.normal());
  });
  const room = random.pick(Object.keys(REVERBERATIONS) as Reverberation[]);
  const seconds = times.at(-1)! + beat + 1;
  const clapped = synthesiseClaps(claps, {
    sampleRate,
    seed: random.below(1e6),
    thing: random.pick(STRUCK_THINGS),
    reverberation: room,
    variesDb: 6,
    seconds,
    noiseDb: surroundings === 'noise' ? -50 : -66,
  });
  const peaks = claps.map((time) => {
    const from = Math.round(time * sampleRate);
    return clapped
      .subarray(from, from + Math.round(0.05 * sampleRate))
      .reduce((most, x) => Math.max(most, Math.abs(x)), 0);
  });
  const usual = peaks.sort((a, b) => a - b)[peaks.length >> 1] ?? 0.3;
  const sounds = [true, false].map((accent) => clickOf(sound, accent, sampleRate, random));
  const clicking = new Float32Array(clapped.length);
  heard.forEach((time, i) => {
    const click = sounds[i % inMeasure === 0 ? 0 : 1]!;
    const at = time * sampleRate;
    const whole = Math.floor(at);
    const part = at - whole;
    // Between two samples, as clocks have it.
    for (let k = 0; k <= click.length; k++)
      if (whole + k < clicking.length)
        clicking[whole + k]! += (1 - part) * (click[k] ?? 0) + part * (click[k - 1] ?? 0);
  });
  reverberate(clicking, sampleRate, room);
  const most = clicking.reduce((peak, x) => Math.max(peak, Math.abs(x)), 1e-9);
  const gain = loudness === 'none' ? 0 : (usual * 10 ** (loudness / 20)) / most;
  const both = clapped.map((x, i) => x + gain * clicking[i]!);
  const samples = condition ? under(condition, both, claps, random.below(1e6)) : both;
  return { samples, sampleRate, clicks: { times, countIn: inMeasure }, heard: loudness === 'none' ? [] : heard, claps };
}
