import { type Cell, cellsFor, mayStand } from '../exercises/rhythms/cells.ts';
import { ELEMENT_IDS } from '../rhythm/elements.ts';
import { type Fraction, ZERO, add, compare, mixed } from '../rhythm/fraction.ts';
import { type Meter, meterLength } from '../rhythm/meter.ts';
import type { Measure } from '../rhythm/pattern.ts';
import { itemText } from '../rhythm/text.ts';

/** More are counted, but not written out. */
export const MOST_FILLS = 200;

export interface EveryFill {
  /** In the order of the chosen cells, the first one first: like numbers that are counted up. */
  readonly measures: readonly Measure[];
  /** How many there are in all. */
  readonly all: number;
}

const textOf = ({ items }: Cell) => items.map(itemText).join(' ');

/** The cells that can stand in a meter, as rhythm text, in the order of the elements they need. */
export function cellTexts(meter: Meter): string[] {
  const cells = cellsFor(meter, { elements: new Set(ELEMENT_IDS) });
  return cells.filter(({ length }) => compare(length, meterLength(meter)) <= 0).map(textOf);
}

/**
 * Every way to fill a measure from chosen cells.
 * @param texts  cells of `cellTexts`
 * @example everyFill(4/4, ['h', '(h)'])  // h h, h (h), (h) h, (h) (h)
 */
export function everyFill(meter: Meter, texts: readonly string[], most = MOST_FILLS): EveryFill {
  const table = cellsFor(meter, { elements: new Set(ELEMENT_IDS) });
  const cells = texts.flatMap((text) => table.find((cell) => textOf(cell) === text) ?? []);
  const full = meterLength(meter);
  const counts = new Map<string, number>();
  const fitting = (at: Fraction) => cells.filter((cell) => mayStand(cell, at, meter, true));
  const ways = (at: Fraction): number => {
    if (compare(at, full) === 0) return 1;
    const key = mixed(at);
    const known = counts.get(key);
    if (known !== undefined) return known;
    const count = fitting(at).reduce((all, { length }) => all + ways(add(at, length)), 0);
    counts.set(key, count);
    return count;
  };
  const measures: Measure[] = [];
  const write = (at: Fraction, items: Measure['items']): void => {
    if (measures.length === most || ways(at) === 0) return;
    if (compare(at, full) === 0) measures.push({ meter, items });
    else for (const cell of fitting(at)) write(add(at, cell.length), [...items, ...cell.items]);
  };
  write(ZERO, []);
  return { measures, all: ways(ZERO) };
}
