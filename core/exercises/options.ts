import type { Random } from '../random.ts';
import { type Fraction, add, frac } from '../rhythm/fraction.ts';
import type { Answer, Option, Question } from './question.ts';

const OPTIONS = 4;

export function shuffled<T>(list: readonly T[], random: Random): T[] {
  const mixedUp = [...list];
  for (let i = mixedUp.length - 1; i > 0; i--) {
    const k = random.below(i + 1);
    [mixedUp[i], mixedUp[k]] = [mixedUp[k]!, mixedUp[i]!];
  }
  return mixedUp;
}

const keyOf = (answer: Answer) => JSON.stringify(answer);

/**
 * The right option among wrong ones that misconceptions lead to, in an order from the seed; slips fill the rest.
 * Undefined where there are not enough different ones.
 */
export function optionsOf(
  right: Answer,
  wrong: readonly Option[],
  slips: readonly Answer[],
  random: Random,
): Pick<Question, 'options' | 'answer'> | undefined {
  const seen = new Set([keyOf(right)]);
  const chosen: Option[] = [];
  for (const option of [...shuffled(wrong, random), ...slips.map((answer): Option => ({ answer }))]) {
    if (chosen.length === OPTIONS - 1 || seen.has(keyOf(option.answer))) continue;
    seen.add(keyOf(option.answer));
    chosen.push(option);
  }
  if (chosen.length < OPTIONS - 1) return undefined;
  const options = shuffled<Option>([{ answer: right }, ...chosen], random);
  return { options, answer: options.findIndex(({ answer }) => keyOf(answer) === keyOf(right)) };
}

/** Numbers of beats near a right one. */
export function slipsAround(beats: Fraction): Answer[] {
  return [frac(1), frac(-1, 2), frac(1, 2), frac(2), frac(3)]
    .map((off) => add(beats, off))
    .filter(({ n }) => n > 0)
    .map((near): Answer => ({ is: 'beats', beats: near }));
}
