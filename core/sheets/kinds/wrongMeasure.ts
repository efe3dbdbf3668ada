import type { Random } from '../../random.ts';
import { type Fraction, compare, div, equal, frac, mul, sub, sum } from '../../rhythm/fraction.ts';
import { meterLength } from '../../rhythm/meter.ts';
import type { Item } from '../../rhythm/pattern.ts';
import { itemLength } from '../../rhythm/place.ts';
import { type NoteValue, VALUE, lengthOf, valueOfLength } from '../../rhythm/value.ts';
import { addedUp, byRhythm, rhythmFor } from '../material.ts';
import type { SheetMaker } from '../sheetQuestion.ts';

const MEASURES = 4;
/** No more than so many beats are missing or too many. */
const MOST_OFF = frac(2);

/** An item written as something else; undefined where it leaves it as long. */
type Slip = (item: Item) => readonly Item[] | undefined;

function valued(item: Item, value: NoteValue | undefined): readonly Item[] | undefined {
  return item.kind === 'tuplet' || !value ? undefined : [{ ...item, value }];
}

/** Ways a measure goes wrong: each is how a child with a misconception would have it full. */
const SLIPS: readonly Slip[] = [
  // A dot forgotten, and one put where none belongs.
  (item) => (item.kind !== 'tuplet' && item.value.dots === 1 ? valued(item, { ...item.value, dots: 0 }) : undefined),
  (item) =>
    item.kind !== 'tuplet' && item.value.dots === 0 && 'whq'.includes(item.value.base)
      ? valued(item, { ...item.value, dots: 1 })
      : undefined,
  // A rest that was given no time, and one that was not written.
  (item) => (item.kind === 'rest' ? [item, item] : undefined),
  (item) => (item.kind === 'rest' ? [] : undefined),
  // Twice and half as long.
  (item) => (item.kind === 'tuplet' ? undefined : valued(item, valueOfLength(mul(lengthOf(item.value), frac(2))))),
  (item) => (item.kind === 'tuplet' ? undefined : valued(item, valueOfLength(mul(lengthOf(item.value), frac(1, 2))))),
];

interface Wrong {
  readonly items: readonly Item[];
  readonly off: Fraction;
}

/** All ways in which a measure can be wrong, by so much. */
function waysWrong(items: readonly Item[], allowed: (value: NoteValue) => boolean): Wrong[] {
  const full = sum(items.map(itemLength));
  return items.flatMap((item, i) =>
    SLIPS.flatMap((slip): Wrong[] => {
      const instead = slip(item);
      if (!instead || !instead.every((one) => one.kind === 'tuplet' || allowed(one.value))) return [];
      const all = [...items.slice(0, i), ...instead, ...items.slice(i + 1)];
      const off = sub(sum(all.map(itemLength)), full);
      return all.length === 0 || off.n === 0 ? [] : [{ items: all, off }];
    }),
  );
}

function oneOf(ways: readonly Wrong[], beat: Fraction, random: Random): Wrong | undefined {
  const most = mul(beat, MOST_OFF);
  const near = ways.filter(({ off }) => compare(off.n < 0 ? frac(-off.n, off.d) : off, most) <= 0);
  if (near.length === 0) return undefined;
  // By how much first, so that the commonest way does not always give the same amount.
  const amounts = [...new Set(near.map(({ off }) => `${off.n}/${off.d}`))];
  const amount = random.pick(amounts);
  return random.pick(near.filter(({ off }) => `${off.n}/${off.d}` === amount));
}

/** Which measure does not add up, and by how much? A point for each. */
export const wrongMeasure: SheetMaker<'wrong-measure'> = {
  make: (settings, random, nth) => {
    const right = rhythmFor(settings, random, nth, MEASURES);
    if (!right || right.pickup || right.measures.length < 2) return undefined;
    // Only where all the others are full can one be the wrong one.
    const full = right.measures.every(
      ({ items, meter, rests }) => rests === undefined && equal(sum(items.map(itemLength)), meterLength(meter)),
    );
    const { meter } = right.measures[0]!;
    if (!full || right.measures.some((measure) => measure.meter.lower !== meter.lower)) return undefined;
    const index = random.below(right.measures.length);
    const beat = addedUp(meter);
    const bases = new Set(
      right.measures.flatMap(({ items }) => items.map((item) => (item.kind === 'tuplet' ? 'e' : item.value.base))),
    );
    const allowed = ({ base }: NoteValue) => bases.has(base) || base === 'h' || base === 'q';
    const wrong = oneOf(waysWrong(right.measures[index]!.items, allowed), VALUE[beat].of, random);
    if (!wrong) return undefined;
    const measures = right.measures.map((measure, i) => (i === index ? { ...measure, items: wrong.items } : measure));
    return {
      kind: 'wrong-measure',
      pattern: { pickup: false, measures },
      index,
      off: div(wrong.off, VALUE[beat].of),
      beat,
    };
  },
  key: byRhythm.key,
  points: () => 2,
  // Half a beat is harder to find than a whole one.
  difficulty: (question) => byRhythm.difficulty(question) + (question.off.d > 1 ? 1 : 0),
  usual: 6,
};
