import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { judge } from '../judging/judge.ts';
import { MISREADINGS } from '../judging/misreadings/table.ts';
import { simulateTake } from '../judging/simulatedChild.ts';
import { randomFrom } from '../random.ts';
import { barCheck } from '../rhythm/barCheck.ts';
import { ELEMENT_IDS, type ElementId, elementPlaces, elementsOf } from '../rhythm/elements.ts';
import { ONE, add, compare, div, frac, isWhole, mixed } from '../rhythm/fraction.ts';
import { beatOf } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { placePattern } from '../rhythm/place.ts';
import { soundKey } from '../rhythm/soundings.ts';
import { measureText, parseMeter, parseRhythm, printRhythm } from '../rhythm/text.ts';
import { cellTexts, everyFill } from './everyFill.ts';
import { type Focus, MISREAD_AT, PLACED_MISREADINGS, focusPlaces } from './focus.ts';
import { isHeard } from './heard.ts';
import { type Level, LEVELS, difficultyOf, exactLevel } from './level.ts';
import { PatternMaker, elementsAt, makePattern } from './makePattern.ts';
import { makeSet } from './makeSet.ts';
import { EVERYTHING, few } from '../../scripts/test/trial.test-helper.ts';

function meterOf(text: string) {
  const read = parseMeter(text);
  if (!read.ok) throw new Error(text);
  return read.meter;
}

function patternOf(text: string): Pattern {
  const parsed = parseRhythm(text);
  if (!parsed.ok) throw new Error(text);
  return parsed.pattern;
}

function makerOf(meter: string, measures: number, elements: readonly ElementId[], focus?: Focus): PatternMaker {
  const maker = PatternMaker.of({ meter: meterOf(meter), measures, elements, ...(focus ? { focus } : {}) });
  if (typeof maker === 'string') throw new Error(maker);
  return maker;
}

const element = (id: ElementId): Focus => ({ kind: 'element', element: id });
const SIMPLE_IDS = ELEMENT_IDS.filter((id) => id !== 'compound');

/** What stands in compound meter is known once compound meter is. */
const WITH_COMPOUND: readonly ElementId[] = ['quarter', 'eighth-pair'];

/** The laws of §11, read from the finished pattern alone. @returns what is broken */
function broken(pattern: Pattern, level: Level, measures: number, allowed: ReadonlySet<ElementId>): string[] {
  const text = printRhythm(pattern);
  const troubles: string[] = [];
  const law = (holds: boolean, name: string) => {
    if (!holds) troubles.push(`${name}: ${text}`);
  };
  law(pattern.measures.length === measures, 'as many measures as asked for');
  law(
    barCheck(pattern).every(({ verdict }) => verdict === 'full'),
    'every measure is full',
  );
  const strange = [...elementsOf(pattern).keys()].filter(
    (id) =>
      id !== 'quarter' &&
      id !== 'compound' &&
      !allowed.has(id) &&
      !(allowed.has('compound') && WITH_COMPOUND.includes(id)),
  );
  law(strange.length === 0, `only allowed elements, not ${strange.join()}`);
  const placed = placePattern(pattern);
  const kinds = placed.flatMap(({ events }) => events.map(({ kind }) => kind));
  law(level >= 3 || kinds[0] !== 'rest', 'no rest first below level 3');
  law(!kinds.some((_, i) => kinds.slice(i, i + 3).join() === 'rest,rest,rest'), 'no more than two rests in a row');
  const { meter, events } = placed.at(-1)!;
  const last = events.at(-1)!;
  const onBeat = isWhole(div(last.onset, beatOf(meter).length));
  law(onBeat && (last.kind === 'rest' ? level >= 2 : compare(last.length, frac(1, 4)) >= 0), 'ends on a beat');
  const texts = pattern.measures.map(measureText);
  for (let from = 0; from + 4 <= measures; from += 4) {
    const [a, b, c, d] = texts.slice(from, from + 4).map((one) => one.replace(/~/g, '')) as [
      string,
      string,
      string,
      string,
    ];
    const begins = c.split(' ')[0] === a.split(' ')[0];
    const shaped = (a === c && b !== d && a !== b) || (a === b && b === d && a !== c) || (begins && a !== c);
    law(shaped, 'phrases of four have a shape');
  }
  return troubles;
}

describe('laws of a made pattern', () => {
  const CASES: readonly (readonly [string, readonly number[], readonly ElementId[]])[] = [
    ['4/4', [1, 2, 3, 4, 8], SIMPLE_IDS],
    ['4/4', [4], ['eighth-pair', 'quarter-rest']],
    ['4/4', [2, 4], ['half', 'half-rest', 'dotted-half', 'whole', 'tie']],
    ['4/4', [2], ['eighth-rest', 'dotted-eighth']],
    ['3/4', [2, 4, 5], SIMPLE_IDS],
    ['2/4', [4, 7], ['eighth-pair', 'quarter-rest', 'sixteenths', 'half']],
    ['6/8', [2, 4], [...ELEMENT_IDS]],
    ['6/8', [4], ['eighth-pair', 'quarter-rest']],
    ['9/8', [2], ['compound', 'eighth-rest']],
    ['12/8', [4], ['compound', 'tie']],
    ['3/8', [4], ['eighth-pair', 'dotted-quarter']],
    ['7/8', [4], SIMPLE_IDS],
    ['5/4', [4], ['eighth-pair', 'half']],
    ['2/2', [4], ['half', 'whole', 'quarter-rest']],
    ['6/4', [2], ['half', 'eighth-pair']],
  ];
  it.each(CASES)('%s in %j measures of %j', (meter, lengths, elements) => {
    for (const measures of lengths) {
      const maker = makerOf(meter, measures, elements);
      const allowed = new Set<ElementId>(elements);
      for (const level of LEVELS)
        for (const seed of few([1, 2, 3, 4, 5, 6, 7, 8], 2)) {
          const made = maker.make(level, seed);
          expect(made, `${meter} ${measures} level ${level} seed ${seed}`).toBeDefined();
          expect(broken(made!.pattern, level, measures, allowed)).toEqual([]);
          expect(made!.score).toBeCloseTo(difficultyOf(made!.pattern).score, 9);
          expect(made!.level).toBe(difficultyOf(made!.pattern).level);
        }
    }
  });

  it('comes out the same from the same seed', () => {
    const made = (seed: number) => printRhythm(makerOf('4/4', 4, SIMPLE_IDS).make(3, seed)!.pattern);
    expect(made(7)).toBe(made(7));
    expect(new Set(Array.from({ length: 20 }, (_, seed) => made(seed))).size).toBeGreaterThan(15);
  });

  it('is never easier at a higher level, whatever it is made of', () => {
    const some = fc.uniqueArray(fc.constantFrom(...SIMPLE_IDS), { minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(some, fc.constantFrom('4/4', '3/4', '2/4'), fc.nat(1e6), (elements, meter, seed) => {
        const scores = LEVELS.map((level) => makerOf(meter, 4, elements).make(level, seed)?.score);
        const known = scores.filter((score) => score !== undefined);
        expect(known).toEqual([...known].sort((a, b) => a - b));
      }),
      { numRuns: 20 },
    );
  });

  it('has the level asked for, where its elements allow', () => {
    for (const level of LEVELS) {
      const maker = makerOf('4/4', 4, elementsAt(level));
      const hits = Array.from({ length: 40 }, (_, seed) => maker.make(level, seed)!.level === level);
      expect(hits.filter(Boolean).length).toBeGreaterThanOrEqual(37);
    }
  });

  it('says when nothing can be made', () => {
    const trouble = (meter: string, elements: readonly ElementId[], focus?: Focus) =>
      PatternMaker.of({ meter: meterOf(meter), measures: 2, elements, ...(focus ? { focus } : {}) });
    expect(trouble('4/4', ['half'], element('compound'))).toBe('no-focus');
    expect(trouble('3/4', ['half'], element('whole'))).toBe('no-focus');
    expect(trouble('6/8', ['compound'], element('dotted-quarter'))).toBe('no-focus');
    expect(trouble('4/4', ['half'], { kind: 'misreading', code: 'rest-skipped' })).toBe('no-focus');
    expect(trouble('4/4', ['half'], { kind: 'misreading', code: 'tie-restruck' })).toBe('no-focus');
    expect(trouble('6/16', ['half'])).toBe('no-fill');
    expect(makePattern({ meter: meterOf('6/16'), measures: 1, elements: [], level: 1 }, randomFrom(1))).toBeUndefined();
    expect(makeSet({ meter: meterOf('6/16'), measures: 1, elements: [], level: 1 }, 2, 1)).toBe('no-fill');
  });
});

/** Every place at which a cell of an element could start, found without the maker: there is room to the bar line. */
const PLACES: readonly (readonly [ElementId, string, readonly string[]])[] = [
  ['quarter', '4/4', ['1', '2', '3', '4']],
  ['eighth-pair', '4/4', ['1', '2', '3', '4']],
  ['quarter-rest', '4/4', ['1', '2', '3', '4']],
  ['half', '4/4', ['1', '2', '3']],
  ['half-rest', '4/4', ['1', '3']],
  ['dotted-half', '4/4', ['1', '2']],
  ['whole', '4/4', ['1']],
  ['tie', '4/4', ['1', '2', '3', '4']],
  ['eighth-rest', '4/4', ['1', '1 1/2', '2', '2 1/2', '3', '3 1/2', '4', '4 1/2']],
  ['syncopation', '4/4', ['1', '2', '3']],
  ['dotted-quarter', '4/4', ['1', '2', '3']],
  ['sixteenths', '4/4', ['1', '1 1/4', '1 1/2', '2', '2 1/4', '2 1/2', '3', '3 1/4', '3 1/2', '4', '4 1/4', '4 1/2']],
  ['dotted-eighth', '4/4', ['1', '2', '3', '4']],
  ['triplet', '4/4', ['1', '2', '3', '4']],
  ['half', '3/4', ['1', '2']],
  ['syncopation', '3/4', ['1', '2']],
  ['quarter', '6/8', ['1', '2']],
];

describe('the focus', () => {
  it.each(PLACES)('%s in %s stands at each of %j, somewhere in each two measures', (id, meter, beats) => {
    const others: readonly ElementId[] = ['eighth-pair', 'quarter-rest', 'half', 'compound'];
    const maker = makerOf(meter, 4, others, element(id));
    // What ends a pattern is a quarter or longer on a beat, or a rest on one.
    const wanted = [1, 2, 3].flatMap((measure) => beats.map((one) => `${measure}: ${one}`));
    const first = id === 'tie' ? '1: 1' : undefined;
    const seen = new Set<string>();
    const missing = () => wanted.filter((place) => place !== first && !seen.has(place));
    for (let seed = 1; seed <= (EVERYTHING ? 30 : 10) || (seed <= 250 && missing().length > 0); seed++) {
      const { pattern, focusAt } = maker.make(((seed % 3) + 3) as Level, seed)!;
      const beat = beatOf(pattern.measures[0]!.meter).length;
      const measures = focusAt.map(({ measure }) => measure);
      for (const from of [1, 2, 3]) expect(measures.some((one) => one === from || one === from + 1)).toBe(true);
      for (const { measure, onset } of elementPlaces(pattern).get(id)!)
        seen.add(`${measure}: ${mixed(add(div(onset, beat), ONE))}`);
    }
    expect(missing()).toEqual([]);
  });

  it.each(few(PLACED_MISREADINGS, 5))('%s is named by the judge in what is made for it', (code) => {
    const focus: Focus = { kind: 'misreading', code };
    const written = 'hypotheses' in MISREADINGS[code] && !code.startsWith('measure-');
    const maker = makerOf('4/4', 4, SIMPLE_IDS, focus);
    let [takes, named] = [0, 0];
    for (let seed = 1; seed <= 2; seed++) {
      const made = maker.nearest(3, randomFrom(seed));
      if (!made) continue;
      const { pattern } = made;
      if (written) expect(focusPlaces(pattern, focus).length).toBeGreaterThanOrEqual(MISREAD_AT);
      for (const bpm of [66, 88]) {
        const onsets = simulateTake(pattern, bpm, { spread: 0.022, lead: 0.03, misreads: [{ code }] }, 900 + seed);
        const judged = judge({ pattern, bpm, start: 0, onsets });
        takes++;
        if (judged.ok && judged.result.misreadings.some((one) => one.code === code)) named++;
      }
    }
    expect(takes).toBeGreaterThanOrEqual(4);
    expect(takes - named).toBeLessThanOrEqual(1);
  });
});

it('what a child would misread unheard is not taken', () => {
  const made = (code: 'dot-too-short' | 'hold-pulsed', seed: number) =>
    makerOf('4/4', 2, SIMPLE_IDS, { kind: 'misreading', code }).nearest(4, randomFrom(seed));
  for (const code of ['dot-too-short', 'hold-pulsed'] as const)
    for (let seed = 1; seed <= (EVERYTHING ? 5 : 2); seed++) {
      const one = made(code, seed);
      if (one) expect(isHeard(one.pattern, code), printRhythm(one.pattern)).toBe(true);
    }
});

describe('sets', () => {
  const wanted = (level: Level, measures = 4) => ({
    meter: meterOf('4/4'),
    measures,
    elements: elementsAt(level),
    level,
  });
  it.each(LEVELS)('of level %i: eighty, as hard as each other, no two alike', (level) => {
    const set = makeSet(wanted(level), 80, 11);
    if (typeof set === 'string') throw new Error(set);
    expect(set).toMatchObject({ short: false });
    expect(new Set(set.made.map(({ pattern }) => soundKey(pattern))).size).toBe(80);
    const levels = set.made.map(({ score }) => exactLevel(score));
    expect(Math.max(...levels) - Math.min(...levels)).toBeLessThanOrEqual(0.5 + 1e-9);
    expect(new Set(set.made.map((one) => one.level)).size).toBe(1);
  });

  it('leaves out what the class has, and says when there are no more', () => {
    const few = { meter: meterOf('2/4'), measures: 1, elements: ['eighth-pair'] as const, level: 1 } as const;
    const set = makeSet(few, 20, 1);
    if (typeof set === 'string') throw new Error(set);
    const texts = set.made.map(({ pattern }) => printRhythm(pattern));
    expect(set.short).toBe(true);
    const again = makeSet(few, 20, 1, new Set([soundKey(set.made[0]!.pattern)]));
    if (typeof again === 'string') throw new Error(again);
    expect(again.made.map(({ pattern }) => printRhythm(pattern))).toEqual(texts.filter((text) => text !== texts[0]));
  });

  it('keeps locked measures as they are, and makes the others anew', () => {
    const base = patternOf('4/4 q. e q q | (h) e e q~ | q 3{e e e} h | w');
    const locked = new Map([1, 2].map((index) => [index, base.measures[index]!]));
    const set = makeSet({ ...wanted(2), locked }, 20, 4);
    if (typeof set === 'string') throw new Error(set);
    const { made } = set;
    expect(made.length).toBe(20);
    for (const { pattern, score } of made) {
      expect(pattern.measures.slice(1, 3).map(measureText)).toEqual(['(h) e e q~', 'q 3{e e e} h']);
      expect(score).toBeCloseTo(difficultyOf(pattern).score, 9);
    }
    expect(new Set(made.map(({ pattern }) => measureText(pattern.measures[0]!))).size).toBeGreaterThan(5);
  });

  it('a tie out of a locked measure goes where what follows is made anew', () => {
    const [measure] = patternOf('4/4 q q q q~ | q q q q').measures;
    const maker = PatternMaker.of({ ...wanted(2), locked: new Map([[0, measure!]]) }) as PatternMaker;
    expect(measureText(maker.make(2, 3)!.pattern.measures[0]!)).toBe('q q q q');
  });
});

describe('all of them', () => {
  const texts = (meter: string, cells: readonly string[], most?: number) =>
    everyFill(meterOf(meter), cells, most).measures.map(measureText);
  it.each<[string, readonly string[], readonly string[]]>([
    ['4/4', ['h', '(h)'], ['h h', 'h (h)', '(h) h', '(h) (h)']],
    ['2/4', ['q', 'e e'], ['q q', 'q e e', 'e e q', 'e e e e']],
    ['3/4', ['q', 'h'], ['q q q', 'q h', 'h q']],
    ['6/8', ['q.', 'q e'], ['q. q.', 'q. q e', 'q e q.', 'q e q e']],
    ['4/4', ['h.'], []],
    ['4/4', [], []],
    ['4/4', ['no cell', 'w'], ['w']],
  ])('%s from %j: %j', (meter, cells, expected) => expect(texts(meter, cells)).toEqual(expected));

  it('counts what it does not write', () => {
    const many = everyFill(meterOf('12/8'), ['q.', 'q e', 'e e e', '(q.)'], 10);
    expect([many.measures.length, many.all]).toEqual([10, 256]);
    expect(everyFill(meterOf('4/4'), ['q', 'e e', 'h']).all).toBe(29);
  });

  it('knows the cells of each meter', () => {
    expect(cellTexts(meterOf('2/4'))).toContain('e q e');
    expect(cellTexts(meterOf('2/4'))).not.toContain('w');
    expect(cellTexts(meterOf('6/8'))[0]).toBe('q.');
  });
});

describe('level', () => {
  it('has a fraction that goes on over the borders', () => {
    expect([0, 0.5, 0.95, 1.4, 1.8, 4.1, 9].map(exactLevel)).toEqual([1, 1, 1.5, 2, 2.5, 5, 5.99]);
  });
});
