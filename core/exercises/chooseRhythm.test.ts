import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { EVERYTHING } from '../../scripts/test/trial.test-helper.ts';
import { anyPattern, everydayPattern, patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { barCheck, barsAddUp } from '../rhythm/barCheck.ts';
import { type ElementId, elementsOf } from '../rhythm/elements.ts';
import { mixed, toNumber } from '../rhythm/fraction.ts';
import { beatOf, meterLength } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { parseMeter, printRhythm } from '../rhythm/text.ts';
import { changeText, ruledOutIn } from '../wording/earWords.ts';
import { type ChooseWanted, chooseQuestions } from './kinds/chooseRhythm.ts';
import type { Question } from './question.ts';
import { rhythmFrom } from './rhythms/cells.ts';
import { CHANGE_IDS, changesOf } from './rhythms/changes.ts';
import { fits, vocabularyOf } from './rhythms/vocabulary.ts';
import { randomFrom } from '../random.ts';

/** Starts of notes in whole notes, counted here from the text alone: nothing of the questions' own code. */
function startsOf(text: string): number[] {
  const pattern = patternOf(text);
  let at = 0;
  let tied = false;
  const starts: number[] = [];
  for (const { items, rests, meter } of pattern.measures) {
    if (rests !== undefined) at += (rests * meter.upper) / meter.lower;
    for (const item of items) {
      const inside = item.kind === 'tuplet' ? item.events : [item];
      for (const { kind, value, ...more } of inside) {
        const plain = { w: 1, h: 1 / 2, q: 1 / 4, e: 1 / 8, s: 1 / 16, t: 1 / 32 }[value.base];
        const long = plain * [1, 3 / 2, 7 / 4][value.dots]! * (item.kind === 'tuplet' ? item.m / item.n : 1);
        if (kind === 'note' && !tied) starts.push(Math.round(at * 6720) / 6720);
        tied = kind === 'note' && (more as { tied?: true }).tied === true;
        at += long;
      }
    }
  }
  return starts;
}

const textsOf = ({ options }: Question) => options.map(({ answer }) => (answer.is === 'rhythm' ? answer.text : ''));

/** Every law of rules §7 that a question must keep, by counting claps anew. */
function lawsOf(question: Question): { oneBeat: boolean; beats: number } {
  const texts = textsOf(question);
  const starts = texts.map(startsOf);
  expect(new Set(starts.map((one) => one.join())).size, texts.join('; ')).toBe(4);
  expect(question.shows).toBe(texts[question.answer]);
  const patterns = texts.map((text) => patternOf(text));
  expect(new Set(patterns.map(({ measures }) => measures.map(({ meter }) => JSON.stringify(meter)).join())).size).toBe(
    1,
  );
  const { meter } = patterns[0]!.measures[0]!;
  const beat = toNumber(beatOf(meter).length);
  const measure = toNumber(meterLength(meter));
  const count = Math.round((measure * patterns[0]!.measures.length) / beat);
  const inside = (option: number, b: number) =>
    starts[option]!.filter((time) => time >= b * beat - 1e-9 && time < (b + 1) * beat - 1e-9);
  const differs = (option: number, b: number) => inside(option, b).join() !== inside(question.answer, b).join();
  const wrong = [0, 1, 2, 3].filter((option) => option !== question.answer);
  const all = Array.from({ length: count }, (_, b) => b);
  const reasons = question.steps.flatMap((step) => (step.step === 'ruled-out' ? [step] : []));
  expect(reasons.map(({ option }) => option).sort()).toEqual(wrong);
  for (const reason of reasons) {
    const first = all.find((b) => differs(reason.option, b))!;
    const inMeasure = Math.round(measure / beat);
    expect([reason.measure, reason.beat]).toEqual([Math.floor(first / inMeasure) + 1, (first % inMeasure) + 1]);
    expect([reason.claps, reason.hasClaps]).toEqual([
      inside(question.answer, first).length,
      inside(reason.option, first).length,
    ]);
    const sentence = ruledOutIn(question, reason, 'quarters');
    expect(sentence).toContain(`beat ${reason.beat}: `);
    expect(sentence.includes('in another place')).toBe(reason.claps === reason.hasClaps);
    if (reason.heardAt) expect(sentence).toMatch(new RegExp(`at \\S.* instead of ${mixed(reason.heardAt)}$`));
  }
  expect([...reasons].sort((a, b) => a.measure - b.measure || a.beat - b.beat)).toEqual(reasons);
  const oneBeat = all.some((b) => wrong.every((option) => differs(option, b)));
  if (count >= 3) expect(oneBeat, texts.join('; ')).toBe(false);
  return {
    oneBeat: reasons.every((one) => one.measure === reasons[0]!.measure && one.beat === reasons[0]!.beat),
    beats: count,
  };
}

const meterOf = (text: string) => {
  const read = parseMeter(text);
  if (!read.ok) throw new RangeError(text);
  return read.meter;
};

const CLASSES: readonly (readonly [meter: string, beats: number, elements: readonly ElementId[]])[] = [
  ['4/4', 4, ['quarter', 'eighth-pair']],
  ['4/4', 4, ['quarter', 'eighth-pair', 'quarter-rest', 'half']],
  ['4/4', 8, ['quarter', 'eighth-pair', 'quarter-rest', 'half', 'half-rest', 'dotted-half', 'whole', 'tie']],
  ['2/4', 2, ['quarter', 'eighth-pair', 'sixteenths', 'eighth-rest']],
  ['3/4', 3, ['quarter', 'eighth-pair', 'half', 'dotted-half']],
  ['4/4', 4, ['quarter', 'eighth-pair', 'syncopation', 'dotted-quarter', 'eighth-rest']],
  ['4/4', 4, ['quarter', 'sixteenths', 'dotted-eighth', 'triplet', 'eighth-pair']],
  ['6/8', 4, ['quarter', 'eighth-pair', 'compound', 'eighth-rest']],
  ['7/8', 7, ['quarter', 'eighth-pair']],
  ['2/2', 4, ['quarter', 'half', 'eighth-pair', 'whole']],
];

describe('choose: which of four was heard', () => {
  it.each(CLASSES)('%s, %i beats of %j: the laws hold, from what the class has met', (meter, beats, elements) => {
    let all = 0;
    let oneBeat = 0;
    const letters = [0, 0, 0, 0];
    for (let seed = 0; seed < 8; seed++) {
      const set = chooseQuestions({ elements, meter: meterOf(meter), beats }, seed, 10);
      expect(set).toHaveLength(10);
      expect(new Set(set.map((question) => question.shows + textsOf(question).sort().join())).size).toBe(10);
      for (const question of set) {
        const laws = lawsOf(question);
        expect(laws.beats).toBe(beats);
        all += 1;
        oneBeat += laws.oneBeat ? 1 : 0;
        letters[question.answer]! += 1;
        const own = elementsOf(patternOf(question.shows));
        for (const text of textsOf(question)) {
          expect(barsAddUp(barCheck(patternOf(text)))).toBe(true);
          for (const id of elementsOf(patternOf(text)).keys())
            expect(own.has(id) || elements.includes(id), text).toBe(true);
        }
      }
    }
    expect(oneBeat / all).toBeLessThan(0.2);
    for (const times of letters) expect(times / all).toBeGreaterThan(0.15);
  });

  it('the letter of the answer is even over many seeds', () => {
    const letters = [0, 0, 0, 0];
    const wanted: ChooseWanted = { elements: ['quarter', 'eighth-pair', 'half'], meter: meterOf('3/4'), beats: 3 };
    for (let seed = 0; seed < 1200; seed++) letters[chooseQuestions(wanted, seed, 1)[0]!.answer]! += 1;
    for (const times of letters) expect(Math.abs(times / 1200 - 0.25)).toBeLessThan(0.04);
  });

  it('about any pattern: four that can be told apart, with their reasons', () => {
    fc.assert(
      fc.property(everydayPattern, fc.nat(), (pattern, seed) => {
        const set = chooseQuestions({ pattern }, seed, 2);
        for (const question of set) {
          expect(new Set(textsOf(question).map((text) => startsOf(text).join())).size).toBe(4);
          expect(question.steps).toHaveLength(3);
          expect(textsOf(question).join()).not.toContain("'");
        }
      }),
      { numRuns: EVERYTHING ? 60 : 20 },
    );
  });

  it.each([
    '4/4 q q q q',
    '4/4 w',
    '2/4 h',
    '3/4 h.',
    '1/4 q',
    '4/4 q (q) e e q | h (h)',
    '6/8 q e q.',
    '4/4 3{e e e} q h',
  ])('%s alone is enough for ten questions', (text) => {
    const set = chooseQuestions({ pattern: patternOf(text) }, 5, 10);
    expect(set).toHaveLength(10);
    set.forEach(lawsOf);
    expect(new Set(set.map((question) => textsOf(question).sort().join())).size).toBe(10);
    for (const question of set) expect(question.shows).toBe(printRhythm(patternOf(text)));
  });

  it('what the class has met is used before what it has not', () => {
    const met: readonly ElementId[] = ['quarter', 'eighth-pair', 'quarter-rest'];
    for (const question of chooseQuestions({ pattern: patternOf('4/4 q q q q'), met }, 1, 10))
      for (const text of textsOf(question))
        for (const id of elementsOf(patternOf(text)).keys()) expect(met).toContain(id);
  });

  it('known misreadings come first', () => {
    const [question] = chooseQuestions({ pattern: patternOf('4/4 q (q) q. e | e q e (q) q'), met: ['half'] }, 1, 1);
    const changes = question!.options.flatMap(({ change }) => (change ? [change] : []));
    const known = ['rest-clapped', 'rest-skipped', 'dot-too-short', 'syncopation-straightened'];
    expect(changes).toHaveLength(3);
    for (const change of changes) expect(known).toContain(change);
  });

  it('labels are left out, in tuplets too', () => {
    const pattern = patternOf("4/4 3{e'a' e'b' e'c'} q'd' h");
    for (const question of chooseQuestions({ pattern }, 1, 5)) expect(textsOf(question).join()).not.toContain("'");
  });

  it('silence has no look-alikes', () => expect(chooseQuestions({ pattern: patternOf('4/4 (M1)') }, 1, 3)).toEqual([]));

  it('the same seed gives the same questions', () => {
    const wanted: ChooseWanted = { elements: ['quarter', 'eighth-pair'], meter: meterOf('4/4'), beats: 4 };
    expect(chooseQuestions(wanted, 9, 5)).toEqual(chooseQuestions(wanted, 9, 5));
  });
});

describe('a rhythm changed a little', () => {
  const changed = (text: string) =>
    changesOf(patternOf(text)).map(({ id, pattern }) => `${id}: ${printRhythm(pattern)}`);

  it.each([
    ['4/4 q (q) e e q', 'rest-clapped: 4/4 q q e e q'],
    ['4/4 q (q) e e q', 'rest-skipped: 4/4 q e e q (q)'],
    ['4/4 q (q) e e q', 'beats-swapped: 4/4 q e e (q) q'],
    ['4/4 q (q) e e q', 'rest-moved: 4/4 (q) q e e q'],
    ['4/4 q. e q q', 'dot-too-short: 4/4 q q q q'],
    ['4/4 q. e q q', 'dot-moved: 4/4 e q. q q'],
    ['4/4 e q e h', 'syncopation-straightened: 4/4 q q h'],
    ['4/4 s s s s q h', 'sixteenths-slow: 4/4 e e q h'],
    ['4/4 h~ h', 'tie-restruck: 4/4 h h'],
    ['4/4 h h', 'tie-added: 4/4 h~ h'],
    ['4/4 h h', 'hold-pulsed: 4/4 q q h'],
    ['4/4 (e) e q h', 'upbeat-on-beat: 4/4 e (e) q h'],
    ['6/8 q e q.', 'three-turned: 6/8 e q q.'],
    ['4/4 q q h | w', 'measures-swapped: 4/4 w | q q h'],
    ['4/4 3{e e e} q h', 'triplet-even: 4/4 e e q h'],
  ])('%s → %s', (text, change) => expect(changed(text)).toContain(change));

  it.each([
    ['4/4 e (e) q h', /rest-moved: 4\/4 e q/],
    ['6/8 q e q.', /triplet-made|syncopated/],
    ['4/4 h~ | h h', /measures-swapped/],
    ['4/4 q q h', /three-turned/],
    // No rest of a beat stands off the beat.
    ['4/4 q (q) e e q', /upbeat-on-beat/],
  ])('%s is not changed so', (text, change) => expect(changed(text).filter((one) => change.test(one))).toEqual([]));

  it('every measure stays as long as it was, and every tie leads to a note', () => {
    fc.assert(
      fc.property(anyPattern, (pattern) => {
        const before = barCheck(pattern).map(({ total }) => total);
        for (const { id, pattern: made } of changesOf(pattern)) {
          if (id !== 'measures-swapped') expect(barCheck(made).map(({ total }) => total)).toEqual(before);
          expect(printRhythm(patternOf(printRhythm(made)))).toBe(printRhythm(made));
        }
      }),
      { numRuns: EVERYTHING ? 100 : 30 },
    );
  });

  it('every change has its words', () => {
    for (const id of CHANGE_IDS) expect(changeText(id, 'crotchets')).toMatch(/^[A-Z].*\.$/);
  });
});

describe('what a class has met', () => {
  const known = (text: string, elements: readonly ElementId[]) =>
    fits(patternOf(text), vocabularyOf(elements, patternOf(text).measures[0]!.meter));

  it.each<[string, readonly ElementId[], boolean]>([
    ['4/4 q q e e q', ['quarter', 'eighth-pair'], true],
    ['4/4 q q h', ['quarter', 'eighth-pair'], false],
    // A note that starts off the beat and sounds through the next is syncopated, whatever its sign.
    ['4/4 e q. q q', ['quarter', 'eighth-pair', 'dotted-quarter'], false],
    ['4/4 e q. q q', ['quarter', 'eighth-pair', 'dotted-quarter', 'syncopation'], true],
    ['4/4 q h q', ['quarter', 'half'], false],
    ['3/4 q h', ['quarter', 'half'], true],
    ['6/8 q e q.', ['compound'], true],
    ['4/4 3{e e e} q h', ['quarter', 'half', 'eighth-pair'], false],
  ])('%s from %j: %s', (text, elements, readable) => expect(known(text, elements)).toBe(readable));
});

describe('rhythms of chosen elements', () => {
  it.each(CLASSES)('%s, %i beats of %j: full measures of nothing else', (meter, beats, elements) => {
    const random = randomFrom(3);
    const seen = new Set<ElementId>();
    for (let i = 0; i < (EVERYTHING ? 150 : 50); i++) {
      const pattern: Pattern = rhythmFrom({ elements, meter: meterOf(meter), beats }, random)!;
      expect(barsAddUp(barCheck(pattern)), printRhythm(pattern)).toBe(true);
      for (const id of elementsOf(pattern).keys()) {
        expect(elements, printRhythm(pattern)).toContain(id);
        seen.add(id);
      }
    }
    expect([...seen].sort()).toEqual([...elements].sort());
  });

  it.each([
    ['4/4', 6],
    ['6/8', 3],
    ['3/4', 0],
  ])('%s: %i beats fill no measures', (meter, beats) =>
    expect(rhythmFrom({ elements: ['quarter'], meter: meterOf(meter), beats }, randomFrom(1))).toBeUndefined(),
  );

  it('two beats of 4/4 are 2/4', () =>
    expect(printRhythm(rhythmFrom({ elements: ['half'], meter: meterOf('4/4'), beats: 2 }, randomFrom(1))!)).toBe(
      '2/4 h',
    ));

  it('elements that fill nothing give nothing', () =>
    expect(rhythmFrom({ elements: ['whole'], meter: meterOf('3/4'), beats: 3 }, randomFrom(1))).toBeUndefined());
});
