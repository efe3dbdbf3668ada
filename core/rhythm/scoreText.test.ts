import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { patternOf } from './arbitrary.test-helper.ts';
import { anyScore, scoreOfText } from './arbitraryScore.test-helper.ts';
import { attacksOf, disagreements, leadingPart, partNamed, sharedAttacks } from './score.ts';
import { parseScore, printScore } from './scoreText.ts';
import { mixed, toNumber } from './fraction.ts';
import { errorSentence, parseRhythm, printRhythm } from './text.ts';

const partsOf = (text: string) =>
  scoreOfText(text).parts.map(({ name, pattern, ostinato }) => [name, printRhythm(pattern), ostinato]);

describe('a text in parts', () => {
  it.each<[string, (string | number | undefined)[][]]>([
    [
      '4/4 [clap] q q h | q e e h [stamp] h h | h h',
      [
        ['clap', '4/4 q q h | q e e h', undefined],
        ['stamp', '4/4 h h | h h', undefined],
      ],
    ],
    [
      '[A] 3/4 q q q | h. [B] h. | 3/4 (M1)',
      [
        ['A', '3/4 q q q | h.', undefined],
        ['B', '3/4 h. | (M1)', undefined],
      ],
    ],
    [
      '4/4 [clap] q q h | w | w | (M1) [stamp]* h h | q q q q',
      [
        ['clap', '4/4 q q h | w | w | (M1)', undefined],
        ['stamp', '4/4 h h | q q q q | h h | q q q q', 2],
      ],
    ],
    [
      '4/4 ^ [clap] q | q q h | h. [stamp]* h h',
      [
        ['clap', '4/4 ^ q | q q h | h.', undefined],
        ['stamp', '4/4 ^ (q) | h h | h h', 1],
      ],
    ],
    [
      '4/4 [clap] ^ e e | w [stamp]* ^ q | h h [pat] q | w',
      [
        ['clap', '4/4 ^ e e | w', undefined],
        ['stamp', '4/4 ^ q | h h', 1],
        ['pat', '4/4 ^ q | w', undefined],
      ],
    ],
    [
      '4/4 [clap] |: q q h :| 3/4 #7 "A" h. | 4/4 w [stamp] w | h. | (M1)',
      [
        ['clap', '4/4 |: q q h :| 3/4 #7 "A" h. | 4/4 w', undefined],
        ['stamp', '4/4 |: w :| 3/4 #7 "A" h. | 4/4 (M1)', undefined],
      ],
    ],
    [
      '4/4 [clap] q q h |: w :| w [stamp] (M3)',
      [
        ['clap', '4/4 q q h |: w :| w', undefined],
        ['stamp', '4/4 (M1) |: (M1) :| (M1)', undefined],
      ],
    ],
    [
      '4/4 [a] |: (M2) :| w [b] q q h | h h | w',
      [
        ['a', '4/4 |: (M2) :| w', undefined],
        ['b', '4/4 |: q q h | h h :| w', undefined],
      ],
    ],
    [
      '7/8[2+2+3] [2] e e e e e e e [3] (M1)',
      [
        ['2', '7/8[2+2+3] e e e e e e e', undefined],
        ['3', '7/8[2+2+3] (M1)', undefined],
      ],
    ],
    [
      '4/4 [beat]* q q q q [clap] w || [b] h h ||',
      [
        ['beat', '4/4 q q q q', 1],
        ['clap', '4/4 w', undefined],
        ['b', '4/4 h h', undefined],
      ],
    ],
    ["4/4 q'[x]' q h | w", [['', "4/4 q'[x]' q h | w", undefined]]],
  ])('%s', (text, parts) => {
    expect(partsOf(text)).toEqual(parts);
    expect(scoreOfText(printScore(scoreOfText(text)))).toEqual(scoreOfText(text));
  });

  it.each([
    ['4/4 [clap] q q h | q e e h [stamp] h h | h h', '4/4 [clap] q q h | q e e h [stamp] h h | h h'],
    ['[stamp]* 4/4 h h [clap] q q h|w', '4/4 [stamp]* h h [clap] q q h | w'],
    ['4/4 [clap] |: q q h :| [stamp] |: w :|', '4/4 [clap] |: q q h :| [stamp] w'],
    ['4/4 ^ [clap] q | w [stamp]* ^ (q) | h h', '4/4 [clap] ^ q | w [stamp]* h h'],
    ['4/4 [ Group   A ] w [group b] w', '4/4 [Group A] w [group b] w'],
    ['4/4 [1] w [2] h h', '[1] 4/4 w [2] h h'],
    ['q q h', '4/4 q q h'],
  ])('%s is printed %s', (text, printed) => expect(printScore(scoreOfText(text))).toBe(printed));

  it.each([
    [
      '4/4 [clap] q q h | w [stamp] h h',
      'line 1, column 33: expected measure 2 of [stamp], as measure 2 of [clap] (line 1, column 20), found the end',
    ],
    [
      '4/4 [clap] q q h | w [stamp] h h | w | w',
      'line 1, column 40: expected no measure 3 of [stamp] (line 1, column 40): [clap] ends with ' +
        'measure 2 of [clap] (line 1, column 20), found “w”',
    ],
    [
      '4/4 [clap] q q h | w [stamp] h h | 3/4 h.',
      'line 1, column 36: expected 4/4 in measure 2 of [stamp] (line 1, column 40), as in ' +
        'measure 2 of [clap] (line 1, column 20), found “3”',
    ],
    [
      '[clap] 4/4 q q h |: w :|\n[stamp] |: h h :| w',
      'line 2, column 12: expected no repeat |: in measure 1 of [stamp] (line 2, column 12), as ' +
        'in measure 1 of [clap] (line 1, column 12), found “h”',
    ],
    [
      '4/4 [clap] |: q q h :| w [stamp] |: h h | w :|',
      'line 1, column 37: expected the repeat :| in measure 1 of [stamp] (line 1, column 37), as ' +
        'in measure 1 of [clap] (line 1, column 15), found “h”',
    ],
    [
      '4/4 [clap] q q h | w | w [stamp]* h h | w',
      'line 1, column 35: expected a number of measures in [stamp] that divides the 3 of [clap]: ' +
        'measure 2 of [stamp] (line 1, column 41) is its last, measure 3 of [clap] (line 1, column ' +
        '24) the last there, found “h”',
    ],
    [
      '4/4 [clap] w [stamp] ^ h | w',
      'line 1, column 28: expected no measure 1 of [stamp] (line 1, column 28): [clap] ends with ' +
        'measure 1 of [clap] (line 1, column 12), found “w”',
    ],
    [
      '4/4 [clap] w | w [stamp] ^ h | w',
      'line 1, column 28: expected no pickup ^ before measure 0 of [stamp] (line 1, column 28): ' +
        'measure 1 of [clap] (line 1, column 12) is no pickup, found “h”',
    ],
    [
      '4/4 [clap] ^ q | w [stamp] h | w',
      'line 1, column 28: expected a pickup in measure 0 of [stamp] (line 1, column 28) that is ' +
        'as long as that in measure 0 of [clap] (line 1, column 14), found “h”',
    ],
    [
      '4/4 [clap] #3 w | "A" w [stamp] w | "B" w',
      'line 1, column 41: expected "A" in measure 2 of [stamp] (line 1, column 41), as in ' +
        'measure 2 of [clap] (line 1, column 23), found “w”',
    ],
    [
      '4/4 [clap] #3 w [stamp] #4 w',
      'line 1, column 28: expected #3 in measure 1 of [stamp] (line 1, column 28), as in measure ' +
        '1 of [clap] (line 1, column 15), found “w”',
    ],
    [
      '4/4 [clap] w | w [stamp] w | "B" w',
      'line 1, column 34: expected no letter in measure 2 of [stamp] (line 1, column 34), as in ' +
        'measure 2 of [clap] (line 1, column 16), found “w”',
    ],
    ['4/4 [clap] w [Clap] w', 'line 1, column 15: expected another name: there is a part [Clap] already, found “C”'],
    ['4/4 [a] w [b] w [c] w [d] w [e] w', 'line 1, column 29: expected no more than 4 parts, found “[”'],
    [
      '4/4 [clap] w',
      'line 1, column 13: expected a second part after [clap], such as [stamp], or no name, found the end',
    ],
    [
      '4/4 [a]* w [b]* w',
      'line 1, column 8: expected one part without *: it says how many measures there are, found “*”',
    ],
    [
      '4/4 q [a] w [b] w',
      'line 1, column 5: expected the name of the first part, as in [a], before its notes, found “q”',
    ],
    ['4/4 [a] w [] w', 'line 1, column 12: expected the name of a part of 1 to 40 letters, as in [clap], found “]”'],
    [
      "4/4 [a] w [it's] w",
      'line 1, column 12: expected the name of a part of 1 to 40 letters, as in [clap], found “i”',
    ],
    ['4/4 [a] w [b w', 'line 1, column 15: expected ] after the name of a part, as in [clap], found the end'],
    [
      '4/4 [clap] q x h [stamp] w',
      'line 1, column 14: expected a note (w h q e s t), a rest such as (q), or a bar |, found “x”',
    ],
    ['4/4 [clap] q q h~ [stamp] w', 'line 1, column 19: expected a note for the tie ~ to lead to, found “[”'],
    ['7/8 [2+2+2] [a] q [b] w', 'line 1, column 6: expected groups that add up to 7, joined by +, found “2”'],
  ])('%s: %s', (text, said) => {
    const parsed = parseScore(text);
    expect(parsed.ok ? 'read' : errorSentence(parsed.at)).toBe(said);
  });

  it('comes back from its text as it was', () => {
    fc.assert(
      fc.property(anyScore, (score) => {
        expect(scoreOfText(printScore(score))).toEqual(score);
      }),
      { numRuns: 300 },
    );
  });

  it('of one part is what rhythm text is', () => {
    fc.assert(
      fc.property(fc.stringMatching(/^[whqest|():~^ .34/[\]M]{0,30}$/), (text) => {
        const [alone, score] = [parseRhythm(text), parseScore(text)];
        if (score.ok && score.score.parts.length === 1)
          expect(alone).toEqual({ ok: true, pattern: score.score.parts[0]!.pattern });
        else if (!score.ok && !text.includes('[')) expect(score).toEqual(alone);
      }),
      { numRuns: 300 },
    );
  });
});

describe('what parts have together', () => {
  const score = scoreOfText('4/4 [clap] q e e h | (q) q h [stamp]* h h');

  it('is found by its name, whatever its letters', () => {
    expect(partNamed(score, ' STAMP ')).toBe(score.parts[1]);
    expect(partNamed(score, 'snap')).toBeUndefined();
    expect(leadingPart(scoreOfText('4/4 [a]* w [b] w | w')).name).toBe('b');
  });

  it('names the parts of each attack, and their notes', () => {
    expect(attacksOf(score).map(({ at, parts, notes }) => [toNumber(at), parts, notes])).toEqual([
      [0, [0, 1], [0, 0]],
      [0.25, [0], [1]],
      [0.375, [0], [2]],
      [0.5, [0, 1], [3, 1]],
      [1, [1], [2]],
      [1.25, [0], [4]],
      [1.5, [0, 1], [5, 3]],
    ]);
    expect(sharedAttacks(score)).toEqual({ shared: 3, single: 4 });
  });

  it('has its places in pickups and repeats', () => {
    const repeated = scoreOfText('4/4 [clap] ^ q |: q q h :| [stamp] e e | w');
    expect(attacksOf(repeated).map(({ at, played, onset }) => [mixed(at), played, mixed(onset)])).toEqual([
      ['-1/4', 0, '3/4'],
      ['-1/8', 0, '7/8'],
      ['0', 1, '0'],
      ['1/4', 1, '1/4'],
      ['1/2', 1, '1/2'],
      ['1', 2, '0'],
      ['1 1/4', 2, '1/4'],
      ['1 1/2', 2, '1/2'],
    ]);
  });

  it('says which measures are not as long in both', () => {
    const text = '6/8 [a] q. q. | q. q. | q. q. [b] h. | q. | h. [c]* h.';
    expect(
      disagreements(scoreOfText(text)).map(({ number, parts, lengths }) => [number, ...parts, ...lengths.map(mixed)]),
    ).toEqual([[2, 'a', 'b', '2', '1']]);
    expect(disagreements({ parts: [{ name: '', pattern: patternOf('4/4 q') }] })).toEqual([]);
  });
});
