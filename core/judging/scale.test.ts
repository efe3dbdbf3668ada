import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bordersTrouble, markOf } from './mark.ts';
import {
  NAMED_SCALES,
  type Scale,
  belowBorders,
  bestText,
  carried,
  givenText,
  highestOf,
  isFull,
  isTooLow,
  labelsOf,
  markKeys,
  markLabel,
  markOfLabel,
  meanLabel,
  numberOf,
  quartersOf,
  scaleOf,
  shortLabel,
  scaleTrouble,
  usualBorders,
} from './scale.ts';

const WORDS = ['Starting', 'On the way', 'Secure'];
const SCALES: readonly Scale[] = [
  ...NAMED_SCALES,
  WORDS,
  ['a', 'b', 'c', 'd'],
  ['a', 'b', 'c', 'd', 'e'],
  ['a', 'b', 'c', 'd', 'e', 'f'],
];
const scales = fc.constantFrom(...SCALES);

/** The label that a take gets. */
const labelOf = (scale: Scale, accuracy: number, drift = 0, more = {}) =>
  markLabel(markOf(accuracy, drift, { heard: true, scale, ...more }), scale);

describe('a scale of marks', () => {
  it.each([
    ['0-4', '4', '3', '2', '1'],
    ['1-5', '5', '4', '3', '1'],
    ['6-1', '1', '3', '4', '6'],
    ['A-F', 'A', 'C', 'D', 'F'],
    ['A-D,F', 'A', 'B', 'C', 'F'],
    ['0-10', '10', '8', '6', '2'],
    ['percent', '100 %', '84 %', '62 %', '20 %'],
    [WORDS, 'Secure', 'On the way', 'Starting', 'Starting'],
  ] as const)('%j has its word for a take of 1, .84, .62 and .2', (scale, ...labels) =>
    expect([1, 0.84, 0.62, 0.2].map((accuracy) => labelOf(scale, accuracy))).toEqual(labels),
  );
  it.each([
    ['0-4', '0'],
    ['1-5', '1'],
    ['6-1', '6'],
    ['A-F', 'F'],
    ['percent', '0 %'],
    [WORDS, 'Starting'],
  ] as const)('%j has its lowest where nothing was heard', (scale, label) =>
    expect(markLabel(markOf(1, 0, { heard: false, scale }), scale)).toBe(label),
  );
  it.each([
    ['0-4', '3', '3', '2'],
    ['6-1', '2', '2', '4'],
    ['A-D,F', 'B', 'B', 'C'],
    ['0-10', '9', '9', '7'],
    ['percent', '94 %', '94 %', '79 %'],
    [WORDS, 'On the way', 'On the way', 'On the way'],
  ] as const)('%j: no best mark for what is flawed, or drifts 5 %%, or 9 %%', (scale, flawed, some, more) =>
    expect([labelOf(scale, 1, 0, { flawed: true }), labelOf(scale, 1, 5), labelOf(scale, 1, -9)]).toEqual([
      flawed,
      some,
      more,
    ]),
  );
  it('lets a take without a click drift by 4 % more', () => {
    expect([labelOf('0-4', 1, 8, { free: true }), labelOf('0-4', 1, 8.1, { free: true })]).toEqual(['4', '3']);
    expect([labelOf('0-4', 1, -12, { free: true }), labelOf('0-4', 1, 12.1, { free: true })]).toEqual(['3', '2']);
  });
  it.each([
    ['0-4', '3', '1'],
    ['6-1', '2', '6'],
    ['percent', '90 %', '0 %'],
    [WORDS, 'On the way', 'Starting'],
  ] as const)('%j goes down a step where the click counts, and no lower than its lowest', (scale, down, lowest) =>
    expect([1, 0.05].map((accuracy) => labelOf(scale, accuracy, 0, { offClick: true }))).toEqual([down, lowest]),
  );
  it('never gives a worse mark for more, in any scale, and reaches both ends', () => {
    fc.assert(
      fc.property(
        scales,
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (scale, a, b) => {
          const [less, more] = [Math.min(a, b), Math.max(a, b)].map((accuracy) =>
            markOf(accuracy, 0, { heard: true, scale }),
          );
          expect(less).toBeLessThanOrEqual(more!);
          expect(less).toBeGreaterThanOrEqual(belowBorders(scale));
        },
      ),
    );
    for (const scale of SCALES) {
      expect(markOf(1, 0, { heard: true, scale })).toBe(highestOf(scale));
      expect(markOf(0, 0, { heard: true, scale })).toBe(belowBorders(scale));
      expect(bordersTrouble(usualBorders(scale), scale)).toBeUndefined();
    }
  });
  it('takes the borders of the teacher, and refuses those of marks that it has not', () => {
    expect(labelOf('A-F', 0.7, 0, { borders: [{ mark: 5, accuracy: 0.7 }] })).toBe('A');
    expect(bordersTrouble([{ mark: 6, accuracy: 0.7 }], 'A-F')).toContain('does not have');
    expect(bordersTrouble([{ mark: 1, accuracy: 0.7 }], '6-1')).toBeUndefined();
    expect(bordersTrouble([{ mark: 0, accuracy: 0.7 }], '6-1')).toContain('does not have');
  });
});

describe('the words of a scale', () => {
  it('every label leads back to its mark, whatever its capitals', () => {
    fc.assert(
      fc.property(scales, fc.nat(), (scale, seed) => {
        const mark = seed % (highestOf(scale) + 1);
        expect(markOfLabel(` ${markLabel(mark, scale).toUpperCase()} `, scale)).toBe(mark);
      }),
    );
    expect([markOfLabel('G', 'A-F'), markOfLabel('', WORDS), markOfLabel('5', '0-4')]).toEqual([
      undefined,
      undefined,
      undefined,
    ]);
  });
  it('a mark carried into another scale is the nearest there, and stays in its order', () => {
    expect([0, 1, 2, 3, 4].map((mark) => markLabel(carried(mark, '0-4', '6-1'), '6-1'))).toEqual([
      '6',
      '5',
      '3',
      '2',
      '1',
    ]);
    fc.assert(
      fc.property(scales, scales, fc.nat(), fc.nat(), (from, to, a, b) => {
        const [low, high] = [a, b].map((one) => one % (highestOf(from) + 1)).sort((x, y) => x - y) as [number, number];
        expect(carried(low, from, to)).toBeLessThanOrEqual(carried(high, from, to));
        expect([carried(0, from, to), carried(highestOf(from), from, to)]).toEqual([0, highestOf(to)]);
        expect(carried(low, from, from)).toBe(low);
      }),
    );
  });
  it.each([
    ['0-4', 2.5, '2.5'],
    ['1-5', 2.5, '3.5'],
    ['6-1', 2.5, '3.5'],
    ['A-F', 3.6, 'B'],
    ['percent', 81.26, '81 %'],
    [WORDS, 1.4, 'On the way'],
    [['10', '20', '40'], 1.6, '40'],
  ] as const)('the mean in %j of %f is %s', (scale, mark, text) => expect(meanLabel(mark, scale, 1)).toBe(text));
  it('is short where there is little room, and still tells them apart', () => {
    const shortOf = (scale: Scale) => labelsOf(scale).map((_, mark) => shortLabel(mark, scale));
    expect(shortOf(WORDS)).toEqual(['Sta', 'On', 'Sec']);
    expect(shortOf(['Not yet', 'Nothing', 'notable'])).toEqual(['Not', 'Noth', 'nota']);
    expect(shortOf('percent').at(-1)).toBe('100');
    for (const scale of SCALES) expect(new Set(shortOf(scale)).size).toBe(labelsOf(scale).length);
  });
  it('says what is best, how a mark was given, and how good it is without a word', () => {
    expect(SCALES.slice(0, 8).map(bestText)).toEqual([
      'of 4',
      'of 5',
      '1 is best',
      'A is best',
      'A is best',
      'of 10',
      '',
      '',
    ]);
    expect(givenText({ mark: 4, scale: '6-1' })).toBe('2 (6 to 1)');
    expect([0, 1, 2, 3, 4, 5].map((mark) => quartersOf(mark, 'A-F'))).toEqual([0, 1, 2, 2, 3, 4]);
    expect([numberOf(3, 'A-F'), numberOf(3, '6-1'), scaleOf(undefined), scaleOf({ scale: null })]).toEqual([
      undefined,
      3,
      '0-4',
      '0-4',
    ]);
  });
  it('knows from where on a child goes on, and which is full', () => {
    for (const scale of SCALES) {
      const marks = labelsOf(scale).map((_, mark) => mark);
      const good = marks.filter((mark) => !isTooLow(mark, scale));
      expect(good[0], String(scale)).toBeGreaterThan(0);
      expect(good.at(-1)).toBe(highestOf(scale));
      expect(marks.filter((mark) => isFull(mark, scale)).every((mark) => good.includes(mark))).toBe(true);
    }
    expect(labelsOf('0-4').filter((_, mark) => isTooLow(mark, '0-4'))).toEqual(['0', '1', '2']);
    expect(labelsOf('6-1').filter((_, mark) => isTooLow(mark, '6-1'))).toEqual(['6', '5', '4']);
    expect([isFull(95, 'percent'), isFull(94, 'percent'), isFull(9, '0-10')]).toEqual([true, false, false]);
  });
  it.each([
    [['a', 'b'], '3 to 6'],
    [['a', 'b', 'c', 'd', 'e', 'f', 'g'], '3 to 6'],
    [['a', ' ', 'c'], 'needs a word'],
    [['a', 'b', 'x'.repeat(21)], 'needs a word'],
    [['a', 'B', 'b '], 'same word'],
    [WORDS, undefined],
  ])('words %j: %s', (words, trouble) => {
    if (trouble === undefined) expect(scaleTrouble(words)).toBeUndefined();
    else expect(scaleTrouble(words)).toContain(trouble);
  });
});

describe('keys of marks by hand', () => {
  const keysOf = (scale: Scale, taken: readonly string[] = []) =>
    markKeys(scale, taken)
      .map(({ key }) => key)
      .join('');
  it.each([
    ['0-4', '01234'],
    ['1-5', '12345'],
    ['6-1', '654321'],
    ['A-F', 'fedcba'],
    ['0-10', '0123456789t'],
    ['percent', '0123456789t'],
    [WORDS, '123'],
    [['Weak', 'Fair', 'Good'], 'wfg'],
    [['Soon', 'Secure', 'Great'], '123'],
    [['3', '2', '1'], '321'],
    [['10', '20', '40'], '124'],
    [['A1', 'A2', 'A3'], '123'],
  ] as const)('%j: %s', (scale, keys) => expect(keysOf(scale, ['s', 'x'])).toBe(keys));
  it('a key is one mark, and none that does something else', () => {
    fc.assert(
      fc.property(scales, fc.array(fc.constantFrom('s', 'x', 'l', 'h', 'r')), (scale, taken) => {
        const keys = markKeys(scale, taken);
        expect(new Set(keys.map(({ key }) => key)).size).toBe(keys.length);
        for (const { key } of keys) expect(taken).not.toContain(key);
        if (scale !== 'percent') expect(keys).toHaveLength(highestOf(scale) + 1);
      }),
    );
    expect(markKeys('percent').map(({ mark }) => mark)).toEqual([0, 10, 20, 30, 40, 50, 60, 70, 80, 90, 100]);
  });
});
