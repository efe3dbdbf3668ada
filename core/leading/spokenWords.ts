import { NUMBER_WORDS } from '../counting/numberWords.ts';
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

const PLAIN_WORDS = [
  'rest',
  'quarter',
  'half',
  'note',
  'dot',
  'whole',
  'hold',
  'on',
  'eighth',
  'sixteenth',
  'thirty',
  'second',
  'ready',
  'go',
  'down',
  'up',
  'right',
  'left',
] as const;

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

const animalSyllables = [...new Set(Object.values(HARBOUR_ANIMALS.cells).flatMap((word) => word.split('-')))];

/** Word → what the synthesiser is given. */
export const SPOKEN_WORDS: Readonly<Record<string, string>> = {
  ...Object.fromEntries(animalSyllables.map((syllable) => [syllable, ANIMAL_SOUNDS[syllable] ?? syllable])),
  ...Object.fromEntries(PLAIN_WORDS.map((word) => [word, word])),
  ...SYLLABLES,
  ...Object.fromEntries(NUMBER_WORDS.map((word, i) => [String(i + 1), word])),
};

/** Signs and other words that are said as one of the list. */
const SAID_AS: Readonly<Record<string, string>> = { '↓': 'down', '↑': 'up', and: '&', R: 'right', L: 'left' };

/** The recording that speaks a written syllable; undefined when there is none, and it is only shown. */
export function recordingOf(text: string): string | undefined {
  const word = SAID_AS[text] ?? text.toLowerCase();
  return Object.hasOwn(SPOKEN_WORDS, word) ? word : undefined;
}

/** File name of a recording, without ending: "&" → "and". */
export function recordingFile(word: string): string {
  return word === '&' ? 'and' : /^\d+$/.test(word) ? `number-${word}` : word;
}
