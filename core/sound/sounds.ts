import { randomFrom } from '../random.ts';
import type { Accent } from '../timing/pulses.ts';

/** Hands, feet, thighs, fingers, and two blocks of wood: none is taken for another. */
export type Struck = 'clap' | 'stamp' | 'pat' | 'snap' | 'wood' | 'low-wood';
/** One sound of the app: a click, something struck, a tone of some length, or a recorded word. */
export type Sound =
  | { readonly kind: 'click'; readonly accent: Accent }
  | { readonly kind: Struck }
  | { readonly kind: 'tone'; readonly seconds: number }
  | { readonly kind: 'word'; readonly word: string; readonly whispered: boolean };

/** One name a sound, for those who keep what they made of it. */
export function soundKey(sound: Sound): string {
  switch (sound.kind) {
    case 'click':
      return `click ${sound.accent}`;
    case 'tone':
      return `tone ${sound.seconds.toFixed(3)}`;
    case 'word':
      return `word ${sound.word}`;
    default:
      return sound.kind;
  }
}

/** Pitch and loudness of the clicks; a whole fifth between first and other beats is heard by everyone. */
const CLICKS: Readonly<Record<Accent, { hz: number; level: number }>> = {
  measure: { hz: 1568, level: 0.9 },
  group: { hz: 1318, level: 0.7 },
  beat: { hz: 1046, level: 0.6 },
  division: { hz: 784, level: 0.3 },
};
const CLICK_SECONDS = 0.05;
const TONE_HZ = 330;
const TONE_EDGE_SECONDS = 0.012;

/** The click, from its first sample on at full attack, so that it stands exactly where it starts. */
export function clickSamples(accent: Accent, sampleRate: number): Float32Array {
  const { hz, level } = CLICKS[accent];
  return Float32Array.from(
    { length: Math.round(CLICK_SECONDS * sampleRate) },
    (_, i) => level * Math.cos((2 * Math.PI * hz * i) / sampleRate) * Math.exp((-i / sampleRate) * 90),
  );
}

/** Noise that rings at some pitch and dies away: what struck things have in common. */
function struck(
  sampleRate: number,
  {
    seconds,
    hz,
    width,
    decay,
    level,
    seed,
  }: { seconds: number; hz: number; width: number; decay: number; level: number; seed: number },
): Float32Array {
  const random = randomFrom(seed);
  const pole = Math.exp((-Math.PI * width) / sampleRate);
  const turn = 2 * pole * Math.cos((2 * Math.PI * hz) / sampleRate);
  let [a, b] = [0, 0];
  const samples = Float32Array.from({ length: Math.round(seconds * sampleRate) }, (_, i) => {
    const strike = random.normal() * Math.exp((-i / sampleRate) * decay);
    [a, b] = [strike + turn * a - pole * pole * b, a];
    return a;
  });
  const peak = samples.reduce((most, sample) => Math.max(most, Math.abs(sample)), 1e-9);
  return samples.map((sample) => (sample * level) / peak);
}

/** The samples of any sound but a recorded word, mono, -1 to 1. */
export function synthesise(sound: Exclude<Sound, { kind: 'word' }>, sampleRate: number): Float32Array {
  switch (sound.kind) {
    case 'click':
      return clickSamples(sound.accent, sampleRate);
    case 'clap':
      return struck(sampleRate, { seconds: 0.09, hz: 1150, width: 900, decay: 70, level: 0.8, seed: 3 });
    case 'wood':
      return struck(sampleRate, { seconds: 0.09, hz: 820, width: 40, decay: 900, level: 0.7, seed: 5 });
    case 'low-wood':
      return struck(sampleRate, { seconds: 0.1, hz: 480, width: 35, decay: 800, level: 0.75, seed: 11 });
    case 'pat':
      return struck(sampleRate, { seconds: 0.09, hz: 300, width: 350, decay: 90, level: 0.85, seed: 13 });
    case 'snap':
      return struck(sampleRate, { seconds: 0.05, hz: 2900, width: 500, decay: 180, level: 0.6, seed: 17 });
    case 'stamp':
      return struck(sampleRate, { seconds: 0.14, hz: 95, width: 30, decay: 120, level: 0.9, seed: 7 });
    case 'tone': {
      const length = Math.round(Math.max(0.05, sound.seconds * 0.95) * sampleRate);
      const edge = TONE_EDGE_SECONDS * sampleRate;
      return Float32Array.from({ length }, (_, i) => {
        const swell = Math.min(1, i / edge, (length - i) / edge);
        const phase = (2 * Math.PI * TONE_HZ * i) / sampleRate;
        return 0.4 * swell * (Math.sin(phase) + 0.3 * Math.sin(2 * phase) + 0.12 * Math.sin(3 * phase));
      });
    }
  }
}

/** A whispered word is so much softer. */
export const WHISPER_LEVEL = 0.35;

/** Above this the limiter bends; below it nothing is changed. */
const KNEE = 0.8;

/** Bends what is louder than the knee softly towards, and never over, full scale. */
export function limit(sample: number): number {
  const size = Math.abs(sample);
  return size <= KNEE ? sample : Math.sign(sample) * (KNEE + (1 - KNEE) * Math.tanh((size - KNEE) / (1 - KNEE)));
}
