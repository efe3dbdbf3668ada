import { judge } from '../judging/judge.ts';
import { type MisreadingCode, MISREADINGS } from '../judging/misreadings/table.ts';
import { scoreOf } from '../judging/scoreEvents.ts';
import { type SimulatedChild, simulateTake } from '../judging/simulatedChild.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { scheduleOf } from '../timing/schedule.ts';

/** Two children, one at a usual tempo and one that is less steady at a fast one. */
const TRIED = [
  { bpm: 76, spread: 0.025, seed: 1 },
  { bpm: 108, spread: 0.035, seed: 101 },
] as const;
/** Of misreadings that are not tied to written places so many takes are tried. */
const TAKES = 6;

type Misread = Pick<SimulatedChild, 'misreads' | 'habits'>;

/** How children make a misreading: at one place each, and at all of them. */
function waysOf(code: MisreadingCode, pattern: Pattern): Misread[] {
  const kind = MISREADINGS[code];
  if (!('hypotheses' in kind)) return Array.from({ length: TAKES }, () => ({ misreads: [{ code }] }));
  const hypotheses = kind.hypotheses(scoreOf(scheduleOf(pattern, TRIED[0].bpm)));
  const events = [...new Set(hypotheses.map(({ event }) => event))];
  const single = events.map((event) => ({ misreads: [{ code, event }] }));
  return kind.noHabit || events.length < 2 ? single : [...single, { habits: { [code]: 1 } }];
}

/** Whether the judge names a misreading wherever a child makes it in this pattern. */
export function isHeard(pattern: Pattern, code: MisreadingCode): boolean {
  const ways = waysOf(code, pattern);
  return TRIED.every(({ bpm, spread, seed }) =>
    ways.every((way, i) => {
      const onsets = simulateTake(pattern, bpm, { spread, ...way }, seed + i);
      const judged = judge({ pattern, bpm, start: 0, onsets });
      return judged.ok && judged.result.misreadings.some((one) => one.code === code && !one.instead);
    }),
  );
}
