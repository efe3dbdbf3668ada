import { describe, expect, it } from 'vitest';
import { scoreOfText } from '../rhythm/arbitraryScore.test-helper.ts';
import { printScore } from '../rhythm/scoreText.ts';
import { freeName, namedAlone, renamed, tidyName, withRests, withoutPart } from './editParts.ts';

const TWO = '4/4 [clap] q q h [stamp] h h';

describe('the parts of a score', () => {
  it('one alone gets a name where it has none, and others keep theirs', () => {
    expect(namedAlone(scoreOfText('4/4 w'), 'clap').parts.map(({ name }) => name)).toEqual(['clap']);
    expect(namedAlone(scoreOfText(TWO), 'pat').parts.map(({ name }) => name)).toEqual(['clap', 'stamp']);
  });

  it('the next one has the first free name, whatever its letters’ case', () => {
    const score = scoreOfText('4/4 [Clap] w [snap] w');
    expect(freeName(score, ['clap', 'stamp', 'snap'])).toBe('stamp');
    expect(freeName(score, ['clap', 'snap'])).toBe('part 3');
    expect(freeName(scoreOfText('4/4 [part 3] w [b] w'), ['b'])).toBe('part 4');
  });

  it.each([
    ['group A', 'group A'],
    ['  [two]   "boats"* ', 'two boats'],
    ['a\nb', 'a b'],
    ['x'.repeat(60), 'x'.repeat(40)],
    ['[]', ''],
  ])('a name can be written in the text: %j', (typed, name) => expect(tidyName(typed)).toBe(name));

  it.each([
    ['shout', '4/4 [clap] q q h [shout] h h'],
    ['STAMP', '4/4 [clap] q q h [STAMP] h h'],
    ['Clap', TWO],
    [' ', TWO],
  ])('the second is called %j', (name, text) => {
    const score = scoreOfText(TWO);
    const next = renamed(score, 1, name);
    expect(printScore(next)).toBe(text);
    if (text === TWO) expect(next).toBe(score);
  });

  it.each([
    ['4/4 [clap] q q h [stamp] h h', 0, '4/4 h h'],
    ['4/4 [clap] q q h [stamp] h h', 1, '4/4 q q h'],
    ['4/4 [a] w | w [b]* h h [c]* q q h', 0, '4/4 [b] h h | h h [c] q q h | q q h'],
    ['4/4 [a] w | w [b]* h h [c]* q q h', 2, '4/4 [a] w | w [b]* h h'],
  ])('%s without the one at %i', (text, index, left) =>
    expect(printScore(withoutPart(scoreOfText(text), index))).toBe(left),
  );

  it('the last one that is left has no name', () =>
    expect(withoutPart(scoreOfText(TWO), 0).parts.map(({ name }) => name)).toEqual(['']));

  it('an empty one has the same measures, until there are four', () => {
    const empty = withRests(scoreOfText('3/4 [a] ^ q | h. | h [b] (q) | (h.) | h'), 'c');
    expect(empty.ok && printScore(empty.score)).toBe('3/4 [a] ^ q | h. | h [b] (q) | (h.) | h [c] (q) | (M1) | (h)');
    const full = scoreOfText('4/4 [a] w [b] w [c] w [d] w');
    expect(withRests(full, 'e')).toEqual({ ok: false, trouble: { code: 'too-many' } });
  });
});
