import type { Random } from '../../random.ts';
import { equal, frac, mul } from '../../rhythm/fraction.ts';
import { lengthOf, valueOfLength } from '../../rhythm/value.ts';
import { anyPart, partsText } from '../material.ts';
import { MISCONCEPTIONS } from '../misconceptions.ts';
import type { Option, QuestionMaker, Step } from '../question.ts';
import { type Part, beatsIn, sumSteps, totalBeats } from '../valueSums.ts';

/** Two or three values that together last as long as a part, of the same kind. */
function splitUp({ kind, value }: Part, random: Random): Part[] | undefined {
  const halves = valueOfLength(mul(lengthOf({ base: value.base, dots: 0 }), frac(1, 2)));
  if (!halves) return undefined;
  const half: Part = { kind, value: halves };
  if (value.dots > 0) return [{ kind, value: { base: value.base, dots: 0 } }, half];
  const quarter = valueOfLength(mul(lengthOf(value), frac(1, 4)));
  return quarter && random.next() < 0.5 ? [half, { kind, value: quarter }, { kind, value: quarter }] : [half, half];
}

const TRUE: Option = { answer: { is: 'truth', truth: true } };
const FALSE: Option = { answer: { is: 'truth', truth: false } };

/** True or false: this lasts as long as that. */
export const trueFalse: QuestionMaker = (settings, random) => {
  const kind = settings.rests && random.next() < 0.4 ? 'rest' : 'note';
  const left: Part = { kind, value: anyPart({ ...settings, rests: false }, random).value };
  const as = splitUp(left, random);
  if (!as) return undefined;
  const tricks = MISCONCEPTIONS.filter(
    (m) => m.id !== 'beat-ignored' && m.id !== 'counts-notes' && !equal(m.beats(left, 'q'), beatsIn(left.value, 'q')),
  );
  const trick = tricks.length > 0 && random.next() < 0.5 ? random.pick(tricks) : undefined;
  const wrongValue = trick && valueOfLength(mul(trick.beats(left, 'q'), frac(1, 4)));
  const right: readonly Part[] = wrongValue ? [{ kind: left.kind, value: wrongValue }] : as;
  const sums = sumSteps([left], settings.beat).map((one): Step => ({ step: 'sum', ...one }));
  return {
    asked: { kind: 'true-false', left, right },
    shows: partsText([left, ...right]),
    sides: [[left], right],
    options: wrongValue ? [{ ...TRUE, misconception: trick.id }, FALSE] : [TRUE, FALSE],
    answer: wrongValue ? 1 : 0,
    steps: [...sums, { step: 'other-side', beats: totalBeats(right, settings.beat) }],
  };
};
