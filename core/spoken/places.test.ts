import { describe, expect, it } from 'vitest';
import { add, compare, div, equal, mixed, sub } from '../rhythm/fraction.ts';
import { type Meter, meterLength } from '../rhythm/meter.ts';
import { valueText } from '../rhythm/value.ts';
import { fromTicks, soundingTicks } from './ticks.ts';
import { type Place, Places } from './places.ts';

const METERS: readonly Meter[] = [
  { upper: 4, lower: 4 },
  { upper: 3, lower: 4 },
  { upper: 2, lower: 2 },
  { upper: 6, lower: 8 },
  { upper: 7, lower: 8, groups: [2, 2, 3] },
  { upper: 3, lower: 8 },
];
const name = ({ upper, lower }: Meter) => `${upper}/${lower}`;

/** Every place that can be reached from the bar line. */
function reached(places: Places): Place[] {
  const found = new Set<Place>([places.place(0)]);
  for (const place of found) for (const { asNote } of places.fittingAt(place)) found.add(asNote.to);
  return [...found];
}

describe.each(METERS.map((meter) => [name(meter), meter] as const))('the places of %s', (_name, meter) => {
  const places = new Places(meter, undefined);
  const all = reached(places);

  it('are each one object with a number of its own', () => {
    expect(new Set(all.map(({ id }) => id)).size).toBe(all.length);
    for (const { at, tuplet } of all) expect(all).toContain(places.place(at, tuplet && { ...tuplet }));
  });

  it('every value ends inside the measure, and a tuplet where its group ends', () => {
    for (const place of all) {
      for (const { length, tuplet, asNote } of places.fittingAt(place)) {
        expect(asNote.to.at).toBe(place.at + length);
        expect(asNote.to.at).toBeLessThanOrEqual(places.full);
        const end = tuplet && tuplet.at + tuplet.kind.ticks;
        // The group is left at its end, and only there.
        expect(asNote.to.tuplet).toEqual(end !== undefined && asNote.to.at < end ? tuplet : undefined);
      }
    }
  });

  it('is counted there as long as it sounds', () => {
    const beats = (length: ReturnType<typeof fromTicks>) => div(length, places.beat.length);
    for (const place of all) {
      for (const { note, rest, length, tuplet, asNote, asRest, asTied } of places.fittingAt(place)) {
        expect([note.kind, rest.kind, asNote.events[0]!.kind, asTied.events[0]!.kind, asRest.events[0]!.kind]).toEqual([
          'note',
          'rest',
          'note',
          'tied',
          'rest',
        ]);
        expect(equal(note.onset, beats(fromTicks(place.at)))).toBe(true);
        expect(equal(note.length, beats(fromTicks(length)))).toBe(true);
        expect(soundingTicks(note.value, tuplet?.kind)).toBe(length);
        expect(places.counted('note', place.at, length, note.value, tuplet)).toBe(note);
        if (note.tuplet) {
          expect(compare(note.onset, note.tuplet.onset)).toBeGreaterThanOrEqual(0);
          expect(compare(add(note.onset, note.length), add(note.tuplet.onset, note.tuplet.length))).toBeLessThanOrEqual(
            0,
          );
        }
      }
    }
  });

  it('a tied note costs more than a note struck, and a rest as much', () => {
    for (const { asNote, asTied, asRest } of places.fittingAt(places.place(0))) {
      expect(asTied.cost).toBeGreaterThan(asNote.cost);
      expect(asRest.cost).toBe(asNote.cost);
    }
  });

  it('a measure of rest is as long as the measure, whatever value is written', () => {
    const rest = places.measureRest(3);
    expect([rest.restNumber, rest.kind, rest.value]).toEqual([3, 'rest', { base: 'w', dots: 0 }]);
    expect(sub(rest.written, meterLength(meter)).n).toBe(0);
    // It does not change what a rest of the same length is.
    const same = places.fittingAt(places.place(0)).find(({ length, tuplet }) => length === places.full && !tuplet);
    if (same)
      expect([same.rest.restNumber, valueText(same.rest.value)]).toEqual([undefined, valueText(same.note.value)]);
  });
});

it('another counted value changes the beats, not the places', () => {
  const [usual, inEighths] = [new Places({ upper: 6, lower: 8 }, undefined), new Places({ upper: 6, lower: 8 }, 'e')];
  const quarter = (places: Places) =>
    places.fittingAt(places.place(0)).find(({ note, tuplet }) => valueText(note.value) === 'q' && !tuplet)!;
  expect([mixed(quarter(usual).note.length), mixed(quarter(inEighths).note.length)]).toEqual(['2/3', '2']);
  expect(quarter(usual).length).toBe(quarter(inEighths).length);
});
