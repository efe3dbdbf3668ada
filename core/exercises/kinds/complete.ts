import { div, sub } from '../../rhythm/fraction.ts';
import { meterText } from '../../rhythm/meter.ts';
import { VALUE, lengthOf } from '../../rhythm/value.ts';
import { anyPart, filled, measureOf, partsText } from '../material.ts';
import { missingValue } from '../missingValue.ts';
import type { QuestionMaker, Step } from '../question.ts';
import { sumSteps } from '../valueSums.ts';

/** Which value completes this measure? */
export const complete: QuestionMaker = (settings, random) => {
  const { meter, beat, full } = measureOf(settings);
  const missing = anyPart(settings, random).value;
  const given = filled(sub(full, lengthOf(missing)), settings, random);
  if (!given || given.length === 0) return undefined;
  const all = div(full, VALUE[beat].of);
  const made = missingValue({ missing, given, all, misheard: () => all, beat }, settings, random);
  if (!made) return undefined;
  const sums = sumSteps(given, beat).map((one): Step => ({ step: 'sum', ...one }));
  return {
    asked: { kind: 'complete', meter },
    shows: `${meterText(meter)} ${partsText(given)}`,
    options: made.options,
    answer: made.answer,
    steps: [...sums, made.step],
  };
};
