import { countIn } from '../leading/countIn.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { scheduleOf } from '../timing/schedule.ts';
import type { Bpm, Seconds } from '../timing/units.ts';

/** A breath before it is clapped once more. */
const BREATH: Seconds = 4;
const DAYS = 7;

/** What is practised: a pattern, how fast, how often, and on which days, 0 being the first of the week. */
export interface Practised {
  readonly pattern: Pattern;
  readonly bpm: Bpm;
  readonly times: number;
  readonly days: readonly number[];
}

/** How long practising takes on each day of a week: count-in, pattern and a breath, each time. */
export function practiceSeconds(items: readonly Practised[]): Seconds[] {
  return Array.from({ length: DAYS }, (_, day) =>
    items
      .filter(({ days }) => days.includes(day))
      .reduce((sum, { pattern, bpm, times }) => {
        const once = scheduleOf(pattern, bpm).end - countIn(pattern, bpm)[0]!.time + BREATH;
        return sum + times * once;
      }, 0),
  );
}

/** The same in whole minutes, never less than it takes; 0 where there is nothing to do. */
export function practiceMinutes(items: readonly Practised[]): number[] {
  return practiceSeconds(items).map((seconds) => Math.ceil(seconds / 60));
}
