import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyPattern, fullPattern, patternOf } from '../core/rhythm/arbitrary.test-helper.ts';
import { sub, toNumber } from '../core/rhythm/fraction.ts';
import { linesOf, pageOfLines } from '../core/rhythm/lines.ts';
import { placePattern } from '../core/rhythm/place.ts';
import { layoutRuler } from './layout.ts';
import { lineSizes } from './lineSizes.ts';
import { layoutPaper, neededPixels } from './paperLayout.ts';
import { type RulerSize, beatXs, systemKey, xOf } from './system.ts';

const sizes = fc.constantFrom<RulerSize>('desk', 'board');
const widths = fc.integer({ min: 320, max: 1900 });
const measuresOf = (layout: ReturnType<typeof layoutRuler>) => layout.systems.flatMap(({ measures }) => measures);

describe('the ruler', () => {
  it('shows every measure once and in order', () => {
    fc.assert(
      fc.property(anyPattern, widths, sizes, (pattern, width, size) => {
        const shown = measuresOf(layoutRuler(pattern, width, size));
        expect(shown.map(({ index }) => index)).toEqual(placePattern(pattern).map((_, i) => i));
        expect(shown.at(-1)!.last).toBe(true);
        expect(shown[0]!.meterSign).toBe(true);
      }),
    );
  });

  it('begins a line of a page on a line of its own, on screen and on paper', () => {
    fc.assert(
      fc.property(fc.array(fullPattern, { minLength: 2, maxLength: 4 }), widths, sizes, (patterns, width, size) => {
        const page = pageOfLines(patterns);
        const begins = linesOf(page).map(({ first }) => first);
        const firsts = layoutRuler(page, width, size).systems.map(({ measures }) => measures[0]!.index);
        const onPaper = layoutPaper(page, { size: 'desk', width, before: 40, eachRest: true }).map(
          ({ measures }) => measures[0]!.index,
        );
        expect(firsts).toEqual(expect.arrayContaining(begins));
        expect(onPaper).toEqual(expect.arrayContaining(begins));
      }),
      { numRuns: 40 },
    );
  });

  it('has one scale: x is proportional to time in every measure of every line', () => {
    fc.assert(
      fc.property(fullPattern, widths, sizes, (pattern, width, size) => {
        const layout = layoutRuler(pattern, width, size);
        for (const measure of measuresOf(layout)) {
          expect(measure.width / toNumber(measure.placed.length)).toBeCloseTo(layout.scale, 6);
          for (const { onset } of measure.placed.events)
            expect(xOf(measure, onset, layout.scale) - measure.x).toBeCloseTo(
              toNumber(sub(onset, measure.placed.onset)) * layout.scale,
              6,
            );
        }
      }),
    );
  });

  it('stays within its width', () => {
    fc.assert(
      fc.property(fullPattern, fc.integer({ min: 700, max: 1900 }), (pattern, width) => {
        for (const system of layoutRuler(pattern, width, 'desk').systems)
          expect(system.width).toBeLessThanOrEqual(width + 2);
      }),
    );
  });

  it('does not move the lines before while a measure is being typed', () => {
    const lines = (text: string) => layoutRuler(patternOf(text), 1280, 'desk');
    const full = '4/4 q q e e q | h q q | e e e e h | q q h | q e e q q | h h | q q q q | w | q q q q';
    const before = lines(`${full} | q q q q`);
    for (const typed of ['q', 'q q', 'q q q q q', 'h']) {
      const during = lines(`${full} | ${typed}`);
      expect(during.scale).toBe(before.scale);
      expect(during.systems[0]!.measures.map(({ x }) => x)).toEqual(before.systems[0]!.measures.map(({ x }) => x));
    }
  });

  it('gives long counts room', () => {
    const pattern = patternOf('4/4 e e e e e e e e');
    const short = layoutRuler(pattern, 2400, 'desk', [Array(8).fill(1)]);
    const long = layoutRuler(pattern, 700, 'desk', [Array(8).fill(9)]);
    expect(long.scale).toBeLessThan(short.scale);
    expect(
      layoutRuler(patternOf(`${'4/4 e e e e e e e e | '.repeat(1)}e e e e e e e e`), 1280, 'desk', [
        Array(8).fill(9),
        Array(8).fill(9),
      ]).systems,
    ).toHaveLength(2);
  });

  it('opens a gap for a new meter and keeps a pickup on the line of its measure', () => {
    const [system] = layoutRuler(patternOf('3/4 q q q | 4/4 q q q q'), 1280, 'desk').systems;
    const [first, second] = system!.measures;
    expect(second!.x - (first!.x + first!.width)).toBeGreaterThan(40);
    expect(
      layoutRuler(patternOf('4/4 ^ q | q q q q | h.'), 1280, 'desk')
        .systems[0]!.measures.map(({ placed }) => placed.number)
        .slice(0, 2),
    ).toEqual([0, 1]);
  });

  it.each([
    ['4/4 q q q q', 4],
    ['6/8 q. q.', 2],
    ['4/4 ^ e | w', 0],
    ['3/8 e e e', 3],
    ['4/4 ^ q | w', 1],
  ])('%s: its first measure has %i beat lines', (text, count) => {
    const layout = layoutRuler(patternOf(text), 1280, 'desk');
    expect(beatXs(layout.systems[0]!.measures[0]!, layout.scale)).toHaveLength(count);
  });
});

describe('signs of a line', () => {
  it('a meter sign stands where the meter is another', () => {
    const shown = measuresOf(layoutRuler(patternOf('3/4 h. | q q q | 6/8 q. q. | q. q. | 3/4 h.'), 1600, 'desk'));
    expect(shown.map(({ meterSign }) => meterSign)).toEqual([true, false, true, false, true]);
  });
  it('repeats stand at the measures they were written at', () => {
    const shown = measuresOf(layoutRuler(patternOf('4/4 w |: h h | (M2) :| w'), 1600, 'desk'));
    expect(shown.map(({ repeatStart, repeatEnd }) => [repeatStart, repeatEnd])).toEqual([
      [false, false],
      [true, false],
      [false, false],
      [false, true],
      [false, false],
    ]);
  });
});

describe('the key of a line', () => {
  const keyOf = (text: string, width = 900) =>
    layoutRuler(patternOf(text), width, 'desk').systems.map(systemKey).join('\n');
  it('is the same for what looks the same', () => expect(keyOf('4/4 q q h')).toBe(keyOf(' 4/4  q q h ||')));
  it.each([
    ['4/4 q q h', '4/4 q h q'],
    ['4/4 q q h', '4/4 q (q) h'],
    ['4/4 q q h', '4/4 q q~ h'],
    ['4/4 q q h', '4/4 |: q q h :|'],
    ['4/4 q q h', '2/2 q q h'],
    ['4/4 q q h | w', '4/4 q q h | (w)'],
    ['4/4 (w)', '4/4 (M1)'],
    ['4/4 q. e h', '4/4 q e. s h'],
    ['6/8 e e e q.', '6/8 3:2{e e e} q. s s'],
    ['7/8[2+2+3] e e e e e e e', '7/8[3+2+2] e e e e e e e'],
    ['4/4 ^ q | w', '4/4 q | w'],
  ])('tells %s from %s', (one, other) => expect(keyOf(one)).not.toBe(keyOf(other)));
  it('tells one width from another', () => expect(keyOf('4/4 q q h', 500)).not.toBe(keyOf('4/4 q q h', 520)));
});

describe('measures on lines', () => {
  it.each([
    [4, 3, [2, 2]],
    [4, 4, [4]],
    [5, 4, [3, 2]],
    [5, 3, [3, 2]],
    [6, 4, [3, 3]],
    [7, 3, [3, 2, 2]],
    [8, 3, [2, 2, 2, 2]],
    [8, 4, [4, 4]],
    [9, 4, [3, 3, 3]],
    [10, 4, [4, 3, 3]],
    [12, 5, [4, 4, 4]],
    [16, 5, [4, 4, 4, 4]],
    [1, 6, [1]],
    [3, 1, [1, 1, 1]],
  ])('%i, of which %i fit: %j', (count, most, sizes) => expect(lineSizes(count, most)).toEqual(sizes));
  it('are all there, none over what fits, never one alone beside three', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), fc.integer({ min: 1, max: 12 }), (count, most) => {
        const sizes = lineSizes(count, most);
        expect(sizes.reduce((sum, size) => sum + size, 0)).toBe(count);
        expect(Math.max(...sizes)).toBeLessThanOrEqual(most);
        expect(Math.max(...sizes) - Math.min(...sizes)).toBeLessThanOrEqual(1);
      }),
    );
  });
  it.each([
    ['4/4 ^ q | q q q q | h. q', 700],
    ['4/4 ^ q | q q q q | q q q q | q q q q | h.', 900],
    ['4/4 ^ q | s s s s s s s s s s s s s s s s | w', 700],
  ])('%s: a pickup has no line for itself', (text, width) => {
    expect(layoutRuler(patternOf(text), width, 'desk').systems[0]!.measures.length).toBeGreaterThan(1);
    const paper = layoutPaper(patternOf(text), { size: 'desk', width, before: 60 });
    expect(paper[0]!.measures.length).toBeGreaterThan(1);
  });
  it('four measures of which three fit are two and two, on the ruler and on paper', () => {
    const four = patternOf('4/4 e e e e e e e e | e e e e e e e e | e e e e e e e e | e e e e e e e e');
    const sizes = (systems: readonly { measures: readonly unknown[] }[]) =>
      systems.map(({ measures }) => measures.length);
    expect(sizes(layoutRuler(four, 820, 'desk').systems)).toEqual([2, 2]);
    expect(sizes(layoutPaper(four, { size: 'desk', width: 820, before: 60 }))).toEqual([2, 2]);
  });
});

describe('on paper', () => {
  const lay = (text: string, width = 680) => layoutPaper(patternOf(text), { size: 'desk', width, before: 60 });
  it('lines are as wide as each other; one alone is not pulled apart', () => {
    fc.assert(
      fc.property(fullPattern, (pattern) => {
        const systems = layoutPaper(pattern, { size: 'desk', width: 680, before: 60 });
        if (systems.length > 1) for (const { width } of systems) expect(width).toBeCloseTo(680, 0);
      }),
    );
    expect(lay('4/4 q q h')[0]!.width).toBeLessThan(450);
  });
  it('a note takes room by its value, and what is alike under one beam stands evenly', () => {
    const [{ measures }] = lay('4/4 e e e e q h') as [ReturnType<typeof lay>[number]];
    const steps = (xs: readonly number[]) => xs.slice(1).map((x, i) => Math.round(x - xs[i]!));
    const [a, b, c, , q] = steps(measures[0]!.xs);
    expect([b, c]).toEqual([a, a]);
    expect(q!).toBeGreaterThan(a!);
    expect(q!).toBeLessThan(2 * a!);
    const letters = [[1, 9, 1, 1, 1, 1]];
    const options = { size: 'desk', width: 680, before: 60, letters, letter: 10 } as const;
    const [words] = layoutPaper(patternOf('4/4 e e e e q h'), options);
    const [first, second, third] = steps(words!.measures[0]!.xs);
    expect([first, third]).toEqual([second, second]);
  });
  it('the first note stands further from its bar line than on the ruler', () => {
    const measure = lay('4/4 q q q q | q q q q')[0]!.measures[1]!;
    expect(measure.xs[0]! - measure.x).toBeGreaterThan(5);
  });
  it('needs what it fills at its closest', () => {
    const pattern = patternOf('4/4 q e e h | w');
    const needed = neededPixels(pattern, { size: 'desk', before: 60 });
    expect(layoutPaper(pattern, { size: 'desk', width: needed + 1, before: 60 })).toHaveLength(1);
    expect(layoutPaper(pattern, { size: 'desk', width: needed - 1, before: 60 })).toHaveLength(2);
  });
  it('says the next meter at the end of a line only', () => {
    const systems = lay('4/4 s s s s s s s s s s s s s s s s | 3/4 s s s s s s s s s s s s | q q q');
    expect(systems.map(({ courtesy }) => courtesy?.upper)).toEqual([3, undefined, undefined]);
  });
});
