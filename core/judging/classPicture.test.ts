import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { classPictureLines } from '../wording/classPictureWords.ts';
import { classPicture } from './classPicture.ts';
import { judged } from './judged.test-helper.ts';

const TEXT = '4/4 q (q) q e e | q q h';
const AT_60 = {
  right: [0, 2, 3, 3.5, 4, 5, 6],
  clapsTheRest: [0, 1, 2, 3, 3.5, 4, 5, 6],
  leavesOneOut: [0, 2, 3, 3.5, 4, 5],
};
const takeOf = (kind: keyof typeof AT_60) => judged(TEXT, 60, AT_60[kind]);
const US = { naming: 'quarters' } as const;
const UK = { naming: 'crotchets' } as const;

describe('the picture of a class', () => {
  it('says how many had all of it, the hardest note, and what was misread most', () => {
    const picture = classPicture([...(['right', 'clapsTheRest', 'clapsTheRest', 'leavesOneOut'] as const).map(takeOf)]);
    expect(picture).toMatchObject({ takes: 4, allRight: 1 });
    expect(picture.hardest).toMatchObject({ measure: 2, beat: { n: 3, d: 1 }, onTime: 3, missed: 1 });
    expect(picture.commonest).toMatchObject({ code: 'rest-clapped', children: 2, of: 1, example: { measure: 1 } });
    expect(classPictureLines(picture, US)).toEqual([
      '1 of 4 had all of it right.',
      'Measure 2, beat 3: 3 of 4 had it on time; most left it out.',
      'Misread most: a rest clapped, measure 1, beat 2 (2 children).',
    ]);
    expect(classPictureLines(picture, UK)[1]).toMatch(/^Bar 2/);
  });

  it('has nothing to look at where all is right, and says nothing of nobody', () => {
    expect(classPictureLines(classPicture([]), US)).toEqual([]);
    expect(classPictureLines(classPicture([takeOf('right')]), US)).toEqual(['All of it was right.']);
    const all = classPicture([takeOf('right'), takeOf('right')]);
    expect(all).toMatchObject({ hardest: undefined, commonest: undefined, allRight: 2 });
    expect(classPictureLines(all, US)).toEqual(['All 2 had all of it right.']);
  });

  it('of one child who misread alone it says the note, not the child', () => {
    const lines = classPictureLines(classPicture([takeOf('leavesOneOut')]), US);
    expect(lines).toEqual([
      'Nobody yet had all of it right.',
      'Measure 2, beat 3: 0 of 1 had it on time; most left it out.',
    ]);
  });

  it('tells early from late', () => {
    const late = judged(TEXT, 60, [0, 2, 3, 3.5, 4, 5.24, 6]);
    const early = judged(TEXT, 60, [0, 2, 3, 3.5, 4, 4.76, 6]);
    expect(classPictureLines(classPicture([late, late, early]), US)[1]).toMatch(/came too late\.$/);
    expect(classPictureLines(classPicture([late, early, early]), US)[1]).toMatch(/came too early\.$/);
  });

  it('counts every child once at every note', () =>
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...(Object.keys(AT_60) as (keyof typeof AT_60)[])), { minLength: 1 }),
        (kinds) => {
          const { takes, notes, allRight } = classPicture(kinds.map(takeOf));
          expect(takes).toBe(kinds.length);
          for (const { onTime, early, late, missed } of notes) expect(onTime + early + late + missed).toBe(takes);
          expect(allRight).toBe(kinds.filter((kind) => kind === 'right').length);
        },
      ),
      { numRuns: 20 },
    ));
});
