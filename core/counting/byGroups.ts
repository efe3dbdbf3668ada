import { type Fraction, add, compare, div, frac, sub } from '../rhythm/fraction.ts';
import { type Meter, beamGroups, meterKind } from '../rhythm/meter.ts';
import type { CountedEvent } from './school.ts';

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

/** A moment of the measure in groups: 1 1/3 is a third into the second group. */
function inGroups(at: Fraction, groups: readonly Group[]): Fraction {
  const found = groups.findLastIndex(({ from }) => compare(from, at) <= 0);
  const index = Math.max(0, found);
  const { from, length } = groups[index]!;
  return add(frac(index), div(sub(at, from), length));
}

/**
 * A note as a school sees it that speaks unequal meters by their groups (handbook §4): 7/8 in 2+2+3 has three beats,
 * two that divide in two and one that divides in three. In all other meters the note as it is.
 */
export function byGroups(event: CountedEvent): CountedEvent {
  const { meter, at, beat, length, tuplet, sounding } = event;
  if (meterKind(meter) !== 'unequal' || meter.lower < 8) return event;
  const groups = groupsOf(meter);
  const whole = (beats: Fraction) => frac(beats.n * beat.length.n, beats.d * beat.length.d);
  const onset = inGroups(at, groups);
  const group =
    groups[
      Math.max(
        0,
        groups.findLastIndex(({ from }) => compare(from, at) <= 0),
      )
    ]!;
  const parts = div(group.length, frac(1, meter.lower));
  const tupletAt = tuplet && inGroups(whole(tuplet.onset), groups);
  return {
    ...event,
    onset,
    length: sub(inGroups(add(at, whole(length)), groups), onset),
    beat: { length: group.length, division: parts.n === 3 && parts.d === 1 ? 3 : 2 },
    tuplet: tuplet &&
      tupletAt && {
        n: tuplet.n,
        onset: tupletAt,
        length: sub(inGroups(whole(add(tuplet.onset, tuplet.length)), groups), tupletAt),
      },
    sounding: sounding && { event: byGroups(sounding.event), beats: sounding.beats },
  };
}
