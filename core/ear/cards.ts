import { cellsIn } from '../exercises/rhythms/cells.ts';
import { changesOf } from '../exercises/rhythms/changes.ts';
import { type Vocabulary, fits } from '../exercises/rhythms/vocabulary.ts';
import { reversedItems } from '../leading/backwards.ts';
import { randomFrom } from '../random.ts';
import { type Fraction, ZERO, add, compare, div, floor, sub, sum, toNumber } from '../rhythm/fraction.ts';
import { type Meter, beatOf, meterLength } from '../rhythm/meter.ts';
import type { Item, Measure, Pattern } from '../rhythm/pattern.ts';
import { itemLength, unfold } from '../rhythm/place.ts';
import { soundKey } from '../rhythm/soundings.ts';
import { spell, writeMeasure } from '../rhythm/spell.ts';

/** A piece of a pattern on a card of its own. */
export interface Card {
  readonly items: readonly Item[];
  /** Turned over: it is clapped from memory. */
  readonly faceDown?: true;
}

export type CardSize = 'measures' | 'cells';

/** The cards of a pattern: its measures, or what stands between two beats that nothing sounds over. */
export function cardsOf(pattern: Pattern, size: CardSize): Card[] {
  return unfold(pattern).measures.flatMap((measure): Card[] => {
    const items = measure.rests === undefined ? measure.items : restFor(meterLength(measure.meter), measure.meter);
    if (size === 'measures') return [{ items }];
    return cellsIn(items, beatOf(measure.meter).length).map((cell) => ({ items: cell }));
  });
}

function restFor(length: Fraction, meter: Meter, from: Fraction = ZERO): Item[] {
  return spell(from, length, beatOf(meter), 'rest').map((value): Item => ({ kind: 'rest', value }));
}

export function moveCard(cards: readonly Card[], from: number, to: number): readonly Card[] {
  const card = cards[from];
  if (!card || to < 0 || to >= cards.length) return cards;
  return cards.toSpliced(from, 1).toSpliced(to, 0, card);
}

export function swapCards(cards: readonly Card[], a: number, b: number): readonly Card[] {
  const [one, two] = [cards[a], cards[b]];
  return one && two ? cards.with(a, two).with(b, one) : cards;
}

export function turnCard(cards: readonly Card[], at: number): readonly Card[] {
  const card = cards[at];
  if (!card) return cards;
  const { faceDown, ...open } = card;
  return cards.with(at, faceDown ? open : { ...card, faceDown: true });
}

/** Cards laid anew, as long as those before them: what lies where one was turned over is turned over. */
export function turnedAs(before: readonly Card[], cards: readonly Card[]): readonly Card[] {
  const hidden = spansOf(before).filter(({ card }) => card.faceDown);
  return spansOf(cards).map(({ card, from, to }): Card => {
    const inside = hidden.some((one) => compare(one.from, to) < 0 && compare(from, one.to) < 0);
    return inside ? { ...card, faceDown: true } : card;
  });
}

/** Measures of the row, from 0, of which anything is turned over. */
export function coveredMeasures(cards: readonly Card[], meter: Meter): number[] {
  const length = meterLength(meter);
  const hidden = spansOf(cards).filter(({ card }) => card.faceDown);
  const places = hidden.flatMap(({ from, to }) => {
    const first = floor(div(from, length));
    const end = Math.ceil(toNumber(div(to, length)));
    return Array.from({ length: end - first }, (_, i) => first + i);
  });
  return [...new Set(places)];
}

/** Where each card of a row begins and ends, in whole notes. */
function spansOf(cards: readonly Card[]): { card: Card; from: Fraction; to: Fraction }[] {
  let at = ZERO;
  return cards.map((card) => {
    const from = at;
    at = add(at, lengthOfCard(card));
    return { card, from, to: at };
  });
}

/** Its notes and rests in reverse. */
export function reverseCard(cards: readonly Card[], at: number): readonly Card[] {
  const card = cards[at];
  return card ? cards.with(at, { ...card, items: reversedItems(card.items) }) : cards;
}

/** As long a silence instead; a card that is silent already stays as it is. */
export function silenceCard(cards: readonly Card[], at: number, meter: Meter): readonly Card[] {
  const card = cards[at];
  return card ? cards.with(at, { ...card, items: restFor(lengthOfCard(card), meter) }) : cards;
}

export function lengthOfCard({ items }: Card): Fraction {
  return sum(items.map(itemLength));
}

/**
 * The row of cards as a pattern: measures are filled one after the other; what crosses a bar line is tied over it, and
 * what is left of the last measure is rests.
 * @returns undefined while no card lies there
 */
export function cardsPattern(cards: readonly Card[], meter: Meter): Pattern | undefined {
  const measures: Measure[] = [];
  const waiting = cards.flatMap((card) => card.items);
  while (waiting.length > 0) {
    const items: Item[] = [];
    let left = meterLength(meter);
    while (waiting.length > 0 && compare(left, ZERO) > 0) {
      const [now, rest] = cut(waiting.shift()!, left, meter);
      items.push(...now);
      waiting.unshift(...rest);
      left = sub(left, sum(now.map(itemLength)));
    }
    if (compare(left, ZERO) > 0) items.push(...restFor(left, meter, sub(meterLength(meter), left)));
    measures.push(measureOf(items, meter));
  }
  return measures.length === 0 ? undefined : untieEnds({ pickup: false, measures });
}

/** A measure of nothing but rests has a sign of its own. */
function measureOf(items: readonly Item[], meter: Meter): Measure {
  if (items.every(({ kind }) => kind === 'rest'))
    return writeMeasure(meter, [{ kind: 'rest', from: ZERO, to: meterLength(meter) }]);
  return { meter, items };
}

/** What of a note or rest still fits in a measure, and what goes on in the next; a tuplet is never cut. */
function cut(item: Item, left: Fraction, meter: Meter): [now: Item[], rest: Item[]] {
  const length = itemLength(item);
  if (compare(length, left) <= 0 || item.kind === 'tuplet') return [[item], []];
  const from = sub(meterLength(meter), left);
  const kind = item.kind;
  const pieces = (at: Fraction, long: Fraction) => spell(at, long, beatOf(meter), kind);
  const tie = (values: ReturnType<typeof pieces>, last: boolean): Item[] =>
    values.map((value, i): Item => {
      if (kind === 'rest') return { kind, value };
      const { tied, ...note } = item;
      const on = i < values.length - 1 || !last || tied;
      return { ...note, value, ...(on ? { tied: true as const } : {}) };
    });
  return [tie(pieces(from, left), false), tie(pieces(ZERO, sub(length, left)), true)];
}

/** A tie that no longer leads to a note is left out. */
function untieEnds(pattern: Pattern): Pattern {
  const measures = pattern.measures.map((measure, m): Measure => {
    const next = pattern.measures[m + 1];
    const items = measure.items.map((item, i): Item => {
      if (item.kind !== 'note' || !item.tied) return item;
      const after = measure.items[i + 1] ?? next?.items[0];
      if (after?.kind === 'note') return item;
      const { tied: _tied, ...free } = item;
      return free;
    });
    return { ...measure, items };
  });
  return { ...pattern, measures };
}

/**
 * A neighbour at one step: the pattern with one thing changed, made of nothing the class has not met.
 * @returns undefined where nothing can be changed so
 */
export function changeOneThing(pattern: Pattern, vocabulary: Vocabulary, seed: number): Pattern | undefined {
  const sound = soundKey(pattern);
  const neighbours = changesOf(pattern).filter(
    (change) => fits(change.pattern, vocabulary) && soundKey(change.pattern) !== sound,
  );
  return neighbours.length === 0 ? undefined : randomFrom(seed).pick(neighbours).pattern;
}

/** How many beats a card lasts. */
export function beatsOfCard(card: Card, meter: Meter): Fraction {
  return div(lengthOfCard(card), beatOf(meter).length);
}
