import { EPSILON, nearlyEqual } from '../../timing/tolerance.ts';
import type { ExpectedClap } from '../expectedClap.ts';
import type { Score } from '../scoreEvents.ts';
import type { MisreadingKind } from './hypothesis.ts';

/** Part of the claps that the beat and the rhythm have in common: from here on they are hardly to be told apart. */
const MUCH_ALIKE = 0.75;
const COST = 8;

/** A clap on each beat, those of them that are written with their notes. */
function beats({ events, measures, notes }: Score): ExpectedClap[] {
  return measures.flatMap(({ from, to }, played) => {
    const beat = events.find((event) => event.played === played)?.beat ?? to - from;
    const count = Math.max(1, Math.round((to - from) / beat - EPSILON));
    return Array.from({ length: count }, (_, k): ExpectedClap => {
      const time = from + k * beat;
      const note = notes.findIndex((index) => nearlyEqual(events[index]!.time, time));
      return { note, written: time, time };
    });
  });
}

export const onlyTheBeat: MisreadingKind = {
  about: 'take',
  hypotheses: (score) => {
    const claps = beats(score);
    const alike = claps.filter(({ note }) => note >= 0).length;
    if (alike > MUCH_ALIKE * Math.max(claps.length, score.notes.length)) return [];
    return [{ event: score.notes[0] ?? 0, cost: COST, apply: () => claps, wholeTake: true, alone: true }];
  },
};
