import { type Cell, cellsFor, mayStand } from '../exercises/rhythms/cells.ts';
import { type ElementId, elementsOf } from '../rhythm/elements.ts';
import { type Fraction, frac } from '../rhythm/fraction.ts';
import { type Meter, beatOf, meterKind, meterLength } from '../rhythm/meter.ts';
import type { Item } from '../rhythm/pattern.ts';
import { itemLength, placePattern } from '../rhythm/place.ts';
import { itemText } from '../rhythm/text.ts';
import { leastAtEnd } from './laws.ts';

/**
 * A whole note in ticks: whole numbers for every cell, down to thirty-seconds and triplets of eighths, because adding
 * them is many times faster than adding fractions.
 */
export const WHOLE_TICKS = 96;

/** A cell as patterns are put together from it. Lengths in ticks. */
export interface Brick {
  readonly items: readonly Item[];
  /** Of each item. */
  readonly lengths: readonly number[];
  readonly ticks: number;
  /** The elements that stand in it by itself. */
  readonly elements: ReadonlySet<ElementId>;
  readonly startsWithRest: boolean;
  /** Set down on a beat: the cells it is read in, as text; the notes in it, and those off the beat. */
  readonly cells: readonly string[];
  readonly notes: number;
  readonly offbeats: number;
  /** Whether each note or rest in it is a rest, and how long the rests are together. */
  readonly rests: readonly boolean[];
  readonly restTicks: number;
  /** One note or rest that fills a beat: what everybody can read. */
  readonly plain: boolean;
}

/** A brick, and where in the measure. */
export interface Placement {
  readonly brick: Brick;
  readonly at: number;
  /** What a pattern may end with (rules §11): this note, this rest, or not this. */
  readonly ends: 'note' | 'rest' | 'no';
}

export interface BrickBox {
  readonly meter: Meter;
  /** Ticks of the full measure, and of its counted beat. */
  readonly full: number;
  readonly beat: number;
  readonly bricks: readonly Brick[];
  /** Every brick starts and ends on a beat, so that it is read the same wherever it stands. */
  readonly aligned: boolean;
  /** For each place in the measure, the bricks that may start there … */
  readonly startingAt: readonly (readonly Placement[])[];
  /** … and those that may start there when they are what the pattern is about: also over the middle of a measure. */
  readonly places: readonly Placement[];
}

const ticksOf = (length: Fraction) => (length.n * WHOLE_TICKS) / length.d;

/** The cells a stretch is read in when it starts on a beat: cut where a beat starts and nothing sounds through. */
function cellsOf(texts: readonly string[], lengths: readonly number[], beat: number): string[] {
  const cells: string[] = [];
  let [cell, now] = ['', 0];
  texts.forEach((text, i) => {
    cell += `${text} `;
    now += lengths[i]!;
    if (now % beat !== 0 || text.endsWith('~')) return;
    cells.push(cell);
    cell = '';
  });
  return cell === '' ? cells : [...cells, cell];
}

/** Notes and rests as one brick; what is tied inside them stays so. */
export function brickFrom(items: readonly Item[], meter: Meter): Brick {
  const beat = ticksOf(beatOf(meter).length);
  const texts = items.map(itemText);
  const lengths = items.map((item) => ticksOf(itemLength(item)));
  const [measure] = placePattern({ pickup: false, measures: [{ meter, items }] });
  const { events } = measure!;
  const sounded = events.filter(({ kind }) => kind === 'note');
  const rests = events.filter(({ kind }) => kind === 'rest');
  return {
    items,
    lengths,
    ticks: lengths.reduce((all, length) => all + length, 0),
    elements: new Set(elementsOf({ pickup: false, measures: [{ meter, items }] }).keys()),
    startsWithRest: items[0]?.kind === 'rest',
    cells: cellsOf(texts, lengths, beat),
    notes: sounded.length,
    offbeats: sounded.filter(({ onset }) => ticksOf(onset) % beat !== 0).length,
    rests: events.map(({ kind }) => kind === 'rest'),
    restTicks: rests.reduce((all, { length }) => all + ticksOf(length), 0),
    plain: items.length === 1 && items[0]!.kind === 'note' && lengths[0]! <= beat,
  };
}

function endOf({ items, lengths, ticks }: Brick, at: number, meter: Meter): Placement['ends'] {
  const beat = ticksOf(beatOf(meter).length);
  const [item, length] = [items.at(-1)!, lengths.at(-1)!];
  if ((at + ticks - length) % beat !== 0) return 'no';
  if (item.kind === 'rest') return 'rest';
  return item.kind === 'note' && length >= ticksOf(leastAtEnd(meter)) ? 'note' : 'no';
}

/** In compound meter the dotted quarter is always there; two and three notes in a beat once they, or the meter, are. */
function isKnown({ items, needs }: Cell, elements: ReadonlySet<ElementId>, meter: Meter): boolean {
  if (meterKind(meter) !== 'compound' || items.length === 1 || needs.length > 0) return true;
  const found: ElementId = items.length === 2 ? 'quarter' : 'eighth-pair';
  return elements.has('compound') || elements.has(found);
}

/**
 * What a measure can be filled with.
 * @param elements  those the class may be given; plain quarters are always among them
 */
export function brickBox(meter: Meter, elements: ReadonlySet<ElementId>): BrickBox {
  const known = new Set<ElementId>(['quarter', ...elements]);
  const cells = cellsFor(meter, { elements: known }).filter((cell) => isKnown(cell, elements, meter));
  const all = cells.map((cell) => ({ cell, brick: brickFrom(cell.items, meter) }));
  const beat = ticksOf(beatOf(meter).length);
  const full = ticksOf(meterLength(meter));
  const step = Math.min(beat, ...all.map(({ brick }) => brick.ticks));
  const startingAt: Placement[][] = [];
  const places: Placement[] = [];
  for (let at = 0; at < full; at += step) {
    const from = frac(at, WHOLE_TICKS);
    const placed = ({ brick }: { brick: Brick }) => ({ brick, at, ends: endOf(brick, at, meter) });
    startingAt[at] = all.filter(({ cell }) => mayStand(cell, from, meter)).map(placed);
    places.push(...all.filter(({ cell }) => mayStand(cell, from, meter, true)).map(placed));
  }
  const bricks = all.map(({ brick }) => brick);
  return { meter, full, beat, bricks, aligned: bricks.every(({ ticks }) => ticks % beat === 0), startingAt, places };
}
