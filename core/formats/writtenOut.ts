import { type Fraction, add, compare, equal, sum } from '../rhythm/fraction.ts';
import { meterLength } from '../rhythm/meter.ts';
import type { RawMeasure } from './piece.ts';
import { MOST_TIMES } from './timesOf.ts';

/** Repeated measures, and the endings that close them in one time through or the other. Indices; ends are excluded. */
interface Section {
  readonly from: number;
  readonly bodyEnd: number;
  readonly endings: readonly { readonly times: readonly number[]; readonly from: number; readonly end: number }[];
  readonly end: number;
  /** How often it is played. */
  readonly times: number;
}

/** How long what is written in a measure lasts. */
export function rawLength({ events }: RawMeasure): Fraction {
  return sum(events.map(({ length }) => length));
}

function isShort(measure: RawMeasure): boolean {
  return compare(rawLength(measure), meterLength(measure.meter)) < 0;
}

/** Two parts of one measure, with a bar between them that is none. */
function fillOne(a: RawMeasure, b: RawMeasure): boolean {
  return isShort(a) && isShort(b) && equal(add(rawLength(a), rawLength(b)), meterLength(a.meter));
}

/** @param from  where the section begins */
function sectionFrom(measures: readonly RawMeasure[], from: number): Section {
  for (let i = from; i < measures.length; i++) {
    if (i > from && measures[i]!.repeatStart) return { from, bodyEnd: i, endings: [], end: i, times: 1 };
    if (measures[i]!.ending) return withEndings(measures, from, i, 1);
    const times = measures[i]!.repeatEnd;
    if (times === undefined) continue;
    if (measures[i + 1]?.ending) return withEndings(measures, from, i + 1, times);
    return { from, bodyEnd: i + 1, endings: [], end: i + 1, times };
  }
  return { from, bodyEnd: measures.length, endings: [], end: measures.length, times: 1 };
}

function withEndings(measures: readonly RawMeasure[], from: number, bodyEnd: number, least: number): Section {
  const endings: { times: readonly number[]; from: number; end: number }[] = [];
  let i = bodyEnd;
  while (measures[i]?.ending) {
    const begin = i;
    const isLast = (k: number) => {
      const next = measures[k + 1];
      const { endingStops, repeatEnd } = measures[k]!;
      return !next || endingStops === true || repeatEnd !== undefined || Boolean(next.ending ?? next.repeatStart);
    };
    while (!isLast(i)) i++;
    i++;
    endings.push({ times: measures[begin]!.ending!, from: begin, end: i });
    if (measures[i]?.repeatStart) break;
  }
  // A first ending alone is repeated too: the second time goes on behind it.
  const repeated = measures.slice(bodyEnd, i).some(({ repeatEnd }) => repeatEnd !== undefined) ? 2 : 1;
  const times = Math.max(least, repeated, ...endings.flatMap((ending) => ending.times));
  return { from, bodyEnd, endings, end: i, times };
}

/** What is played of a section the one time or the other. */
function passOf({ from, bodyEnd, endings }: Section, time: number): number[] {
  const range = (a: number, b: number) => Array.from({ length: b - a }, (_, k) => a + k);
  return [
    ...range(from, bodyEnd),
    ...endings.filter(({ times }) => times.includes(time)).flatMap((e) => range(e.from, e.end)),
  ];
}

/** Whether a measure goes on in one that does not count. */
export function isHalf(measure: RawMeasure, next: RawMeasure | undefined): boolean {
  return next?.uncounted === true && fillOne(measure, next);
}

/** Measures written out: more are no rhythm to be read. */
const MOST_WRITTEN = 5000;

/**
 * Measures with repeats as rhythm text has them: what is played twice keeps its signs; endings, what is played more
 * often, and repeats that begin inside a measure are written out.
 * @param literal  from a file of our own: nothing is joined
 */
export function writtenOut(measures: readonly RawMeasure[], literal: boolean): RawMeasure[] {
  const sections: Section[] = [];
  for (let from = 0; from < measures.length; from = sections.at(-1)!.end) sections.push(sectionFrom(measures, from));
  const inside = ({ from }: Section) =>
    from > 0 &&
    fillOne(measures[from - 1]!, measures[from]!) &&
    Boolean(measures[from - 1]!.repeatEnd ?? measures[from]!.repeatStart);
  const all = !literal && sections.some(inside);
  const written: RawMeasure[] = [];
  for (const section of sections) {
    if (written.length > MOST_WRITTEN) break;
    const { endings, times } = section;
    if (!all && endings.length === 0 && times <= 2) {
      for (const i of passOf(section, 1)) written.push(measures[i]!);
      continue;
    }
    for (let time = 1; time <= Math.min(times, MOST_TIMES); time++)
      for (const i of passOf(section, time))
        written.push(withoutRepeats(measures[i]!, measures[i - 1], written.at(-1)));
  }
  return literal ? written : joinHalves(written);
}

/** Where another measure stands before it than on paper, nothing is tied into it that does not say so itself. */
function withoutRepeats(
  measure: RawMeasure,
  onPaper: RawMeasure | undefined,
  before: RawMeasure | undefined,
): RawMeasure {
  const {
    repeatStart: _start,
    repeatEnd: _end,
    ending: _ending,
    endingStops: _stops,
    restRun: _run,
    ...plain
  } = measure;
  const moved = before !== undefined && onPaper?.events !== before.events;
  return moved ? { ...plain, moved: true } : plain;
}

/**
 * Halves of one measure, cut where a part of the piece began or ended, become one again. A letter over the second half
 * goes to the measure after it.
 */
function joinHalves(measures: readonly RawMeasure[]): RawMeasure[] {
  const joined: RawMeasure[] = [];
  let letter: string | undefined;
  for (const measure of measures) {
    const before = joined.at(-1);
    const signs = before?.repeatEnd !== undefined || measure.repeatStart === true;
    const halves = before && !signs && (measure.uncounted ?? measure.moved) && fillOne(before, measure);
    if (halves && (joined.length > 1 || !before.uncounted)) {
      letter = measure.letter;
      joined[joined.length - 1] = {
        ...before,
        events: [...before.events, ...measure.events],
        ...(measure.repeatEnd === undefined ? {} : { repeatEnd: measure.repeatEnd }),
      };
      continue;
    }
    joined.push(letter === undefined ? measure : { letter, ...measure });
    letter = undefined;
  }
  return joined;
}
