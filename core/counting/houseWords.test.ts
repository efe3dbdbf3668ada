import { describe, expect, it } from 'vitest';
import { checkHouseWords } from './houseWords.ts';
import { COUNTING_SYSTEMS } from './countingSystems.ts';
import { checkWordSet, HARBOUR_ANIMALS } from './wordSet.ts';

describe('house words', () => {
  it.each([
    ['numbers', { half: 'and' }, 0, 0],
    ['numbers', { half: '' }, 1, 0],
    ['numbers', { half: 'a n' }, 1, 0],
    ['numbers', { colour: 'red' }, 1, 0],
    ['numbers', { half: 'e' }, 0, 1],
    ['ta', { dottedQuarter: 'ta' }, 0, 1],
    ['ta', { quarterRest: 'hush' }, 0, 0],
    ['numbers-te', {}, 0, 0],
  ] as const)('%s with %j: %i refused, %i alike', (school, own, refused, alike) => {
    const found = checkHouseWords(COUNTING_SYSTEMS()[school], own);
    expect([found.refused.length, found.alike.length]).toEqual([refused, alike]);
  });
  it('names both places', () =>
    expect(checkHouseWords(COUNTING_SYSTEMS().numbers, { half: 'e' }).alike[0]).toEqual({
      keys: ['quarter1', 'half'],
      word: 'e',
    }));
});

describe('word sets', () => {
  it('the one that ships fits', () => expect(checkWordSet(HARBOUR_ANIMALS())).toEqual([]));
  it.each([
    ['e e', 'crab', '“crab” has 1 syllable for 2 notes'],
    ['q', 'ot-ter', '“ot-ter” has 2 syllables for 1 note'],
    ['e e', '', 'a word is missing'],
    ['e x', 'ot-ter', 'cannot be read'],
    ['e e', 'ot--ter', 'a hyphen with no syllable'],
    ['q', 'crab-', 'a hyphen with no syllable'],
    ['q', 'sea crab', 'one word without spaces'],
    ['e e', '(ot-ter)', 'one word without spaces'],
    ['(e) e', 'ot-ter', 'cannot be read'],
  ])('%s: “%s”: %s', (cell, word, sentence) =>
    expect(checkWordSet({ title: 'x', cells: { [cell]: word } })[0]!.reason).toContain(sentence),
  );
});
