import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { barCheck, barsAddUp } from '../rhythm/barCheck.ts';
import { patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { compare, div, equal, mixed, sum } from '../rhythm/fraction.ts';
import { beatOf } from '../rhythm/meter.ts';
import { NAMING_IDS, restName, valueName } from '../wording/valueNames.ts';
import { parseRhythm } from '../rhythm/text.ts';
import { type PlacedEvent, placePattern } from '../rhythm/place.ts';
import { VALUE, VALUES, type ValueLetter, valueText, lengthOf } from '../rhythm/value.ts';
import { MISCONCEPTION, clapsOf, misjudged } from './misconceptions.ts';
import type { Question, QuestionSettings } from './question.ts';
import { QUESTION_KINDS, type ValueQuestionKind, questions } from './questions.ts';
import { type Part, beatsIn, totalBeats } from './valueSums.ts';
import { beatsText } from '../wording/plurals.ts';
import { misconceptionText, questionWords } from '../wording/questionWords.ts';
import { workedSteps } from '../wording/sumWords.ts';

const note = (base: ValueLetter, dots: 0 | 1 | 2 = 0, tied?: true): Part => ({
  kind: 'note',
  value: { base, dots },
  ...(tied ? { tied } : {}),
});
const rest = (base: ValueLetter, dots: 0 | 1 | 2 = 0): Part => ({ kind: 'rest', value: { base, dots } });

describe('names', () => {
  it('in both traditions', () => {
    expect(valueName({ base: 'q', dots: 1 }, 'quarters')).toBe('dotted quarter');
    expect(valueName({ base: 'q', dots: 1 }, 'crotchets')).toBe('dotted crotchet');
    expect(valueName({ base: 'h', dots: 0 }, 'quarters', true)).toBe('halves');
    expect(restName({ base: 'w', dots: 0 }, 'crotchets')).toBe('semibreve rest');
    expect(NAMING_IDS).toContain('crotchets');
  });
});

describe('beats', () => {
  it.each([
    ['s', 0, 'e', '1/2'],
    ['q', 0, 'e', '2'],
    ['h', 0, 'e', '4'],
    ['w', 0, 'e', '8'],
    ['q', 1, 'q', '1 1/2'],
    ['q', 2, 'q', '1 3/4'],
    ['w', 0, 'h', '2'],
    ['e', 1, 'q', '3/4'],
  ] as const)('%s with %i dots, %s gets the beat: %s', (base, dots, beat, text) =>
    expect(mixed(beatsIn({ base, dots }, beat))).toBe(text),
  );
  it('in words', () =>
    expect([beatsText({ n: 3, d: 2 }), beatsText({ n: 1, d: 1 }), beatsText({ n: 1, d: 2 })]).toEqual([
      '1 1/2 beats',
      '1 beat',
      '1/2 beat',
    ]));
});

describe('worked steps', () => {
  it('as the rules write them', () =>
    expect(workedSteps([note('q', 1), note('e')], 'q', 'quarters')).toEqual([
      'dotted quarter = 1 + 1/2 = 1 1/2 beats',
      'with the eighth 1 1/2 + 1/2 = 2 beats',
    ]));
  it('with another beat, rests and ties', () => {
    expect(workedSteps([note('q'), note('e', 0, true)], 'e', 'crotchets')).toEqual([
      'crotchet = 2 beats',
      'with the tied quaver 2 + 1 = 3 beats',
    ]);
    expect(workedSteps([rest('h', 1)], 'q', 'quarters')).toEqual(['dotted half rest = 2 + 1 = 3 beats']);
    expect(workedSteps([note('q', 2)], 'q', 'quarters')).toEqual([
      'double-dotted quarter = 1 + 1/2 + 1/4 = 1 3/4 beats',
    ]);
  });
});

describe('misconceptions count as children do', () => {
  it.each([
    ['dot-one-beat', [note('h', 1)], 'q', '3'],
    ['dot-one-beat', [note('q', 1)], 'q', '2'],
    ['dot-whole-copy', [note('q', 1)], 'q', '2'],
    ['dot-whole-copy', [note('h', 1)], 'q', '4'],
    ['dot-ignored', [note('q', 1)], 'q', '1'],
    ['rest-nothing', [note('q'), rest('q')], 'q', '1'],
    ['tie-ignored', [note('h'), note('q', 0, true)], 'q', '2'],
    ['whole-half-swapped', [rest('w')], 'q', '2'],
    ['beat-ignored', [note('q')], 'e', '1'],
    ['counts-notes', [note('h'), note('e')], 'q', '2'],
    ['staccato-lengthens', [{ ...note('q'), staccato: true }], 'q', '1 1/2'],
    ['staccato-lengthens', [note('q', 1)], 'q', '1 1/2'],
    ['tie-two-sounds', [note('h'), note('q', 0, true)], 'q', '3'],
  ] as const)('%s: %j, %s', (id, parts, beat, heard) =>
    expect(mixed(misjudged(parts, beat, MISCONCEPTION[id]))).toBe(heard),
  );
});

describe('claps', () => {
  it.each([
    [[note('q'), rest('q'), note('q')], 2, 3, 2],
    [[note('q'), note('e', 0, true)], 1, 1, 2],
    [[note('q'), note('q', 0, true), rest('h'), note('e')], 2, 3, 3],
    [[rest('w')], 0, 1, 0],
  ] as const)('%j: %i, with the rests clapped %i, with ties as two sounds %i', (parts, claps, withRests, withTies) => {
    const count = (clapped: (part: Part) => number) => parts.reduce((total, part) => total + clapped(part), 0);
    expect([
      count(clapsOf),
      count(MISCONCEPTION['rest-clapped'].claps!),
      count(MISCONCEPTION['tie-two-sounds'].claps!),
    ]).toEqual([claps, withRests, withTies]);
  });
});

const settings = fc.record<QuestionSettings>({
  values: fc.subarray<ValueLetter>(['w', 'h', 'q', 'e', 's', 't'], { minLength: 1 }),
  dots: fc.boolean(),
  ties: fc.boolean(),
  rests: fc.boolean(),
  beat: fc.constantFrom<ValueLetter>('h', 'q', 'e'),
});
const EVERYTHING: QuestionSettings = {
  values: ['w', 'h', 'q', 'e', 's'],
  dots: true,
  ties: true,
  rests: true,
  beat: 'q',
};

/** The right option, as it is shown. */
const rightText = (question: Question) => questionWords(question, 'quarters').options[question.answer]!;

describe('questions', () => {
  it('are the same for the same seed', () =>
    expect(questions(EVERYTHING, 5, 10)).toEqual(questions(EVERYTHING, 5, 10)));

  it('of each kind come as often, also of one that finds nothing half of the time', () => {
    const settings = { values: ['w', 'h', 'q', 'e'], dots: true, ties: false, rests: true, beat: 'q' } as const;
    const firsts = Array.from({ length: 400 }, (_, seed) => questions(settings, seed, 1, ['true-false', 'balance'])[0]);
    const balances = firsts.filter((question) => question?.asked.kind === 'balance').length;
    expect(balances).toBeGreaterThan(160);
    expect(balances).toBeLessThan(240);
  });

  it('have one right option, no two alike, a known misconception behind a wrong one, and steps', () => {
    fc.assert(
      fc.property(settings, fc.nat(), fc.constantFrom(...NAMING_IDS), (chosen, seed, naming) => {
        for (const question of questions(chosen, seed, 10)) {
          const { options, answer, asked } = question;
          const words = questionWords(question, naming);
          expect(new Set(words.options).size).toBe(options.length);
          expect(options).toHaveLength(asked.kind === 'true-false' ? 2 : 4);
          expect(options[answer]!.misconception).toBeUndefined();
          for (const { misconception } of options)
            if (misconception) expect(misconceptionText(misconception, naming)).toMatch(/\.$/);
          expect(words.steps.length).toBeGreaterThan(0);
          for (const text of [words.prompt, ...words.options, ...words.steps]) {
            expect(text).toMatch(/\S/);
            expect(text).not.toMatch(/[{}]|undefined|NaN/);
            if (naming === 'crotchets') expect(text).not.toMatch(/\b(quarter|eighth|sixteenth|measure)s?\b/);
          }
        }
      }),
      { numRuns: 40 },
    );
  });

  it.each(QUESTION_KINDS)('%s: ten of a kind', (kind) => expect(questions(EVERYTHING, 3, 10, [kind])).toHaveLength(10));

  it('a sum of beats is answered with its total, whatever the beat', () => {
    fc.assert(
      fc.property(fc.constantFrom<ValueLetter>('h', 'q', 'e'), fc.nat(), (beat, seed) => {
        for (const question of questions({ ...EVERYTHING, beat }, seed, 4, ['beats'])) {
          const { shows } = question;
          const parsed = parseRhythm(shows.replace(/~$/, ''));
          if (!parsed.ok) throw new Error(shows);
          const parts = parsed.pattern.measures[0]!.items.flatMap((item): Part[] =>
            item.kind === 'tuplet' ? [] : [{ kind: item.kind, value: item.value }],
          );
          expect(rightText(question)).toBe(beatsText(totalBeats(parts, beat)));
        }
      }),
    );
  });

  /** What a question shows, measure by measure; a note is tied on when the one before ties to it. */
  const shownIn = ({ shows }: Question): PlacedEvent[][] =>
    placePattern(patternOf(shows)).map(({ events }) => [...events]);
  const everyQuestion = (kind: ValueQuestionKind, check: (question: Question, chosen: QuestionSettings) => void) =>
    fc.assert(
      fc.property(settings, fc.nat(), (chosen, seed) =>
        questions(chosen, seed, 5, [kind]).forEach((question) => check(question, chosen)),
      ),
      { numRuns: 12 },
    );

  it('claps: a clap for every note that is not tied on', () =>
    everyQuestion('claps', (question) => {
      const claps = shownIn(question)
        .flat()
        .filter(({ kind }) => kind === 'note').length;
      expect(rightText(question)).toBe(`${claps} ${claps === 1 ? 'clap' : 'claps'}`);
    }));

  it('complete: the answer fills the measure, in the meter of the beat', () =>
    everyQuestion('complete', (question, { beat }) => {
      const text = rightText(question);
      const missing = VALUES.flatMap(({ letter }) => ([0, 1] as const).map((dots) => ({ base: letter, dots }))).find(
        (value) => valueName(value, 'quarters') === text,
      )!;
      const full = patternOf(`${question.shows} ${valueText(missing)}`);
      expect(barsAddUp(barCheck(full))).toBe(true);
      expect(beatOf(full.measures[0]!.meter).length).toEqual(VALUE[beat].of);
      expect(questionWords(question, 'quarters').prompt).toContain(question.shows.split(' ')[0]);
    }));

  it('true or false: just as the two sides last', () =>
    everyQuestion('true-false', (question) => {
      const [left, right] = question.sides!.map((side) => sum(side.map(({ value }) => lengthOf(value))));
      expect(rightText(question)).toBe(String(equal(left!, right!)));
      expect(question.options[1 - question.answer]!.misconception !== undefined).toBe(question.answer === 1);
    }));

  it('true or false: as often the one as the other, of the chosen values, however few are chosen', () => {
    for (const values of [
      ['q', 'e'],
      ['h', 'q', 'e'],
      ['w', 'h', 'q', 'e', 's'],
    ] as const) {
      const chosen = { values: [...values], dots: values.length > 3, ties: false, rests: true, beat: 'q' } as const;
      const all = Array.from({ length: 200 }, (_, seed) => questions(chosen, seed, 2, ['true-false'])).flat();
      const right = all.filter(({ answer }) => answer === 0).length / all.length;
      expect(right).toBeGreaterThan(0.4);
      expect(right).toBeLessThan(0.6);
      const written = all.flatMap(({ sides }) => sides!.flat()).map(({ value }) => value.base);
      expect([...new Set(written)].toSorted()).toEqual([...values].toSorted());
      const causes = new Set(all.flatMap(({ options }) => options[0]!.misconception ?? []));
      expect(causes.size).toBeGreaterThan(3);
    }
  });

  it('how many: so many of the small value last as long as the big one', () =>
    everyQuestion('how-many', (question) => {
      const { length } = shownIn(question)[0]![0]!;
      const small = VALUES.find(({ letter }) =>
        questionWords(question, 'quarters').prompt.startsWith(
          `How many ${valueName({ base: letter, dots: 0 }, 'quarters', true)} `,
        ),
      )!;
      expect(rightText(question)).toBe(mixed(div(length, small.of)));
    }));

  it('order: from the shortest to the longest', () =>
    everyQuestion('order', (question) => {
      const sorted = shownIn(question)
        .flat()
        .sort((a, b) => compare(a.length, b.length));
      expect(rightText(question)).toBe(sorted.map(({ value }) => valueName(value, 'quarters')).join(', '));
    }));

  it.each(QUESTION_KINDS)('%s: only what was chosen is written', (kind) =>
    everyQuestion(kind, (question, { values, dots, rests, ties }) => {
      const events = shownIn(question).flat();
      if (!rests) expect(events.filter((event) => event.kind === 'rest')).toEqual([]);
      if (!ties) expect(events.filter((event) => event.kind === 'tied')).toEqual([]);
      if (!dots) expect(question.staccato ?? []).toEqual([]);
      // The other side of an equation needs a second value.
      if (kind !== 'true-false' || values.length > 1)
        for (const { value } of events) expect(values.includes(value.base) && (dots || value.dots === 0)).toBe(true);
    }),
  );

  it('a dot above or below the head changes no count, and stands on no tied note', () => {
    let found = 0;
    everyQuestion('beats', (question, { beat }) => {
      const events = shownIn(question).flat();
      for (const i of question.staccato ?? []) {
        found++;
        expect([events[i]!.kind, events[i]!.tiedToNext]).toEqual(['note', false]);
        expect(rightText(question)).toBe(beatsText(div(sum(events.map(({ length }) => length)), VALUE[beat].of)));
      }
    });
    expect(found).toBeGreaterThan(3);
  });

  it('only the named measure is wrong, and by so much', () => {
    for (let seed = 0; seed < 40; seed++) {
      const [question] = questions(EVERYTHING, seed, 1, ['wrong-measure']);
      const parsed = parseRhythm(question!.shows);
      if (!parsed.ok) throw new Error(question!.shows);
      const off = barCheck(parsed.pattern).filter(({ verdict }) => verdict !== 'full');
      expect(barsAddUp(off)).toBe(false);
      expect(off).toHaveLength(1);
      expect(rightText(question!)).toContain(`measure ${off[0]!.number}, `);
      expect(rightText(question!)).toContain(off[0]!.verdict === 'short' ? 'short' : 'too long');
    }
  });
});
