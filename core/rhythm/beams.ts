import { type Fraction, ZERO, add, compare, div, equal, frac, isWhole, mul, sub } from './fraction.ts';
import { type Meter, USUAL_GROUPS, beamGroups, meterKind, meterLength } from './meter.ts';
import type { PlacedEvent, PlacedMeasure, TupletPlace } from './place.ts';
import { VALUE } from './value.ts';

/** What a note has of one beam; a hook is a beam of its own, to the one side or the other. */
export type BeamSign = 'begin' | 'continue' | 'end' | 'forward hook' | 'backward hook';

interface BeamGroup {
  /** The part of the measure that it stands in, or the tuplet that it is. */
  readonly within: number | TupletPlace;
  readonly events: number[];
}

const EIGHTH = frac(1, 8);
const QUARTER = frac(1, 4);

/**
 * Which notes share a beam: lists of indices into `measure.events`, each of two or more flagged notes side by side.
 * Beams follow the beat; in 4/4 the eighths of beats 1-2 and of 3-4 may join, never across the middle; a tuplet is
 * one group, over how many beats it goes (rules §2).
 */
export function beams(measure: PlacedMeasure): number[][] {
  const borders = bordersOf(measure.meter);
  const groups: BeamGroup[] = [];
  measure.events.forEach((event, i) => {
    if (flagsOf(event) === 0) return;
    const within = event.tuplet ?? windowOf(borders, event.onset);
    const last = groups.at(-1);
    if (last?.within === within && last.events.at(-1) === i - 1) last.events.push(i);
    else groups.push({ within, events: [i] });
  });
  const joined = measure.meter.upper === 4 && measure.meter.lower === 4 ? joinHalves(groups, measure.events) : groups;
  return joined.map(({ events }) => events).filter((events) => events.length > 1);
}

/**
 * The beams of each beamed note, by its index, the longest first. The shorter ones are broken at the quarters where a
 * group is longer, and a hook points into the beat that its note belongs to.
 * @example beamSigns of `6/8 e. s e q.` → 0: begin; 1: continue, backward hook; 2: end
 */
export function beamSigns(measure: PlacedMeasure): Map<number, BeamSign[]> {
  const signs = new Map<number, BeamSign[]>();
  for (const group of beams(measure)) {
    group.forEach((at, k) => {
      const event = measure.events[at]!;
      const left = linked(measure, group[k - 1], at);
      const right = linked(measure, at, group[k + 1]);
      const own = Array.from({ length: flagsOf(event) }, (_, level): BeamSign => {
        if (left > level && right > level) return 'continue';
        if (left > level) return 'end';
        if (right > level) return 'begin';
        return hookOf(event, level, opens(measure, group, k), opens(measure, group, k + 1));
      });
      signs.set(at, own);
    });
  }
  return signs;
}

/** Whether one beam joins all of a tuplet: then its number needs no bracket. */
export function isBeamedWhole(measure: PlacedMeasure, tuplet: TupletPlace): boolean {
  const members = measure.events.filter((event) => event.tuplet === tuplet).length;
  return beams(measure).some(
    (group) => group.length === members && group.every((i) => measure.events[i]!.tuplet === tuplet),
  );
}

function flagsOf({ kind, value }: PlacedEvent): number {
  return kind === 'rest' ? 0 : VALUE[value.base].flags;
}

/** How many beams go from one note of a group to the next. */
function linked({ events, meter }: PlacedMeasure, from: number | undefined, to: number | undefined): number {
  const [one, other] = [events[from ?? -1], events[to ?? -1]];
  if (!one || !other) return 0;
  const both = Math.min(flagsOf(one), flagsOf(other));
  return isBreak(other, meter) ? Math.min(both, 1) : both;
}

/** Where a beam spans a half note, its quarters are seen in the shorter beams. */
function isBreak({ onset, tuplet }: PlacedEvent, meter: Meter): boolean {
  return !tuplet && meter.lower <= 2 && isWhole(div(onset, QUARTER));
}

/** Whether the shorter beams of a group begin anew at its nth note, or it has ended there. */
function opens({ events, meter }: PlacedMeasure, group: readonly number[], nth: number): boolean {
  return nth === 0 || nth === group.length || isBreak(events[group[nth]!]!, meter);
}

/**
 * Between longer notes: what begins on a unit twice as long as itself leads on, what ends one belongs to it. At a break
 * there is one side only.
 */
function hookOf(event: PlacedEvent, level: number, first: boolean, last: boolean): BeamSign {
  if (first !== last) return first ? 'forward hook' : 'backward hook';
  const { onset, tuplet } = event;
  const written = tuplet ? mul(sub(onset, tuplet.onset), frac(tuplet.n, tuplet.m)) : onset;
  return isWhole(div(written, frac(1, 4 * 2 ** level))) ? 'forward hook' : 'backward hook';
}

/** Where the parts of a measure begin that a beam does not leave. */
function bordersOf(meter: Meter): Fraction[] {
  const at: Fraction[] = [ZERO];
  for (const part of partsOf(meter)) at.push(add(at.at(-1)!, part));
  return at;
}

function partsOf(meter: Meter): readonly Fraction[] {
  const { upper, lower } = meter;
  const kind = meterKind(meter);
  if (lower === 1) return Array.from({ length: 2 * upper }, () => frac(1, 2));
  const usual = USUAL_GROUPS[`${upper}/8`];
  // 5/16 and its like are grouped as 5/8 is.
  if (kind === 'unequal' && lower > 8 && !meter.groups && usual) return usual.map((size) => frac(size, lower));
  if (kind !== 'simple' || lower < 8 || usual) return beamGroups(meter);
  const full = meterLength(meter);
  // Meters of eighths and less: by quarters, or all of a measure of three.
  if (upper <= 3) return [full];
  const quarters = Math.floor((4 * full.n) / full.d);
  const rest = sub(full, frac(quarters, 4));
  return [...Array.from({ length: quarters }, () => QUARTER), ...(rest.n > 0 ? [rest] : [])];
}

function windowOf(borders: readonly Fraction[], onset: Fraction): number {
  let window = 0;
  while (window + 1 < borders.length && compare(borders[window + 1]!, onset) <= 0) window++;
  return window;
}

function joinHalves(groups: readonly BeamGroup[], events: readonly PlacedEvent[]): BeamGroup[] {
  const isPair = ({ events: pair }: BeamGroup) =>
    pair.length === 2 && pair.every((i) => equal(events[i]!.length, EIGHTH) && !events[i]!.tuplet);
  const joined: BeamGroup[] = [];
  for (const group of groups) {
    const last = joined.at(-1);
    const follows =
      last && typeof last.within === 'number' && last.within % 2 === 0 && group.within === last.within + 1;
    if (follows && isPair(last) && isPair(group)) last.events.push(...group.events);
    else joined.push({ within: group.within, events: [...group.events] });
  }
  return joined;
}
