import type { ListedTake } from '../../../contract/records.ts';
import type { Scale } from '../../../core/judging/scale.ts';
import { type NextStep, hardestMeasure, nextStep } from '../../../core/records/nextStep.ts';
import type { NewTake } from '../../take/useJudgedTake.ts';
import { markOfTake } from '../../domain/markOfTake.ts';

/**
 * What comes next for a child after a new take; undefined after a practice take.
 * @param takes  of this child and pattern, newest first
 */
export function nextStepFor(takes: readonly ListedTake[], take: NewTake, scale: Scale): NextStep | undefined {
  if (!take.kept) return undefined;
  const before = takes
    .filter(({ id }) => id !== take.takeId)
    .map((one) => ({ bpm: one.bpm, mark: markOfTake(one), scale, misread: one.misread }))
    .reverse();
  const hardest = hardestMeasure(take.result);
  const misread = take.result.misreadings.map(({ code }) => code);
  const now = { bpm: take.bpm, mark: take.mark, scale, misread };
  return nextStep([...before, hardest === undefined ? now : { ...now, hardest }]);
}
