import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyPattern, fullPattern, patternOf } from './arbitrary.test-helper.ts';
import type { Pattern } from './pattern.ts';
import { errorSentence, eventCount, parseRhythm, printRhythm } from './text.ts';

describe('reading and printing', () => {
  it('round-trips every pattern that can be written', () => {
    const readsBack = (pattern: Pattern) => {
      expect(patternOf(printRhythm(pattern))).toEqual(pattern);
    };
    fc.assert(fc.property(anyPattern, readsBack), { numRuns: 500 });
    fc.assert(fc.property(fullPattern, readsBack), { numRuns: 200 });
  });

  it.each([
    ['q q q q', '4/4 q q q q'],
    ['3/4 q. e q', '3/4 q. e q'],
    [' 4/4\n^ q |w|| ', '4/4 ^ q | w'],
    ['4/4 qqeeq', '4/4 q q e e q'],
    ['| q q q q |', '4/4 q q q q'],
    ['3{e e e} q h', '4/4 3{e e e} q h'],
    ['3:2{e e e} q h', '4/4 3{e e e} q h'],
    ['5{s s s s s} q h', '4/4 5:4{s s s s s} q h'],
    ['(M7) | q q q q', '4/4 (M7) | q q q q'],
    ['4/4 ^ q | (M3) h (h)', '4/4 ^ q | (M3) | h (h)'],
    ['7/8[2+2+3] e e e e e e e', '7/8[2+2+3] e e e e e e e'],
    ['|: q q h :|', '4/4 |: q q h :|'],
    ['q q h :| |: w :|', '4/4 q q h :| |: w :|'],
    ['q q h :|: w :||', '4/4 q q h :| |: w :|'],
    ['q q h | |: w :|', '4/4 q q h |: w :|'],
    ["q'G' e'crab'~ e q q", "4/4 q'G' e'crab'~ e q q"],
    ['3/4 q q q | 4/4 w', '3/4 q q q | 4/4 w'],
    ['4/4 w | 4/4 w', '4/4 w | w'],
    ['4/4 #5 q q h | "A" w', '4/4 #5 q q h | "A" w'],
    ['#5 "A" 3/4 q q q', '3/4 #5 "A" q q q'],
    ['"A"#5 ^ 3/4 q | h.', '3/4 ^ #5 "A" q | h.'],
    ['|: # 12 q q h :|: "Verse 2" 2/4 h :|', '4/4 |: #12 q q h :| |: 2/4 "Verse 2" h :|'],
    ['4/4 (M3) "B" (M2)', '4/4 (M3) | "B" (M2)'],
    ['4/4 q.. (s..) ( q ) 3{(e) e e~} q', '4/4 q.. (s..) (q) 3{(e) e e~} q'],
  ])('%j is %j', (text, canonical) => expect(printRhythm(patternOf(text))).toBe(canonical));

  it('counts what is written', () => expect(eventCount(patternOf('q (q) 3{e e e} q | (M2)'))).toBe(6));
});

describe('unreadable text', () => {
  it.each([
    ['', 1, 1, 'a note'],
    ['4/4', 1, 4, 'a note'],
    ['4/4 q x', 1, 7, 'a note'],
    ['4/4 q Q', 1, 7, 'a note'],
    ['4/4 q |\nq z q', 2, 3, 'a note'],
    ['4/4 q | | q', 1, 9, 'a note'],
    ['4/0 q', 1, 3, 'a lower number'],
    ['4/6 q', 1, 3, 'a lower number'],
    ['0/4 q', 1, 1, 'an upper number'],
    ['7/8[2+2] e', 1, 5, 'groups that add up to 7'],
    ['7/8[2+2+3 e', 1, 11, ']'],
    ['q 3/4 q', 1, 3, 'a bar | before a change of meter'],
    ['q...', 1, 4, 'at most two dots'],
    ['(q', 1, 3, ')'],
    ['(q).', 1, 4, 'the dot of a rest inside'],
    ['(q)~ q', 1, 4, 'a rest cannot be tied'],
    ['(q~) q', 1, 3, 'a rest cannot be tied'],
    ['(x)', 1, 2, 'the value of a rest'],
    ['#0 w', 1, 1, 'the number of a measure from 1 to 9999'],
    ['# w', 1, 1, 'the number of a measure'],
    ['#10000 w', 1, 1, 'the number of a measure'],
    ['#5 #6 w', 1, 4, 'a note'],
    ['q q #5 h', 1, 5, 'a bar | before the mark of a measure'],
    ['q q "A" h', 1, 5, 'a bar | before the mark of a measure'],
    ['w | "A', 1, 5, 'a letter in two quotes'],
    ['w | "" w', 1, 6, 'a rehearsal letter of 1 to 40'],
    ['w | #5', 1, 7, 'a note'],
    ["q'a\u0007b' w", 1, 4, 'a label of letters that can be written'],
    ['q~', 1, 3, 'a note for the tie'],
    ['q~ (q)', 1, 2, 'a note after the tie'],
    ['q~ | (M2)', 1, 2, 'a note after the tie'],
    ['3{e e', 1, 6, '}'],
    ['3{} q', 1, 3, 'a note, a rest'],
    ['3{e e e}~ e', 1, 9, 'inside the braces'],
    ['1{e} q', 1, 1, 'a group of 2'],
    ['17:2{e} q', 1, 1, 'a group of 2'],
    ['(M0)', 1, 1, 'measures of rest'],
    ['q (M2)', 1, 3, 'before measures of rest'],
    ["q'crab", 1, 2, 'two quotes'],
    ["q''", 1, 3, 'a label of 1 to'],
    ['w || q', 1, 6, 'nothing after the end'],
    ['w |:', 1, 5, 'a measure to repeat'],
  ])('%j: line %i, column %i, expected %s', (text, line, column, expected) => {
    const parsed = parseRhythm(text);
    if (parsed.ok) throw new Error(`read ${JSON.stringify(parsed.pattern)}`);
    expect({ line: parsed.at.line, column: parsed.at.column }).toEqual({ line, column });
    expect(parsed.at.expected).toContain(expected);
    expect(errorSentence(parsed.at)).toMatch(/^line \d+, column \d+: expected .+, found .+$/);
  });

  it('never throws, and names a place inside the text', () => {
    const signs = fc.array(fc.constantFrom(..."whqest().|:~^{}[]'34/8 5M+\n")).map((list) => list.join(''));
    fc.assert(
      fc.property(fc.oneof(signs, fc.string()), (text) => {
        const parsed = parseRhythm(text);
        if (parsed.ok) return;
        const lines = text.split('\n');
        expect(parsed.at.line).toBeLessThanOrEqual(lines.length);
        expect(parsed.at.column).toBeLessThanOrEqual(lines[parsed.at.line - 1]!.length + 1);
      }),
      { numRuns: 2000 },
    );
  });

  it('refuses a text that is too long', () => expect(parseRhythm('q '.repeat(20_000)).ok).toBe(false));
});
