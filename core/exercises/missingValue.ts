import type { Random } from '../random.ts';
import { type Fraction, mul, sub } from '../rhythm/fraction.ts';
import { type NoteValue, VALUE, type ValueLetter, valueOfLength } from '../rhythm/value.ts';
import { plainNoteValues } from './material.ts';
import { MISCONCEPTIONS, type Misconception, misjudged } from './misconceptions.ts';
import { optionsOf, shuffled } from './options.ts';
import type { Answer, Option, Question, QuestionSettings, Step } from './question.ts';
import { type Part, totalBeats } from './valueSums.ts';

interface Gap {
  readonly missing: NoteValue;
  /** What stands beside it. */
  readonly given: readonly Part[];
  /** What both are to come to, in beats. */
  readonly all: Fraction;
  /** The same for a child with a misconception. */
  readonly misheard: (misconception: Misconception) => Fraction;
  readonly beat: ValueLetter;
}

/** Options for the value that is missing beside some parts, and the step that leads to it. */
export function missingValue(
  { missing, given, all, misheard, beat }: Gap,
  settings: QuestionSettings,
  random: Random,
): (Pick<Question, 'options' | 'answer'> & { readonly step: Step }) | undefined {
  const named = (value: NoteValue): Answer => ({ is: 'value', value });
  const wrong = MISCONCEPTIONS.flatMap((m): Option[] => {
    const lacks = sub(misheard(m), misjudged(given, beat, m));
    const value = lacks.n > 0 ? valueOfLength(mul(lacks, VALUE[beat].of)) : undefined;
    return value ? [{ answer: named(value), misconception: m.id }] : [];
  });
  const slips = plainNoteValues(settings, (letters) => shuffled(letters, random)).map(named);
  const made = optionsOf(named(missing), wrong, slips, random);
  return made && { ...made, step: { step: 'missing', all, used: totalBeats(given, beat), value: missing } };
}
