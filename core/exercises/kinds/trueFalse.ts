import type { Random } from '../../random.ts';
import { compare, equal, frac, mul, sum } from '../../rhythm/fraction.ts';
import { VALUES, type ValueLetter, lengthOf, valueOfLength, valueText } from '../../rhythm/value.ts';
import { anyPart, partsText, plainValues } from '../material.ts';
import { MISCONCEPTIONS, type MistakeId } from '../misconceptions.ts';
import type { Option, QuestionMaker, QuestionSettings, Step } from '../question.ts';
import { type Sign, takenFor } from '../signs.ts';
import { type Part, beatsIn, sumSteps, totalBeats } from '../valueSums.ts';

/** Two to four values that together last as long as a part, of the same kind. */
function splitUp({ kind, value }: Part, random: Random): Part[] | undefined {
  const halves = valueOfLength(mul(lengthOf({ base: value.base, dots: 0 }), frac(1, 2)));
  if (!halves) return undefined;
  const half: Part = { kind, value: halves };
  if (value.dots > 0) return [{ kind, value: { base: value.base, dots: 0 } }, half];
  const quarter = valueOfLength(mul(lengthOf(value), frac(1, 4)));
  if (!quarter) return [half, half];
  const small: Part = { kind, value: quarter };
  return random.pick([[half, half], [half, half], [half, small, small], [half, small, small], fourOf(small)]);
}

const fourOf = (part: Part): Part[] => [part, part, part, part];

/** What stands on the other side where it is not as long, and how a child comes to take it for right. */
interface Wrong {
  readonly right: readonly Part[];
  readonly misconception: MistakeId;
}

/** One value, as a child counts the one on the left who has one of the misconceptions. */
function miscounted([left, more]: readonly Part[], random: Random): Wrong | undefined {
  if (!left || more) return undefined;
  const tricks = MISCONCEPTIONS.flatMap((m): Wrong[] => {
    if (m.id === 'beat-ignored' || m.id === 'counts-notes') return [];
    const beats = m.beats(left, 'q');
    const value = equal(beats, beatsIn(left.value, 'q')) ? undefined : valueOfLength(mul(beats, frac(1, 4)));
    return value ? [{ right: [{ kind: left.kind, value }], misconception: m.id }] : [];
  });
  return tricks.length > 0 ? random.pick(tricks) : undefined;
}

/** The true side with a rest more, which counts nothing for some. */
function withRest(as: readonly Part[]): Wrong | undefined {
  const [first] = as;
  if (!first || first.kind === 'rest') return undefined;
  return { right: [...as, { kind: 'rest', value: first.value }], misconception: 'rest-nothing' };
}

/** As many notes as on the left, of another value. */
function asMany(left: readonly Part[], as: readonly Part[]): Wrong | undefined {
  const small = as.at(-1)!;
  return left.length < 2 ? undefined : { right: left.map(() => small), misconception: 'counts-notes' };
}

/** The true side with all of a value written as what it is taken for: two eighths for two sixteenths. */
function takenWrong(as: readonly Part[], random: Random): Wrong | undefined {
  const { kind, value } = random.pick(as);
  const others = takenFor({ sign: kind, value }).flatMap(({ sign, mistake }): { part: Part; mistake: MistakeId }[] =>
    isPlain(sign, kind) ? [{ part: { kind, value: sign.value }, mistake }] : [],
  );
  if (others.length === 0) return undefined;
  const { part, mistake } = random.pick(others);
  const right = as.map((one) => (one.value.base === value.base && one.value.dots === value.dots ? part : one));
  return { right, misconception: mistake };
}

function isPlain(sign: Sign, kind: Part['kind']): sign is Extract<Sign, { sign: 'note' | 'rest' }> {
  return (sign.sign === 'note' || sign.sign === 'rest') && sign.sign === kind && sign.value.dots === 0;
}

/** What may stand on the other side: the chosen values, or with one alone its half too. */
function allowed(settings: QuestionSettings): readonly ValueLetter[] {
  const known = plainValues(settings);
  const next = VALUES.findIndex(({ letter }) => letter === known[0]) + 1;
  return known.length > 1 || !VALUES[next] ? known : [...known, VALUES[next].letter];
}

const TRUE: Option = { answer: { is: 'truth', truth: true } };
const FALSE: Option = { answer: { is: 'truth', truth: false } };

/** One or two of a kind, the longer first. */
function leftSide(settings: QuestionSettings, random: Random): Part[] {
  const kind = settings.rests && random.next() < 0.4 ? 'rest' : 'note';
  const parts = Array.from({ length: 1 + random.below(2) }, (): Part => ({
    kind,
    value: anyPart({ ...settings, rests: false }, random).value,
  }));
  return parts.toSorted((a, b) => compare(lengthOf(b.value), lengthOf(a.value)));
}

/** The same time in other values: of two one may stay as it is. */
function otherWay(left: readonly Part[], random: Random): Part[] | undefined {
  const kept = left.length > 1 && random.next() < 0.5 ? random.below(left.length) : undefined;
  const parts: Part[] = [];
  for (const [i, part] of left.entries()) {
    const split = i === kept ? [part] : splitUp(part, random);
    if (!split) return undefined;
    parts.push(...split);
  }
  return parts;
}

const MOST_PARTS = 6;
const totalOf = (parts: readonly Part[]) => sum(parts.map(({ value }) => lengthOf(value)));

/** A side that is the other one and more, or less, is seen through by anybody. */
function isPlainlyWrong(left: readonly Part[], right: readonly Part[]): boolean {
  const [few, many] = left.length < right.length ? [left, right] : [right, left];
  const over = many.map(({ value }) => valueText(value));
  return few.every(({ value }) => {
    const at = over.indexOf(valueText(value));
    if (at >= 0) over.splice(at, 1);
    return at >= 0;
  });
}

/** True or false: this lasts as long as that. As many are false as are true, each for a reason that children have. */
export const trueFalse: QuestionMaker = (settings, random) => {
  const left = leftSide(settings, random);
  const as = otherWay(left, random);
  if (!as) return undefined;
  const wrongs = [
    miscounted(left, random),
    settings.rests ? withRest(as) : undefined,
    takenWrong(as, random),
    asMany(left, as),
  ];
  const wrong = random.next() < 0.5 ? random.pick(wrongs.filter((one) => one !== undefined)) : undefined;
  const right = wrong?.right ?? as;
  const known = allowed(settings);
  const isKnown = ({ value }: Part) => known.includes(value.base) && (settings.dots || value.dots === 0);
  if (right.length > MOST_PARTS || ![...left, ...right].every(isKnown)) return undefined;
  if (wrong && (equal(totalOf(right), totalOf(left)) || isPlainlyWrong(left, right))) return undefined;
  const sums = sumSteps(left, settings.beat).map((one): Step => ({ step: 'sum', ...one }));
  return {
    asked: { kind: 'true-false', left, right },
    shows: partsText([...left, ...right]),
    sides: [left, right],
    options: wrong ? [{ ...TRUE, misconception: wrong.misconception }, FALSE] : [TRUE, FALSE],
    answer: wrong ? 1 : 0,
    steps: [...sums, { step: 'other-side', beats: totalBeats(right, settings.beat) }],
  };
};
