import { describe, expect, it } from 'vitest';
import type { CountOptions } from '../counting/count.ts';
import { COUNTING_SYSTEM_IDS } from '../counting/countingSystems.ts';
import { STARTER_PATTERNS } from '../exercises/starterPatterns.ts';
import { parseScore } from '../rhythm/scoreText.ts';
import { loadSpeech } from '../words/catalogues.ts';
import { inLanguage, keepSpeech } from '../words/say.ts';
import { wordOfCue } from './cueSounds.ts';
import { oncePlan } from './plan.ts';
import { scoreTimetable } from './timetable.ts';
import { overTheClick, voiceWords } from './voiceWords.ts';

function scoreOf(text: string) {
  const read = parseScore(text);
  if (!read.ok) throw new Error(text);
  return read.score;
}
for (const language of ['de', 'es'] as const) keepSpeech((await loadSpeech(language, 'web'))!);
const wordsOf = (counts: CountOptions, ...texts: string[]) => voiceWords(texts.map(scoreOf), counts);

describe('the words of a class', () => {
  it.each([
    [{ school: 'numbers' }, ['4/4 q q e e q'], '1 2 3 4 ready go &'],
    [{ school: 'numbers' }, ['4/4 s s s s q q q', '6/8 e e e q.'], '1 2 3 4 ready go e & a la li'],
    [{ school: 'ta', rests: 'sh' }, ['2/4 q (q) | e e h'], '1 2 ready go ta sh ti a'],
    [
      { school: 'words', wordSet: { title: 'Boats', cells: { q: 'tug', 'e e': 'fer-ry' } } },
      ['2/4 q e e'],
      '1 2 ready go tug fer ry',
    ],
  ] as const)('%j in %j: %s', (counts, texts, words) => {
    expect(
      wordsOf(counts, ...texts)
        .map(({ text }) => text)
        .join(' '),
    ).toBe(words);
  });

  it('are each there once, and all that is spoken is among them', () => {
    for (const school of COUNTING_SYSTEM_IDS) {
      const scores = STARTER_PATTERNS().musician.map(({ text }) => scoreOf(text));
      const words = voiceWords(scores, { school }).map(({ word }) => word);
      expect(new Set(words).size).toBe(words.length);
      for (const score of scores) {
        const made = scoreTimetable(score, oncePlan(80, 'say-clap'), { school });
        for (const cue of made.ok ? made.timetable.cues : []) {
          const word = wordOfCue(cue);
          if (word !== undefined) expect(words).toContain(word);
        }
      }
    }
  });

  it('of another language are named with it, syllables that are the same everywhere are not', () => {
    const words = wordsOf({ school: 'numbers', language: 'de' }, '2/4 q e e').map(({ word }) => word);
    expect(words).toEqual(expect.arrayContaining(['de/1', 'de/2']));
    expect(wordsOf({ school: 'ta', language: 'es' }, '2/4 q e e').map(({ word }) => word)).toEqual(
      expect.arrayContaining(['es/1', 'ta', 'ti']),
    );
  });

  it('that the app cannot say are spoken where they are words; signs are not', () => {
    const cue = (text: string) => wordOfCue({ kind: 'syllable', text });
    expect(['tug', 'Möwe', '&', '↓', 'R', '_', '?!'].map(cue)).toEqual([
      'tug',
      'möwe',
      '&',
      'down',
      'right',
      undefined,
      undefined,
    ]);
    expect(wordOfCue({ kind: 'click', text: 'tug' })).toBeUndefined();
    expect(inLanguage('de', () => cue('tug'))).toBe('tug');
  });
});

describe('words over the click', () => {
  it('come one a beat after two beats, each with its click', () => {
    const cues = overTheClick(['1', '&'], 120);
    expect(cues.map(({ time, kind, recorded }) => [time, kind, recorded])).toEqual([
      [0, 'click', undefined],
      [0.5, 'click', undefined],
      [1, 'click', undefined],
      [1, 'syllable', '1'],
      [1.5, 'click', undefined],
      [1.5, 'syllable', '&'],
    ]);
    expect(cues.every(({ sounds }) => sounds)).toBe(true);
  });
});
