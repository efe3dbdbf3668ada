import { type MisreadingKind, moved } from './hypothesis.ts';
import { eighthPairs } from './writtenPlaces.ts';

/** A swung pair is about 2 : 1: the second eighth comes a sixth of a beat late. */
const SWING = 1 / 6;

export const eighthsUneven: MisreadingKind = {
  about: 'place',
  hypotheses: (score) => {
    const swung = eighthPairs(score);
    if (swung.length === 0) return [];
    const by = new Map(swung.map(({ note, beat }) => [note, beat * SWING]));
    const event = score.events.indexOf(swung[0]!) - 1;
    const cost = swung.length > 1 ? 3.2 : 2.2;
    return [{ event, cost, apply: (claps) => moved(claps, by), wholeTake: true, subtle: true }];
  },
};
