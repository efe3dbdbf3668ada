import { CheckRequest, CountRequest, ScoreRequest } from '../contract/take.ts';
import { type Checked, validator } from '../contract/validate.ts';
import { type CountedMeasure, countPattern, plainCounts } from '../core/counting/count.ts';
import { judge } from '../core/judging/judge.ts';
import { barCheck, barsAddUp } from '../core/rhythm/barCheck.ts';
import { mixed } from '../core/rhythm/fraction.ts';
import { UserError, readPattern } from './readPattern.ts';


function checked<T>(result: Checked<T>): T {
  if (!result.ok) throw new UserError(result.message);
  return result.value;
}

const countRequest = validator(CountRequest);
const checkRequest = validator(CheckRequest);
const scoreRequest = validator(ScoreRequest);

function count(request: unknown): { plain: string; measures: readonly CountedMeasure[] } {
  const { text, ...options } = checked(countRequest(request));
  const counted = countPattern(readPattern(text), options);
  if (!counted.ok) throw new UserError(counted.reason);
  return { plain: plainCounts(counted.measures), measures: counted.measures };
}

function check(request: unknown): object {
  const { text, beat } = checked(checkRequest(request));
  const reports = barCheck(readPattern(text), beat);
  const measures = reports.map((report) => ({ ...report, total: mixed(report.total), expected: mixed(report.expected) }));
  return { ok: barsAddUp(reports), measures };
}

function score(request: unknown): object {
  const { pattern, free, ...take } = checked(scoreRequest(request));
  if (free) throw new UserError('free takes are not judged yet: give the time of beat 1 as "start" and the tempo of the click as "bpm"');
  const judged = judge({ ...take, pattern: readPattern(pattern) });
  if (!judged.ok) throw new UserError(judged.reason);
  return judged.result;
}

export const VERBS = { count, check, score } as const;
