import { toNumber } from '../rhythm/fraction.ts';
import { beatOf, meterLength } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { countIn } from '../leading/countIn.ts';
import { type BeatTime, beatTimes } from '../timing/pulses.ts';
import { scheduleOf } from '../timing/schedule.ts';
import type { Bpm, Seconds } from '../timing/units.ts';

/**
 * A pattern to be heard, and then to be clapped while the beat goes on. Seconds from beat 1 of the last time through.
 */
export interface HearTimes {
  readonly beats: readonly BeatTime[];
  readonly claps: readonly Seconds[];
  /** The count-in words, before the first time. */
  readonly words: readonly { readonly time: Seconds; readonly word: string }[];
  /** Beat 1 of each time it is played, in order. */
  readonly plays: readonly Seconds[];
  /** Beat 1 of the turn of the class, which is 0; undefined where it is only heard. */
  readonly turn: Seconds | undefined;
  readonly end: Seconds;
}

export const MOST_PLAYS = 3;

/** From one time to the next: whole measures, so that the beat goes on. */
function period(pattern: Pattern, bpm: Bpm): Seconds {
  const { whole, end, events } = scheduleOf(pattern, bpm);
  const last = pattern.measures.at(-1)!.meter;
  const measure = toNumber(meterLength(last)) * whole;
  const begin = Math.min(0, events[0]?.time ?? 0);
  return Math.ceil((end - begin) / measure - 1e-9) * measure;
}

/**
 * When what is clicked and clapped: a count-in, the pattern so many times, and where wanted the class's own turn with
 * nothing but the beat.
 * @param plays  1 to 3
 */
export function hearTimes(pattern: Pattern, bpm: Bpm, plays: number, turn: boolean): HearTimes {
  const every = period(pattern, bpm);
  const times = Math.max(1, Math.min(MOST_PLAYS, plays));
  const starts = Array.from({ length: times }, (_, i) => -every * (turn ? times - i : times - 1 - i));
  const all = turn ? [...starts, 0] : starts;
  const lead = countIn(pattern, bpm);
  const { whole, notes } = scheduleOf(pattern, bpm);
  const beat = toNumber(beatOf(pattern.measures[0]!.meter).length) * whole;
  const words = lead.map(({ time, word }) => ({ time: starts[0]! + time, word }));
  const counted = lead.map(({ time, accent }) => ({ time: starts[0]! + time, accent }));
  const own = beatTimes(pattern, bpm);
  // Where a pattern ends before its measures do, the beat goes on up to the next time.
  const beats = all.flatMap((start) => {
    const filled = [...own];
    const first = own[0]?.time ?? 0;
    while (filled.length > 0 && filled.at(-1)!.time + beat < first + every - 1e-9)
      filled.push({ time: filled.at(-1)!.time + beat, accent: false });
    return filled.map(({ time, accent }) => ({ time: start + time, accent }));
  });
  return {
    beats: [...counted, ...beats],
    claps: starts.flatMap((start) => notes.map(({ time }) => start + time)),
    words,
    plays: starts,
    turn: turn ? 0 : undefined,
    end: every + Math.min(0, own[0]?.time ?? 0),
  };
}
