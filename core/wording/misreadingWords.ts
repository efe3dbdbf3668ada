import type { MisreadingCode } from '../judging/misreadings/table.ts';

/** What a sentence can name, in the class's own words. */
export interface SentenceWords {
  /** What is said where the event begins: “3”, “&”, “ta”. */
  readonly count: string;
  /** What is said on the next note after a beat: the second of a pair. */
  readonly second: string;
  /** What comes after the event, and where: "the next note comes on “&”". */
  readonly next: string;
  /** What the class does in this rest: "whisper “3”". */
  readonly restKept: string;
  /** The name of the written value: "dotted quarter note". */
  readonly value: string;
  /** Several of it: "eighths". */
  readonly many: string;
  /** How long it lasts: "1 1/2 beats". */
  readonly length: string;
  /** Where to push while a long note is held: "on beats 2 and 3". */
  readonly holds: string;
  /**
   * By how much: "2 beats" a take came in wrong, "8 %" the tempo changed; or the place from which all is right again.
   */
  readonly amount: string;
  /** What was clapped and what is written in a beat, as the class says it: "“1 &”". */
  readonly clapped: string;
  readonly written: string;
  /** What was clapped throughout: "every beat twice". */
  readonly every: string;
  /** Where it began, unless from the first {measure} on. */
  readonly since: string;
  /** How many times faster, or slower, the whole take went. */
  readonly factor: number;
  /** The measures it is about are one time through of a repeat. */
  readonly isRepeat: boolean;
  /** It took the place of what is written there, and moved nothing. */
  readonly inPlace: boolean;
  /** So many measures in a row. */
  readonly measures: number;
  /** Only a measure of the take. */
  readonly part: boolean;
  /** There was no click. */
  readonly free: boolean;
  /** Nothing else was wrong in the take. */
  readonly alone: boolean;
}

interface MisreadingWords {
  /** A few words for lists and legends. */
  readonly title: string;
  /** Said of the take, not of a place in it. */
  readonly whole?: true;
  /** What was heard, and what to do; the place is put before it. */
  readonly sentence: (words: SentenceWords) => string;
}

const allOfIt = (alone: boolean) => (alone ? 'the rhythm itself was right; all of it' : 'all of it');

const here = ({ part, measures }: SentenceWords) => {
  if (!part) return '';
  return measures > 1 ? ' from here on' : ' in this {measure}';
};

const keepSteady = (free: boolean) =>
  free ? 'Tap your foot evenly, and clap to your foot.' : 'Keep your feet with the click.';

/** Each misreading in words, for `inNaming`. */
export const MISREADING_WORDS: Readonly<Record<MisreadingCode, MisreadingWords>> = {
  'rest-clapped': {
    title: 'a rest clapped',
    sentence: ({ restKept }) => `you clapped on the rest. The rest is silent: open your hands and ${restKept}.`,
  },
  'rest-skipped': {
    title: 'a rest given no time',
    sentence: ({ restKept, length }) =>
      'you gave the rest no time, and what follows came too early. ' +
      `The rest lasts ${length}: open your hands and ${restKept}.`,
  },
  'rest-too-short': {
    title: 'a rest given too little time',
    sentence: ({ restKept, length, amount }) =>
      `you gave the rest only ${amount}, and what follows came too early. ` +
      `The rest lasts ${length}: open your hands and ${restKept}.`,
  },
  'rest-too-long': {
    title: 'a rest given too much time',
    sentence: ({ restKept, length, amount, next }) =>
      `you gave the rest ${amount}. ` +
      `The rest lasts only ${length}: open your hands, ${restKept}, and go on: ${next}.`,
  },
  'dot-too-long': {
    title: 'a dotted note held too long',
    sentence: ({ value, length, next }) => `you held the ${value} too long. The ${value} lasts ${length}: ${next}.`,
  },
  'dot-too-short': {
    title: 'a dot ignored',
    sentence: ({ value, length, next }) => `you left out the dot. The ${value} lasts ${length}: ${next}.`,
  },
  'tie-restruck': {
    title: 'a tied-on note clapped',
    sentence: () =>
      'you clapped the tied-on note. A tied-on note only goes on: keep your hands together and push them forward.',
  },
  'hold-pulsed': {
    title: 'each beat of a long note clapped',
    sentence: ({ value, holds }) =>
      `you clapped each beat of the ${value}. Clap the ${value} once, keep your hands together and push ${holds}.`,
  },
  'hold-cut': {
    title: 'a long note left too early',
    sentence: ({ value, length, holds, amount }) =>
      `you held the ${value} only ${amount}. The ${value} lasts ${length}: push ${holds} before you go on.`,
  },
  'hold-too-long': {
    title: 'a note held too long',
    sentence: ({ value, length, amount, next }) =>
      `you held the ${value} ${amount}. The ${value} lasts only ${length}; then go on: ${next}.`,
  },
  'upbeat-on-beat': {
    title: 'a note after the beat put on the beat',
    sentence: ({ count }) =>
      `you clapped on the beat; this note comes after it, on ${count}. ` +
      'Tap the beat with your foot and clap when it is up.',
  },
  'eighths-uneven': {
    title: 'even pairs swung',
    sentence: ({ many, second }) =>
      `your pairs of ${many} were long and short. ` +
      `Make the two ${many} of a pair the same length: clap the second on ${second}, just in the middle.`,
  },
  'sixteenths-slow': {
    title: 'four to a beat at half the speed',
    sentence: ({ many }) =>
      `you played the four ${many} at half their speed. ` +
      `Four ${many} fit into one beat: say them once on their own, then clap.`,
  },
  'syncopation-straightened': {
    title: 'short, long, short made straight',
    sentence: ({ next }) =>
      `short, long, short: you made it straight. After the short note ${next} and lasts over the beat.`,
  },
  'beat-misread': {
    title: 'a beat divided in another way',
    sentence: ({ clapped, written }) =>
      `you clapped ${clapped}; ${written} is written. Say ${written} slowly, then clap just what you say.`,
  },
  'entered-early': {
    title: 'came in too early',
    sentence: ({ amount, alone }) =>
      `you came in ${amount} too early${alone ? '; the rhythm itself was right' : ''}. Wait for the whole count-in.`,
  },
  'entered-late': {
    title: 'came in too late',
    sentence: ({ amount, alone }) =>
      `you came in ${amount} too late${alone ? '; the rhythm itself was right' : ''}. ` +
      'Breathe in on the last count and start with the next beat.',
  },
  'half-tempo': {
    title: 'at half the tempo',
    sentence: ({ alone, part, factor }) =>
      part
        ? `you played ${factor === 1 ? 'this {measure} at half its speed' : 'at half the tempo from here on'}. ` +
          'Step the beat and say the {measure}, then clap it.'
        : `${alone ? 'right rhythm, at' : 'you went at'} ${factor === 3 ? 'a third of' : 'half'} the tempo: ` +
          `you gave each beat ${factor === 3 ? 'three' : 'two'} clicks. ` +
          'Step with the click, then clap.',
    whole: true,
  },
  'double-tempo': {
    title: 'at twice the tempo',
    sentence: ({ alone, part, factor }) =>
      part
        ? `you played ${factor === 1 ? 'this {measure} at twice its speed' : 'at twice the tempo from here on'}. ` +
          'Step the beat and say the {measure}, then clap it.'
        : `${alone ? 'right rhythm, at' : 'you went at'} ${factor === 3 ? 'three times' : 'twice'} the tempo: ` +
          `you put ${factor === 3 ? 'three' : 'two'} beats on each click. ` +
          'Step with the click, then clap.',
    whole: true,
  },
  'own-tempo': {
    title: 'at a tempo of its own',
    whole: true,
    sentence: ({ amount, alone }) =>
      `${alone ? 'right rhythm: ' : ''}you kept a steady ${amount}. Step with the click first, then clap.`,
  },
  hesitated: {
    title: 'stopped, then went on',
    sentence: ({ alone }) =>
      `you stopped before this note, then went on${alone ? ' right' : ''}. Keep the beat going in your feet.`,
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
  'clapped-the-counts': {
    title: 'the counts clapped',
    whole: true,
    sentence: ({ every }) =>
      `you clapped ${every}, not the rhythm. Whisper the counts, and clap only where a note is written.`,
  },
  'another-rhythm': {
    title: 'another rhythm',
    whole: true,
    sentence: () => 'this is not the rhythm on the board. Listen to the rhythm once more, say it, then clap it.',
  },
  rushing: {
    title: 'got faster',
    sentence: (words) => `you got faster${here(words)}, by ${words.amount}. ${keepSteady(words.free)}`,
  },
  dragging: {
    title: 'got slower',
    sentence: (words) => `you got slower${here(words)}, by ${words.amount}. ${keepSteady(words.free)}`,
  },
  'lost-and-recovered': {
    title: 'lost for a while',
    sentence: ({ amount }) =>
      `you got lost here, and were right again from ${amount}: well recovered. ` +
      'Practise the stretch where you got lost.',
  },
  'measure-skipped': {
    title: 'a {measure} left out',
    sentence: ({ measures, isRepeat }) =>
      isRepeat
        ? 'you did not take the repeat. At the repeat sign go back, and play it all once more.'
        : `you left ${measures === 1 ? 'this {measure}' : `${measures} {measure}s from here`} out. ` +
          'Follow the notes with a finger, {measure} by {measure}.',
  },
  'measure-repeated': {
    title: 'a {measure} played twice',
    sentence: ({ measures, isRepeat, inPlace }) => {
      if (inPlace)
        return (
          'you clapped the {measure} before once more instead of this one. ' +
          'Before each {measure}, look at its first note.'
        );
      return isRepeat
        ? 'you took the repeat once too often. Count the times through, and after the last one go straight on.'
        : `you played ${measures === 1 ? 'this {measure}' : `the ${measures} {measure}s from here`} twice. ` +
            'At the end of a {measure} go straight on to the next.';
    },
  },
  looped: {
    title: 'the same {measure} again and again',
    sentence: ({ measures }) =>
      `you clapped ${measures === 1 ? 'this {measure}' : `the ${measures} {measure}s from here`} again and again. ` +
      'Follow the notes with a finger, and go on to the next {measure}.',
  },
  'measures-too-long': {
    title: 'each {measure} too long',
    whole: true,
    sentence: ({ amount, since }) =>
      `you waited ${amount} too long at each bar line${since}. ` +
      'Count each {measure}, and go straight on: just after its last beat comes the next {measure}.',
  },
  'measures-too-short': {
    title: 'each {measure} too short',
    whole: true,
    sentence: ({ amount, since }) =>
      `each {measure}${since} was ${amount} too short at its end. ` +
      'Count every {measure} to its last beat before you go on.',
  },
  'measure-silent': {
    title: 'a {measure} not clapped',
    sentence: ({ measures }) =>
      `you clapped nothing in ${measures === 1 ? 'this {measure}' : `these ${measures} {measure}s`}, ` +
      'and came in again in the right place. Keep saying the counts, and clap with them all the way.',
  },
  'joined-late': {
    title: 'joined in later',
    sentence: ({ amount }) =>
      `you clapped nothing until ${amount}; from there you were in the right place. ` +
      'Breathe in on the last count of the count-in, and clap the very first note.',
  },
  'behind-the-click': {
    title: 'all of it a little after the click',
    whole: true,
    sentence: ({ amount, alone }) =>
      `${allOfIt(alone)} came ${amount} after the click. ` + 'Do not wait to hear the click: clap together with it.',
  },
  'ahead-of-the-click': {
    title: 'all of it a little before the click',
    whole: true,
    sentence: ({ amount, alone }) =>
      `${allOfIt(alone)} came ${amount} before the click. ` +
      'Listen to the count-in to its end, and clap together with the click.',
  },
  'stopped-early': {
    title: 'the end is missing',
    sentence: () => 'you stopped here. Keep going to the end, even after a slip.',
  },
};
