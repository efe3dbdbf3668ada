import { describe, expect, it } from 'vitest';
import { AGES } from '../judging/windows.ts';
import { barCheck, isLegal } from '../rhythm/barCheck.ts';
import { ELEMENT_IDS, elementsOf } from '../rhythm/elements.ts';
import { parseRhythm } from '../rhythm/text.ts';
import { STARTER_PATTERNS } from './starterPatterns.ts';

const read = (text: string) => {
  const parsed = parseRhythm(text);
  if (!parsed.ok) throw new Error(text);
  return parsed.pattern;
};

describe('patterns to begin with', () => {
  it('are there for every age, no two of one name or text', () => {
    expect(Object.keys(STARTER_PATTERNS())).toEqual([...AGES]);
    for (const set of Object.values(STARTER_PATTERNS())) {
      expect(set.length).toBeGreaterThanOrEqual(8);
      expect(new Set(set.map(({ title }) => title)).size).toBe(set.length);
      expect(new Set(set.map(({ text }) => text)).size).toBe(set.length);
    }
  });
  it.each(Object.values(STARTER_PATTERNS()).flatMap((set) => set.map(({ title, text }) => [title, text] as const)))(
    '%s adds up: %s',
    (_title, text) => {
      expect(barCheck(read(text)).every(isLegal)).toBe(true);
    },
  );
  it.each(AGES)('bring little that is new at a time, for ages %s', (ages) => {
    const met = new Set<string>();
    for (const [i, { title, text }] of STARTER_PATTERNS()[ages].entries()) {
      const fresh = [...elementsOf(read(text)).keys()].filter((element) => !met.has(element));
      for (const element of fresh) met.add(element);
      if (i > 1) expect([title, fresh.length <= 3]).toEqual([title, true]);
    }
  });
  it('the youngest meet nothing beyond the half note', () => {
    const met = new Set(STARTER_PATTERNS()['5-6'].flatMap(({ text }) => [...elementsOf(read(text)).keys()]));
    expect(ELEMENT_IDS.filter((id) => met.has(id))).toEqual(['quarter', 'eighth-pair', 'quarter-rest', 'half']);
  });
});
