import { countPattern } from '../../counting/count.ts';
import { cellsIn } from '../../exercises/rhythms/cells.ts';
import { div, isWhole, mul, sum } from '../../rhythm/fraction.ts';
import { beatOf } from '../../rhythm/meter.ts';
import type { Item, Pattern } from '../../rhythm/pattern.ts';
import { itemLength } from '../../rhythm/place.ts';
import { type NoteValue, VALUES, lengthOf } from '../../rhythm/value.ts';
import { byRhythm, rhythmFor, valueSettings } from '../material.ts';
import type { SheetMaker } from '../sheetQuestion.ts';

const none = () => 0;

/** The values a whole is cut into, the longest first; dotted ones where the class has them, with what fills them up. */
function stripValues(settings: Parameters<typeof valueSettings>[0]): NoteValue[] {
  const { values } = valueSettings(settings);
  const shortest = Math.max(3, ...values.map((letter) => VALUES.findIndex((one) => one.letter === letter)));
  return VALUES.slice(0, shortest + 1).map(({ letter }) => ({ base: letter, dots: 0 }));
}

/** One row of strips: a whole, two halves, four quarters … */
export const strips: SheetMaker<'strips'> = {
  make: (settings, _random, nth) => {
    const value = stripValues(settings)[nth];
    return value && { kind: 'strips', value, many: div({ n: 1, d: 1 }, lengthOf(value)).n };
  },
  key: ({ value }) => value.base,
  points: none,
  difficulty: none,
  usual: 4,
};

/** A sheet to be folded in halves, again and again. */
export const fold: SheetMaker<'fold'> = {
  make: (settings, _random, nth) => {
    // Sixteen parts of a sheet are as narrow as can be folded.
    const folds = Math.min(4, stripValues(settings).length - 1);
    return nth === 0 ? { kind: 'fold', folds } : undefined;
  },
  key: ({ folds }) => String(folds),
  points: none,
  difficulty: none,
  usual: 1,
};

/** A cell as a measure of its own: it is counted from one. */
function cellPattern(items: readonly Item[], pattern: Pattern): Pattern | undefined {
  const { meter } = pattern.measures[0]!;
  const beats = div(sum(items.map(itemLength)), beatOf(meter).length);
  const last = items.at(-1);
  if (!isWhole(beats) || (last?.kind === 'note' && last.tied)) return undefined;
  const units = div(mul(beats, beatOf(meter).length), { n: 1, d: meter.lower });
  return { pickup: false, measures: [{ meter: { upper: units.n, lower: meter.lower }, items }] };
}

/** One cell or one measure on a card; on its back what is said. */
export const cards: SheetMaker<'cards'> = {
  make: (settings, random, nth) => {
    const measure = rhythmFor(settings, random, nth, 1);
    if (!measure || measure.measures[0]!.rests !== undefined) return undefined;
    const { items, meter } = measure.measures[0]!;
    const pattern =
      settings.cards === 'cells' ? cellPattern(random.pick(cellsIn(items, beatOf(meter).length)), measure) : measure;
    return pattern && countPattern(pattern, settings.counts).ok ? { kind: 'cards', pattern } : undefined;
  },
  ...byRhythm,
  points: none,
  usual: 8,
};

/** What a child takes home: one pattern, and where to note when it was clapped. */
export const slip: SheetMaker<'slip'> = {
  make: (settings, random, nth) => {
    const pattern = settings.patterns.length > 0 ? settings.patterns[nth] : rhythmFor(settings, random, nth, 4);
    return pattern && countPattern(pattern, settings.counts).ok ? { kind: 'slip', pattern } : undefined;
  },
  ...byRhythm,
  points: none,
  usual: 1,
};
