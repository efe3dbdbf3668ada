import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fullPattern, patternOf } from './arbitrary.test-helper.ts';
import { barCheck, barsAddUp } from './barCheck.ts';
import { type Fraction, add, sub, sum } from './fraction.ts';
import { meterLength } from './meter.ts';
import type { Pattern } from './pattern.ts';
import { playPattern, unfold } from './place.ts';
import { lineNumber, linesOf, pageOfLines } from './lines.ts';
import { parseRhythm, printRhythm } from './text.ts';

const pageText = (...texts: string[]) => printRhythm(pageOfLines(texts.map(patternOf)));
const attacks = (pattern: Pattern): Fraction[] =>
  playPattern(pattern).flatMap(({ at, measure }) =>
    measure.events.filter(({ kind }) => kind === 'note').map(({ onset }) => add(at, sub(onset, measure.onset))),
  );

describe('a page of lines', () => {
  it.each([
    [['4/4 q q h', '4/4 w'], '4/4 "1" q q h | "2" w'],
    [['4/4 q q h', '3/4 h. | q q q'], '4/4 "1" q q h | 3/4 "2" h. | q q q'],
    // A pickup comes after rests, and what is short for it is filled.
    [['4/4 ^ q | q q h | h.', '4/4 w'], '4/4 "1" (h.) q | q q h | h. (q) | "2" w'],
    [['6/8 ^ e | q. q.', '6/8 q. q.'], '6/8 "1" (q.) (q) e | q. q. | "2" q. q.'],
    // Its own letters and numbers go.
    [['4/4 #5 "A" q q h | "B" w', '4/4 w'], '4/4 "1" q q h | w | "2" w'],
    // A repeat stays in its line, also where it had no sign to go back to.
    [['4/4 q q h :|', '4/4 w | h h :|'], '4/4 |: "1" q q h :| |: "2" w | h h :|'],
    [['4/4 w | |: q q h :|', '4/4 w'], '4/4 "1" w |: q q h :| "2" w'],
    // With a pickup it is written out: no rest is repeated.
    [['4/4 ^ q | q q q :|', '4/4 w'], '4/4 "1" (h.) q | q q q q | q q q (q) | "2" w'],
    [['4/4 (M2) | w', '4/4 w'], '4/4 "1" (M2) | w | "2" w'],
  ])('of %j is %s', (texts, page) => {
    expect(pageText(...texts)).toBe(printRhythm(patternOf(page)));
  });

  it('sounds as its lines do one after the other, each from a bar line', () => {
    fc.assert(
      fc.property(fc.array(fullPattern, { minLength: 2, maxLength: 5 }), (patterns) => {
        const page = pageOfLines(patterns);
        const lines = linesOf(unfold(page));
        expect(lines.map(({ number }) => number)).toEqual(patterns.map((_, i) => i + 1));
        const played = playPattern(page);
        const heard = attacks(page);
        const wanted = patterns.flatMap((pattern, i) => {
          const first = played[lines[i]!.first]!;
          // Time zero of a pattern with a pickup is its first full measure: one measure after the line begins.
          const zero = pattern.pickup ? add(first.at, meterLength(pattern.measures[0]!.meter)) : first.at;
          return attacks(pattern).map((at) => add(zero, at));
        });
        expect(heard).toEqual(wanted);
        const length = sum(played.map(({ measure }) => measure.length));
        expect(add(played[0]!.at, length)).toEqual(add(played.at(-1)!.at, played.at(-1)!.measure.length));
      }),
    );
  });

  it('adds up where its lines do, and is read again as it was written', () => {
    fc.assert(
      fc.property(fc.array(fullPattern, { minLength: 2, maxLength: 4 }), (patterns) => {
        const page = pageOfLines(patterns);
        // Repeated with a pickup that nothing is short for, a measure is short as it was before.
        const again = patterns.some(({ pickup, measures }) => pickup && measures.some(({ repeatEnd }) => repeatEnd));
        if (!again && patterns.every((one) => barsAddUp(barCheck(one)))) expect(barsAddUp(barCheck(page))).toBe(true);
        const read = parseRhythm(printRhythm(page));
        expect(read.ok && printRhythm(read.pattern)).toBe(printRhythm(page));
      }),
    );
  });
});

describe('the lines of a pattern', () => {
  it.each([
    [
      '4/4 "1" w | w | "2" w',
      [
        [1, 0, 1],
        [2, 2, 2],
      ],
    ],
    [
      '4/4 "1" (M3) | w | "2" w',
      [
        [1, 0, 3],
        [2, 4, 4],
      ],
    ],
    ['4/4 "1" w | w', []],
    ['4/4 w | "2" w', []],
    ['4/4 "A" w | "B" w', []],
    ['4/4 "2" w | "3" w', []],
    [
      '4/4 "1" w | "A" w | "2" w',
      [
        [1, 0, 1],
        [2, 2, 2],
      ],
    ],
  ] as [string, number[][]][])('%s', (text, lines) =>
    expect(linesOf(patternOf(text)).map(({ number, first, last }) => [number, first, last])).toEqual(lines),
  );
  it('of a repeated line is one, written out', () =>
    expect(linesOf(unfold(patternOf(pageText('4/4 q q h | w :|', '4/4 w'))))).toEqual([
      { number: 1, first: 0, last: 3 },
      { number: 2, first: 4, last: 4 },
    ]));
  it.each([
    ['1', 1],
    ['12', 12],
    ['0', undefined],
    ['01', undefined],
    ['A', undefined],
    ['1a', undefined],
    [undefined, undefined],
  ])('%s begins line %s', (letter, number) => expect(lineNumber(letter)).toBe(number));
});
