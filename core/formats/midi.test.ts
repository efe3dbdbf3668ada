import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fullPattern, patternOf } from '../rhythm/arbitrary.test-helper.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { soundKey } from '../rhythm/soundings.ts';
import { barCheck, barsAddUp } from '../rhythm/barCheck.ts';
import { printRhythm } from '../rhythm/text.ts';
import { buildPattern } from './buildPattern.ts';
import { readMidi } from './readMidi.ts';
import { writeMidi } from './writeMidi.ts';

function back(bytes: Uint8Array, part = 0): Pattern {
  const read = readMidi(bytes);
  if (!read.ok) throw new Error(read.trouble);
  const found = read.pieces[0]!.parts[part];
  if (!found) throw new Error(`no part: ${JSON.stringify(read.pieces[0])}`);
  const built = buildPattern(found.voices[0]!);
  if (!built.ok) throw new Error(built.trouble);
  return built.pattern;
}

describe('our own MIDI', () => {
  it.each([
    '4/4 q q e e q',
    '4/4 q. e (q) q | h. (q)',
    '3/4 ^ q | h q | q. e (q)',
    '6/8 q e q. | e e e q.',
    '4/4 3{e e e} q 3{e (e) e} q',
    '4/4 3{q q q} h',
    '2/4 q s s e | (e) q e',
    '4/4 (M1) | q q h',
    '4/4 5:4{s s s s s} q h',
    '4/4 e (e) e (e) h',
    '3/4 "A" q q q | q h',
  ])('%s', (text) => {
    const pattern = back(writeMidi(patternOf(text)));
    expect(printRhythm(pattern)).toBe(text);
  });
  /** What is written in beats: a cell, and how many quarters it lasts. */
  const CELLS: readonly (readonly [string, number])[] = [
    ['q', 1],
    ['(q)', 1],
    ['e e', 1],
    ['e (e)', 1],
    ['(e) e', 1],
    ['e. s', 1],
    ['s e.', 1],
    ['s e s', 1],
    ['s s s s', 1],
    ['e s s', 1],
    ['3{e e e}', 1],
    ['3{e (e) e}', 1],
    ['3{q e}', 1],
    ['3{s s s} e', 1],
    ['5:4{s s s s s}', 1],
    ['t t s e', 1],
    ['h', 2],
    ['q. e', 2],
    ['e q e', 2],
    ['3{q q q}', 2],
    ['3{q (q) q}', 2],
    ['w', 4],
  ];
  const inBeats = fc.array(fc.constantFrom(...CELLS), { minLength: 4, maxLength: 24 }).map((cells) => {
    const measures: string[][] = [[]];
    let full = 0;
    for (const [text, quarters] of cells) {
      if (full % 4 === 0 && full > 0 && measures.at(-1)!.length > 0) measures.push([]);
      if ((full % 4) + quarters > 4 || (quarters === 2 && full % 2 === 1)) continue;
      measures.at(-1)!.push(text);
      full += quarters;
    }
    while (full % 4 !== 0) {
      measures.at(-1)!.push('q');
      full++;
    }
    return patternOf(
      `4/4 ${measures
        .filter((items) => items.length > 0)
        .map((items) => items.join(' '))
        .join(' | ')} | w`,
    );
  });
  it('sounds the same, whatever is written in beats', () => {
    fc.assert(
      fc.property(inBeats, (pattern) => {
        const read = back(writeMidi(pattern));
        expect(soundKey(read)).toBe(soundKey(pattern));
        expect(barsAddUp(barCheck(read))).toBe(true);
      }),
      { numRuns: 500 },
    );
  });
  it('never loses time, whatever is written', () => {
    fc.assert(
      fc.property(fullPattern, (pattern) => {
        const bytes = writeMidi(pattern);
        const read = readMidi(bytes);
        // In groups that begin beside the beat nothing explains the places: then it is a performance.
        fc.pre(read.ok && read.pieces[0]!.parts.length > 0);
        expect(barsAddUp(barCheck(back(bytes)))).toBe(true);
      }),
      { numRuns: 200 },
    );
  });
});
