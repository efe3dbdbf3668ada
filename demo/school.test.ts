import { describe, expect, it } from 'vitest';
import { barCheck, barsAddUp } from '../core/rhythm/barCheck.ts';
import { checkParts } from '../core/rhythm/score.ts';
import { parseScore, printScore } from '../core/rhythm/scoreText.ts';
import { parseRhythm, printRhythm } from '../core/rhythm/text.ts';
import { CLASSES, PATTERNS, PATTERNS_IN_PARTS } from './school.ts';

describe('the demo school', () => {
  it.each(PATTERNS.map(({ title, text }) => [title, text]))('%s can be read and adds up: %s', (_title, text) => {
    const parsed = parseRhythm(text);
    if (!parsed.ok) throw new Error(JSON.stringify(parsed.at));
    expect(barsAddUp(barCheck(parsed.pattern))).toBe(true);
    expect(parseRhythm(printRhythm(parsed.pattern))).toEqual(parsed);
  });
  it.each(PATTERNS_IN_PARTS.map(({ title, text }) => [title, text]))('%s has parts that fit: %s', (_title, text) => {
    const parsed = parseScore(text);
    if (!parsed.ok) throw new Error(JSON.stringify(parsed.at));
    expect(parsed.score.parts.length).toBeGreaterThan(1);
    expect(barsAddUp(checkParts(parsed.score))).toBe(true);
    expect(parseScore(printScore(parsed.score))).toEqual(parsed);
  });
  it('has twenty patterns of different names, and two classes of children with different names', () => {
    expect(new Set(PATTERNS.map(({ title }) => title)).size).toBe(20);
    expect(CLASSES.map(({ children }) => new Set(children).size)).toEqual([24, 20]);
  });
});
