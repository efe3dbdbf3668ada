import { EPSILON } from '../../timing/tolerance.ts';
import { type MisreadingKind, adding } from './hypothesis.ts';
import { beatStarts, eachEvent } from './writtenPlaces.ts';

export const holdPulsed: MisreadingKind = {
  about: 'place',
  hypotheses: (score) =>
    eachEvent(score, (event, i) => {
      const pulses = event.kind === 'note' ? beatStarts(event).slice(1) : [];
      return pulses.length > 0 ? adding(i, event.beats > 2 - EPSILON ? 1.6 : 2.8, pulses) : undefined;
    }),
};
