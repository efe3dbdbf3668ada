import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fullPattern, patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { scoreOfText } from '../rhythm/arbitraryScore.test-helper.ts';
import { barCheck } from '../rhythm/barCheck.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { unfold } from '../rhythm/place.ts';
import { attacksOf, disagreements, scoreOfPattern } from '../rhythm/score.ts';
import { printScore } from '../rhythm/scoreText.ts';
import { printRhythm } from '../rhythm/text.ts';
import { scheduleOf, soundEnd } from '../timing/schedule.ts';
import {
  type Joined,
  SPLITS,
  canonOf,
  missingPart,
  passOn,
  shareOut,
  splitPattern,
  withBeat,
  withOstinato,
  withPart,
} from './partsOf.ts';

const textOf = (joined: Joined) => (joined.ok ? printScore(joined.score) : JSON.stringify(joined.trouble));

/** From when to when each note sounds, in hundredths of a second. */
function soundsOf(pattern: Pattern): string[] {
  const schedule = scheduleOf(pattern, 60);
  const hundredths = (seconds: number) => Math.round(seconds * 1e4) / 100 || 0;
  return schedule.notes.map((note) => `${hundredths(note.time)}-${hundredths(soundEnd(schedule, note))}`);
}

describe('a rhythm shared out between two', () => {
  it.each([
    ['measures', '4/4 q q h | q. e h | e e q h', '4/4 [A] q q h | (M1) | e e q h [B] (M1) | q. e h | (M1)'],
    ['phrases', '4/4 q q h | h h | q. e h | w', '4/4 [A] q q h | h h | (M1) | (M1) [B] (M1) | (M1) | q. e h | w'],
    ['phrases', '2/4 q q | h', '2/4 [A] q q | (M1) [B] (M1) | h'],
    ['beat-and-off', '4/4 q e e q. e', '4/4 [A] q e (e) q. (e) [B] (q) (e) e (q) (e) e'],
    ['beat-and-off', '6/8 q e e e e', '6/8 [A] q (e) e (q) [B] (q) e (e) e e'],
    ['beat-and-off', '9/8 q. q. q e', '9/8 [A] q. q. q (e) [B] (q.) (q.) (q) e'],
    ['in-turn', '4/4 q q e e (q)', '4/4 [A] q (q) e (e) (q) [B] (q) q (e) e (q)'],
    ['measures', '4/4 ^ q | q q h~ | q q q', '4/4 [A] ^ q | q q h~ | q (q) (q) [B] (q) | (M1) | (q) q q'],
    ['measures', "2/4 q'crab' q | q'gull' q", "2/4 [A] q'crab' q | (M1) [B] (M1) | q'gull' q"],
    ['in-turn', '4/4 3{e e e} h q', '4/4 [A] 3{e (e) e} (q) (q) q [B] 3{(e) e (e)} h (q)'],
    ['measures', '4/4 |: q q h | w :| "B" h h', '4/4 [A] |: q q h | (M1) :| "B" h h [B] (M1) | w | (M1)'],
  ] as const)('by %s: %s', (split, text, parts) => {
    expect(printScore(splitPattern(patternOf(text), split, ['A', 'B']))).toBe(parts);
  });

  it('sounds together as it did, each note once and as long', () => {
    fc.assert(
      fc.property(fullPattern.map(unfold), fc.constantFrom(...SPLITS), (pattern, split) => {
        const score = splitPattern(pattern, split, ['A', 'B']);
        const both = score.parts.flatMap((part) => soundsOf(part.pattern)).sort();
        expect(both).toEqual(soundsOf(pattern).sort());
        expect(attacksOf(score).every(({ parts }) => parts.length === 1)).toBe(true);
        expect(disagreements(score)).toEqual([]);
        for (const { pattern: part } of score.parts)
          expect(barCheck(part).map(({ verdict }) => verdict)).toEqual(barCheck(pattern).map(({ verdict }) => verdict));
      }),
      { numRuns: 150 },
    );
  });

  it('leaves a part that has all as it sounds, and the other silent', () => {
    const [all, none] = shareOut(patternOf('4/4 q. e~ q q | (M2)'), () => 0);
    expect(soundsOf(all)).toEqual(soundsOf(patternOf('4/4 q. e~ q q | (M2)')));
    expect(printRhythm(none)).toBe('4/4 (M1) | (M1) | (M1)');
  });
});

describe('parts put together', () => {
  const score = scoreOfPattern(patternOf('4/4 |: q e e h :| q. e h'));
  const named = { parts: [{ ...score.parts[0]!, name: 'clap' }] };

  it('join a pattern of the same measures', () => {
    expect(textOf(withPart(named, 'stamp', patternOf('4/4 |: h h :| w')))).toBe(
      '4/4 [clap] |: q e e h :| q. e h [stamp] h h | w',
    );
  });

  it.each([
    ['stamp', '4/4 h h | w', '{"code":"frame","measure":1}'],
    ['stamp', '4/4 |: h h :| w | w', '{"code":"measures","of":[3,2]}'],
    ['stamp', '4/4 |: h h :| 3/4 h.', '{"code":"frame","measure":2}'],
    ['stamp', '4/4 ^ q | w', '{"code":"pickup"}'],
    ['Clap', '4/4 |: h h :| w', '{"code":"name","name":"Clap"}'],
    [' ', '4/4 |: h h :| w', '{"code":"name","name":" "}'],
  ])('do not where [%s] is %s', (name, text, trouble) => {
    expect(textOf(withPart(named, name, patternOf(text)))).toBe(trouble);
  });

  it('are four at most', () => {
    const four = scoreOfText('4/4 [a] w [b] w [c] w [d] w');
    expect(textOf(withPart(four, 'e', patternOf('4/4 w')))).toBe('{"code":"too-many"}');
    expect(textOf(canonOf(patternOf('4/4 w'), ['a', 'b', 'c', 'd', 'e'], 1))).toBe('{"code":"too-many"}');
  });

  it('have the beat under them, said once where it is the same', () => {
    expect(textOf(withBeat(named, 'stamp'))).toBe('4/4 [clap] |: q e e h :| q. e h [stamp]* q q q q');
    const changes = { parts: [{ name: 'a', pattern: patternOf('3/4 h. | 6/8 e e e q. | (M1)') }] };
    expect(textOf(withBeat(changes, 'b'))).toBe('3/4 [a] h. | 6/8 e e e q. | (M1) [b] q q q | q. q. | q. q.');
    const pickup = { parts: [{ name: 'a', pattern: patternOf('4/4 ^ e | q q h | h q.') }] };
    expect(textOf(withBeat(pickup, 'b'))).toBe('4/4 [a] ^ e | q q h | h q. [b] (e) | q q q q | q q q e');
  });

  it('have a few measures under them again and again', () => {
    expect(textOf(withOstinato(named, 'pat', patternOf('4/4 (q) q (q) q')))).toBe(
      '4/4 [clap] |: q e e h :| q. e h [pat]* (q) q (q) q',
    );
    const pickup = { parts: [{ name: 'a', pattern: patternOf('4/4 ^ q | w | w | w | w') }] };
    expect(textOf(withOstinato(pickup, 'b', patternOf('4/4 h h | q q h')))).toBe(
      '4/4 [a] ^ q | w | w | w | w [b]* h h | q q h',
    );
    expect(textOf(withOstinato(pickup, 'b', patternOf('4/4 h h | w | w')))).toBe('{"code":"measures","of":[3,4]}');
    expect(textOf(withOstinato(pickup, 'b', patternOf('3/4 h.')))).toBe('{"code":"frame","measure":1}');
    expect(textOf(withOstinato(pickup, 'b', patternOf('4/4 ^ q | w')))).toBe('{"code":"measures","of":[2,4]}');
  });

  it('are passed on, the last to the first', () => {
    const three = scoreOfText('4/4 [a] q q h | w [b]* h h [c] w | q q q q');
    expect(printScore(passOn(three))).toBe('4/4 [a] w | q q q q [b] q q h | w [c]* h h');
    expect(passOn(passOn(passOn(three)))).toEqual(three);
  });
});

describe('the part that is missing', () => {
  it.each([
    ['4/4 q (q) e e (q)', '4/4 (q) q (q) q'],
    ['4/4 h. q | (e) e q. e q', '4/4 (q) q q (q) | q (q) q (q)'],
    ['6/8 (e) e e q. | (M1)', '6/8 q. (q.) | q. q.'],
    ['4/4 q q q q', '4/4 (M1)'],
  ])('to %s is %s', (text, missing) => expect(printRhythm(missingPart(patternOf(text)))).toBe(missing));

  it('has just one clap with it on every beat', () => {
    fc.assert(
      fc.property(fullPattern.map(unfold), (pattern) => {
        const score = { parts: [pattern, missingPart(pattern)].map((part, i) => ({ name: `${i}`, pattern: part })) };
        const beat = withBeat(score, 'beat');
        if (!beat.ok) throw new Error(JSON.stringify(beat.trouble));
        const onBeats = attacksOf(beat.score).filter(({ parts }) => parts.includes(2));
        expect(onBeats.every(({ parts }) => parts.length === 2)).toBe(true);
      }),
      { numRuns: 100 },
    );
  });
});

describe('a canon', () => {
  it.each([
    ['4/4 q q h | q. e h', 4, '4/4 [1] q q h | q. e h | (M1) [2] (M1) | q q h | q. e h'],
    ['4/4 q q h', 2, '4/4 [1] q q h | (M1) [2] (h) q q | h (h)'],
    ['3/4 q e e q | h.', 1, '3/4 [1] q e e q | h. | (M1) [2] (q) q e e | q h~ | q (h)'],
    ["2/4 q'crab' q |: h :|", 2, "2/4 [1] q'crab' q | h | h | (M1) [2] (M1) | q'crab' q | h | h"],
    ['6/8 q e e e e', 1, '6/8 [1] q e e e e | (M1) [2] (q.) q e | e e e (q.)'],
  ])('of %s after %i beats', (text, beats, canon) => {
    const made = canonOf(patternOf(text), ['1', '2'], beats);
    expect(made.ok && printScore(made.score).replace(/^\[1\] (\S+)/, '$1 [1]')).toBe(canon);
  });

  it('has the same line in each part, so many beats later', () => {
    const one = fc.tuple(fullPattern, fc.integer({ min: 1, max: 6 }), fc.integer({ min: 2, max: 4 }));
    fc.assert(
      fc.property(one, ([pattern, beats, voices]) => {
        const made = canonOf(pattern, ['a', 'b', 'c', 'd'].slice(0, voices), beats);
        if (!made.ok) {
          const groups = pattern.measures.some(({ items }) => items.some(({ kind }) => kind === 'tuplet'));
          const meters = new Set(pattern.measures.map(({ meter }) => JSON.stringify(meter)));
          expect(pattern.pickup || groups || meters.size > 1).toBe(true);
          return;
        }
        expect(disagreements(made.score)).toEqual([]);
        const times = made.score.parts.map((part) => scheduleOf(part.pattern, 60).notes.map(({ time }) => time));
        for (const [i, own] of times.entries()) {
          expect(own).toHaveLength(times[0]!.length);
          own.forEach((time, k) => expect(time - times[0]![k]!).toBeCloseTo(i * beats, 6));
        }
      }),
      { numRuns: 120 },
    );
  });

  it.each([
    ['4/4 ^ q | h.', '{"code":"pickup"}'],
    ['4/4 w | 3/4 h.', '{"code":"meters"}'],
    ['4/4 q 3{q q q} q', '{"code":"meters"}'],
  ])('cannot be made of %s', (text, trouble) => {
    expect(textOf(canonOf(patternOf(text), ['a', 'b'], 2))).toBe(trouble);
  });
});
