import { toNumber } from '../../core/rhythm/fraction.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { type Schedule, scheduleOf } from '../../core/timing/schedule.ts';
import type { Seconds } from '../../core/timing/units.ts';
import type { ShownTake } from './shownTake.ts';

/** A place on the ruler: measure in playing order, onset from the bar line as part of a whole note. */
export interface ClapPlace {
  readonly measure: number;
  readonly onset: number;
}

/** From the seconds of a take to places on its ruler, and back. */
export interface ClapPlaces {
  readonly placeOf: (time: Seconds) => ClapPlace;
  readonly timeOf: (place: ClapPlace) => Seconds;
  /** Seconds a whole note takes. */
  readonly whole: Seconds;
}

/** A clap whose place is known: where it stands is what the ruler shows of it. */
interface Anchor {
  readonly time: Seconds;
  /** From the start of the pattern, in whole notes. */
  readonly at: number;
}

function anchorsOf({ notes }: Schedule, whole: Seconds, { onsets, result }: Pick<ShownTake, 'onsets' | 'result'>) {
  return result.notes.flatMap(({ index, onset, errorMs = 0 }): Anchor[] =>
    onset === undefined ? [] : [{ time: onsets[onset]!, at: notes[index]!.time / whole + errorMs / 1000 / whole }],
  );
}

const nearest = <T>(all: readonly T[], off: (one: T) => number): T | undefined =>
  all.reduce<T | undefined>((best, one) => (best && off(best) <= off(one) ? best : one), undefined);

/** Every clap stands by the note that was heard nearest to it; where none was, by the clock. */
export function clapPlaces(pattern: Pattern, take: Pick<ShownTake, 'bpm' | 'free' | 'onsets' | 'result'>): ClapPlaces {
  const schedule = scheduleOf(pattern, take.bpm);
  const { measures, whole: written } = schedule;
  const anchors = anchorsOf(schedule, written, take);
  const { bpm, leadMs } = take.result.tempo;
  const whole = take.free && bpm > 0 ? (written * take.bpm) / bpm : written;
  const zero: Anchor = { time: -leadMs / 1000, at: 0 };
  const first = toNumber(measures[0]!.at);
  return {
    whole,
    placeOf: (time) => {
      const anchor = nearest(anchors, (one) => Math.abs(one.time - time)) ?? zero;
      const at = Math.max(first - 0.1, anchor.at + (time - anchor.time) / whole);
      const measure = Math.max(
        0,
        measures.findLastIndex((one) => toNumber(one.at) <= at + 1e-9),
      );
      const here = measures[measure]!;
      return { measure, onset: toNumber(here.measure.onset) + at - toNumber(here.at) };
    },
    timeOf: ({ measure, onset }) => {
      const here = measures[measure]!;
      const at = toNumber(here.at) + onset - toNumber(here.measure.onset);
      const anchor = nearest(anchors, (one) => Math.abs(one.at - at)) ?? zero;
      return anchor.time + (at - anchor.at) * whole;
    },
  };
}
