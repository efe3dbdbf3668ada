import { trueFalse as trueFalseMaker } from '../../exercises/kinds/trueFalse.ts';
import { anySum, partsText, plainValues } from '../../exercises/material.ts';
import { compare, div, frac, isWhole, mul } from '../../rhythm/fraction.ts';
import type { Part } from '../../exercises/valueSums.ts';
import { type NoteValue, VALUE, lengthOf, valueText } from '../../rhythm/value.ts';
import { valueSettings } from '../material.ts';
import type { SheetMaker } from '../sheetQuestion.ts';

/** Dotted whole notes and thirty-seconds are not for these ages. */
const usual = ({ value }: Part) => value.dots === 0 || value.base === 'h' || value.base === 'q' || value.base === 'e';

/** The more values and dots, the harder. */
const heft = (parts: readonly Part[]) => parts.reduce((all, { value }) => all + 1 + value.dots, 0);

const MOST_TIMES = 4;
const MOST_PARTS = 4;

/** How many eighths are in three quarters? */
export const howMany: SheetMaker<'how-many'> = {
  make: (settings, random) => {
    const known = plainValues(valueSettings(settings));
    const big = random.below(Math.max(1, known.length - 1));
    const small = known[big + 1 + random.below(Math.max(1, known.length - big - 1))];
    if (!small) return undefined;
    const dotted = valueSettings(settings).dots && random.next() < 0.4;
    const whole: NoteValue = { base: known[big]!, dots: dotted ? 1 : 0 };
    // One is asked for more often than several of them.
    const times = random.next() < 0.4 ? 1 : 1 + random.below(MOST_TIMES);
    if (!usual({ kind: 'note', value: whole })) return undefined;
    if (!isWhole(div(mul(lengthOf(whole), frac(times)), VALUE[small].of))) return undefined;
    return { kind: 'how-many', times, whole, small };
  },
  key: ({ times, whole, small }) => `${times} ${valueText(whole)} ${small}`,
  points: () => 1,
  difficulty: ({ times, whole, small }) =>
    times + 2 * whole.dots + (compare(VALUE[small].of, mul(VALUE[whole.base].of, frac(1, 2))) < 0 ? 1 : 0),
  usual: 10,
};

/** This lasts as long as that: true or false? */
export const trueFalse: SheetMaker<'true-false'> = {
  make: (settings, random) => {
    const question = trueFalseMaker(valueSettings({ ...settings, beat: settings.beat ?? 'q' }), random);
    return question?.sides?.flat().every(usual) ? { kind: 'true-false', question } : undefined;
  },
  key: ({ question: { sides } }) => sides!.map(partsText).join(' = '),
  points: () => 1,
  difficulty: ({ question: { sides } }) => heft(sides!.flat()),
  usual: 10,
};

/** How long are these together, when another value than the quarter gets the beat? */
export const sums: SheetMaker<'sums'> = {
  make: (settings, random) => {
    const beat = settings.beat ?? random.pick(['e', 'h'] as const);
    const parts = anySum(valueSettings(settings), random, MOST_PARTS);
    return parts.length < 2 || !parts.every(usual) ? undefined : { kind: 'sums', parts, beat };
  },
  key: ({ parts, beat }) => `${partsText(parts)} ${beat}`,
  points: () => 1,
  difficulty: ({ parts, beat }) => heft(parts) + (beat === 'h' ? 1 : 0),
  usual: 8,
};
