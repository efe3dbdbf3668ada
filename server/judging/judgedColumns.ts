import type { JudgedTake } from '../../core/judging/judgeTake.ts';
import { RESULT_VERSION } from '../../core/judging/takeResult.ts';
import type { Ages } from '../../core/judging/windows.ts';
import { heardElements, packElements } from '../../core/records/heardElements.ts';
import { toldPlaces } from '../../core/records/toldPlaces.ts';
import { hardestMeasure } from '../../core/records/nextStep.ts';
import type { Judgement } from '../repository/takes.ts';

/** The columns of a take that judging fills. */
export function judgedColumns(judged: Extract<JudgedTake, { ok: true }>, ages: Ages): Judgement {
  const { result, windows, pattern } = judged;
  const { accuracy, mark } = result;
  const elements = packElements(heardElements(toldPlaces(pattern, result)));
  const hardest = hardestMeasure(result) ?? null;
  const misread = result.misreadings.map(({ code }) => code).join(',');
  return { ages, windows, accuracy, mark, result, resultVersion: RESULT_VERSION, elements, hardest, misread };
}
