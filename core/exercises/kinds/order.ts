import { type Fraction, compare } from '../../rhythm/fraction.ts';
import { type NoteValue, lengthOf, valueText } from '../../rhythm/value.ts';
import { plainValues } from '../material.ts';
import { MISCONCEPTIONS } from '../misconceptions.ts';
import { optionsOf, shuffled } from '../options.ts';
import type { Answer, Option, QuestionMaker, Step } from '../question.ts';
import { sumSteps } from '../valueSums.ts';

const say = (values: readonly NoteValue[]): Answer => ({ is: 'values', values });

/** Put these in order, the shortest first. */
export const order: QuestionMaker = (settings, random) => {
  const pool: NoteValue[] = plainValues(settings).flatMap((base) => [
    { base, dots: 0 as const },
    ...(settings.dots && base !== 't' ? [{ base, dots: 1 as const }] : []),
  ]);
  const three = shuffled(pool, random).slice(0, 3);
  if (three.length < 3) return undefined;
  const byLength = (length: (value: NoteValue) => Fraction) => [...three].sort((a, b) => compare(length(a), length(b)));
  const right = byLength(lengthOf);
  const wrong = MISCONCEPTIONS.filter(({ mistakes }) => mistakes === 'dots').map((m): Option => ({
    answer: say(byLength((value) => m.beats({ kind: 'note', value }, settings.beat))),
    misconception: m.id,
  }));
  const [short, middle, long] = right as [NoteValue, NoteValue, NoteValue];
  const slips = [say([long, middle, short]), say([middle, short, long]), say([short, long, middle])];
  const made = optionsOf(say(right), wrong, slips, random);
  const steps = right.map((value): Step => ({
    step: 'sum',
    ...sumSteps([{ kind: 'note', value }], settings.beat)[0]!,
  }));
  return made && { asked: { kind: 'order' }, shows: three.map(valueText).join(' '), ...made, steps };
};
