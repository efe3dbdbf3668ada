import type { Seconds } from '../timing/units.ts';
import type { Spot } from './spots.ts';
import { type Strikes, type Stretch, between, momentOf, shareOf } from './strikes.ts';

/** A class's own delay beside the beat is looked for up to this; it follows by ear, and sound takes its time. */
const MOST_LEAD = 0.2;
const LEAD_STEP = 0.01;
/** A hundredth of a second of delay costs so much of the class at a note: the beat as it is counts first. */
const LEAD_COST = 0.02;
/** Strikes so near a note speak for it. */
const NEAR = 0.09;
/** No strike farther from a spot belongs to it. */
const REACH = 0.3;
/** How much of what the last note was away from where it was expected, the next one is expected to be. */
const FOLLOW = 0.5;
/** Of the gap to the next spot: the class is never followed farther at once. */
const FOLLOW_MOST = 0.25;
/** Fewer of the class say nothing about where it is. */
const FOLLOW_SHARE = 0.3;

/** Tempos beside the one that was set, within which a class without a click is looked for. */
const TEMPOS = { from: 0.85, to: 1.18, step: 0.01 };
const START_STEP = 0.02;

/** What was struck at each spot. */
export interface Struck extends Stretch {
  readonly spot: Spot;
  /** Seconds, between which a strike belongs to it. */
  readonly since: Seconds;
  readonly until: Seconds;
}

/** How well spots lie over what was struck: the share near each note, many at one note no more than all. */
function fit(strikes: Strikes, spots: readonly Spot[], place: (time: Seconds) => Seconds): number {
  return spots.reduce((sum, { kind, time }) => {
    const at = place(time);
    const near = Math.min(1, shareOf(strikes, between(strikes, at - NEAR, at + NEAR)));
    return sum + (kind === 'note' ? Math.sqrt(near) : -near);
  }, 0);
}

/** The delay of the whole class, by which most of its strikes fall near notes. */
export function leadOf(strikes: Strikes, spots: readonly Spot[]): Seconds {
  let best = { lead: 0, score: -Infinity };
  const steps = Math.round(MOST_LEAD / LEAD_STEP);
  for (let k = -steps; k <= steps; k++) {
    const lead = k * LEAD_STEP;
    const score = fit(strikes, spots, (time) => time + lead) - LEAD_COST * Math.abs(k) * Math.min(1, spots.length / 8);
    if (score > best.score) best = { lead, score };
  }
  return best.lead;
}

/**
 * Where beat 1 is, and how fast the class was, where nothing was clicked.
 * @returns written seconds are at `start + pace * seconds`
 */
export function freePlace(strikes: Strikes, spots: readonly Spot[]): { start: Seconds; pace: number } {
  const { times } = strikes;
  const first = spots.find(({ kind }) => kind === 'note')?.time ?? 0;
  const last = spots.findLast(({ kind }) => kind === 'note')?.time ?? 0;
  let best = { start: 0, pace: 1, score: -Infinity };
  if (times.length === 0) return best;
  const [from, to] = [times[0]! - REACH, times[times.length - 1]! + REACH];
  for (let tempo = TEMPOS.from; tempo <= TEMPOS.to; tempo += TEMPOS.step) {
    const pace = 1 / tempo;
    const until = Math.max(from, to - last * pace);
    for (let start = from - first * pace; start <= until - first * pace + START_STEP; start += START_STEP) {
      const score = fit(strikes, spots, (time) => start + pace * time) - Math.abs(tempo - 1);
      if (score > best.score) best = { start, pace, score };
    }
  }
  return best;
}

/**
 * Gives each strike to the spot it is nearest to, while it follows the class: one that runs is expected where it runs.
 * @param place  where a written moment is expected
 */
export function struckAt(strikes: Strikes, spots: readonly Spot[], place: (time: Seconds) => Seconds): Struck[] {
  let lead = 0;
  let taken = -Infinity;
  return spots.map((spot, i) => {
    const at = place(spot.time);
    const [before, after] = [spots[i - 1], spots[i + 1]].map((other) =>
      other === undefined ? REACH : Math.min(REACH, Math.abs(place(other.time) - at) / 2),
    ) as [Seconds, Seconds];
    const since = Math.max(taken, at + lead - before);
    const until = Math.max(since, at + lead + after);
    taken = until;
    const struck = { spot, since, until, ...between(strikes, since, until) };
    if (spot.kind === 'note' && shareOf(strikes, struck) >= FOLLOW_SHARE) {
      const away = momentOf(strikes, struck, 0.5)! - at - lead;
      lead += Math.max(-FOLLOW_MOST * before, Math.min(FOLLOW_MOST * after, FOLLOW * away));
    }
    return struck;
  });
}

/** A class in its place: what belongs to each spot. @param free  nobody clicked */
export function placedClass(strikes: Strikes, spots: readonly Spot[], free: boolean): Struck[] {
  const { start, pace } = free ? freePlace(strikes, spots) : { start: leadOf(strikes, spots), pace: 1 };
  return struckAt(strikes, spots, (time) => start + pace * time);
}
