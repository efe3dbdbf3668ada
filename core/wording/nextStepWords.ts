import { t } from '../words/say.ts';
import type { MisreadingCode } from '../judging/misreadings/table.ts';
import type { NextStep } from '../records/nextStep.ts';
import { misreadingTitle } from './misreadingSentences.ts';
import { type NamingId, inNaming } from './valueNames.ts';

/**
 * What comes next, and why, in one sentence.
 * @example nextStepSentence({ kind: 'faster', bpm: 76 }, 'quarters')  // "Twice full marks: now at 76."
 */
export function nextStepSentence(step: NextStep, naming: NamingId): string {
  switch (step.kind) {
    case 'again':
      return t`Once more, the same.`;
    case 'faster':
      return t`Twice full marks: now at ${step.bpm}.`;
    case 'next-pattern':
      return t`Twice full marks at the fastest tempo: on to the next pattern.`;
    case 'half-speed':
      return t`Twice not right yet: now at half speed, ${step.bpm}.`;
    case 'measure':
      return t`Twice not right yet: ${inNaming('{measure}', naming)} ${step.measure} alone, at ${step.bpm}.`;
    case 'place':
      return t`${slipText(step, naming)}: ${inNaming('{measure}', naming)} ${step.measure} alone,
        at ${step.bpm}.`;
    case 'made':
      return t`${slipText(step, naming)}: a pattern made for it.`;
    case 'feet':
      return t`${slipText(step, naming)}: the feet on the beat first, then the hands with them.`;
    case 'half-click':
      return t`${slipText(step, naming)}: with every other click.`;
    case 'calibrate':
      return t`${slipText(step, naming)}: calibrate the device first, for it may be the one that is late.`;
    case 'listen':
      return t`${slipText(step, naming)}: hear it led once more, then clap it.`;
  }
}

/** "Twice the same, a rest given no time". */
export function slipText(
  { code, times }: { readonly code: MisreadingCode; readonly times: number },
  naming: NamingId,
): string {
  const title = misreadingTitle(code, { naming });
  return t`${times === 2 ? t`Twice` : t`${times} times`} in a row,
    ${title.charAt(0).toLowerCase()}${title.slice(1)}`;
}
