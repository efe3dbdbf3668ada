import type { MisreadingCode } from '../judging/misreadings/table.ts';

/** What a sentence can name, in the class's own words. */
export interface SentenceWords {
  /** The count under the event of the place, as it is said: “3”, “&”, “ta-a”. */
  readonly count: string;
  /** The name of the written value: "dotted quarter". */
  readonly value: string;
  /** How long it lasts: "1 1/2 beats". */
  readonly length: string;
  /** Further beats that a long note is held through, as said: "2 and 3". */
  readonly holds: string;
  /**
   * By how much: "2 beats" a take came in wrong, "8 %" the tempo changed; or the place from which all is right again.
   */
  readonly amount: string;
}

interface MisreadingWords {
  /** A few words for lists and legends. */
  readonly title: string;
  /** Said of the take, not of a place in it. */
  readonly whole?: true;
  /** What was heard, and what to do; the place is put before it. */
  readonly sentence: (words: SentenceWords) => string;
}

/** Each misreading in words, for `inNaming`. */
export const MISREADING_WORDS: Readonly<Record<MisreadingCode, MisreadingWords>> = {
  'rest-clapped': {
    title: 'a rest clapped',
    sentence: ({ count }) => `you clapped on the rest. Open your hands and whisper ${count}.`,
  },
  'rest-skipped': {
    title: 'a rest given no time',
    sentence: ({ count, length }) =>
      `you gave the rest no time, and all that follows came too early. Whisper ${count} for the ${length} of the rest.`,
  },
  'rest-too-long': {
    title: 'a half-beat rest given a whole beat',
    sentence: ({ count }) =>
      `the rest lasts only half a beat; you gave it a whole one. Whisper ${count} quickly and go straight on.`,
  },
  'dot-too-long': {
    title: 'a dotted {q} held two beats',
    sentence: ({ value, length, count }) =>
      `you held the ${value} two beats. It lasts ${length}: say ${count} and clap the next note on the half.`,
  },
  'dot-too-short': {
    title: 'a dot ignored',
    sentence: ({ value, length, count }) =>
      `you left out the dot. The ${value} lasts ${length}: say ${count} before you go on.`,
  },
  'tie-restruck': {
    title: 'a tied-on note clapped',
    sentence: () => 'you clapped the tied-on note. It only goes on: keep your hands together and push them forward.',
  },
  'hold-pulsed': {
    title: 'each beat of a long note clapped',
    sentence: ({ value, holds }) =>
      `you clapped each beat of the ${value}. Clap once, keep your hands together and push on ${holds}.`,
  },
  'hold-cut': {
    title: 'a long note left a beat early',
    sentence: ({ value, length, holds }) =>
      `you left the ${value} a beat early. It lasts ${length}: push on ${holds} before you go on.`,
  },
  'upbeat-on-beat': {
    title: 'a note after the beat put on the beat',
    sentence: ({ count }) =>
      `you clapped on the beat; this note comes after it, on ${count}. ` +
      'Tap the beat with your foot and clap when it is up.',
  },
  'eighths-uneven': {
    title: 'pairs of {e+} swung',
    sentence: ({ count }) =>
      'your pairs of {e+} were long and short. ' +
      `Make both the same length: clap the second on ${count}, just in the middle.`,
  },
  'sixteenths-slow': {
    title: 'four {s+} played as {e+}',
    sentence: () =>
      'you played the four {s+} as slowly as {e+}. ' +
      'All four fit into one beat: say them once on their own, then clap.',
  },
  'syncopation-straightened': {
    title: '{e}, {q}, {e} made straight',
    sentence: ({ count }) =>
      'short, long, short: you made it straight. ' +
      `The long note starts on the half, after ${count}, and lasts over the next beat.`,
  },
  'entered-early': {
    title: 'came in too early',
    sentence: ({ amount }) =>
      `you came in ${amount} too early; the rhythm itself was right. Wait for the whole count-in.`,
  },
  'entered-late': {
    title: 'came in too late',
    sentence: ({ amount }) =>
      `you came in ${amount} too late; the rhythm itself was right. ` +
      'Breathe in on the last count and start with the next beat.',
  },
  'half-tempo': {
    title: 'at half the tempo',
    sentence: () => 'right rhythm, at half the tempo: you gave each beat two clicks. Step with the click, then clap.',
  },
  'double-tempo': {
    title: 'at twice the tempo',
    sentence: () =>
      'right rhythm, at twice the tempo: you put two beats on each click. Step with the click, then clap.',
  },
  'own-tempo': {
    title: 'at a tempo of its own',
    whole: true,
    sentence: ({ amount }) => `right rhythm: you kept a steady ${amount}. Step with the click first, then clap.`,
  },
  hesitated: {
    title: 'stopped, then went on',
    sentence: () => 'you stopped before this note, then went on right. Keep the beat going in your feet.',
  },
  'started-again': {
    title: 'broke off and began again',
    sentence: () => 'you broke off and began again from here. Keep going to the end, even after a slip.',
  },
  'only-the-beat': {
    title: 'only the beat',
    whole: true,
    sentence: () => 'you clapped the steady beat, not the rhythm. Say the rhythm first, then clap what you say.',
  },
  'another-rhythm': {
    title: 'another rhythm',
    whole: true,
    sentence: () => 'this is not the rhythm on the board. Listen to it once more, say it, then clap it.',
  },
  rushing: {
    title: 'got faster',
    sentence: ({ amount }) => `you got faster, by ${amount}. Keep your feet with the click.`,
  },
  dragging: {
    title: 'got slower',
    sentence: ({ amount }) => `you got slower, by ${amount}. Keep your feet with the click.`,
  },
  'lost-and-recovered': {
    title: 'lost for a while',
    sentence: ({ amount }) =>
      `you lost the thread here, and were right again from ${amount}: well recovered. Practise just this stretch.`,
  },
  'measure-skipped': {
    title: 'a {measure} left out',
    sentence: () => 'you left this {measure} out. Follow the notes with a finger, {measure} by {measure}.',
  },
  'measure-repeated': {
    title: 'a {measure} played twice',
    sentence: () => 'you played this {measure} twice. Go straight on to the next one.',
  },
  'stopped-early': {
    title: 'the end is missing',
    sentence: () => 'you stopped here. Keep going to the end, even after a slip.',
  },
};
