import type { SignQuestionMaker } from '../question.ts';
import { rest } from '../signs.ts';

/** Whole or half rest? */
export const whichRest: SignQuestionMaker = (_settings, random) => {
  const pair = [rest('w'), rest('h')] as const;
  const answer = random.below(2);
  const sign = pair[answer]!;
  const options = pair.map((one, i) => ({
    answer: { is: 'sign', sign: one } as const,
    ...(i === answer ? {} : { misconception: 'whole-half-swapped' as const }),
  }));
  return {
    asked: { kind: 'which-rest' },
    shows: '',
    staff: [{ sign }],
    options,
    answer,
    steps: [{ step: 'sign', sign }],
  };
};
