import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { everydayPattern, fullPattern, patternOf } from '../../core/rhythm/arbitrary.test-helper.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { placePattern } from '../../core/rhythm/place.ts';
import type { Fonts } from '../fonts.ts';
import { testFonts } from '../fonts.test-helper.ts';
import { layoutRuler } from '../layout.ts';
import { layoutPaper } from '../paperLayout.ts';
import { Strokes, measureWith } from '../strokes.ts';
import { type RulerSize, type RulerSystem, ZOOM, withPlaced } from '../system.ts';
import { LINE_Y, engraveOn } from './engrave.ts';
import { type Box, type Drawn, described, readDrawing } from './readDrawing.test-helper.ts';

let fonts: Fonts;
beforeAll(() => {
  fonts = testFonts();
  measureWith(fonts);
});

function drawnOf(system: RulerSystem, size: RulerSize): Drawn {
  const context = new Strokes(fonts, 0, 0);
  engraveOn(context, system, size, { labels: true });
  return readDrawing(context.shapes, ZOOM[size], LINE_Y);
}

const onPaper = (pattern: Pattern, width = 680) => layoutPaper(pattern, { size: 'desk', width, before: 60 });
const paper = (text: string, width?: number) => onPaper(patternOf(text), width).map((one) => drawnOf(one, 'desk'));

describe('a page of patterns', () => {
  // By the places of its shapes: beams by first and last note, the shorter ones after /, hooks by where they point.
  it.each([
    ['4/4 q q h', ''],
    ['4/4 q.. s h.. e', 'dots 0 0 2 2'],
    ['4/4 h. q | q. e h', 'dots 0 2'],
    ['4/4 e. s s e. s s e t t s e', 'beams 0-1 2-3 4-6 7-10 / 1< 2> 4-5 7-9 / 7-8; dots 0 3'],
    ['4/4 s e s e s. t e e s s', 'beams 0-2 3-5 6-7 8-9 / 0> 2< 4-5 8-9 / 5<; dots 4'],
    ['2/4 e.. t e s. t', 'beams 0-1 2-4 / 1< 3-4 / 1< 4<; dots 0 0 3'],
    ['6/8 e. s e q.', 'beams 0-2 / 1<; dots 0 3'],
    ['6/8 e s e. q.', 'beams 0-2 / 1>; dots 2 3'],
    ['6/8 q e q e', ''],
    ['6/8 e e e e e e', 'beams 0-2 3-5'],
    ['9/8 q. e e e q e', 'beams 1-3; dots 0'],
    ['12/8 e e e q. e q q.', 'beams 0-2; dots 3 6'],
    ['4/8 e e e e', 'beams 0-1 2-3'],
    ['4/8 e. s s e s e', 'beams 0-1 2-4 / 1< 2> 4<; dots 0'],
    ['2/8 s s e', 'beams 0-2 / 0-1'],
    ['3/8 e e e | e. s e', 'beams 0-2 3-5 / 4<; dots 3'],
    ['3/8 s s s s s s', 'beams 0-5 / 0-5'],
    ['3/16 s s s', 'beams 0-2 / 0-2'],
    ['5/8 e e e e e | q. q', 'beams 0-2 3-4; dots 5'],
    ['7/8[2+2+3] e e e e e e e', 'beams 0-1 2-3 4-6'],
    ['7/8[3+2+2] e. s e q e e', 'beams 0-2 4-5 / 1<; dots 0'],
    ['2/2 e e e e e e e e', 'beams 0-3 4-7'],
    ['2/2 s s s s s s s s h', 'beams 0-7 / 0-3 4-7'],
    ['2/2 e. s s e. h', 'beams 0-3 / 1< 2>; dots 0 3'],
    ['4/4 e e e e e e e e', 'beams 0-3 4-7'],
    ['4/4 e q e e e q', 'beams 3-4'],
    ['4/4 q e e e e q', 'beams 1-2 3-4'],
    ['4/4 (e) e e (e) e e e e', 'beams 4-7; rests 0 3'],
    ['4/4 (q) q (h)', 'rests 0 2'],
    ['4/4 q q h | (w) | w', 'rests 3c'],
    ['4/4 q q h | (M1) | h h', 'rests 3c'],
    ['3/4 q q q | (h.) | h.', 'dots 3 4; rests 3c'],
    ['6/8 q. q. | (h.) | (q.) e (e) e', 'dots 0 1 2 3; rests 2c 3 5'],
    ['4/4 (q.) e (e.) s q', 'dots 0 2; rests 0 2'],
    ['4/4 3{e e e} q h', 'beams 0-2; groups 0-2 3'],
    ['4/4 3{q e} 3{e q} h', 'groups [0-1 3] [2-3 3]'],
    ['4/4 3{e (e) e} 3{(e) e e} h', 'beams 4-5; groups [0-2 3] [3-5 3]; rests 1 3'],
    ['4/4 q 3:2{q q q} q', 'groups [1-3 3]'],
    ['2/4 5:4{e e e e e} | q q', 'beams 0-4; groups 0-4 5:4'],
    ['4/4 6:4{e e e e e e} 5:4{s s s s s} q', 'beams 0-5 6-10 / 6-10; groups 0-5 6:4 6-10 5:4'],
    ['2/4 7:4{s s s s s s s} e. s', 'beams 0-6 7-8 / 0-6 8<; groups 0-6 7:4; dots 7'],
    ['2/4 3{e. s e} 3{s s e e}', 'beams 0-2 3-6 / 1< 3-4; groups 0-2 3 3-6 3; dots 0'],
  ])('%s: %s', (text, says) => expect(paper(text).map(described)).toEqual([says]));

  it('has level beams, three quarters of a space from one to the next', () => {
    const [{ beams }] = paper('2/4 t t s e. s') as [Drawn];
    const tops = [...new Set(beams.map(({ top }) => Math.round(top * 10) / 10))].toSorted((a, b) => a - b);
    expect(tops.slice(1).map((top, i) => top - tops[i]!)).toContain(7.5);
    for (const { top, bottom } of beams) expect(bottom - top).toBeCloseTo(5, 1);
  });
  it('has dots beside flags, not on them', () => {
    const [{ flags, dots }] = paper('4/4 e. q s q e.') as [Drawn];
    for (const flag of flags) for (const dot of dots) expect(meets(flag, dot)).toBe(false);
  });
  it('has letters and words under their notes', () => {
    const [{ words, events }] = paper("4/4 q'G' (q) e'la' e h'harbour'".replace(' h', ' q')) as [Drawn];
    expect(words.map(({ sign }) => sign)).toEqual(['G', 'la', 'harbour']);
    [0, 2, 4].forEach((at, k) => expect(middle(words[k]!)).toBeCloseTo(middle(events[at]!), 0));
    for (const { top } of words) expect(top).toBeGreaterThan(5);
  });
});

describe('two parts on one line', () => {
  const both = (upper: string, lower: string) => {
    const { systems, scale } = layoutRuler(patternOf(upper), 1200, 'desk');
    const below = withPlaced(systems[0]!, placePattern(patternOf(lower)), { scale, size: 'desk' });
    const context = new Strokes(fonts, 0, 0);
    engraveOn(context, systems[0]!, 'desk', { lower: below });
    return readDrawing(context.shapes, ZOOM.desk, LINE_Y);
  };

  it('have their stems, beams and dots up and down, and rests above and below the line', () => {
    const { beams, dots, events, numbers } = both('4/4 e e (q) q. e', '4/4 (q) e e q. (e)');
    expect(beams.map(({ top }) => Math.sign(top))).toEqual([-1, 1]);
    expect(dots.map(({ top }) => Math.sign(top)).sort()).toEqual([-1, 1]);
    const rests = events.filter(({ top, bottom }) => Math.abs(top + bottom) > 20).map(({ top }) => Math.sign(top));
    expect(rests.toSorted()).toEqual([-1, 1, 1]);
    expect(numbers).toEqual([]);
    expect(both('4/4 3{e e e} h.', '4/4 3{q q q} h').numbers.map(({ top }) => Math.sign(top))).toEqual([-1, 1]);
  });

  it('share a head where it is the same, and have two side by side where it is not', () => {
    const lefts = ({ events }: Drawn) => events.map(({ left }) => Math.round(left));
    const same = lefts(both('4/4 q q h', '4/4 q q h'));
    expect(new Set(same).size).toBe(3);
    const other = both('4/4 q q h', '4/4 h h').events;
    expect(new Set(lefts({ events: other } as Drawn)).size).toBe(4);
    for (const a of other)
      for (const b of other) if (a.sign !== b.sign) expect(a.right <= b.left + 1 || b.right <= a.left + 1).toBe(true);
    expect(new Set(lefts(both('4/4 q. e h', '4/4 q q h'))).size).toBe(5);
  });
});

const middle = ({ left, right }: Box) => (left + right) / 2;
const meets = (a: Box, b: Box) => a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

describe('bar lines and meters', () => {
  it('a change of meter stands after one bar line', () => {
    const [{ bars, figures, events }] = paper('3/4 q q q | 4/4 h h') as [Drawn];
    const between = (box: Box) => box.left > events[2]!.right && box.right < events[3]!.left;
    expect(bars.filter(between)).toHaveLength(1);
    expect(figures.filter(between).map(({ left }) => left > bars.find(between)!.right)).toEqual([true, true]);
  });
  it('is said at the end of the line before, after its bar line', () => {
    const lines = paper('4/4 s s s s s s s s s s s s s s s s | 3/4 s s s s s s s s s s s s');
    expect(lines).toHaveLength(2);
    const [{ bars, figures }] = lines as [Drawn];
    expect(figures.map(({ sign }) => sign.codePointAt(0)! - 0xe080)).toEqual([4, 4, 3, 4]);
    for (const { left } of figures.slice(2)) expect(left).toBeGreaterThan(bars.at(-1)!.right + 3);
    const [repeated] = paper('4/4 |: s s s s s s s s s s s s s s s s :| 3/4 s s s s s s s s s s s s') as [Drawn];
    for (const { left } of repeated.figures.slice(2)) expect(left).toBeGreaterThan(repeated.bars.at(-1)!.right + 3);
    expect(paper('4/4 s s s s s s s s s s s s s s s s | s s s s s s s s s s s s s s s s')[0]!.figures).toHaveLength(2);
  });
  it('a repeat in the middle has one thick bar line, and dots clear of the notes', () => {
    const [{ bars }] = paper('4/4 w |: h h :| w') as [Drawn];
    expect(bars.map(({ left, right }) => Math.round(right - left))).toEqual([3, 1, 1, 3, 1, 3]);
    const both = paper('4/4 |: h h :|: q h q :|')[0]!.bars;
    expect(both.length).toBeGreaterThan(0);
  });
  it('seven measures of rest are one sign with their number, or seven', () => {
    const [{ figures, bars, events }] = paper('4/4 (M7) | q q q q') as [Drawn];
    expect(figures.map(({ sign }) => sign.codePointAt(0)! - 0xe080)).toEqual([4, 4, 7]);
    expect(events).toHaveLength(4);
    expect(bars).toHaveLength(3);
    const pattern = patternOf('4/4 (M7) | q q q q');
    const each = layoutPaper(pattern, { size: 'desk', width: 680, before: 60, eachRest: true });
    expect(each.flatMap(({ measures }) => measures)).toHaveLength(8);
    const rests = each.flatMap((system) => drawnOf(system, 'desk').events);
    expect(rests).toHaveLength(11);
  });
});

const SIZES: readonly RulerSize[] = ['desk', 'board', 'wall', 'card'];

/** Nothing of the notes on a bar line, and the first of a measure well clear of it. */
function expectClear({ events, flags, dots, bars }: Drawn): void {
  for (const bar of bars) {
    for (const box of [...events, ...flags, ...dots]) {
      const crosses = box.left < bar.right && box.right > bar.left;
      expect(crosses ? [bar, box] : undefined).toBeUndefined();
    }
  }
}

describe('laws of every pattern', () => {
  it('no head, flag or dot is printed over a bar line, on paper and on the ruler', () => {
    fc.assert(
      fc.property(fc.oneof(everydayPattern, fullPattern), fc.constantFrom(...SIZES), (pattern, size) => {
        // Wide enough for the shortest note at the end of a measure: where time is exact, all others are as far apart.
        const width = 4000 * ZOOM[size];
        for (const system of layoutPaper(pattern, { size, width, before: 60 })) expectClear(drawnOf(system, size));
        for (const system of layoutRuler(pattern, width, size).systems) expectClear(drawnOf(system, size));
      }),
      { numRuns: 60 },
    );
  });
  it('on paper no sign touches another, and dots stand apart', () => {
    fc.assert(
      fc.property(fullPattern, (pattern) => {
        for (const system of onPaper(pattern, 2000)) {
          const { events, dots, flags } = drawnOf(system, 'desk');
          const row = [...events, ...dots].toSorted((a, b) => a.left - b.left);
          row.slice(1).forEach((one, i) => expect(one.left).toBeGreaterThan(row[i]!.right));
          for (const flag of flags) for (const dot of dots) expect(meets(flag, dot)).toBe(false);
        }
      }),
      { numRuns: 60 },
    );
  });
});
