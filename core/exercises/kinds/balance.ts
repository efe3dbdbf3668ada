import { sub, sum } from '../../rhythm/fraction.ts';
import { lengthOf } from '../../rhythm/value.ts';
import { anyPart, anySum, filled, partsText } from '../material.ts';
import { misjudged } from '../misconceptions.ts';
import { missingValue } from '../missingValue.ts';
import type { QuestionMaker, Step } from '../question.ts';
import { sumSteps, totalBeats } from '../valueSums.ts';

/** Which value makes both sides as long? */
export const balance: QuestionMaker = (settings, random) => {
  const { beat } = settings;
  const left = anySum({ ...settings, ties: false }, random, 2);
  const missing = anyPart({ ...settings, rests: false }, random).value;
  const right = filled(sub(sum(left.map(({ value }) => lengthOf(value))), lengthOf(missing)), settings, random);
  if (!right || right.length === 0) return undefined;
  const all = totalBeats(left, beat);
  const gap = { missing, given: right, all, misheard: misjudged.bind(undefined, left, beat), beat };
  const made = missingValue(gap, settings, random);
  if (!made) return undefined;
  const sums = sumSteps(left, beat).map((one): Step => ({ step: 'sum', ...one }));
  return {
    asked: { kind: 'balance' },
    shows: partsText([...left, ...right]),
    sides: [left, right],
    options: made.options,
    answer: made.answer,
    steps: [...sums, { step: 'other-side', beats: totalBeats(right, beat) }, made.step],
  };
};
