import { ZERO, add, compare, equal, sub, sum } from './fraction.ts';
import { beatOf, meterLength } from './meter.ts';
import { withoutLastTie } from './lastTie.ts';
import type { Measure, Pattern, Rest } from './pattern.ts';
import { contentLength, placePattern, unfold } from './place.ts';
import { restsFor } from './restsFor.ts';
import { lengthOf } from './value.ts';

/** One line of a page: `first` and `last` are places among the written measures, `(M7)` as seven, from 0. */
export interface PageLine {
  /** From 1, as it stands on the page. */
  readonly number: number;
  readonly first: number;
  readonly last: number;
}

/** A line begins where a number stands in the place of a rehearsal letter. */
export function lineNumber(letter: string | undefined): number | undefined {
  return letter !== undefined && /^[1-9]\d{0,2}$/.test(letter) ? Number(letter) : undefined;
}

/**
 * The lines of a page of lines, in order; none where a pattern is no page: its first measure is line 1, and there are
 * at least two. What is repeated, and written out, is still one line.
 */
export function linesOf(pattern: Pattern): readonly PageLine[] {
  const lines: PageLine[] = [];
  placePattern(pattern).forEach(({ letter }, i) => {
    const number = lineNumber(letter);
    const line = lines.at(-1);
    if (number !== undefined && number !== line?.number) lines.push({ number, first: i, last: i });
    else if (line) lines[lines.length - 1] = { ...line, last: i };
  });
  return lines.length > 1 && lines[0]!.number === 1 && lines[0]!.first === 0 ? lines : [];
}

/**
 * Several patterns as one, read one after the other without stopping. Each begins a numbered line; its own letters and
 * numbers are left out. A pickup comes after rests, and rests fill the measure that ends short for it, so that every
 * line begins on the first beat.
 */
export function pageOfLines(patterns: readonly Pattern[]): Pattern {
  return { pickup: false, measures: patterns.flatMap((pattern, i) => lineOf(pattern, String(i + 1))) };
}

function lineOf(pattern: Pattern, letter: string): Measure[] {
  // Repeated with its pickup, the filled measures would be repeated too.
  const measures = pattern.pickup ? joined(untied(unfold(pattern).measures)) : pattern.measures;
  const bare = measures.map(({ number: _number, letter: _letter, restsBefore: _before, ...measure }) => measure);
  const opened = bare.findIndex(({ repeatStart }) => repeatStart);
  const closed = bare.findIndex(({ repeatEnd }) => repeatEnd);
  // Without its sign it would go back into the line before.
  const opens = closed >= 0 && (opened < 0 || opened > closed);
  const short = (i: number) => pattern.pickup && (i === 0 || i === bare.length - 1);
  return bare.map((measure, i): Measure => ({
    ...(short(i) ? filled(measure, i === 0) : measure),
    ...(i === 0 ? { letter } : {}),
    ...(i === 0 && opens ? { repeatStart: true } : {}),
  }));
}

/** Where a part with a pickup is played again, the measure before and the pickup are one. */
function joined(measures: readonly Measure[]): Measure[] {
  const all: Measure[] = [];
  measures.forEach((measure, i) => {
    const before = all.at(-1);
    const full = meterLength(measure.meter);
    const isPart = before && i > 1 && before.rests === undefined && measure.rests === undefined;
    if (isPart && equal(add(contentLength(before), contentLength(measure)), full))
      all[all.length - 1] = { ...before, items: [...before.items, ...measure.items] };
    else all.push(measure);
  });
  return all;
}

/** Over the sign of a repeat a tie led on, and does not lead back. */
function untied(measures: readonly Measure[]): Measure[] {
  return measures.map((measure, i) => {
    const next = measures[i + 1];
    return next && beginsSilent(next) ? { ...measure, items: withoutLastTie(measure.items) } : measure;
  });
}

function beginsSilent({ items, rests }: Measure): boolean {
  const first = items[0];
  return rests !== undefined || (first?.kind === 'tuplet' ? first.events[0] : first)?.kind === 'rest';
}

/** A measure that is short, with rests before or after what is in it. */
function filled(measure: Measure, before: boolean): Measure {
  const length = contentLength(measure);
  const missing = sub(meterLength(measure.meter), length);
  if (compare(missing, ZERO) <= 0) return measure;
  const values = restsFor(before ? ZERO : length, missing, beatOf(measure.meter));
  const rests = values.map((value): Rest => ({ kind: 'rest', value }));
  // What no values write stays as it is: the bar check says so.
  if (compare(sum(values.map(lengthOf)), missing) !== 0) return measure;
  return { ...measure, items: before ? [...rests, ...measure.items] : [...measure.items, ...rests] };
}
