import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { COUNTING_SYSTEM_IDS } from '../counting/countingSystems.ts';
import { mixed } from '../rhythm/fraction.ts';
import { type ValueLetter, VALUES } from '../rhythm/value.ts';
import { misconceptionText, questionWords } from '../wording/questionWords.ts';
import { staffPlaceName } from '../wording/signWords.ts';
import { NAMING_IDS } from '../wording/valueNames.ts';
import type { Question } from './question.ts';
import { SIGN_QUESTION_KINDS, signQuestions } from './questions.ts';
import { type SignSettings, TOP_LINE, rightStems, signKey, staffPlace } from './signs.ts';
import { beatsIn } from './valueSums.ts';

const ALL: SignSettings = {
  values: ['w', 'h', 'q', 'e', 's'],
  dots: true,
  rests: true,
  clefs: true,
  beat: 'q',
  counts: { school: 'ta' },
};
const settings: fc.Arbitrary<SignSettings> = fc.record({
  values: fc.subarray(VALUES.map(({ letter }) => letter)),
  dots: fc.boolean(),
  rests: fc.boolean(),
  clefs: fc.boolean(),
  beat: fc.constantFrom<ValueLetter>('h', 'q', 'e'),
  counts: fc.record({ school: fc.constantFrom(...COUNTING_SYSTEM_IDS) }),
});
const right = ({ answer, answers = [answer] }: Question) => answers;

describe('lines, spaces and stems', () => {
  it.each([
    [0, 'the first line'],
    [1, 'the first space'],
    [4, 'the third line'],
    [7, 'the fourth space'],
    [TOP_LINE, 'the fifth line'],
  ])('%i is %s', (at, name) => expect(staffPlaceName(staffPlace(at))).toBe(name));

  it.each([
    [0, ['up right']],
    [3, ['up right']],
    [4, ['up right', 'down left']],
    [5, ['down left']],
    [8, ['down left']],
  ])('a head at %i has its stem %j', (at, stems) =>
    expect(rightStems(at).map(({ way, side }) => `${way} ${side}`)).toEqual(stems),
  );
});

describe('questions about signs', () => {
  it.each(SIGN_QUESTION_KINDS)('%s: ten of a kind, the same from the same seed', (kind) => {
    expect(signQuestions(ALL, 3, 10, [kind])).toHaveLength(10);
    expect(signQuestions(ALL, 3, 10, [kind])).toEqual(signQuestions(ALL, 3, 10, [kind]));
  });

  it('have words in every tradition, no two options alike, and a mistake behind a wrong one', () => {
    fc.assert(
      fc.property(settings, fc.nat(), fc.constantFrom(...NAMING_IDS), (chosen, seed, naming) => {
        for (const question of signQuestions(chosen, seed, 6)) {
          const words = questionWords(question, naming);
          expect(new Set(words.options).size).toBe(question.options.length);
          expect(right(question)[0]).toBe(question.answer);
          question.options.forEach(({ misconception }, i) => {
            if (question.asked.kind !== 'sign-match' && right(question).includes(i))
              expect(misconception).toBeUndefined();
            if (misconception) expect(misconceptionText(misconception, naming)).toMatch(/\.$/);
          });
          for (const text of [words.prompt, ...words.options, ...words.steps]) {
            expect(text).toMatch(/\S/);
            expect(text).not.toMatch(/[{}]|undefined|NaN/);
            if (naming === 'crotchets' && chosen.counts.school !== 'note-names')
              expect(text).not.toMatch(/\b(quarter|eighth|sixteenth|measure)s?\b/);
          }
        }
      }),
    );
  });

  const each = (kind: (typeof SIGN_QUESTION_KINDS)[number], check: (question: Question) => void) =>
    fc.assert(
      fc.property(fc.nat(), (seed) => signQuestions(ALL, seed, 4, [kind]).forEach(check)),
      { numRuns: 60 },
    );

  it('spot: every such sign, and nothing else', () =>
    each('sign-spot', ({ asked, staff, answers }) => {
      if (asked.kind !== 'sign-spot') throw new Error(asked.kind);
      const keys = [signKey(asked.sign)];
      // Two eighths under a beam are eighths; single ones are asked for as such.
      if (!asked.single && ['e', 's'].includes(keys[0]!)) keys.push(`${keys[0]} ${keys[0]}`);
      expect(answers).toEqual(staff!.flatMap(({ sign }, i) => (keys.includes(signKey(sign)) ? [i] : [])));
      expect(answers!.length).toBeGreaterThan(1);
      expect(staff).toHaveLength(8);
    }));

  it('spot: beamed eighths are eighths, and no mistake; where single ones are wanted they are overlooked beams', () => {
    const asked = Array.from({ length: 300 }, (_, seed) => signQuestions(ALL, seed, 1, ['sign-spot'])[0]!).filter(
      (one) => one.asked.kind === 'sign-spot' && signKey(one.asked.sign) === 'e',
    );
    const pairs = (single: boolean) =>
      asked
        .filter((one) => one.asked.kind === 'sign-spot' && (one.asked.single === true) === single)
        .flatMap(({ staff, options }) => options.filter((_, i) => signKey(staff![i]!.sign) === 'e e'));
    expect([pairs(false).length, pairs(true).length].every((count) => count > 2)).toBe(true);
    expect(pairs(false).map(({ misconception }) => misconception)).toEqual(pairs(false).map(() => undefined));
    expect(pairs(true).map(({ misconception }) => misconception)).toEqual(pairs(true).map(() => 'beam-not-counted'));
  });

  it('match: each sign with its own name, beats or syllable', () =>
    each('sign-match', ({ asked, staff, options, answers }) => {
      if (asked.kind !== 'sign-match') throw new Error(asked.kind);
      expect([...answers!].sort()).toEqual([0, 1, 2, 3]);
      staff!.forEach(({ sign }, i) => {
        const { answer } = options[answers![i]!]!;
        if (asked.to === 'name') expect(answer).toEqual({ is: 'sign', sign });
        if (asked.to === 'beats' && 'value' in sign)
          expect(answer.is === 'beats' && mixed(answer.beats)).toBe(mixed(beatsIn(sign.value, asked.beat)));
        if (asked.to === 'syllable' && signKey(sign) === 'h') expect(answer).toEqual({ is: 'syllable', text: 'ta-a' });
      });
    }));

  it('number the line or space', () =>
    each('staff-place', ({ staff, options, answer }) =>
      expect(options[answer]!.answer).toEqual({ is: 'staff', ...staffPlace(staff![0]!.at!) }),
    ));

  it('stem: exactly those that are right, drawn without', () =>
    each('stem-side', ({ staff, options, answers }) => {
      const { at = -1, stem } = staff![0]!;
      expect(stem).toBeNull();
      const said = answers!.map((i) => ({ ...options[i]!.answer, is: undefined }));
      expect(said).toHaveLength(rightStems(at).length);
      for (const one of rightStems(at)) expect(said).toContainEqual({ ...one, is: undefined });
    }));

  it('note or rest of the same length', () =>
    each('same-length', ({ asked, staff, options, answer }) => {
      const { answer: chosen } = options[answer]!;
      if (asked.kind !== 'same-length' || chosen.is !== 'sign') throw new Error(asked.kind);
      const [shown, found] = [staff![0]!.sign, chosen.sign];
      if (!('value' in shown) || !('value' in found)) throw new Error('no value');
      expect(found.value).toEqual(shown.value);
      expect([found.sign, shown.sign].sort()).toEqual(['note', 'rest']);
      expect(found.sign).toBe(asked.to);
    }));

  it('whole or half rest', () =>
    each('which-rest', ({ staff, options, answer }) =>
      expect(options[answer]!.answer).toEqual({ is: 'sign', sign: staff![0]!.sign }),
    ));
});
