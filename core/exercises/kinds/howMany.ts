import { type Fraction, add, compare, div, frac, isWhole, mul } from '../../rhythm/fraction.ts';
import { type NoteValue, VALUE, lengthOf, valueText } from '../../rhythm/value.ts';
import { plainValues } from '../material.ts';
import { optionsOf } from '../options.ts';
import type { Answer, Option, QuestionMaker, Step } from '../question.ts';

const say = (count: Fraction): Answer => ({ is: 'count', count });

/** How many of a value are in a longer one? */
export const howMany: QuestionMaker = (settings, random) => {
  const known = plainValues(settings);
  if (known.length < 2) return undefined;
  const big = random.below(known.length - 1);
  const small = known[big + 1 + random.below(known.length - big - 1)]!;
  const fits = compare(VALUE[small].of, mul(VALUE[known[big]!].of, frac(1, 2))) <= 0;
  const dotted = settings.dots && random.next() < 0.4 && fits;
  const whole: NoteValue = { base: known[big]!, dots: dotted ? 1 : 0 };
  const count = div(lengthOf(whole), VALUE[small].of);
  if (!isWhole(count)) return undefined;
  const plain = div(VALUE[whole.base].of, VALUE[small].of);
  const wrong: Option[] = dotted
    ? [
        { answer: say(add(plain, frac(1))), misconception: 'dot-one-beat' },
        { answer: say(mul(plain, frac(2))), misconception: 'dot-whole-copy' },
        { answer: say(plain), misconception: 'dot-ignored' },
      ]
    : [{ answer: say(frac(1)), misconception: 'counts-notes' }];
  const slips = [mul(count, frac(2)), add(count, frac(1)), add(count, frac(2)), add(count, frac(3))].map(say);
  const made = optionsOf(say(count), wrong, slips, random);
  const steps: Step[] = [
    { step: 'folds', from: whole.base, to: small },
    ...(dotted ? [{ step: 'dot-of-folds', plain, half: mul(plain, frac(1, 2)) } as const] : []),
  ];
  return made && { asked: { kind: 'how-many', whole, small }, shows: valueText(whole), ...made, steps };
};
