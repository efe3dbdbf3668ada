import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { randomFrom } from '../random.ts';
import { patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { scheduleOf } from '../timing/schedule.ts';
import { PLAIN_VOICE } from '../wording/voice.ts';
import { classTogetherSentence, onceMoreText, toMend } from '../wording/classTogetherWords.ts';
import { fallsApartAt } from './apart.ts';
import { classHeard } from './classHeard.ts';
import { fewerFrom } from './fewer.ts';
import { paceOf } from './pace.ts';
import { spotsOf } from './spots.ts';
import { between, momentOf, shareOf, strikesOfTakes } from './strikes.ts';

const LONG = '4/4 q q e e q | q (q) q q | h q q | q e e h';

interface Way {
  readonly children?: number;
  readonly spread?: number;
  readonly seed?: number;
  /** The first note from which on the spread is so many times as wide. */
  readonly apart?: { readonly from: number; readonly times: number };
  readonly faster?: number;
  readonly late?: number;
  /** Of the class, who claps at these seconds too. */
  readonly also?: readonly { readonly at: number; readonly share: number }[];
  /** Half of the class comes so many seconds early at this note. */
  readonly half?: { readonly note: number; readonly by: number };
  /** A share of the class claps from one note to before another only. */
  readonly some?: { readonly share: number; readonly from: number; readonly to: number };
}

/** What each child of a class claps. */
function classOf(text: string, bpm: number, way: Way = {}): number[][] {
  const { children = 26, spread = 0.02, seed = 1, apart, faster = 0, late = 0, also = [], half, some } = way;
  const random = randomFrom(seed);
  const { notes } = scheduleOf(patternOf(text), bpm);
  const length = notes.at(-1)!.time;
  return Array.from({ length: children }, (_, child) => [
    ...notes.flatMap(({ time }, i) => {
      if (some && child < some.share * children && (i < some.from || i >= some.to)) return [];
      const wide = apart && i >= apart.from ? apart.times * spread : spread;
      const early = half?.note === i && child < children / 2 ? half.by : 0;
      return [time - (faster * time * time) / (2 * length) + late - early + wide * random.normal()];
    }),
    ...also.flatMap(({ at, share }) => (child < share * children ? [at + spread * random.normal()] : [])),
  ]);
}
const heardOf = (text: string, bpm: number, way: Way = {}) =>
  classHeard(patternOf(text), bpm, strikesOfTakes(classOf(text, bpm, way)), { hands: way.children ?? 26 });
const saidOf = (text: string, bpm: number, way: Way) =>
  classTogetherSentence(heardOf(text, bpm, way), PLAIN_VOICE.naming);

describe('strikes', () => {
  it('have the moments that ordered values have', () => {
    const strikes = strikesOfTakes([[3], [1], [2], [10], [4]]);
    const all = between(strikes, 0, 11);
    expect([0, 0.25, 0.5, 0.75, 1].map((part) => momentOf(strikes, all, part))).toEqual([1, 2, 3, 4, 10]);
    expect(momentOf(strikes, all, 0.9)).toBeCloseTo(7.6, 9);
    expect(shareOf(strikes, between(strikes, 2, 4))).toBeCloseTo(0.4, 9);
    expect(momentOf(strikes, between(strikes, 5, 6), 0.5)).toBeUndefined();
    expect(momentOf(strikesOfTakes([[2], [2]]), { from: 0, to: 2 }, 0.3)).toBe(2);
  });

  it('never have a later part sooner', () =>
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.double({ min: 0, max: 9, noNaN: true }), fc.double({ min: 0, max: 2, noNaN: true })), {
          minLength: 1,
        }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (pairs, one, other) => {
          pairs.sort((a, b) => a[0] - b[0]);
          const strikes = { times: pairs.map(([time]) => time), shares: pairs.map(([, share]) => share) };
          const all = { from: 0, to: pairs.length };
          const [sooner, later] = [Math.min(one, other), Math.max(one, other)].map((part) =>
            momentOf(strikes, all, part),
          );
          if (sooner === undefined || later === undefined) return sooner === later;
          return sooner <= later + 1e-9 && sooner >= pairs[0]![0] && later <= pairs.at(-1)![0];
        },
      ),
    ));
});

it.each([
  ['4/4 q (h) q | w', 'note 1:1, rest 1:2, rest 1:3, note 1:4, note 2:1, hold 2:2, hold 2:3, hold 2:4'],
  ['4/4 q. e h', 'note 1:1, note 1:2 1/2, note 1:3, hold 1:4'],
  ['4/4 q e (e) q q', 'note 1:1, note 1:2, rest 1:2 1/2, note 1:3, note 1:4'],
  ['6/8 q. (e) e e', 'note 1:1, rest 1:2, note 1:2 1/3, note 1:2 2/3'],
])('%s is clapped, or could be, at %s', (text, spots) => {
  const said = spotsOf(scheduleOf(patternOf(text), 60)).map(({ kind, place }) => {
    const { n, d } = place.beat;
    return `${kind} ${place.measure}:${Math.floor(n / d)}${n % d ? ` ${n % d}/${d}` : ''}`;
  });
  expect(said.join(', ')).toBe(spots);
});

describe('a class that claps as one', () => {
  it('is as wide at each note as its claps are, and as far ahead', () => {
    const heard = classHeard(
      patternOf('4/4 q q q q'),
      60,
      strikesOfTakes([0, 0.02, 0.04, 0.06, 0.08].map((late) => [late, 1 - late, 2, 3 + late])),
    );
    expect(heard.notes.map(({ widthMs, aheadMs, loudness }) => [widthMs, aheadMs, loudness])).toEqual([
      [64, -40, 1],
      [64, 40, 1],
      [0, 0, 1],
      [64, -40, 1],
    ]);
    expect(heard).toMatchObject({ tooFew: false, confidence: 1, rests: [], driftPct: 0 });
  });

  it.each([
    [{}, /^As one from beginning to end\.$/],
    [{ spread: 0.035 }, /^Together all through\.$/],
    [{ spread: 0.06 }, /^Not together yet/],
    [{ late: 0.07 }, /^As one .*, a little behind the beat\.$/],
    [{ late: -0.07 }, /^As one .*, a little before the beat\.$/],
    [
      { apart: { from: 7, times: 4 } },
      /^Together until measure 2, beat \d; from measure [23], beat \d on it falls apart\.$/,
    ],
    [{ also: [{ at: 5 * 0.75, share: 0.3 }] }, /^Nobody claps in the rest in measure 2, beat 2: 3 in 10 of you did\.$/],
    [
      { also: [{ at: 9 * 0.75, share: 0.5 }] },
      /^The note sounds on in measure 3, beat 2: half of you clapped there\.$/,
    ],
    [{ faster: 0.08 }, /^On the beat at first; from measure \d, beat .* on you run ahead of it\.$/],
    [{ faster: -0.08 }, /^On the beat at first; from measure \d, beat .* on you fall behind it\.$/],
    [{ half: { note: 6, by: 0.2 } }, /^Together but for measure 2, beat 3: half of you came early\.$/],
    [
      { some: { share: 0.5, from: 0, to: 5 } },
      /^All of you until measure 2, beat 1; from there on only half of you clapped\.$/,
    ],
    [
      { some: { share: 0.7, from: 5, to: 99 } },
      /^Only 3 in 10 of you clapped at first; from measure 2, beat 1 on all of you\.$/,
    ],
    // A few who stop are not many.
    [{ some: { share: 0.2, from: 0, to: 5 } }, /^As one from beginning to end\.$/],
    [{ children: 2 }, /^Too few hands/],
  ] satisfies [Way, RegExp][])('of %j hears so', (way, sentence) => expect(saidOf(LONG, 80, way)).toMatch(sentence));

  it('that comes early after a rest, and is lost from there on, hears both', () => {
    const early = { half: { note: 6, by: 0.25 }, apart: { from: 6, times: 3.5 } };
    expect(saidOf(LONG, 70, early)).toMatch(/^Together until measure 2, beat 1; after the rest .* came early\.$/);
  });

  it('does the measure again where it was not together, and none where it was', () => {
    const apart = toMend(heardOf(LONG, 80, { apart: { from: 7, times: 4 } }))!;
    expect(apart.what).toBe('apart');
    expect([2, 3]).toContain(apart.measure);
    expect(onceMoreText(apart, PLAIN_VOICE.naming)).toBe(`Once more: measure ${apart.measure}`);
    expect(toMend(heardOf(LONG, 80))).toBeUndefined();
    const places = [
      { from: 0, to: 5 },
      { from: 8, to: 99 },
    ].map((part) => toMend(heardOf(LONG, 80, { some: { share: 0.5, ...part } }))!.measure);
    expect(places).toEqual([2, 1]);
  });

  it('has no width at a note that hardly anybody claps', () => {
    const takes = Array.from({ length: 20 }, (_, child) => [0, 1, ...(child === 0 ? [2] : []), 3 + child / 1000]);
    const { notes } = classHeard(patternOf('4/4 q q q q'), 60, strikesOfTakes(takes), { hands: 20 });
    expect(notes.map(({ widthMs, loudness }) => [widthMs !== undefined, loudness])).toEqual([
      [true, 1],
      [true, 1],
      [false, 0.05],
      [true, 1],
    ]);
  });

  it.each([60, 100, 140])('is found at %d where nobody clicked, whatever its own tempo', (bpm) => {
    for (const [seed, own] of [bpm * 0.92, bpm * 1.07].entries()) {
      const takes = classOf(LONG, own, { seed, spread: 0.025 }).map((take) => take.map((time) => time + 7.3));
      const heard = classHeard(patternOf(LONG), bpm, strikesOfTakes(takes), { free: true, hands: 26 });
      expect(heard.notes.every(({ loudness }) => loudness > 0.9)).toBe(true);
      expect(heard.widthMs).toBeLessThan(75);
      expect(Math.abs(heard.aheadMs!)).toBeLessThan(6);
    }
  });

  it('says the same whoever of it is named first, and whenever it began', () =>
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 999 }), fc.integer({ min: 3, max: 30 }), (seed, children) => {
        const takes = classOf(LONG, 90, { seed, children, spread: 0.03 });
        const hear = (all: number[][]) => classHeard(patternOf(LONG), 90, strikesOfTakes(all), { hands: children });
        expect(hear(takes.toReversed())).toEqual(hear(takes));
      }),
      { numRuns: 25 },
    ));

  it('has nothing to say of silence', () => {
    const heard = classHeard(patternOf(LONG), 80, strikesOfTakes([[]]));
    expect(heard).toMatchObject({ tooFew: true, confidence: 0, driftPct: 0 });
    expect(heard.notes.every(({ widthMs, loudness }) => widthMs === undefined && loudness === 0)).toBe(true);
  });
});

describe('falling apart', () => {
  it.each([
    [[40, 40, 42, 41, 100, 110, 95, 120], 4],
    [[40, 40, 42, 41, 100, 38, 42, 41], undefined],
    [[40, 55, 42, 61, 45, 70, 62, 50], undefined],
    // Far nearer than anybody hears.
    [[10, 9, 11, 10, 30, 28, 33, 31], undefined],
    [[40, undefined, 42, 41, undefined, 110, 95, 120], 5],
    // One that is narrow again among many that are not.
    [[40, 44, 39, 41, 100, 110, 95, 45, 120, 99, 105], 4],
    // As many narrow again as that are none of one that fell apart.
    [[40, 40, 42, 41, 200, 210, 190, 205, 45, 42, 44], undefined],
    [[100, 110, 95, 40, 41, 39], undefined],
    [[40, 100], undefined],
  ])('%j: from %s on', (widths, from) => expect(fallsApartAt(widths)).toBe(from));

  it('is found within a note of where it begins, in classes of any size', () => {
    const found = Array.from({ length: 60 }, (_, seed) => {
      const from = 4 + (seed % 6);
      const way = { seed, children: 8 + (seed % 5) * 8, spread: 0.015 + (seed % 3) * 0.01, apart: { from, times: 3 } };
      return Math.abs((heardOf(LONG, 60, way).fallsApart?.index ?? 99) - from);
    });
    expect(found.filter((off) => off > 1).length).toBeLessThanOrEqual(3);
  });
});

it.each([
  [[1, 1, 1, 0.5, 0.5, 0.5], { index: 3, kind: 'stop', share: 0.5 }],
  [[0.3, 0.3, 0.3, 1, 1, 1, 1], { index: 3, kind: 'join', share: 0.3 }],
  // Two soft notes are no part of a class, nor is what goes up and down.
  [[1, 1, 1, 1, 0.4, 0.4], undefined],
  [[0.4, 0.4, 1, 1, 1, 1, 1], undefined],
  [[0.4, 1, 1, 1, 1, 1], undefined],
  [[1, 0.4, 1, 0.4, 1, 0.4, 1, 0.4], undefined],
  [[1, 1.1, 0.9, 0.8, 0.75, 0.7], undefined],
  [[0, 0, 0, 0, 0, 0], undefined],
  [[], undefined],
])('of notes as loud as %j fewer clap: %j', (loudness, fewer) => {
  const found = fewerFrom(loudness);
  expect(found && { ...found, share: Math.round(found.share * 100) / 100 }).toEqual(fewer);
});

describe('the tempo of a class', () => {
  const notes = (ahead: (time: number) => number) =>
    Array.from({ length: 16 }, (_, i) => ({ time: i * 0.5, aheadMs: ahead(i * 0.5) + (i % 3) - 1 }));
  it.each([
    ['kept', () => -20, 0, undefined],
    ['another from the beginning on', (time: number) => 20 * time, 2, undefined],
    ['faster and faster', (time: number) => (40 * time * time) / 15, 4, undefined],
    ['slower and slower', (time: number) => -(60 * time * time) / 15, -6, undefined],
  ])('%s', (_name, ahead, pct) => expect(paceOf(notes(ahead)).driftPct).toBeCloseTo(pct, 0));

  it('runs from the note on from which it stays off the beat', () => {
    expect(paceOf(notes((time) => 20 * time)).from).toBe(4);
    expect(paceOf(notes(() => 50)).from).toBeUndefined();
  });
});
