import { shuffled } from '../exercises/options.ts';
import { type TakeCell, rhythmFrom } from '../exercises/rhythms/cells.ts';
import type { Random } from '../random.ts';
import { ELEMENT_IDS, type ElementId } from '../rhythm/elements.ts';
import { beatsInMeasure, type Meter } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { type Level, difficultyOf, endsWell, middleOf, restsWell } from './level.ts';

export interface PatternWanted {
  readonly meter: Meter;
  readonly measures: number;
  readonly elements: readonly ElementId[];
  readonly level: Level;
}

/** So many are made, and the one nearest to the level is taken. */
const CANDIDATES = 24;

/** The elements that a class at a level has usually met, where the teacher names none: so many of the usual order. */
const MET_AT: Readonly<Record<Level, number>> = { 1: 3, 2: 5, 3: 9, 4: 11, 5: 13 };

export function elementsAt(level: Level): readonly ElementId[] {
  return ELEMENT_IDS.slice(0, MET_AT[level]);
}

/** An easy pattern is made of few things, whatever the class has met. */
const AT_ONCE: Readonly<Record<Level, number>> = { 1: 2, 2: 3, 3: 4, 4: 6, 5: ELEMENT_IDS.length };

function fewOf(elements: readonly ElementId[], level: Level, random: Random): readonly ElementId[] {
  const most = AT_ONCE[level];
  return elements.length <= most ? elements : shuffled(elements, random).slice(0, most);
}

/** How often a cell comes again at once. */
const AGAIN: Readonly<Record<Level, number>> = { 1: 0.55, 2: 0.3, 3: 0.15, 4: 0, 5: 0 };

function takeAt(level: Level, random: Random): TakeCell {
  return (fitting, before) =>
    before && fitting.includes(before) && random.next() < AGAIN[level] ? before : random.pick(fitting);
}

/**
 * A pattern of chosen elements, as near to a level as they allow: every measure full, nothing but these elements, an
 * end that sounds like one.
 * @returns undefined where the elements fill no such measures
 */
export function makePattern({ meter, measures, elements, level }: PatternWanted, random: Random): Pattern | undefined {
  const beats = measures * beatsInMeasure(meter).n;
  const aim = middleOf(level);
  let best: { readonly pattern: Pattern; readonly away: number } | undefined;
  for (let made = 0; made < CANDIDATES; made++) {
    const some = made < CANDIDATES / 2 ? fewOf(elements, level, random) : elements;
    const pattern = rhythmFrom({ elements: ['quarter', ...some], meter, beats }, random, takeAt(level, random));
    if (!pattern || !endsWell(pattern, level) || !restsWell(pattern, level)) continue;
    const away = Math.abs(difficultyOf(pattern).score - aim);
    if (!best || away < best.away) best = { pattern, away };
  }
  return best?.pattern;
}
