import { equal } from '../../rhythm/fraction.ts';
import { anySum, partsText, someStaccato } from '../material.ts';
import { MISCONCEPTIONS, misjudged } from '../misconceptions.ts';
import { optionsOf, slipsAround } from '../options.ts';
import type { Answer, Option, QuestionMaker, Step } from '../question.ts';
import { sumSteps, totalBeats } from '../valueSums.ts';

/** How many beats does this last? */
export const beats: QuestionMaker = (settings, random) => {
  const { beat } = settings;
  const written = anySum(settings, random, 3);
  const parts = settings.dots ? someStaccato(written, random) : written;
  const total = totalBeats(parts, beat);
  const right: Answer = { is: 'beats', beats: total };
  const wrong = MISCONCEPTIONS.flatMap((m): Option[] => {
    const heard = misjudged(parts, beat, m);
    return heard.n > 0 && !equal(heard, total) ? [{ answer: { is: 'beats', beats: heard }, misconception: m.id }] : [];
  });
  const made = optionsOf(right, wrong, slipsAround(total), random);
  if (!made) return undefined;
  const staccato = parts.flatMap((part, i) => (part.staccato ? [i] : []));
  const sums = sumSteps(parts, beat).map((one): Step => ({ step: 'sum', ...one }));
  return {
    asked: { kind: 'beats', parts, beat },
    shows: partsText(parts),
    ...(staccato.length > 0 ? { staccato } : {}),
    ...made,
    steps: [...sums, ...(staccato.length > 0 ? [{ step: 'staccato' } as const] : [])],
  };
};
