import { noteNames } from '../counting/systems/noteNames.ts';
import { SOURCE, currentLanguage, perLanguage, t } from '../words/say.ts';
import { numberWords } from '../counting/numberWords.ts';
import { HARBOUR_ANIMALS } from '../counting/wordSet.ts';

/**
 * Every word the app can speak, and how a speech synthesiser is told to say it: plain text, or phonemes in double
 * brackets (Kirshenbaum's letters, as espeak-ng reads them). The recordings in web/public/speech are made from this
 * list.
 */
const SYLLABLES: Readonly<Record<string, string>> = {
  '&': 'and',
  e: "[['i:]]",
  a: "[['A:]]",
  la: "[[l'A:]]",
  li: "[[l'i:]]",
  te: "[[t'eI]]",
  ta: "[[t'A:]]",
  ka: "[[k'A:]]",
  di: "[[d'i:]]",
  mi: "[[m'i:]]",
  ki: "[[k'i:]]",
  da: "[[d'A:]]",
  va: "[[v'A:]]",
  ma: "[[m'A:]]",
  i: "[['i:]]",
  ti: "[[t'i:]]",
  tom: "[[t'0m]]",
  om: "[['0m]]",
  o: "[['oU]]",
  tim: "[[t'Im]]",
  tri: "[[tr'i:]]",
  sh: '[[S:]]',
  s: '[[s:]]',
};

/** Words beside the counts; `left` and `right` are hands, which are other words than those for what is correct. */
const plainWords = perLanguage(() => [
  t`rest`,
  t`ready`,
  t`go`,
  t`down`,
  t`up`,
  t`right${''}`,
  t`left${''}`,
  ...Object.values(noteNames().words).flatMap((name) => name.toLowerCase().split('-')),
]);

/** Syllables of the animals that would be read wrongly on their own. */
const ANIMAL_SOUNDS: Readonly<Record<string, string>> = {
  ot: "[['0t]]",
  ter: "[[t'3:]]",
  pe: "[[p'E]]",
  ri: "[[r'I]]",
  win: 'win',
  kle: "[[k'@L]]",
  cor: 'core',
  mo: "[[m'@]]",
  rant: "[[r'ant]]",
  pel: "[[p'El]]",
  can: "[[k'@n]]",
  lob: "[[l'0b]]",
  ster: "[[st'3:]]",
  her: "[[h'E]]",
  ring: 'ring',
  an: "[['an]]",
  cho: "[[tS'oU]]",
  vy: "[[v'i:]]",
  jel: "[[dZ'El]]",
  ly: "[[l'i:]]",
  fish: 'fish',
  oc: "[['0k]]",
  to: "[[t'@]]",
  pus: "[[p'Us]]",
  puf: "[[p'Vf]]",
  fin: 'fin',
  dol: "[[d'0l]]",
  phin: 'fin',
};

const animalSyllables = perLanguage(() => [
  ...new Set(Object.values(HARBOUR_ANIMALS().cells).flatMap((word) => word.toLowerCase().split('-'))),
]);

/** A place in the beat that is said in the language itself: in English they are among the syllables. */
const numberedPlaces = perLanguage(() =>
  currentLanguage() === SOURCE ? {} : { [t`e`]: t`e`, [t`&`]: t`and`, [t`a`]: t`a` },
);

/** What is recorded in the voice of the language: word → what the synthesiser is given. */
export const ownWords = perLanguage((): Readonly<Record<string, string>> => ({
  ...Object.fromEntries(
    animalSyllables().map((syllable) => [
      syllable,
      (currentLanguage() === SOURCE && ANIMAL_SOUNDS[syllable]) || syllable,
    ]),
  ),
  ...Object.fromEntries(plainWords().map((word) => [word.toLowerCase(), word])),
  ...Object.fromEntries(numberWords().map((word, i) => [String(i + 1), word])),
}));

/** Word → what the synthesiser is given; the syllables of the counts are the same everywhere. */
export const SPOKEN_WORDS = perLanguage((): Readonly<Record<string, string>> => ({
  ...ownWords(),
  ...SYLLABLES,
  ...numberedPlaces(),
}));

/** Whether a word is recorded in the voice of the language; the others serve all languages. */
export function isOwnWord(word: string): boolean {
  return Object.hasOwn(numberedPlaces(), word) || (Object.hasOwn(ownWords(), word) && !Object.hasOwn(SYLLABLES, word));
}

/** Signs and other words that are said as one of the list. */
const saidAs = perLanguage((): Readonly<Record<string, string>> => ({
  '↓': t`down`,
  '↑': t`up`,
  and: t`&`,
  R: t`right${''}`,
  L: t`left${''}`,
}));

/** The recording that speaks a written syllable; undefined when there is none, and it is only shown. */
export function recordingOf(text: string): string | undefined {
  const word = Object.hasOwn(saidAs(), text) ? saidAs()[text]! : text.toLowerCase();
  return Object.hasOwn(SPOKEN_WORDS(), word) ? word : undefined;
}

/** The same for who speaks in any language: a word in the voice of another language than English says which. */
export function recordingIn(text: string): string | undefined {
  const word = recordingOf(text);
  const language = currentLanguage();
  return word === undefined || language === SOURCE || !isOwnWord(word) ? word : `${language}/${word}`;
}

/** File name of a recording, without ending: "&" → "and", "dieciséis" → "dieciseis". */
export function recordingFile(word: string): string {
  if (word === '&' || word === '+') return 'and';
  return /^\d+$/.test(word) ? `number-${word}` : word.normalize('NFD').replace(/[^a-z]/g, '');
}
