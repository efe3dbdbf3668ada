import { shuffled } from '../options.ts';
import type { Option, SignQuestionMaker } from '../question.ts';
import { STEMS, TOP_LINE, type StaffHeight, note, rightStems } from '../signs.ts';

/** Where does the stem go? On the middle line two answers are right. */
export const stemSide: SignQuestionMaker = (_settings, random) => {
  const at: StaffHeight = random.below(TOP_LINE + 1);
  const right = rightStems(at);
  const order = shuffled(STEMS, random);
  const options = order.map((stem): Option => {
    if (right.includes(stem)) return { answer: { is: 'stem', ...stem } };
    const side = stem.way === 'up' ? 'right' : 'left';
    return { answer: { is: 'stem', ...stem }, misconception: stem.side === side ? 'stem-way' : 'stem-side' };
  });
  const answers = order.flatMap((stem, i) => (right.includes(stem) ? [i] : []));
  const staff = [{ sign: note(random.pick(['h', 'q'] as const)), at, stem: null }];
  return {
    asked: { kind: 'stem-side' },
    shows: '',
    staff,
    options,
    answer: answers[0]!,
    answers,
    steps: [{ step: 'stem', at }],
  };
};
