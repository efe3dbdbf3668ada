import { nearlyEqual } from '../../timing/tolerance.ts';
import { type MisreadingKind, moved, shifted } from './hypothesis.ts';
import { eachEvent } from './writtenPlaces.ts';

export const sixteenthsSlow: MisreadingKind = {
  about: 'place',
  hypotheses: (score) =>
    eachEvent(score, (event, i) => {
      const group = score.events.slice(i, i + 4);
      const four = group.length === 4 && group.every(({ kind, beats }) => kind === 'note' && nearlyEqual(beats, 0.25));
      if (!four || event.division !== 2 || !nearlyEqual(event.inBeat, 0)) return undefined;
      const slow = new Map(group.map(({ note, time }) => [note, time - event.time]));
      const from = group[3]!.end;
      const shift = { from, beats: 1, seconds: event.beat };
      return { event: i, cost: 4.4, apply: (claps) => shifted(moved(claps, slow), from, event.beat), shift };
    }),
};
