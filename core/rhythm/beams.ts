import { type Fraction, ZERO, add, compare, equal, frac } from './fraction.ts';
import { beamGroups, type Meter } from './meter.ts';
import type { PlacedEvent, PlacedMeasure } from './place.ts';
import { VALUE } from './value.ts';

/**
 * Which notes share a beam: lists of indices into `measure.events`, each of two or more flagged notes side by side.
 * Beams follow the beat; in 4/4 the eighths of beats 1-2 and of 3-4 may join, never across the middle (rules §2).
 */
export function beams(measure: PlacedMeasure): number[][] {
  const windows = starts(measure.meter);
  const groups: { window: number; events: number[] }[] = [];
  measure.events.forEach((event, i) => {
    if (event.kind === 'rest' || VALUE[event.value.base].flags === 0) return;
    const window = windowOf(windows, event.onset);
    const last = groups.at(-1);
    const joins =
      last?.window === window && last.events.at(-1) === i - 1 && measure.events[i - 1]?.tuplet === event.tuplet;
    if (joins) last.events.push(i);
    else groups.push({ window, events: [i] });
  });
  const joined = measure.meter.upper === 4 && measure.meter.lower === 4 ? joinHalves(groups, measure.events) : groups;
  return joined.map(({ events }) => events).filter((events) => events.length > 1);
}

function starts(meter: Meter): Fraction[] {
  const at: Fraction[] = [ZERO];
  for (const group of beamGroups(meter)) at.push(add(at.at(-1)!, group));
  return at;
}

function windowOf(windows: readonly Fraction[], onset: Fraction): number {
  let window = 0;
  while (window + 1 < windows.length && compare(windows[window + 1]!, onset) <= 0) window++;
  return window;
}

const EIGHTH = frac(1, 8);

function joinHalves(
  groups: { window: number; events: number[] }[],
  events: readonly PlacedEvent[],
): { window: number; events: number[] }[] {
  const isPair = (group: { events: number[] }) =>
    group.events.length === 2 && group.events.every((i) => equal(events[i]!.length, EIGHTH) && !events[i]!.tuplet);
  const joined: { window: number; events: number[] }[] = [];
  for (const group of groups) {
    const last = joined.at(-1);
    if (last && last.window % 2 === 0 && group.window === last.window + 1 && isPair(last) && isPair(group))
      last.events.push(...group.events);
    else joined.push({ window: group.window, events: [...group.events] });
  }
  return joined;
}
