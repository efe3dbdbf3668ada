import type { Seconds } from '../../timing/units.ts';
import { type HeardSoFar, type Hypothesis, type MisreadingKind, shifted } from './hypothesis.ts';
import { LARGEST_LEAD } from '../windows.ts';
import type { Score } from '../scoreEvents.ts';

/** Nats: the moment may be any within half a beat. Nobody waits for the click and claps before it: that is rarer. */
const COST = { behind: 2.5, ahead: 3.5 };
/** The nearer to half a beat, the likelier it came about at one place: more for each beat beyond so much of one. */
const NEAR_HALF = { from: 0.3, cost: 25 };
/** Parts of a beat: half of one, and what hands are uneven by. */
const FURTHEST = 0.56;
/** Claps within so many seconds of each other are as far from their notes. */
const ALIKE = 0.03;
/** All of it is: at least so many claps, and this part of them. */
const FEWEST = 4;
const MOST_OF = 0.3;
/** The commonest distances are tried, and no others. */
const TRIED = 2;

/** The commonest distances of claps from written notes, on one side of the click, by how often. */
function distances({ onsets, claps }: HeardSoFar, side: 1 | -1, beat: Seconds): Seconds[] {
  const found: Seconds[] = [];
  const reach = FURTHEST * beat;
  let from = 0;
  for (const onset of onsets) {
    while (from < claps.length && claps[from]!.time < onset - reach) from++;
    for (let i = from; i < claps.length && claps[i]!.time <= onset + reach; i++) {
      const distance = onset - claps[i]!.time;
      if (distance * side >= LARGEST_LEAD) found.push(distance);
    }
  }
  found.sort((a, b) => a - b);
  const middles: { readonly distance: Seconds; readonly often: number }[] = [];
  let [low, high] = [0, 0];
  found.forEach((distance) => {
    while (found[low]! < distance - ALIKE) low++;
    while (high < found.length && found[high]! <= distance + ALIKE) high++;
    middles.push({ distance: found[(low + high - 1) >> 1]!, often: high - low });
  });
  middles.sort((a, b) => b.often - a.often);
  const best: Seconds[] = [];
  for (const { distance, often } of middles) {
    if (best.length === TRIED || often < Math.max(FEWEST, MOST_OF * onsets.length)) break;
    if (best.every((other) => Math.abs(other - distance) > 2 * ALIKE)) best.push(distance);
  }
  return best;
}

function off(side: 1 | -1): (score: Score, take: HeardSoFar) => Hypothesis[] {
  return ({ events, notes, beat }, take) => {
    const event = notes[0] ?? 0;
    return distances(take, side, beat).map((seconds) => ({
      event,
      cost:
        (side > 0 ? COST.behind : COST.ahead) + NEAR_HALF.cost * Math.max(0, Math.abs(seconds) / beat - NEAR_HALF.from),
      apply: (claps) => shifted(claps, -Infinity, seconds),
      shift: { from: events[event]?.time ?? 0, beats: seconds / beat, seconds },
      wholeTake: true,
    }));
  };
}

function kind(side: 1 | -1): MisreadingKind {
  return {
    about: 'take',
    needsClick: true,
    ofRhythmOnly: true,
    inTake: off(side),
    slip: (take, { notes, beat }, random) => {
      const least = LARGEST_LEAD + 0.06;
      const seconds = side * (least + random.next() * Math.max(0, Math.min(0.4, 0.45 * beat) - least));
      take.claps = shifted(take.claps, -Infinity, seconds);
      return notes[0];
    },
  };
}

/** A child that claps when it has heard the click, or a loudspeaker that is late. */
export const behindTheClick: MisreadingKind = kind(1);
export const aheadOfTheClick: MisreadingKind = kind(-1);
