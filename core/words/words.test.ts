import { existsSync, readFileSync } from 'node:fs';
import { afterEach, describe, expect, it } from 'vitest';
import {
  LANGUAGE_IDS,
  type Language,
  type Speech,
  counted,
  decimal,
  inSpeech,
  keepSpeech,
  perLanguage,
  readWith,
  t,
  languageOf,
} from './say.ts';
import { loadSpeech, speechOf } from './catalogues.ts';
import { checkWordSet, HARBOUR_ANIMALS } from '../counting/wordSet.ts';
import { countPattern, plainCounts } from '../counting/count.ts';
import type { CountingSystemId } from '../counting/countingSystems.ts';
import { soundOf } from '../leading/cueSounds.ts';
import { oncePlan } from '../leading/plan.ts';
import { SPOKEN_WORDS, isOwnWord } from '../leading/spokenWords.ts';
import { timetable } from '../leading/timetable.ts';
import { judgeTake } from '../judging/judgeTake.ts';
import { parseRhythm } from '../rhythm/text.ts';
import { readSpeech } from '../spoken/readSpeech.ts';
import { adviceForChild, adviceOn } from '../wording/advice.ts';
import { PLAIN_VOICE } from '../wording/voice.ts';
import { noteName, restName, valueName } from '../wording/valueNames.ts';

const speeches = new Map<Language, Speech | undefined>();
for (const language of LANGUAGE_IDS) speeches.set(language, await loadSpeech(language, 'web'));
const said = <T>(language: Language, make: () => T): T => inSpeech(speeches.get(language), make);

const pattern = (text: string) => {
  const read = parseRhythm(text);
  if (!read.ok) throw new Error(text);
  return read.pattern;
};

describe('a sentence', () => {
  afterEach(() => readWith(() => undefined));

  it('is English without a speech, with a broken line as one space', () => {
    expect(t`Hear
      it ${3} times`).toBe('Hear it 3 times');
  });

  it('is said by who reads, and within another speech by that', () => {
    const loud = speechOf('de', [{ 'Hear {0}': '{0} hören' }]);
    readWith(() => loud);
    expect(t`Hear ${'Ada'}`).toBe('Ada hören');
    expect(inSpeech(undefined, () => t`Hear ${'Ada'}`)).toBe('Hear Ada');
    expect(t`Hear ${'Ada'}`).toBe('Ada hören');
    expect(t`Not in it`).toBe('Not in it');
  });

  it('is spoken from catalogues that are read once', async () => {
    expect(await loadSpeech('de', 'web')).toBe(speeches.get('de'));
    expect(await loadSpeech('en', 'web')).toBeUndefined();
  });

  it('goes back to who reads when something within it fails', () => {
    const fails = () =>
      inSpeech(speeches.get('de'), () => {
        throw new Error('no');
      });
    expect(fails).toThrow('no');
    expect(t`Save`).toBe('Save');
  });

  it('has the forms of numbers and the decimal sign of its language', () => {
    const forms = () => [counted(1, 'child', 'children'), counted(2, 'child', 'children'), decimal(1.5), t`${0.5} ms`];
    expect(said('en', forms)).toEqual(['1 child', '2 children', '1.5', '0.5 ms']);
    expect(said('de', forms)).toEqual(['1 Kind', '2 Kinder', '1,5', '0,5 ms']);
    expect(said('es', forms)).toEqual(['1 niño', '2 niños', '1,5', '0,5 ms']);
  });

  it('stands in tables once for each language', () => {
    let made = 0;
    const table = perLanguage(() => ({ save: t`Save`, made: ++made }));
    expect([table().save, said('de', () => table().save), table().save]).toEqual(['Save', 'Speichern', 'Save']);
    expect(made).toBe(2);
  });
});

describe('names of languages', () => {
  it.each([
    ['de', 'de'],
    ['de-AT', 'de'],
    ['ES_mx', 'es'],
    [' en ', 'en'],
    ['fr', undefined],
    ['constructor', undefined],
    [undefined, undefined],
  ] as const)('%s', (name, found) => expect(languageOf(name)).toBe(found));
});

describe('names of values', () => {
  it.each([
    ['de', 'w', 0, 'Ganze', 'ganze Note', 'ganze Pause'],
    ['de', 'h', 1, 'punktierte Halbe', 'punktierte halbe Note', 'punktierte halbe Pause'],
    ['de', 'q', 0, 'Viertel', 'Viertelnote', 'Viertelpause'],
    ['de', 'q', 2, 'doppelt punktierte Viertel', 'doppelt punktierte Viertelnote', 'doppelt punktierte Viertelpause'],
    ['de', 's', 0, 'Sechzehntel', 'Sechzehntelnote', 'Sechzehntelpause'],
    ['es', 'w', 0, 'redonda', 'redonda', 'silencio de redonda'],
    ['es', 'h', 1, 'blanca con puntillo', 'blanca con puntillo', 'silencio de blanca con puntillo'],
    ['es', 'q', 0, 'negra', 'negra', 'silencio de negra'],
    [
      'es',
      'e',
      2,
      'corchea con doble puntillo',
      'corchea con doble puntillo',
      'silencio de corchea con doble puntillo',
    ],
  ] as const)('%s %s %s', (language, base, dots, value, note, rest) => {
    for (const naming of ['quarters', 'crotchets'] as const) {
      const names = () => [valueName({ base, dots }, naming), restName({ base, dots }, naming)];
      expect(said(language, names)).toEqual([value, rest]);
      if (naming === 'quarters') expect(said(language, () => noteName({ base, dots }, naming))).toBe(note);
    }
  });
});

describe('counting', () => {
  it.each([
    ['de', 'numbers', '4/4 q e e s s s s q', '1 2 + 3 e + e 4'],
    ['de', 'pulses', '4/4 h q q', '1-+-2-+ 3-+ 4-+'],
    ['de', 'numbers', '4/4 q. e q (q)', '1-₂ + 3 (4)'],
    ['de', 'numbers-te', '4/4 q e e q q', '1 2 te 3 4'],
    ['de', 'ta', '4/4 h q e e', 'ta-a ta ti ti'],
    ['de', 'note-names', '4/4 h q. e', 'hal-be Viertel-Punkt Achtel'],
    ['de', 'note-names', '4/4 w | h. (q)', 'gan-ze-No-te | hal-be-Punkt Pause'],
    ['es', 'numbers', '4/4 q e e s s s s q', '1 2 y 3 e y a 4'],
    ['es', 'takadimi', '4/4 q e e h', 'ta ta di ta-a'],
    ['es', 'note-names', '4/4 h q. e', 'blan-ca negra-puntillo corchea'],
    ['es', 'note-names', '4/4 w', 're-don-da-a'],
  ] as const)('%s, %s: %s', (language, school, text, counts) => {
    const count = () => countPattern(pattern(text), { school });
    const done = said(language, count);
    expect(done.ok && plainCounts(done.measures)).toBe(counts);
  });

  it.each([
    ['de', 'numbers', '1 2 + 3 4'],
    ['de', 'numbers', 'eins zwei drei vier'],
    ['de', 'numbers', '1 e + e 2 3 4'],
    ['es', 'numbers', '1 y 2 3 4'],
    ['es', 'numbers', 'uno dos tres cuatro'],
  ] as const)('%s typed as said: %s, %s', (language, school, typed) => {
    expect(said(language, () => readSpeech(typed, school as CountingSystemId)).ok).toBe(true);
  });

  it.each(LANGUAGE_IDS)('has a set of words that fits in %s', (language) =>
    expect(said(language, () => checkWordSet(HARBOUR_ANIMALS()))).toEqual([]),
  );
});

/** Takes in which something is misread, one of each kind that is easily made. */
const TAKES: readonly (readonly [string, readonly number[]])[] = [
  ['4/4 q q (q) q | h h', [0, 0.75, 1.5, 2.25, 3, 4.5]],
  ['4/4 q. e q q | q q h', [0, 0.75, 1.5, 2.25, 3, 3.75, 4.5]],
  ['4/4 h h | q q q q', [0, 0.75, 1.5, 2.25, 3, 3.75, 4.5, 5.25]],
  ['4/4 q q q q | q q h', [0.75, 1.5, 2.25, 3, 3.75, 4.5, 5.25]],
  ['4/4 q q e e q | q q h', [0, 1.5, 3, 3.75, 4.5, 6, 7.5, 9]],
  ['4/4 q q q q | q e e h | q q h', [0, 0.75, 1.5, 2.25]],
];

describe.each(LANGUAGE_IDS)('what is said of a take in %s', (language) => {
  it.each(TAKES)('%s: says where, what, and then what to do', (text, onsets) => {
    const judged = judgeTake({ patternText: text, bpm: 80, onsets }, { ages: '7-8' });
    if (!judged.ok) throw new Error(JSON.stringify(judged.trouble));
    const advice = said(language, () => adviceOn(judged.result, pattern(text), PLAIN_VOICE));
    expect(advice.fix[0]).toMatch(/^[^:]+: .+\. .+[.!]$/);
    const { task } = said(language, () => adviceForChild(judged.result, pattern(text), PLAIN_VOICE));
    expect(task).toMatch(/^[A-ZÄÖÜ¡¿]/);
    expect(advice.fix.join(' ')).not.toMatch(/[{}]|undefined/);
  });
});

it('says nothing in English where another language is asked for', () => {
  const words = [TAKES[0]![0]].flatMap((text) => {
    const judged = judgeTake({ patternText: text, bpm: 80, onsets: TAKES[0]![1] }, { ages: '7-8' });
    return judged.ok ? said('de', () => adviceOn(judged.result, pattern(text), PLAIN_VOICE).fix) : [];
  });
  expect(words).toEqual([
    'Takt 1, Schlag 3: du hast auf die Pause geklatscht. Die Pause ist still: Hände auf und flüstere „3“.',
  ]);
});

describe('spoken counts', () => {
  const recorded = (language: Language, text: string) => {
    const table = said(language, () => timetable(pattern(text), oncePlan(80, 'say-clap'), { school: 'numbers' }));
    if (!table.ok) throw new Error(JSON.stringify(table.trouble));
    return table.timetable.cues
      .filter(({ kind }) => kind === 'syllable')
      .map((cue) => [cue.text, soundOf(cue)?.sound] as const)
      .map(([shown, sound]) => `${shown} ${sound?.kind === 'word' ? sound.word : '-'}`);
  };

  it.each([
    ['en', ['1 1', '2 2', '& &', '3 3', 'la la', 'li li']],
    ['de', ['1 de/1', '2 de/2', '+ de/+', '3 de/3', 'la la', 'li li']],
    ['es', ['1 es/1', '2 es/2', 'y es/y', '3 es/3', 'la la', 'li li']],
  ] as const)('are in the voice of %s, and syllables in the one that all share', (language, words) =>
    expect(recorded(language, '3/4 q e e 3{e e e}')).toEqual(words),
  );

  it('are those of the class where it has another language', () => {
    keepSpeech(speeches.get('es')!);
    const counts = { school: 'numbers', language: 'es' } as const;
    const table = said('de', () => timetable(pattern('2/4 e e q'), oncePlan(80, 'say-clap'), counts));
    const cues = table.ok ? table.timetable.cues.filter(({ kind }) => kind === 'syllable') : [];
    expect(cues.map(({ text, recorded: word }) => `${text} ${word}`)).toEqual(['1 es/1', 'y es/y', '2 es/2']);
  });

  it.each(['de', 'es'] as const)('every word of %s has its file, its vowel where it begins to sound', (language) => {
    const folder = `web/public/speech/${language}`;
    const index = JSON.parse(readFileSync(`${folder}/index.json`, 'utf8')) as Record<
      string,
      { file: string; vowel: number }
    >;
    const own = said(language, () => Object.keys(SPOKEN_WORDS()).filter(isOwnWord));
    expect(Object.keys(index).sort()).toEqual(own.sort());
    for (const { file, vowel } of Object.values(index)) {
      expect(existsSync(`${folder}/${file}`), file).toBe(true);
      expect(vowel).toBeLessThan(0.3);
    }
  });
});
