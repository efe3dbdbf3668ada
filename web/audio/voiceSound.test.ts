import fc from 'fast-check';
import { afterEach, describe, expect, it } from 'vitest';
import { soundText, speakWith, spokenWord, wordsToSpeakWith } from './voiceSound.ts';

afterEach(() => speakWith(undefined));
const word = (name: string) => ({ word: name, vowel: 0.1, sound: soundText(Float32Array.from([0, 0.5, -1])) });

describe('a word as it is kept', () => {
  it('comes back sample by sample', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 1, maxLength: 300 }),
        (samples) => {
          const { samples: back, vowel } = spokenWord({
            word: '1',
            vowel: 0.2,
            sound: soundText(Float32Array.from(samples)),
          });
          expect([back.length, vowel]).toEqual([samples.length, 0.2]);
          back.forEach((sample, i) => expect(Math.abs(sample - samples[i]!)).toBeLessThan(1e-4));
        },
      ),
    );
  });
});

describe('whose voice the page speaks with', () => {
  it('is the teacher’s own, while she wants it and is in', () => {
    speakWith({ speaks: true, words: [word('1'), word('de/1')] });
    expect([...wordsToSpeakWith().keys()]).toEqual(['1', 'de/1']);
    speakWith({ speaks: false, words: [word('1')] });
    expect(wordsToSpeakWith().size).toBe(0);
    speakWith({ speaks: true, words: [word('1')] });
    speakWith(undefined);
    expect(wordsToSpeakWith().size).toBe(0);
  });
});
