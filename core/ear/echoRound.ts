import { countIn } from '../leading/countIn.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { toNumber } from '../rhythm/fraction.ts';
import type { Struck } from '../sound/sounds.ts';
import { pulsesOf } from '../timing/pulses.ts';
import { scheduleOf } from '../timing/schedule.ts';
import type { Bpm, Seconds } from '../timing/units.ts';

/** What sounds before a rhythm is clapped back: it is played once, counted in, and then counted in again. */
export interface EchoRound {
  /** Claps and beats, in seconds from beat 1 of the time that is clapped: all before 0. */
  readonly sounds: readonly { readonly time: Seconds; readonly struck: Struck }[];
  /** When the first of all this sounds; what comes before it is quiet. */
  readonly from: Seconds;
}

/** Seconds before beat 1 at which the count-in of a rhythm begins. */
export function countInFrom(pattern: Pattern, bpm: Bpm): Seconds {
  return countIn(pattern, bpm)[0]!.time;
}

/**
 * An echo for all at once, in time: count-in, the rhythm as claps, count-in, and then it is clapped back.
 * @param bpm  counted beats of the first meter a minute
 * @example 4/4 q q h at 60 → claps at -8, -7 and -6, beats from -12 on, from -12
 */
export function echoRound(pattern: Pattern, bpm: Bpm): EchoRound {
  const { notes, measures, whole } = scheduleOf(pattern, bpm);
  const last = measures.at(-1)!;
  const end = (toNumber(last.at) + toNumber(last.measure.length)) * whole;
  const words = countIn(pattern, bpm);
  // The second count-in leads to beat 1 just as the first one does, and begins when all measures have passed.
  const back = end - words[0]!.time;
  const claps = notes.map(({ time }) => ({ time: time - back, struck: 'clap' as const }));
  const beats = [...words, ...pulsesOf(pattern, bpm)].map(({ time, accent }) => ({
    time: time - back,
    struck: accent === true || accent === 'measure' ? ('wood' as const) : ('low-wood' as const),
  }));
  return { sounds: [...claps, ...beats].sort((a, b) => a.time - b.time), from: words[0]!.time - back };
}
