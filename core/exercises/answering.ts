import type { MistakeId } from './misconceptions.ts';
import type { Question } from './question.ts';

/** What a wrong answer came from; a plain slip where no misunderstanding leads to it. */
export type Mistake = MistakeId | 'slip';

/** All options to be found, or, in a match, the option of each sign. */
function wanted({ answer, answers }: Question): readonly number[] {
  return answers ?? [answer];
}

const isMatch = ({ asked }: Question) => asked.kind === 'sign-match';
const findsAll = ({ asked }: Question) => asked.kind === 'sign-spot';

/**
 * Whether an answer is right.
 * @param given  the options chosen: one; where all are to be found each of them; in a match for each sign its own
 */
export function isRight(question: Question, given: readonly number[]): boolean {
  const right = wanted(question);
  if (isMatch(question)) return right.every((option, i) => given[i] === option);
  if (!findsAll(question)) return given.length === 1 && right.includes(given[0]!);
  return given.length === right.length && right.every((option) => given.includes(option));
}

/** What was mistaken in a wrong answer; nothing where it is right. */
export function mistakesIn(question: Question, given: readonly number[]): Mistake[] {
  if (isRight(question, given)) return [];
  if (isMatch(question)) return ['slip'];
  const wrong = given.filter((option) => !wanted(question).includes(option));
  const behind = wrong.map((option) => question.options[option]?.misconception ?? 'slip');
  return behind.length === 0 ? ['slip'] : [...new Set(behind)];
}
