import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyPattern, fullPattern, patternOf } from '../rhythm/arbitrary.test-helper.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { buildPattern } from './buildPattern.ts';
import { readMusicXml } from './readMusicXml.ts';
import { writeMusicXml } from './writeMusicXml.ts';

function back(xml: string): Pattern {
  const read = readMusicXml(xml);
  if (!read.ok) throw new Error(read.trouble);
  const built = buildPattern(read.pieces[0]!.parts[0]!.voices[0]!);
  if (!built.ok) throw new Error(built.trouble);
  return built.pattern;
}

describe('our own MusicXML', () => {
  it('is read back as the same pattern, whatever rhythm text can write', () => {
    const same = (pattern: Pattern) => {
      expect(back(writeMusicXml(pattern))).toEqual(pattern);
    };
    fc.assert(fc.property(anyPattern, same), { numRuns: 500 });
    fc.assert(fc.property(fullPattern, same), { numRuns: 200 });
  });
  it.each([['4/4 ^ q | q. e (q) q | h. ||'], ['6/8[6] e e e e e e'], ['4/4 (M7) | #20 "A" w']])('%s', (text) => {
    expect(back(writeMusicXml(patternOf(text)))).toEqual(patternOf(text));
  });
});
