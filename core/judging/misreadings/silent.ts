import type { Score } from '../scoreEvents.ts';
import { type HeardSoFar, type Hypothesis, type MisreadingKind, without } from './hypothesis.ts';
import { firstEvent } from './writtenPlaces.ts';

/** Nats: as likely as a measure left out, and how much was silent is anything. */
const COST = 6;
/** Fewer are notes that were missed, which costs less than a silence. */
const FEWEST_NOTES = 2;

/** Nothing until a note after the first, right in its place from there. */
export const joinedLate: MisreadingKind = {
  about: 'place',
  needsClick: true,
  inTake: ({ notes, events }, { claps, hits }) => {
    const joined = hits.findIndex((hit) => hit >= 0);
    const note = claps[joined]?.note ?? -1;
    if (note < 1) return [];
    const event = notes[0]!;
    const [from, to] = [events[event]!.time, claps[joined]!.written];
    return [
      {
        event,
        cost: COST,
        apply: (all) => without(all, { from, to }),
        leavesOut: { from, to },
        until: notes[note]!,
        // One that began later has not entered at another beat.
        wholeTake: true,
      },
    ];
  },
  slip: (take, { measures, notes }, random) => {
    if (measures.length < 3) return undefined;
    const to = measures[1 + random.below(measures.length > 4 ? 2 : 1)]!.from;
    const left = without(take.claps, { from: -Infinity, to });
    if (take.claps.length - left.length < FEWEST_NOTES || left.length < FEWEST_NOTES) return undefined;
    take.claps = left;
    return notes[0];
  },
};

/** Runs of measures in which nothing was clapped, between others in which something was. */
function silentRuns({ events, notes, measures }: Score, { claps, hits }: HeardSoFar): [first: number, last: number][] {
  const [written, heard] = [measures.map(() => 0), measures.map(() => 0)];
  claps.forEach(({ note }, i) => {
    if (note < 0) return;
    const { played } = events[notes[note]!]!;
    written[played]!++;
    if (hits[i]! >= 0) heard[played]!++;
  });
  const runs: [number, number][] = [];
  let first = -1;
  measures.forEach((_measure, i) => {
    if (heard[i]! > 0) {
      const sounded = written.slice(first + 1, i).reduce((sum, count) => sum + count, 0);
      // From the first measure that is written to sound to the last before this one.
      if (first >= 0 && sounded > 0) {
        const silent = written.map((count, k) => (k > first && k < i && count > 0 ? k : -1)).filter((k) => k >= 0);
        runs.push([silent[0]!, silent.at(-1)!]);
      }
      first = i;
    }
  });
  return runs;
}

/** A measure or more not clapped, right again in its place after it. */
export const measureSilent: MisreadingKind = {
  about: 'place',
  noHabit: true,
  inTake: (score, take) =>
    silentRuns(score, take).map(([first, last]): Hypothesis => {
      const [{ from }, { to }] = [score.measures[first]!, score.measures[last]!];
      return {
        event: firstEvent(score, first),
        cost: COST,
        apply: (claps) => without(claps, { from, to }),
        leavesOut: { from, to },
        count: last - first + 1,
      };
    }),
  slip: (take, score, random) => {
    const { measures } = score;
    if (measures.length < 4) return undefined;
    const first = 1 + random.below(measures.length - 3);
    const last = Math.min(first + random.below(2), measures.length - 2);
    const left = without(take.claps, { from: measures[first]!.from, to: measures[last]!.to });
    if (take.claps.length - left.length < FEWEST_NOTES) return undefined;
    take.claps = left;
    return firstEvent(score, first);
  },
};
