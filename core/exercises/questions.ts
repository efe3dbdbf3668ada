import { randomFrom } from '../random.ts';
import { balance } from './kinds/balance.ts';
import { beats } from './kinds/beats.ts';
import { claps } from './kinds/claps.ts';
import { complete } from './kinds/complete.ts';
import { howMany } from './kinds/howMany.ts';
import { order } from './kinds/order.ts';
import { trueFalse } from './kinds/trueFalse.ts';
import { wrongMeasure } from './kinds/wrongMeasure.ts';
import type { Question, QuestionKind, QuestionMaker, QuestionSettings } from './question.ts';

/**
 * Every kind of question. To add one: its file, its facts in `Asked`, and a row here; the compiler asks for its words.
 */
const MAKERS: Readonly<Record<QuestionKind, QuestionMaker>> = {
  beats,
  'how-many': howMany,
  'true-false': trueFalse,
  balance,
  claps,
  complete,
  'wrong-measure': wrongMeasure,
  order,
};
export const QUESTION_KINDS = Object.keys(MAKERS) as readonly QuestionKind[];

/**
 * Questions from a seed: the same seed and settings give the same ones, no two in a row of one kind where several were
 * asked for.
 * @param kinds  which kinds; all when left out
 */
export function questions(
  settings: QuestionSettings,
  seed: number,
  count: number,
  kinds: readonly QuestionKind[] = QUESTION_KINDS,
): Question[] {
  const random = randomFrom(seed);
  const asked: Question[] = [];
  const seen = new Set<string>();
  for (let tries = 0; asked.length < count && tries < count * 60; tries++) {
    const kind = random.pick(kinds);
    if (kinds.length > 1 && kind === asked.at(-1)?.asked.kind) continue;
    const question = MAKERS[kind](settings, random);
    const key = question && JSON.stringify([question.asked, question.shows]);
    // With few values there are few different questions; then they may come again.
    if (!question || (seen.has(key!) && tries < count * 30)) continue;
    seen.add(key!);
    asked.push(question);
  }
  return asked;
}
