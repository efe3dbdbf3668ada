import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { EVERYTHING, few } from '../../scripts/test/trial.test-helper.ts';
import { randomFrom } from '../random.ts';
import { WORD_LEVEL, WordFinder, cutWord } from './spokenWord.ts';
import { LONGEST_KEPT } from './voiceFacts.ts';
import { madeWord } from './voice.test-helper.ts';
import { vowelOnset } from './vowel.ts';

const RATE = 22_050;
const WORDS = ['a', 'ta', 'sa', 'ma', 'ne', 'ti', 'tom', 'on', 'eni', 'ata'];

/** A room with hiss and hum; things sound in it at their seconds. */
function room(
  seconds: number,
  things: readonly (readonly [at: number, samples: Float32Array, gain?: number])[],
  hiss = 0.0008,
  rate = RATE,
): Float32Array {
  const random = randomFrom(5);
  const samples = Float32Array.from(
    { length: Math.round(seconds * rate) },
    (_, i) => hiss * random.normal() + 0.004 * Math.sin((2 * Math.PI * 25 * i) / rate) + 0.01,
  );
  for (const [at, thing, gain = 1] of things)
    thing.forEach((sample, i) => (samples[Math.round(at * rate) + i]! += sample * gain));
  return samples.map((sample) => Math.max(-1, Math.min(1, sample)));
}

const noise = (seconds: number, level: number) => {
  const random = randomFrom(9);
  return Float32Array.from({ length: Math.round(seconds * RATE) }, () => level * random.normal());
};

function loudest(samples: Float32Array): number {
  const size = Math.min(samples.length, RATE / 10);
  let [sum, most] = [0, 0];
  samples.forEach((sample, i) => {
    sum += sample ** 2 - (i >= size ? samples[i - size]! ** 2 : 0);
    most = Math.max(most, sum);
  });
  return Math.sqrt(most / size);
}

/** Where in a recording its word's vowel is, by the cut word: it is found again by its shape. */
function vowelIn(recording: Float32Array, word: { samples: Float32Array; vowel: number }): number {
  let [best, most] = [0, -Infinity];
  for (let at = 0; at + word.samples.length <= recording.length; at += 11) {
    let sum = 0;
    for (let i = 0; i < word.samples.length; i += 7) sum += recording[at + i]! * word.samples[i]!;
    if (sum > most) [best, most] = [at, sum];
  }
  return best / RATE + word.vowel;
}

describe('the vowel of a word', () => {
  it.each(WORDS.flatMap((word) => few([RATE, 48_000, 44_100], 2).map((rate) => [word, rate] as const)))(
    '“%s” at %i samples a second: not the murmur or hiss before it',
    (letters, sampleRate) => {
      for (const pitch of few([100, 160, 230], 2)) {
        const { samples, vowel } = madeWord(letters, { sampleRate, pitch });
        expect(Math.abs(vowelOnset(samples, sampleRate) - vowel)).toBeLessThan(letters.startsWith('m') ? 0.05 : 0.025);
      }
    },
  );
  it('is at the start of nothing', () => expect(vowelOnset(new Float32Array(400), RATE)).toBeLessThan(0.05));
});

describe('a word in a recording', () => {
  it('is cut, levelled and aligned wherever it stands and however loud', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...WORDS),
        fc.double({ min: 0.25, max: 1, noNaN: true }),
        fc.double({ min: 0.1, max: 0.9, noNaN: true }),
        fc.integer({ min: 95, max: 250 }),
        (letters, at, gain, pitch) => {
          const made = madeWord(letters, { pitch });
          const recording = room(2, [[at, made.samples, gain]]);
          const cut = cutWord(recording, RATE);
          expect(cut.ok).toBe(true);
          if (!cut.ok) return;
          const length = made.samples.length / RATE;
          expect(cut.word.samples.length / RATE).toBeGreaterThan(length - 0.05);
          expect(cut.word.samples.length / RATE).toBeLessThan(Math.min(LONGEST_KEPT, length + 0.17) + 0.001);
          expect(loudest(cut.word.samples)).toBeGreaterThan(WORD_LEVEL * 0.9);
          expect(loudest(cut.word.samples)).toBeLessThan(WORD_LEVEL * 1.02);
          expect(Math.abs(vowelIn(recording, cut.word) - at - made.vowel)).toBeLessThan(0.055);
        },
      ),
      { numRuns: EVERYTHING ? 25 : 10 },
    );
  });
  it.each([
    ['nothing but the room', room(1.5, []), 'nothing'],
    ['a knock', room(1.5, [[0.5, noise(0.03, 0.5)]]), 'nothing'],
    ['a word far away', room(1.5, [[0.5, madeWord('ta').samples, 0.1]], 0.004), 'soft'],
    ['a word too near', room(1.5, [[0.5, madeWord('ta').samples, 9]]), 'loud'],
    ['a sentence', room(4, [[0.5, madeWord('ta', { vowelSeconds: 2 }).samples]]), 'long'],
    ['silence of a file', new Float32Array(RATE), 'nothing'],
  ])('%s is none', (_name, recording, trouble) => {
    expect(cutWord(recording, RATE)).toEqual({ ok: false, trouble });
  });
  it.each(['ta', 'ma'])('“%s” without a breath before it and the chair after it', (letters) => {
    const { samples, vowel } = madeWord(letters);
    const recording = room(2.5, [
      [0.3, noise(0.15, 0.006)],
      [0.7, samples],
      [1.6, noise(0.2, 0.05)],
    ]);
    const cut = cutWord(recording, RATE);
    expect(cut.ok && cut.word.samples.length / RATE).toBeLessThan(samples.length / RATE + 0.17);
    expect(cut.ok && Math.abs(vowelIn(recording, cut.word) - 0.7 - vowel)).toBeLessThan(0.055);
  });
  it('stays what it is when it is cut once more, as from a file', () => {
    const first = cutWord(room(1.5, [[0.5, madeWord('tom').samples]]), RATE);
    const again = first.ok ? cutWord(first.word.samples, RATE) : first;
    expect(again.ok).toBe(true);
    if (!first.ok || !again.ok) return;
    expect(Math.abs(again.word.samples.length - first.word.samples.length) / RATE).toBeLessThan(0.06);
    expect(Math.abs(vowelIn(first.word.samples, again.word) - first.word.vowel)).toBeLessThan(0.012);
  });
});

describe('words one after the other', () => {
  /** What is heard of a sound that comes in blocks, each word asked for as soon as the one before is over. */
  function heardIn(sound: Float32Array, block = 512): (readonly [at: number, what: string])[] {
    const finder = new WordFinder(RATE);
    finder.ask();
    const heard: [number, string][] = [];
    for (let at = 0; at < sound.length; at += block) {
      const found = finder.hear(sound.subarray(at, at + block));
      if (!found) continue;
      heard.push([Math.round(((at + block) / RATE) * 10) / 10, found.ok ? 'word' : found.trouble]);
      finder.ask();
    }
    return heard;
  }
  const words = (times: readonly number[], gain = 0.5): [number, Float32Array, number][] =>
    times.map((at, i) => [at, madeWord(WORDS[i % WORDS.length]!).samples, gain]);

  it.each([64, 512, 4096])('each is heard once, when it is over, in blocks of %i', (block) => {
    const heard = heardIn(room(6, words([0.8, 2, 3.1, 4.4])), block);
    expect(heard.map(([, what]) => what)).toEqual(['word', 'word', 'word', 'word']);
    expect(heard[0]![0]).toBeGreaterThan(1.1);
    expect(heard[0]![0]).toBeLessThan(1.7);
  });
  it('knocks are not, talk is said to be too long, a soft one soft; the next is heard all the same', () => {
    const talk = madeWord('ta', { vowelSeconds: 3.2 }).samples;
    const sound = room(
      12,
      [[0.7, noise(0.03, 0.3)], ...words([1.2]), [2.4, talk], [6.6, madeWord('ne').samples, 0.1], ...words([9])],
      0.004,
    );
    expect(heardIn(sound).map(([, what]) => what)).toEqual(['word', 'long', 'soft', 'word']);
  });
  it('a breath before a word is none', () => {
    expect(heardIn(room(4, [[0.8, noise(0.15, 0.007)], ...words([1.4])])).map(([, what]) => what)).toEqual(['word']);
  });
  it('a long silence loses nothing of the word after it', () => {
    expect(heardIn(room(14, words([12.5]))).map(([, what]) => what)).toEqual(['word']);
  });
  it('what is said while none is waited for is no word', () => {
    const finder = new WordFinder(RATE);
    const sound = room(4, words([0.8, 2.5]));
    expect(finder.hear(sound.subarray(0, 2 * RATE))).toBeUndefined();
    expect(finder.loudness).toBeLessThan(-40);
    finder.ask();
    expect(finder.hear(sound.subarray(2 * RATE))).toMatchObject({ ok: true });
    finder.ask();
    finder.leave();
    expect(finder.hear(sound)).toBeUndefined();
    const talk = room(4, [[1.5, madeWord('ta', { vowelSeconds: 0.6 }).samples]]);
    const inside = new WordFinder(RATE);
    inside.hear(talk.subarray(0, 1.7 * RATE));
    inside.ask();
    expect(inside.hear(talk.subarray(1.7 * RATE))).toBeUndefined();
  });
});
