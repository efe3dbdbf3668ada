import type { Score } from '../scoreEvents.ts';
import { type Hypothesis, type MisreadingKind, shifted } from './hypothesis.ts';

/** Whole takes that came in at the wrong beat: so many beats off, or so many measures. */
const ENTRIES = [1, 1.5, 2, 2.5, 3, 4, 5, 6, 8] as const;
const MEASURES = [1, 2, 3, 4] as const;

function entered(side: 1 | -1): (score: Score) => Hypothesis[] {
  return (score) =>
    [...new Set([...ENTRIES, ...MEASURES.map((count) => count * score.beatsInMeasure)])].map((beats): Hypothesis => {
      const seconds = side * beats * score.beat;
      const event = score.notes[0] ?? 0;
      return {
        event,
        cost: Number.isInteger(beats) ? 4.5 : 5.5,
        apply: (claps) => shifted(claps, -Infinity, seconds),
        shift: { from: score.events[event]?.time ?? 0, beats: side * beats, seconds },
        wholeTake: true,
      };
    });
}

export const enteredEarly: MisreadingKind = { about: 'take', needsClick: true, hypotheses: entered(-1) };
export const enteredLate: MisreadingKind = { about: 'take', needsClick: true, hypotheses: entered(1) };
