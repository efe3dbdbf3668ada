import { exactLevel } from '../../core/making/level.ts';
import { makeSet } from '../../core/making/makeSet.ts';
import { elementsAt } from '../../core/making/makePattern.ts';
import { lessonSlots } from '../../core/planning/slots.ts';
import { moveLesson, planTerm, spread } from '../../core/planning/term.ts';
import { ELEMENT_IDS } from '../../core/rhythm/elements.ts';
import { COMMON_TIME } from '../../core/rhythm/meter.ts';
import { parseRhythm, printRhythm } from '../../core/rhythm/text.ts';
import { report, timed } from './benchReport.ts';

const SETS = 20;
const IN_SET = 100;

/** Patterns of four measures, beside printing and reading the same ones. */
function benchMaking(): void {
  const make = () =>
    Array.from({ length: SETS }, (_, seed) => {
      const wanted = { meter: COMMON_TIME, measures: 4, elements: elementsAt(3), level: 3 } as const;
      const set = makeSet(wanted, IN_SET, seed);
      if (typeof set === 'string') throw new Error(set);
      return set.made;
    }).flat();
  make();
  const { seconds, result } = timed(make);
  const read = timed(() => result.map(({ pattern }) => parseRhythm(printRhythm(pattern)))).seconds;
  const levels = result.map(({ score }) => exactLevel(score));
  const across = `levels ${Math.min(...levels).toFixed(1)} to ${Math.max(...levels).toFixed(1)}`;
  report(
    'making, 4 measures in sets of 100',
    `${Math.round(result.length / seconds)} a second, ${across}`,
    `${(seconds / read).toFixed(1)} × printing and reading them`,
  );
}

/** A term of 36 lessons planned anew after a lesson was dragged, beside counting its days. */
function benchTerm(): void {
  const slots = lessonSlots({
    from: '2026-09-07',
    until: '2027-01-24',
    slots: [0, 3].map((weekday) => ({ weekday, starts: '09:40', minutes: 40 })),
    holidays: [{ from: '2026-12-21', until: '2027-01-03' }],
  }).slice(0, 36);
  const known = new Map(ELEMENT_IDS.slice(0, 5).map((id) => [id, '2026-09-01'] as const));
  const { contents } = spread(ELEMENT_IDS.slice(5), slots.length);
  const plan = () => planTerm(slots, moveLesson(contents, 3, 20), known);
  plan();
  const { seconds } = timed(() => Array.from({ length: 100 }, plan));
  const days = timed(() => slots.map(({ day }) => new Date(day).toISOString())).seconds;
  report(
    'a term of 36 lessons planned anew',
    `${(seconds * 10).toFixed(2)} ms`,
    `${(seconds / 100 / days).toFixed(1)} × reading its days`,
  );
}

export function benchPlanning(): void {
  benchMaking();
  benchTerm();
}
