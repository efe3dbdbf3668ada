/** Frames of 4 ms: shorter than any consonant, longer than one period of a low voice's first harmonics. */
const FRAME_SECONDS = 0.004;
/** Vowels carry their strength below this; the hiss of consonants lies above. */
const VOWEL_HZ = 1000;
/** A vowel has begun when it has this part of the loudest vowel frame's amplitude. */
const BEGUN = 0.35;

/**
 * Where the vowel of a spoken syllable begins, in seconds: what has to fall on the beat. In a syllable without a vowel
 * ("sh") it is where the sound itself has swelled.
 * @param samples  one syllable, mono, -1 to 1
 */
export function vowelOnset(samples: Float32Array, sampleRate: number): number {
  const smooth = 1 - Math.exp((-2 * Math.PI * VOWEL_HZ) / sampleRate);
  const size = Math.max(1, Math.round(FRAME_SECONDS * sampleRate));
  const frames = Math.ceil(samples.length / size);
  const low = new Float64Array(frames);
  const all = new Float64Array(frames);
  let once = 0;
  let twice = 0;
  samples.forEach((sample, i) => {
    once += smooth * (sample - once);
    twice += smooth * (once - twice);
    const frame = Math.floor(i / size);
    low[frame]! += twice * twice;
    all[frame]! += sample * sample;
  });
  const sum = (values: Float64Array) => values.reduce((a, b) => a + b, 0);
  const voiced = sum(low) > 0.1 * sum(all);
  const energy = voiced ? low : all;
  const loudest = energy.reduce((a, b) => Math.max(a, b), 0);
  const at = energy.findIndex((value) => value >= BEGUN ** 2 * loudest);
  return at < 0 ? 0 : (at * size) / sampleRate;
}
