import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyPattern, patternOf } from './arbitrary.test-helper.ts';
import { beamSigns, beams, isBeamedWhole } from './beams.ts';
import { placePattern } from './place.ts';
import { VALUE } from './value.ts';

const measureOf = (text: string) => placePattern(patternOf(text))[0]!;
/** "0-3 4-7": the first and last note of each beam. */
const groupsOf = (text: string) =>
  beams(measureOf(text))
    .map((group) => `${group[0]}-${group.at(-1)}`)
    .join(' ');

describe('notes that share a beam', () => {
  it.each([
    ['4/4 e e e e e e e e', '0-3 4-7'],
    ['4/4 q e e e e q', '1-2 3-4'],
    ['4/4 s s s s e e q q', '0-3 4-5'],
    ['4/4 e q e e (e) e e', '5-6'],
    ['6/8 e e e q e', '0-2'],
    ['6/8 e q e e e', '2-4'],
    ['9/8 e e e e e e e e e', '0-2 3-5 6-8'],
    ['7/8[3+2+2] e e e e e e e', '0-2 3-4 5-6'],
    ['2/2 e e e e h', '0-3'],
    ['2/1 e e e e e e e e w', '0-3 4-7'],
    // Meters of eighths and less: by quarters, all of a measure of three, and as their like in eighths.
    ['3/8 e e e', '0-2'],
    ['2/8 e e', '0-1'],
    ['4/8 e e e e', '0-1 2-3'],
    ['4/8 e. s s e s e', '0-1 2-4'],
    ['3/16 s s s', '0-2'],
    ['4/16 s s s s', '0-3'],
    ['5/16 s s s s s', '0-2 3-4'],
    ['7/16 s s s s s s s', '0-1 2-3 4-6'],
    ['13/8 e e e e e e e e e e e e e', '0-1 2-3 4-5 6-7 8-9 10-11'],
    // A tuplet is one group, alone, over as many beats as it goes.
    ['4/4 3{e e e} e e h', '0-2 3-4'],
    ['2/4 5:4{e e e e e}', '0-4'],
    ['4/4 6:4{e e e e e e} e e q', '0-5 6-7'],
    ['4/4 3:2{q e} 3:2{e (e) e} h', ''],
    ['4/4 e 3{s s s} q h', '1-3'],
  ])('%s: %s', (text, groups) => expect(groupsOf(text)).toBe(groups));

  it('are flagged, side by side, and in one beam only', () => {
    fc.assert(
      fc.property(anyPattern, (pattern) => {
        for (const measure of placePattern(pattern)) {
          const all = beams(measure).flat();
          expect(all).toEqual([...new Set(all)].toSorted((a, b) => a - b));
          for (const group of beams(measure)) {
            expect(group).toEqual(group.map((_, k) => group[0]! + k));
            for (const i of group) {
              expect(measure.events[i]!.kind).not.toBe('rest');
              expect(VALUE[measure.events[i]!.value.base].flags).toBeGreaterThan(0);
            }
          }
        }
      }),
    );
  });
});

const SHORT = { begin: 'b', continue: 'c', end: 'e', 'forward hook': '>', 'backward hook': '<' } as const;
/** A word a note, a letter a beam, the longest first. */
const signsOf = (text: string) =>
  [...beamSigns(measureOf(text)).values()].map((signs) => signs.map((sign) => SHORT[sign]).join('')).join(' ');

describe('the beams of a note', () => {
  it.each([
    ['2/4 e e s s s s', 'b e bb cc cc ee'],
    ['2/4 e. s s e.', 'b e< b> e'],
    ['2/4 s e s q', 'b> c e<'],
    ['2/4 e s s s s e', 'b cb ee bb ce e'],
    ['2/4 t t s e q', 'bbb cce ce e'],
    // Between longer notes a hook points to what its note belongs to.
    ['6/8 e. s e q.', 'b c< e'],
    ['6/8 e s e. q.', 'b c> e'],
    ['6/8 s e s e q.', 'b> c c< e'],
    ['2/4 3{e. s e} q', 'b c< e'],
    ['2/4 e.. t q', 'b e<<'],
    ['2/4 s. t e q', 'bb ce< e'],
    // A beam over a half note shows its quarters.
    ['2/2 s s s s s s s s h', 'bb cc cc ce cb cc cc ee'],
    ['2/2 e. s s e. h', 'b c< c> e'],
    ['3/8 s s s s s s', 'bb cc cc cc cc ee'],

    ['4/4 e e e e h', 'b c c e'],
    ['2/4 6:4{s s s s s s} q', 'bb cc cc cc cc ee'],
  ])('%s: %s', (text, signs) => expect(signsOf(text)).toBe(signs));
});

describe('the number of a tuplet', () => {
  it.each([
    ['2/4 3{e e e} q', true],
    ['2/4 5:4{e e e e e}', true],
    ['2/4 3{q e} q', false],
    ['2/4 3{e e (e)} q', false],
    ['2/4 3{(e) e e} q', false],
    ['2/4 3{q q q}', false],
  ])('%s needs no bracket: %s', (text, whole) => {
    const measure = measureOf(text);
    expect(isBeamedWhole(measure, measure.events[0]!.tuplet!)).toBe(whole);
  });
});
