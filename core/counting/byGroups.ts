import { type Fraction, add, compare, div, equal, frac, mul, sub } from '../rhythm/fraction.ts';
import { type Meter, beamGroups, meterKind } from '../rhythm/meter.ts';
import type { CountedEvent } from './countingSystem.ts';

/** A group of an unequal meter: where it starts and how long it is, parts of a whole note. */
interface Group {
  readonly from: Fraction;
  readonly length: Fraction;
}

function groupsOf(meter: Meter): Group[] {
  let from = frac(0);
  return beamGroups(meter).map((length) => {
    const group = { from, length };
    from = add(from, length);
    return group;
  });
}

/** Index of the group in which a moment of the measure falls. */
function groupAt(at: Fraction, groups: readonly Group[]): number {
  const index = groups.findLastIndex(({ from }) => compare(from, at) <= 0);
  return Math.max(0, index);
}

/** A moment of the measure in groups: 1 1/3 is a third into the second group. */
function inGroups(at: Fraction, groups: readonly Group[]): Fraction {
  const index = groupAt(at, groups);
  const { from, length } = groups[index]!;
  return add(frac(index), div(sub(at, from), length));
}

/**
 * A note as a system sees it that speaks unequal meters by their groups (rules §4): 7/8 in 2+2+3 has three beats,
 * two that divide in two and one that divides in three. In all other meters the note as it is.
 */
export function byGroups(event: CountedEvent): CountedEvent {
  const { meter, at, beat, length, tuplet, sounding } = event;
  if (meterKind(meter) !== 'unequal' || meter.lower < 8) return event;
  const groups = groupsOf(meter);
  const whole = (beats: Fraction) => mul(beats, beat.length);
  const onset = inGroups(at, groups);
  const group = groups[groupAt(at, groups)]!;
  const tupletAt = tuplet && inGroups(whole(tuplet.onset), groups);
  return {
    ...event,
    onset,
    length: sub(inGroups(add(at, whole(length)), groups), onset),
    beat: { length: group.length, division: equal(group.length, frac(3, meter.lower)) ? 3 : 2 },
    tuplet: tuplet &&
      tupletAt && {
        n: tuplet.n,
        onset: tupletAt,
        length: sub(inGroups(whole(add(tuplet.onset, tuplet.length)), groups), tupletAt),
      },
    sounding: sounding && { event: byGroups(sounding.event), beats: sounding.beats },
  };
}
