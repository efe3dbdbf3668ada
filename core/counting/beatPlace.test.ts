import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { add, compare, equal, frac, mul } from '../rhythm/fraction.ts';
import { patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { placePattern } from '../rhythm/place.ts';
import { beatsHeld, beatsInside, placeOf, pointsInside, smallHold, vowelOf } from './beatPlace.ts';
import { eventsOf } from './count.ts';

const eventsIn = (text: string) => eventsOf(placePattern(patternOf(text))).flat();
/** A note of any onset and length, in counted beats. */
const note = (onset: ReturnType<typeof frac>, length: ReturnType<typeof frac>) => ({
  ...eventsIn('4/4 q q q q')[0]!,
  onset,
  length,
});
const time = (least: number) =>
  fc.tuple(fc.integer({ min: least, max: 40 }), fc.constantFrom(1, 2, 3, 4, 6, 8, 12)).map(([n, d]) => frac(n, d));

describe('what a note lasts through', () => {
  it('beats and points are those that lie in it', () => {
    fc.assert(
      fc.property(time(0), time(1), fc.constantFrom(frac(1), frac(1, 2), frac(1, 3)), (onset, length, step) => {
        const event = note(onset, length);
        const end = add(onset, length);
        const inside = (point: ReturnType<typeof frac>, own: boolean) =>
          compare(point, end) < 0 && (compare(point, onset) > 0 || (own && equal(point, onset)));
        const all = (unit: ReturnType<typeof frac>, own: boolean) =>
          Array.from({ length: 300 }, (_, k) => mul(frac(k), unit)).filter((point) => inside(point, own));
        expect(pointsInside(event, step)).toEqual(all(step, false));
        expect(pointsInside(event, step, true)).toEqual(all(step, true));
        expect(beatsInside(event).map(({ beat }) => frac(beat - 1))).toEqual(all(frac(1), false));
        expect(beatsHeld(event).map(({ beat }) => frac(beat - 1))).toEqual(all(frac(1), true));
        for (const { beat, full } of beatsHeld(event)) expect(full).toBe(compare(frac(beat), end) <= 0);
      }),
    );
  });
  it.each([
    [0, '4/4 h. q', [2, 3], [true, true]],
    [0, '4/4 q. e h', [2], [false]],
    [1, '4/4 e q. h', [2], [true]],
    [0, '6/8 h.', [2], [true]],
  ] as const)('event %i of %s: beats %j', (index, text, beats, full) => {
    const inside = beatsInside(eventsIn(text)[index]!);
    expect(inside.map(({ beat }) => beat)).toEqual(beats);
    expect(inside.map((held) => held.full)).toEqual(full);
  });
});

describe('the place in the beat', () => {
  it.each([
    ['4/4 s s s s h.', ['beat', 'quarter1', 'half', 'quarter3', 'beat']],
    ['6/8 s s s s s s q.', ['beat', 'sixth1', 'third1', 'sixth3', 'third2', 'sixth5', 'beat']],
    ['4/4 3{e e e} h.', ['beat', 'third1', 'third2', 'beat']],
    ['4/4 3{q q q} h', ['beat', 'third2', 'third1', 'beat']],
    ['6/8 2:3{e e} q.', ['beat', 'half', 'beat']],
    ['4/4 5:4{s s s s s} h.', ['beat', undefined, undefined, undefined, undefined, 'beat']],
    ['4/4 t t t t e h.', ['beat', undefined, 'quarter1', undefined, 'half', 'beat']],
  ] as const)('%s', (text, places) => expect(eventsIn(text).map((event) => placeOf(event).place)).toEqual(places));
});

describe('words', () => {
  it.each([
    ['di', 'i'],
    ['tom', 'o'],
    ['ta', 'a'],
    ['tri', 'i'],
    ['sh', 'sh'],
    ['schön', 'ö'],
    ['otter', 'e'],
  ])('the vowel of “%s” is “%s”', (syllable, vowel) => expect(vowelOf(syllable)).toBe(vowel));
  it.each([
    [3, '-₃'],
    [12, '-₁₂'],
  ])('a hold that ends inside beat %i is %s', (beat, sign) => expect(smallHold(beat)).toBe(sign));
});
