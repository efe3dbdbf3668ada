import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { mergedOrder } from './services/shelfOrder.ts';

const list = (text: string) => [...text];

describe('two who put one list into order', () => {
  it.each([
    ['only the one', 'abcd', 'abcd', 'bcda', 'bcda', ''],
    ['only the other', 'abcd', 'dabc', 'abcd', 'dabc', ''],
    ['each another thing', 'abcdef', 'fabcde', 'acbdef', 'facbde', ''],
    ['both the same thing to the same place', 'abcd', 'dabc', 'dabc', 'dabc', ''],
    ['both the same thing elsewhere: it stays, and is told', 'abcde', 'eabcd', 'aebcd', 'eabcd', 'e'],
    ['and what else was moved is moved', 'abcdefg', 'gabcdef', 'bcagdef', 'gbcadef', 'g'],
    ['what is new stays where it is', 'abc', 'abxc', 'cab', 'cabx', ''],
    ['what is gone is left out', 'abcd', 'abd', 'dcab', 'dab', ''],
  ])('%s', (_what, was, now, wanted, order, both) => {
    expect(mergedOrder(list(was), list(now), list(wanted))).toEqual({ order: list(order), both: list(both) });
  });
  it('loses nothing and doubles nothing; whoever is alone gets what was wanted', () => {
    const order = (ids: readonly string[]) => fc.shuffledSubarray([...ids], { minLength: ids.length });
    const ids = list('abcdefgh');
    fc.assert(
      fc.property(order(ids), order(ids), order(ids), (was, now, wanted) => {
        expect(mergedOrder(was, now, wanted).order.sort()).toEqual(ids);
        expect(mergedOrder(was, was, wanted)).toEqual({ order: wanted, both: [] });
        expect(mergedOrder(was, now, was)).toEqual({ order: now, both: [] });
      }),
    );
  });
});
