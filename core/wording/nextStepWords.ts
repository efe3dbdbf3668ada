import type { NextStep } from '../records/nextStep.ts';
import { type NamingId, inNaming } from './valueNames.ts';

/**
 * What comes next, and why, in one sentence.
 * @example nextStepSentence({ kind: 'faster', bpm: 76 }, 'quarters')  // "Twice full marks: now at 76."
 */
export function nextStepSentence(step: NextStep, naming: NamingId): string {
  switch (step.kind) {
    case 'again':
      return 'Once more, the same.';
    case 'faster':
      return `Twice full marks: now at ${step.bpm}.`;
    case 'next-pattern':
      return 'Twice full marks at the fastest tempo: on to the next pattern.';
    case 'half-speed':
      return `Twice below 3: now at half speed, ${step.bpm}.`;
    case 'measure':
      return `Twice below 3: ${inNaming('{measure}', naming)} ${step.measure} alone, at ${step.bpm}.`;
  }
}
