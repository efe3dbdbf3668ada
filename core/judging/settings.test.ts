import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { everydayPattern, patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { MISCONCEPTIONS } from '../exercises/misconceptions.ts';
import { PLAIN_VOICE, countsOf, namingOf } from '../wording/voice.ts';
import { COUNTING_SYSTEMS } from '../counting/countingSystems.ts';
import { ELEMENTS } from '../rhythm/elements.ts';
import { NAMING_IDS, inNaming } from '../wording/valueNames.ts';
import { judge } from './judge.ts';
import { judged, sentencesOf } from './judged.test-helper.ts';
import { MISREADING_CODES } from './misreadings/table.ts';
import { markArithmetic } from '../wording/markArithmetic.ts';
import { MISREADING_WORDS } from '../wording/misreadingWords.ts';
import { ACTIVITY_NAMES } from '../wording/leadWords.ts';
import { misconceptionText } from '../wording/questionWords.ts';
import { usualBorders } from './scale.ts';
import { accuracyOf, bordersTrouble, markOf } from './mark.ts';
import { simulate } from './simulatedChild.ts';
import { pairsOf, tempoLine } from './tempoLine.ts';
import { AGES, verdictOf, windowsFor, windowsOf } from './windows.ts';

describe('what a teacher sets', () => {
  it.each([
    [usualBorders('0-4'), ''],
    [[{ mark: 4, accuracy: 1 }], ''],
    [
      [
        { mark: 4, accuracy: 0.8 },
        { mark: 3, accuracy: 0.8 },
      ],
      'lower border',
    ],
    [
      [
        { mark: 3, accuracy: 0.8 },
        { mark: 4, accuracy: 0.6 },
      ],
      'lower border',
    ],
    [[{ mark: 5, accuracy: 0.8 }], 'does not have'],
    [[{ mark: 1, accuracy: 0.8 }], 'does not have'],
    [[{ mark: 4, accuracy: 0 }], 'above 0'],
    [[{ mark: 4, accuracy: 0.9, driftPct: -1 }], 'above 0'],
  ])('borders %j: %s', (borders, word) => {
    const trouble = bordersTrouble(borders);
    if (word === '') expect(trouble).toBeUndefined();
    else expect(trouble).toContain(word);
  });
  it.each(AGES)('windows at %s are as usual, or as the teacher has them', (ages) => {
    expect(windowsOf({ ages })).toEqual(windowsFor(ages));
    expect(windowsOf({ ages, onTimeMs: null })).toEqual(windowsFor(ages));
    // A child who needs it has them wider, those of the class and those of its age alike.
    expect(windowsOf({ ages, wider: 1.5 }).onTime).toBeCloseTo(windowsFor(ages).onTime * 1.5, 9);
    expect(windowsOf({ ages, onTimeMs: 80, wider: 1.5 }).onTime).toBeCloseTo(0.12, 9);
    expect(windowsOf({ ages, onTimeMs: 55 }).onTime).toBe(0.055);
    // A wide window reaches as far as it is wide.
    expect(windowsOf({ ages, onTimeMs: 300 }).reach).toBe(0.3);
  });
  it.each([
    [0.05, 'on-time'],
    [-0.05, 'on-time'],
    [0.0501, 'late'],
    [-0.041, 'on-time'],
    [-0.0501, 'early'],
  ] as const)('%f s is %s', (error, verdict) => expect(verdictOf(error, { early: 0.05, late: 0.05 })).toBe(verdict));
  it('counts in the words of the class, in other schools in their own', () => {
    const room = {
      school: 'ta',
      rests: 'rest',
      houseWords: { ta: { quarter: 'doo' }, numbers: { half: 'and' } },
      wordSet: null,
    } as const;
    expect(countsOf(room)).toMatchObject({ school: 'ta', rests: 'rest', houseWords: { quarter: 'doo' } });
    expect(countsOf(room, 'numbers')).toMatchObject({
      school: 'numbers',
      rests: undefined,
      houseWords: { half: 'and' },
    });
    expect([namingOf(undefined), namingOf({ naming: 'crotchets' })]).toEqual(['quarters', 'crotchets']);
  });
});

describe('the mark', () => {
  it.each([
    [0.95, 4, true, 4],
    [0.95, -4, true, 4],
    [0.95, 4.1, true, 3],
    [0.95, -4.1, true, 3],
    [1, 8.1, true, 2],
    [1, -20, true, 2],
    [0.94, 0, true, 3],
    [0.79, 0, true, 2],
    [0.59, 0, true, 1],
    [0, 0, true, 1],
    [1, 0, false, 0],
  ])('of %f with a drift of %f %% (heard: %s) is %i', (accuracy, drift, heard, mark) =>
    expect(markOf(accuracy, drift, { heard })).toBe(mark),
  );
  it.each([
    [4, 4, 0, 0, 1],
    [4, 2, 2, 0, 0.75],
    [4, 4, 0, 2, 0.75],
    [4, 0, 0, 9, 0],
    [0, 0, 0, 0, 1],
    [0, 0, 0, 1, 0],
  ])('%i notes, %i on time, %i early or late, %i too many: %f', (written, onTime, off, extras, accuracy) =>
    expect(accuracyOf(written, onTime, off, extras)).toBe(accuracy),
  );
});

describe('the line of tempo', () => {
  const lineOf = (text: string, onsets: readonly number[]) =>
    tempoLine(patternOf(text), 60, judged(text, 60, onsets), onsets);
  it('is flat where the tempo is kept, over rests and long notes too', () => {
    const line = lineOf('4/4 q e e (q) q | h q q', [0, 1, 1.5, 3, 4, 6, 7]);
    expect(line.length).toBeGreaterThan(5);
    expect(line.every(({ bpm }) => Math.abs(bpm - 60) < 0.1)).toBe(true);
  });
  it('follows the child: a rest that was skipped or a stop is no other tempo', () => {
    const skipped = lineOf('4/4 q q (q) q | q e e h | q q q q', [0, 1, 2, 3, 4, 4.5, 5, 7, 8, 9, 10]);
    const stopped = lineOf('4/4 q q q q | q e e h | q q q q', [0, 1, 2, 3, 4, 5, 5.5, 8, 10, 11, 12, 13]);
    for (const line of [skipped, stopped]) {
      expect(line.length).toBeGreaterThan(9);
      expect(line.every(({ bpm }) => Math.abs(bpm - 60) < 4)).toBe(true);
    }
  });
  it('rises where the child rushes', () => {
    const text = '4/4 q q q q | q q q q | q q q q';
    const line = lineOf(text, simulate(patternOf(text), 60, { spread: 0, drift: 0.2 }, 1).onsets);
    expect(line.at(-1)!.bpm - line[0]!.bpm).toBeGreaterThan(7);
  });
  it('leaves extra claps and missed notes out', () => {
    const onsets = [0, 1, 1.45, 2, 4, 5, 6, 7];
    const text = '4/4 q q q q | q q q q';
    expect(
      pairsOf(patternOf(text), 60, judged(text, 60, onsets), onsets).map(({ note, heard }) => [note, heard]),
    ).toEqual([
      [0, 0],
      [1, 1],
      [2, 2],
      [4, 4],
      [5, 5],
      [6, 6],
      [7, 7],
    ]);
  });
  it('never pairs a clap twice, and is never without number', () => {
    fc.assert(
      fc.property(
        everydayPattern,
        fc.nat({ max: 500 }),
        fc.double({ min: 0, max: 0.3, noNaN: true }),
        (pattern, seed, leavesOut) => {
          const { onsets } = simulate(pattern, 84, { spread: 0.03, leavesOut, habits: { 'rest-clapped': 0.3 } }, seed);
          const result = judge({ pattern, bpm: 84, onsets });
          if (!result.ok) return;
          const claps = pairsOf(pattern, 84, result.result, onsets).map(({ heard }) => heard);
          expect(new Set(claps).size).toBe(claps.length);
          for (const { bpm } of tempoLine(pattern, 84, result.result, onsets))
            expect(Number.isFinite(bpm) && bpm > 0).toBe(true);
        },
      ),
      { numRuns: 80 },
    );
  });
});

describe('a class that counts the click too', () => {
  const text = '4/4 q q e e q | h q q';
  const beats = [0, 1, 2, 2.5, 3, 4, 6, 7].map((time, i) => time + [0.012, -0.015, 0.004, -0.008][i % 4]!);
  it.each([
    ['with the click', beats, 4, 4],
    ['at a tempo of its own', beats.map((time) => time * 1.3), 4, 3],
    ['a measure late', beats.map((time) => time + 4), 4, 3],
    ['at half the tempo', beats.map((time) => time * 2), 4, 3],
    ['nothing clapped', [], 0, 0],
  ])('%s: mark %j', (_how, onsets, usual, counted) => {
    expect(judged(text, 60, onsets).mark).toBe(usual);
    const strict = judged(text, 60, onsets, { clickCounts: true });
    expect(strict.mark).toBe(counted);
    expect(strict.offClick).toBe(counted < usual ? true : undefined);
    expect(judged(text, 60, onsets, { clickCounts: true, free: true }).offClick).toBeUndefined();
  });
  it('says so in the arithmetic of the mark', () => {
    const result = judged(
      text,
      60,
      beats.map((time) => time * 1.3),
      { clickCounts: true },
    );
    expect(markArithmetic(result, 60, {}, PLAIN_VOICE).slice(0, 2)).toEqual([
      '(8 on time + half of 0 early or late − half of 0 too many) ÷ 8 notes = 100 %. ' +
        'Mark 4: at least 95 %, the tempo kept within 4 %.',
      'The click was not kept, and here it counts too: mark 3.',
    ]);
  });
  it('never goes below 1 where something was heard', () => {
    expect(markOf(0.2, 0, { heard: true, offClick: true })).toBe(1);
    expect(markOf(1, 0, { heard: false, offClick: true })).toBe(0);
  });
});

describe('names of values, in every text a class sees', () => {
  const texts = [
    ...MISREADING_CODES.flatMap((code) => {
      const { title, sentence } = MISREADING_WORDS()[code];
      const words = { count: '“1”', second: '“&”', next: 'n', restKept: 'r', value: 'x', many: 'xs', length: '1 beat' };
      return [
        title,
        sentence({
          ...words,
          holds: 'on beat 2',
          amount: '2 beats',
          measures: 2,
          part: false,
          free: false,
          alone: true,
          clapped: '“1 &”',
          written: '“1 a”',
          every: 'every half beat',
          since: '',
          factor: 2,
          isRepeat: false,
          inPlace: false,
        }),
      ];
    }),
    ...Object.values(ACTIVITY_NAMES()),
    ...Object.values(ELEMENTS()).map(({ title }) => title),
    ...MISCONCEPTIONS.map(({ id }) => misconceptionText(id, 'crotchets')),
    ...Object.values(COUNTING_SYSTEMS()).flatMap(({ meanings }) => Object.values(meanings)),
  ];
  it.each([
    ['a dotted {q}', 'a dotted quarter', 'a dotted crotchet'],
    ['{e+} and {s+}', 'eighths and sixteenths', 'quavers and semiquavers'],
    ['the {w} and the {h} rest', 'the whole and the half rest', 'the semibreve and the minim rest'],
    ['{t}, {x} and {}', 'thirty-second, {x} and {}', 'demisemiquaver, {x} and {}'],
  ])('%s', (text, quarters, crotchets) =>
    expect([inNaming(text, 'quarters'), inNaming(text, 'crotchets')]).toEqual([quarters, crotchets]),
  );
  it.each(texts)('“%s” is said in both traditions', (text) => {
    for (const naming of NAMING_IDS) expect(inNaming(text, naming)).not.toMatch(/[{}]/);
    // The parts of a beat are no values.
    expect(
      inNaming(text, 'crotchets').replaceAll(
        /(first|last) quarter of the beat|half beat|half of the beat|half as|by half/g,
        '',
      ),
    ).not.toMatch(/\b(quarter|eighth|sixteenth|thirty-second|half rest|whole rest|half note|whole note)s?\b/);
  });
  it('also when a take is judged', () => {
    const swung = [0, 0.667, 1, 1.667, 2, 3, 4, 4.667, 5, 5.667, 6].map((beat) => (beat * 60) / 80);
    const text = '4/4 e e e e q q | e e e e h';
    const [said] = sentencesOf(patternOf(text), judged(text, 80, swung), { ...PLAIN_VOICE, naming: 'crotchets' });
    expect(said).toContain('your pairs of quavers were long and short');
  });
});
