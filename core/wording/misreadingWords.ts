import { perLanguage, t } from '../words/say.ts';
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

const allOfIt = (alone: boolean) => (alone ? t`the rhythm itself was right; all of it` : t`all of it`);

const here = ({ part, measures }: SentenceWords) => {
  if (!part) return '';
  return measures > 1 ? t` from here on` : t` in this {measure}`;
};

const keepSteady = (free: boolean) =>
  free ? t`Tap your foot evenly, and clap to your foot.` : t`Keep your feet with the click.`;

/** Each misreading in words, for `inNaming`. */
export const MISREADING_WORDS = perLanguage((): Readonly<Record<MisreadingCode, MisreadingWords>> => ({
  'rest-clapped': {
    title: t`a rest clapped`,
    sentence: ({ restKept }) => t`you clapped on the rest. The rest is silent: open your hands and ${restKept}.`,
  },
  'rest-skipped': {
    title: t`a rest given no time`,
    sentence: ({ restKept, length }) =>
      t`you gave the rest no time, and what follows came too early. The rest lasts
        ${length}: open your hands and ${restKept}.`,
  },
  'rest-too-short': {
    title: t`a rest given too little time`,
    sentence: ({ restKept, length, amount }) =>
      t`you gave the rest only ${amount}, and what follows came too early. The rest lasts
        ${length}: open your hands and ${restKept}.`,
  },
  'rest-too-long': {
    title: t`a rest given too much time`,
    sentence: ({ restKept, length, amount, next }) =>
      t`you gave the rest ${amount}. The rest lasts only ${length}: open your hands,
        ${restKept}, and go on: ${next}.`,
  },
  'dot-too-long': {
    title: t`a dotted note held too long`,
    sentence: ({ value, length, next }) => t`you held the ${value} too long. The ${value} lasts ${length}: ${next}.`,
  },
  'dot-too-short': {
    title: t`a dot ignored`,
    sentence: ({ value, length, next }) => t`you left out the dot. The ${value} lasts ${length}: ${next}.`,
  },
  'tie-restruck': {
    title: t`a tied-on note clapped`,
    sentence: () =>
      t`you clapped the tied-on note. A tied-on note only goes on: keep your hands
        together and push them forward.`,
  },
  'hold-pulsed': {
    title: t`each beat of a long note clapped`,
    sentence: ({ value, holds }) =>
      t`you clapped each beat of the ${value}. Clap the ${value} once, keep your hands
        together and push ${holds}.`,
  },
  'hold-cut': {
    title: t`a long note left too early`,
    sentence: ({ value, length, holds, amount }) =>
      t`you held the ${value} only ${amount}. The ${value} lasts ${length}: push ${holds}
        before you go on.`,
  },
  'hold-too-long': {
    title: t`a note held too long`,
    sentence: ({ value, length, amount, next }) =>
      t`you held the ${value} ${amount}. The ${value} lasts only ${length}; then go on: ${next}.`,
  },
  'upbeat-on-beat': {
    title: t`a note after the beat put on the beat`,
    sentence: ({ count }) =>
      t`you clapped on the beat; this note comes after it, on ${count}. Tap the beat with
        your foot and clap when it is up.`,
  },
  'eighths-uneven': {
    title: t`even pairs swung`,
    sentence: ({ many, second }) =>
      t`your pairs of ${many} were long and short. Make the two ${many} of a pair the same
        length: clap the second on ${second}, just in the middle.`,
  },
  'sixteenths-slow': {
    title: t`four to a beat at half the speed`,
    sentence: ({ many }) =>
      t`you played the four ${many} at half their speed. Four ${many} fit into one beat:
        say them once on their own, then clap.`,
  },
  'syncopation-straightened': {
    title: t`short, long, short made straight`,
    sentence: ({ next }) =>
      t`short, long, short: you made it straight. After the short note ${next} and lasts
        over the beat.`,
  },
  'beat-misread': {
    title: t`a beat divided in another way`,
    sentence: ({ clapped, written }) =>
      t`you clapped ${clapped}; ${written} is written. Say ${written} slowly, then clap
        just what you say.`,
  },
  'entered-early': {
    title: t`came in too early`,
    sentence: ({ amount, alone }) =>
      t`you came in ${amount} too early${alone ? t`; the rhythm itself was right` : ''}.
        Wait for the whole count-in.`,
  },
  'entered-late': {
    title: t`came in too late`,
    sentence: ({ amount, alone }) =>
      t`you came in ${amount} too late${alone ? t`; the rhythm itself was right` : ''}.
        Breathe in on the last count and start with the next beat.`,
  },
  'half-tempo': {
    title: t`at half the tempo`,
    sentence: ({ alone, part, factor }) =>
      part
        ? t`you played
          ${factor === 1 ? t`this {measure} at half its speed` : t`at half the tempo from here on`}.
          Step the beat and say the {measure}, then clap it.`
        : factor === 3
          ? t`${alone ? t`right rhythm, at` : t`you went at`} a third of the tempo: you gave each beat three clicks.
              Step with the click, then clap.`
          : t`${alone ? t`right rhythm, at` : t`you went at`} half the tempo: you gave each beat two clicks.
              Step with the click, then clap.`,
    whole: true,
  },
  'double-tempo': {
    title: t`at twice the tempo`,
    sentence: ({ alone, part, factor }) =>
      part
        ? t`you played
          ${factor === 1 ? t`this {measure} at twice its speed` : t`at twice the tempo from here on`}.
          Step the beat and say the {measure}, then clap it.`
        : factor === 3
          ? t`${alone ? t`right rhythm, at` : t`you went at`} three times the tempo: you put three beats on each
              click. Step with the click, then clap.`
          : t`${alone ? t`right rhythm, at` : t`you went at`} twice the tempo: you put two beats on each click.
              Step with the click, then clap.`,
    whole: true,
  },
  'own-tempo': {
    title: t`at a tempo of its own`,
    whole: true,
    sentence: ({ amount, alone }) =>
      t`${alone ? t`right rhythm: ` : ''}you kept a steady ${amount}. Step with the click
        first, then clap.`,
  },
  hesitated: {
    title: t`stopped, then went on`,
    sentence: ({ alone }) =>
      alone
        ? t`you stopped before this note, then went on right. Keep the beat going in your feet.`
        : t`you stopped before this note, then went on. Keep the beat going in your feet.`,
  },
  'started-again': {
    title: t`broke off and began again`,
    sentence: () => t`you broke off and began again from here. Keep going to the end, even after a slip.`,
  },
  'only-the-beat': {
    title: t`only the beat`,
    whole: true,
    sentence: () => t`you clapped the steady beat, not the rhythm. Say the rhythm first, then clap what you say.`,
  },
  'clapped-the-counts': {
    title: t`the counts clapped`,
    whole: true,
    sentence: ({ every }) =>
      t`you clapped ${every}, not the rhythm. Whisper the counts, and clap only where a
        note is written.`,
  },
  'another-rhythm': {
    title: t`another rhythm`,
    whole: true,
    sentence: () => t`this is not the rhythm on the board. Listen to the rhythm once more, say it, then clap it.`,
  },
  rushing: {
    title: t`got faster`,
    sentence: (words) => t`you got faster${here(words)}, by ${words.amount}. ${keepSteady(words.free)}`,
  },
  dragging: {
    title: t`got slower`,
    sentence: (words) => t`you got slower${here(words)}, by ${words.amount}. ${keepSteady(words.free)}`,
  },
  'lost-and-recovered': {
    title: t`lost for a while`,
    sentence: ({ amount }) =>
      t`you got lost here, and were right again from ${amount}: well recovered. Practise
        the stretch where you got lost.`,
  },
  'measure-skipped': {
    title: t`a {measure} left out`,
    sentence: ({ measures, isRepeat }) =>
      isRepeat
        ? t`you did not take the repeat. At the repeat sign go back, and play it all once more.`
        : t`you left
          ${measures === 1 ? t`this {measure}` : t`${measures} {measure+} from here`} out.
          Follow the notes with a finger, {measure} by {measure}.`,
  },
  'measure-repeated': {
    title: t`a {measure} played twice`,
    sentence: ({ measures, isRepeat, inPlace }) => {
      if (inPlace)
        return t`you clapped the {measure} before once more instead of this one. Before each
            {measure}, look at its first note.`;
      return isRepeat
        ? t`you took the repeat once too often. Count the times through, and after the last
          one go straight on.`
        : t`you played
          ${measures === 1 ? t`this {measure}` : t`the ${measures} {measure+} from here`}
          twice. At the end of a {measure} go straight on to the next.`;
    },
  },
  looped: {
    title: t`the same {measure} again and again`,
    sentence: ({ measures }) =>
      t`you clapped
        ${measures === 1 ? t`this {measure}` : t`the ${measures} {measure+} from here`}
        again and again. Follow the notes with a finger, and go on to the next {measure}.`,
  },
  'measures-too-long': {
    title: t`each {measure} too long`,
    whole: true,
    sentence: ({ amount, since }) =>
      t`you waited ${amount} too long at each bar line${since}. Count each {measure}, and
        go straight on: just after its last beat comes the next {measure}.`,
  },
  'measures-too-short': {
    title: t`each {measure} too short`,
    whole: true,
    sentence: ({ amount, since }) =>
      t`each {measure}${since} was ${amount} too short at its end. Count every {measure}
        to its last beat before you go on.`,
  },
  'measure-silent': {
    title: t`a {measure} not clapped`,
    sentence: ({ measures }) =>
      t`you clapped nothing in
        ${measures === 1 ? t`this {measure}` : t`these ${measures} {measure+}`}, and came
        in again in the right place. Keep saying the counts, and clap with them all the
        way.`,
  },
  'joined-late': {
    title: t`joined in later`,
    sentence: ({ amount }) =>
      t`you clapped nothing until ${amount}; from there you were in the right place.
        Breathe in on the last count of the count-in, and clap the very first note.`,
  },
  'behind-the-click': {
    title: t`all of it a little after the click`,
    whole: true,
    sentence: ({ amount, alone }) =>
      t`${allOfIt(alone)} came ${amount} after the click. Do not wait to hear the click:
        clap together with it.`,
  },
  'ahead-of-the-click': {
    title: t`all of it a little before the click`,
    whole: true,
    sentence: ({ amount, alone }) =>
      t`${allOfIt(alone)} came ${amount} before the click. Listen to the count-in to its
        end, and clap together with the click.`,
  },
  'stopped-early': {
    title: t`the end is missing`,
    sentence: () => t`you stopped here. Keep going to the end, even after a slip.`,
  },
}));
