import type { TakeSummary } from '../../../contract/take.ts';
import { type NextStep, hardestMeasure, nextStep } from '../../../core/judging/nextStep.ts';
import type { NewTake } from '../../take/useJudgedTake.ts';
import { markOfTake } from '../../ui/markOfTake.ts';

/**
 * What comes next for a child after a new take; undefined after a practice take.
 * @param takes  of the class, newest first
 */
export function nextStepFor(takes: readonly TakeSummary[], childId: string, take: NewTake): NextStep | undefined {
  if (!take.kept) return undefined;
  const before = takes
    .filter((one) => one.childId === childId && one.patternId === take.patternId && one.id !== take.takeId)
    .map((one) => ({ bpm: one.bpm, mark: markOfTake(one) }))
    .reverse();
  const hardest = hardestMeasure(take.result);
  return nextStep([...before, { bpm: take.bpm, mark: take.mark, ...(hardest === undefined ? {} : { hardest }) }]);
}
