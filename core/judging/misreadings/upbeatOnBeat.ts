import { nearlyEqual } from '../../timing/tolerance.ts';
import { type MisreadingKind, moved } from './hypothesis.ts';
import { eachEvent, isSyncopation, noteAt } from './writtenPlaces.ts';

/** Half a beat early or late, and how unlikely each is. */
const MOVES = [
  [-0.5, 4.2],
  [0.5, 5.4],
] as const;

export const upbeatOnBeat: MisreadingKind = {
  about: 'place',
  hypotheses: (score) =>
    eachEvent(score, (event, i) => {
      if (event.kind !== 'note' || event.division !== 2 || !nearlyEqual(event.inBeat, 0.5)) return undefined;
      // Inside a syncopation the same claps are the syncopation straightened.
      if (event.source.event.tuplet || isSyncopation(score, i - 1) || isSyncopation(score, i - 2)) return undefined;
      return MOVES.flatMap(([beats, cost]) => {
        const by = beats * event.beat;
        const taken = noteAt(score, event.time + by) || event.time + by > score.schedule.end;
        return taken ? [] : [{ event: i, cost, apply: (claps) => moved(claps, new Map([[event.note, by]])) }];
      });
    }),
};
