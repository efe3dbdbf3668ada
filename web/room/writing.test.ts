import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compare, frac } from '../../core/rhythm/fraction.ts';
import { barCheck } from '../../core/rhythm/barCheck.ts';
import { parseRhythm } from '../../core/rhythm/text.ts';
import { type Line, ownMeasure, piecesFor, roomLeft, textOf, verdictOn, withPiece, withoutLast } from './writing.ts';

const METERS = ['2/4', '3/4', '4/4', '6/8', '9/8'] as const;

describe('writing piece by piece', () => {
  it('fills one measure after the other, and takes nothing that is too long', () => {
    const [quarter, , half] = piecesFor('3/4');
    let line: Line = [];
    for (const piece of [half!, half!, quarter!, quarter!, half!]) line = withPiece(line, piece, '3/4', 2);
    expect(textOf(line, '3/4')).toBe('3/4 h q | q h');
    expect(roomLeft(line, '3/4', 2).n).toBe(0);
    expect(withPiece(line, quarter!, '3/4', 2)).toBe(line);
    expect(textOf(withoutLast(withoutLast(line)), '3/4')).toBe('3/4 h q');
    expect(roomLeft(withoutLast(line), '3/4', 2)).toEqual(frac(1, 2));
    expect(textOf([], '3/4')).toBeUndefined();
    expect(withoutLast([])).toEqual([]);
  });

  it('whatever is put down can be read, and is never longer than it may be', () =>
    fc.assert(
      fc.property(
        fc.constantFrom(...METERS),
        fc.integer({ min: 1, max: 4 }),
        fc.array(fc.nat(20), { maxLength: 40 }),
        (meter, measures, taps) => {
          const pieces = piecesFor(meter);
          let line: Line = [];
          for (const tap of taps) line = withPiece(line, pieces[tap % pieces.length]!, meter, measures);
          const text = textOf(line, meter);
          if (text === undefined) return;
          const read = parseRhythm(text);
          if (!read.ok) throw new Error(text);
          expect(line.length).toBeLessThanOrEqual(measures);
          const verdicts = barCheck(read.pattern).map(({ verdict }) => verdict);
          expect(verdicts).not.toContain('over');
          const isFull = compare(roomLeft(line, meter, measures), frac(0, 1)) === 0;
          if (isFull) expect(new Set(verdicts)).toEqual(new Set(['full']));
        },
      ),
    ));

  it('each piece is drawn in a measure of its own length', () => {
    for (const meter of METERS)
      for (const piece of piecesFor(meter)) {
        const read = parseRhythm(ownMeasure(piece));
        if (!read.ok) throw new Error(ownMeasure(piece));
        expect([piece.text, barCheck(read.pattern)[0]!.verdict]).toEqual([piece.text, 'full']);
      }
  });

  it('is judged by what it sounds like', () => {
    expect(verdictOn('4/4 q q h', '4/4 q q h', 'quarters')).toBe('All right.');
    expect(verdictOn('4/4 q q h', '4/4 q q q (q)', 'quarters')).toMatch(/listen once more|^Right: it sounds the same/);
    expect(verdictOn('4/4 q q h', '4/4 q h q', 'quarters')).toMatch(/beat 3/i);
    expect(verdictOn('4/4 q q h', 'x', 'quarters')).toBeUndefined();
  });
});
