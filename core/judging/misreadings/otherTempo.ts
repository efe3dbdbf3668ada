import type { Score } from '../scoreEvents.ts';
import type { Hypothesis, MisreadingKind } from './hypothesis.ts';

function atSpeed(speed: number): (score: Score) => Hypothesis[] {
  return (score) => {
    const event = score.notes[0] ?? 0;
    const first = score.events[event]?.time ?? 0;
    // From the first note, or from the bar line after a pickup: both can be where the child took its own tempo.
    return [...new Set([first, 0])].map((zero): Hypothesis => ({
      event,
      cost: 4.5,
      apply: (claps) => claps.map(({ note, written, time }) => ({ note, written, time: zero + (time - zero) / speed })),
      speed,
      wholeTake: true,
    }));
  };
}

export const halfTempo: MisreadingKind = { about: 'take', needsClick: true, hypotheses: atSpeed(0.5) };
export const doubleTempo: MisreadingKind = { about: 'take', needsClick: true, hypotheses: atSpeed(2) };
