import { randomFrom } from '../random.ts';
import type { Seconds } from '../timing/units.ts';

/** Resonances of a mouth, Hz, and how loud: the throat's pulses go through them. */
const SHAPES = {
  a: { formants: [730, 1200, 2500], level: 1 },
  e: { formants: [480, 1900, 2600], level: 0.9 },
  i: { formants: [290, 2250, 3000], level: 0.8 },
  o: { formants: [480, 850, 2400], level: 0.9 },
  m: { formants: [250, 1100, 2200], level: 0.3 },
  n: { formants: [270, 1500, 2400], level: 0.3 },
} as const;
const VOWELS = 'aeio';

/** Sounds without the throat: a hiss, or a burst that dies away; where they are loudest, Hz. */
const NOISES = { s: 5200, t: 3500 } as const;

const LENGTH: Readonly<Record<string, Seconds>> = { m: 0.11, n: 0.11, s: 0.12, t: 0.03 };

/** One resonance, as loud at its peak whatever its place. */
function resonate(samples: Float32Array, hz: number, width: number, sampleRate: number): Float32Array {
  const pole = Math.exp((-Math.PI * width) / sampleRate);
  const turn = 2 * pole * Math.cos((2 * Math.PI * hz) / sampleRate);
  const gain = (1 - pole) * 2;
  let [a, b] = [0, 0];
  return samples.map((sample) => {
    [a, b] = [gain * sample + turn * a - pole * pole * b, a];
    return a;
  });
}

/**
 * A word made like speech, letter by letter: m n s t and vowels.
 * @returns its samples and where its first vowel begins
 */
export function madeWord(
  letters: string,
  {
    sampleRate = 22_050,
    pitch = 120,
    vowelSeconds = 0.2,
  }: Partial<Record<'sampleRate' | 'pitch' | 'vowelSeconds', number>> = {},
): { readonly samples: Float32Array; readonly vowel: Seconds } {
  const random = randomFrom(11);
  const parts: Float32Array[] = [];
  let [vowel, at] = [-1, 0];
  for (const letter of letters) {
    const isVowel = VOWELS.includes(letter);
    const seconds = isVowel ? vowelSeconds : LENGTH[letter]!;
    const count = Math.round(seconds * sampleRate);
    if (isVowel && vowel < 0) vowel = at;
    at += seconds;
    const edge = Math.round(0.004 * sampleRate);
    const swell = (i: number) => Math.min(1, i / edge, (count - i) / edge);
    if (letter === 's' || letter === 't') {
      const noise = resonate(
        Float32Array.from({ length: count }, () => random.normal()),
        NOISES[letter],
        1500,
        sampleRate,
      );
      // Nothing of the throat is in it: below two thousand it is still.
      const high = noise.map((sample, i) => sample - 2 * (noise[i - 1] ?? 0) + (noise[i - 2] ?? 0));
      const peak = high.reduce((most, sample) => Math.max(most, Math.abs(sample)), 1e-9);
      parts.push(
        high.map((sample, i) => (0.15 * sample * (letter === 't' ? Math.exp((-5 * i) / count) : swell(i))) / peak),
      );
      continue;
    }
    const { formants, level } = SHAPES[letter as keyof typeof SHAPES];
    const period = Math.round(sampleRate / pitch);
    const pulses = Float32Array.from({ length: count }, (_, i) => (i % period < 3 ? 1 : 0));
    const voiced = formants.reduce((sum, hz, k) => {
      const part = resonate(pulses, hz, 70 + 40 * k, sampleRate);
      return sum.map((sample, i) => sample + part[i]! / (isVowel ? 1 + 0.5 * k : 1 + 6 * k));
    }, new Float32Array(count));
    const peak = voiced.reduce((most, sample) => Math.max(most, Math.abs(sample)), 1e-9);
    parts.push(voiced.map((sample, i) => (0.6 * level * swell(i) * sample) / peak));
  }
  const samples = new Float32Array(parts.reduce((sum, part) => sum + part.length, 0));
  let from = 0;
  for (const part of parts) {
    samples.set(part, from);
    from += part.length;
  }
  return { samples, vowel };
}
