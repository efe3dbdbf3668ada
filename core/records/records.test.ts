import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { resultOf } from '../judging/judged.test-helper.ts';
import { patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { ELEMENT_IDS, type ElementId, elementsOf } from '../rhythm/elements.ts';
import { classStanding, hardElements, needsOf } from './classStanding.ts';
import { type HeardElement, heardElements, packElements, unpackElements } from './heardElements.ts';
import {
  DUE_AFTER_MS,
  type ElementRecord,
  type KnownElement,
  masteryOf,
  recordsOf,
  stateOf,
  withTake,
} from './mastery.ts';
import { nextStepSentence } from '../wording/nextStepWords.ts';
import type { MisreadingCode } from '../judging/misreadings/table.ts';
import { type TakeSoFar, hardestMeasure, nextStep, nextStepOf } from './nextStep.ts';
import { toldPlaces } from './toldPlaces.ts';

describe('the next step', () => {
  it.each([
    [[], { kind: 'again' }],
    [[{ bpm: 60, mark: 4 }], { kind: 'again' }],
    [
      [
        { bpm: 60, mark: 3 },
        { bpm: 60, mark: 4 },
      ],
      { kind: 'again' },
    ],
    [
      [
        { bpm: 60, mark: 4 },
        { bpm: 60, mark: 4 },
      ],
      { kind: 'faster', bpm: 76 },
    ],
    [
      [
        { bpm: 108, mark: 4 },
        { bpm: 108, mark: 4 },
      ],
      { kind: 'next-pattern' },
    ],
    [
      [
        { bpm: 76, mark: 2 },
        { bpm: 76, mark: 1 },
      ],
      { kind: 'half-speed', bpm: 38 },
    ],
    [
      [
        { bpm: 76, mark: 2 },
        { bpm: 76, mark: 2, hardest: 3 },
      ],
      { kind: 'measure', measure: 3, bpm: 60 },
    ],
    [
      [
        { bpm: 76, mark: 2 },
        { bpm: 76, mark: 3 },
      ],
      { kind: 'again' },
    ],
  ] as const)('after %j: %j', (takes, step) => expect(nextStep(takes)).toEqual(step));
  describe('where the same is misread again and again', () => {
    const slip = (...misread: MisreadingCode[]) => ({ bpm: 76, mark: 2, hardest: 3, misread });
    const clean = { bpm: 76, mark: 2, misread: [] };
    it.each([
      [[slip('rest-skipped')], { kind: 'again' }],
      [
        [slip('rest-skipped'), slip('rest-skipped')],
        { kind: 'place', code: 'rest-skipped', times: 2, measure: 3, bpm: 60 },
      ],
      [
        [slip('rest-skipped'), slip('rest-skipped'), slip('rest-skipped')],
        { kind: 'made', code: 'rest-skipped', times: 3 },
      ],
      [Array.from({ length: 8 }, () => slip('rest-skipped')), { kind: 'place', times: 8, measure: 3 }],
      // Also at mark 3, and beside others; what comes the most often goes first.
      [
        [
          { ...slip('tie-restruck'), mark: 3 },
          { ...slip('hold-cut', 'tie-restruck'), mark: 3 },
        ],
        { kind: 'place', code: 'tie-restruck', times: 2 },
      ],
      [
        [slip('hold-cut'), slip('hold-cut', 'dot-too-long'), slip('dot-too-long', 'hold-cut')],
        { kind: 'made', code: 'hold-cut', times: 3 },
      ],
      [[slip('stopped-early'), slip('stopped-early'), slip('stopped-early')], { kind: 'place', times: 3 }],
      [[slip('rushing'), slip('rushing')], { kind: 'feet', code: 'rushing', times: 2 }],
      [[slip('dragging'), slip('dragging'), slip('dragging')], { kind: 'half-click', times: 3 }],
      [[slip('another-rhythm'), slip('another-rhythm')], { kind: 'listen', times: 2 }],
      [[slip('behind-the-click'), slip('behind-the-click')], { kind: 'calibrate', times: 2 }],
      [[slip('behind-the-click'), slip('behind-the-click'), slip('behind-the-click')], { kind: 'listen', times: 3 }],
      // A take between without it begins anew.
      [[slip('rest-skipped'), clean, slip('rest-skipped')], { kind: 'measure', measure: 3 }],
      [[slip('rest-skipped'), slip('rest-skipped'), clean], { kind: 'half-speed', bpm: 38 }],
      [
        [
          { ...slip('rushing'), mark: 4 },
          { ...slip('rushing'), mark: 4 },
        ],
        { kind: 'faster', bpm: 92 },
      ],
    ] as const)('%j: %j', (takes, step) => expect(nextStep(takes)).toMatchObject(step));
    it('says so, and with what', () => {
      const said = (...takes: TakeSoFar[]) => nextStepSentence(nextStep(takes), 'quarters');
      const [rest, rush] = [slip('rest-skipped'), slip('rushing')];
      expect(said(rest, rest)).toBe('Twice in a row, a rest given no time: measure 3 alone, at 60.');
      expect(said(rest, rest, rest)).toBe('3 times in a row, a rest given no time: a pattern made for it.');
      expect(said(rush, rush)).toMatch(/: the feet on the beat first, then the hands with them\.$/);
      expect(said(rush, rush, rush)).toMatch(/: with every other click\.$/);
      expect(said(slip('ahead-of-the-click'), slip('ahead-of-the-click'))).toMatch(
        /: calibrate the device first, for it may be the one that is late\.$/,
      );
      expect(said(slip('another-rhythm'), slip('another-rhythm'))).toMatch(/: hear it led once more, then clap it\.$/);
    });
  });
  it('finds the measure that cost most', () => {
    const pattern = patternOf('4/4 q q q q | q (q) q q | q q q q');
    expect(hardestMeasure(resultOf({ pattern, bpm: 60, onsets: [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11] }))).toBe(2);
    expect(hardestMeasure(resultOf({ pattern, bpm: 60, onsets: [0, 1, 2, 3, 4, 6, 7, 8, 9, 10, 11] }))).toBeUndefined();
  });
});

describe('elements and mastery', () => {
  it.each([
    ['4/4 q e e h', ['quarter', 'eighth-pair', 'half']],
    ['4/4 e q e (q) e (e)', ['quarter', 'quarter-rest', 'eighth-rest', 'syncopation']],
    ['4/4 q. e e. s q~ | w', ['quarter', 'tie', 'dotted-quarter', 'dotted-eighth']],
    ['6/8 q e q.', ['quarter', 'compound']],
    ['4/4 3{e e e} s s s s (h)', ['half-rest', 'sixteenths', 'triplet']],
  ])('%s has %j', (text, elements) =>
    expect([...elementsOf(patternOf(text)).keys()].sort()).toEqual([...elements].sort()),
  );
  it('are told by their own places, in the order of the take', () => {
    const pattern = patternOf('4/4 q q (q) q | e e e e h');
    const onsets = [0, 1, 3, 4, 4.5, 5, 5.5, 6];
    const heard = (claps: readonly number[]) =>
      heardElements(toldPlaces(pattern, resultOf({ pattern, bpm: 60, onsets: [...claps] })));
    expect(heard(onsets)).toEqual([
      { element: 'quarter', measures: 1, right: 3, misread: 0, notTold: 0 },
      { element: 'eighth-pair', measures: 1, right: 2, misread: 0, notTold: 0 },
      { element: 'quarter-rest', measures: 1, right: 1, misread: 0, notTold: 0 },
      { element: 'half', measures: 1, right: 1, misread: 0, notTold: 0 },
    ]);
    // A clap on the rest says nothing against the quarters around it.
    expect(heard([0, 1, 2, ...onsets.slice(2)])).toMatchObject([
      { element: 'quarter', right: 3, misread: 0 },
      { element: 'eighth-pair', right: 2, misread: 0 },
      { element: 'quarter-rest', right: 0, misread: 1 },
      { element: 'half', right: 1, misread: 0 },
    ]);
  });
});

/** What is told of each element: `tie r m`, in playing order. */
function told(text: string, onsets: readonly number[], bpm = 60): Record<string, string> {
  const pattern = patternOf(text);
  const places = toldPlaces(pattern, resultOf({ pattern, bpm, onsets: [...onsets] }));
  const out: Record<string, string> = {};
  for (const { element, verdict } of places) out[element] = (out[element] ?? '') + verdict[0]!;
  return out;
}

describe('what a take says of each place', () => {
  it.each([
    // One slip is one element’s: the others in the measure are not blamed.
    [
      'a rest skipped',
      '4/4 q (q) q q | q q q q | q q q q',
      [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10],
      {
        quarter: 'rrrrrrrrrrr',
        'quarter-rest': 'm',
      },
    ],
    [
      'a half cut short',
      '4/4 h q q | q q q q | q q q q',
      [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10],
      {
        half: 'm',
        quarter: 'rrrrrrrrrr',
      },
    ],
    [
      'a dot ignored',
      '4/4 q. e q q | q q q q | q q q q',
      [0, 1, 1.5, 2.5, 3.5, 4.5, 5.5, 6.5, 7.5, 8.5, 9.5, 10.5],
      {
        'dotted-quarter': 'm',
        quarter: 'rrrrrrrrrr',
      },
    ],
    ['a tie struck again', '4/4 q q q q~ | q q q q', [0, 1, 2, 3, 4, 5, 6, 7], { tie: 'm', quarter: 'rrrrrrr' }],
    [
      'a note left out',
      '4/4 q q q q | e e e e h',
      [0, 1, 2, 3, 4, 5, 5.5, 6],
      {
        quarter: 'rrrr',
        'eighth-pair': 'mr',
        half: 'r',
      },
    ],
    // What is read otherwise though each note has its clap.
    [
      'a dotted eighth as two eighths',
      '4/4 e. s q q q | q q q q',
      [0, 0.5, 1, 2, 3, 4, 5, 6, 7],
      {
        'dotted-eighth': 'm',
        quarter: 'rrrrrrr',
      },
    ],
    // Unsteady hands, a tempo that runs, a lead: nothing of the elements.
    [
      'unsteady hands',
      '4/4 q q e e q | h q q',
      [0.07, 0.94, 2.06, 2.42, 3.07, 3.93, 6.08, 6.95],
      {
        quarter: 'rrrrr',
        'eighth-pair': 'r',
        half: 'r',
      },
    ],
    [
      'a tempo that runs',
      '4/4 q q q q | q q e e q | h q q',
      [0, 0.99, 1.96, 2.92, 3.86, 4.79, 5.7, 6.15, 6.59, 7.47, 9.17, 9.99],
      {
        quarter: 'rrrrrrrrr',
        'eighth-pair': 'r',
        half: 'r',
      },
    ],
    // Another rhythm, the beat alone, nothing: not told.
    [
      'only the beat',
      '4/4 h e e q | e e q h | h h',
      [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11],
      {
        quarter: 'nn',
        'eighth-pair': 'nn',
        half: 'nnnn',
      },
    ],
    ['nothing at all', '4/4 q q h', [], { quarter: 'nn', half: 'n' }],
    ['two claps, and no more', '4/4 q q q q | q q q q', [0, 1], { quarter: 'nnnnnnnn' }],
    // A run of sixteenths is one place a beat; a single eighth is one with its rest.
    [
      'sixteenths and rests',
      '4/4 s s s s e s s q q | (e) e e (e) q q',
      [...[0, 0.25, 0.5, 0.75, 1, 1.5, 1.75, 2, 3, 4.5, 5, 6, 7]],
      { sixteenths: 'rr', 'eighth-rest': 'rr', quarter: 'rrrr' },
    ],
    [
      'compound meter',
      '6/8 q e q. | e e e q.',
      [0, 2 / 3, 1, 2, 2 + 1 / 3, 2 + 2 / 3, 3],
      {
        quarter: 'r',
        compound: 'rr',
      },
    ],
    ['a triplet', '4/4 3{e e e} q h', [0, 1 / 3, 2 / 3, 1, 2], { triplet: 'r', quarter: 'r', half: 'r' }],
  ] as const)('%s', (_what, text, onsets, expected) => {
    expect(told(text, onsets)).toMatchObject(expected);
  });
  it('a place whose neighbour is missing is not told of', () => {
    // Whether the rest was kept nobody can tell without the note after it.
    expect(told('4/4 q (q) q q | q q q q', [0, 3, 4, 5, 6, 7])).toMatchObject({ 'quarter-rest': 'n' });
  });
  it('names what was misread, and where', () => {
    const pattern = patternOf('4/4 q q q q | q (q) q q | q q q q');
    const onsets = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11];
    const [wrong] = toldPlaces(pattern, resultOf({ pattern, bpm: 60, onsets })).filter(
      ({ verdict }) => verdict === 'misread',
    );
    expect(wrong).toMatchObject({
      element: 'quarter-rest',
      code: 'rest-clapped',
      at: { measure: 2, beat: { n: 2, d: 1 } },
    });
  });
  it('a habit is misread, by its name, at each of its places', () => {
    const pattern = patternOf('4/4 q. e h | q. e h | q. e h | q q q q');
    const onsets = [0, 1, 1.5, 3.5, 4.5, 5, 7, 8, 8.5, 10.5, 11.5, 12.5, 13.5];
    const dotted = toldPlaces(pattern, resultOf({ pattern, bpm: 60, onsets })).filter(
      ({ element }) => element === 'dotted-quarter',
    );
    expect(dotted.map(({ verdict, code }) => `${verdict} ${code}`)).toEqual(
      Array.from({ length: 3 }, () => 'misread dot-too-short'),
    );
  });

  describe('from facts alone', () => {
    const pattern = patternOf('4/4 q q~ q q | q q q q | q q q q | q q q q');
    const clean = resultOf({ pattern, bpm: 60, onsets: [0, 1, 3, ...Array.from({ length: 12 }, (_, i) => 4 + i)] });
    const of = (element: ElementId, change: Partial<typeof clean>) =>
      toldPlaces(pattern, { ...clean, ...change })
        .filter((place) => place.element === element)
        .map(({ verdict }) => verdict[0])
        .join('');
    const missing = (from: number, to: number) =>
      clean.notes.map((note) =>
        note.index >= from && note.index < to ? { ...note, verdict: 'missed' as const } : note,
      );
    const named = (code: MisreadingCode, more: object = {}) =>
      [{ code, event: 2, played: 0, measure: 1, beat: { n: 3, d: 1 }, ...more }] as typeof clean.misreadings;

    it('what only might be instead of something else blames nothing', () => {
      expect(of('tie', { misreadings: named('tie-restruck') })).toBe('m');
      expect(of('tie', { misreadings: named('tie-restruck', { instead: true }) })).toBe('r');
    });
    it('where all that follows came early and nothing says why, what stands before it was misread', () => {
      expect(of('quarter', { follow: [{ fromNote: 5, beatsAhead: { n: 1, d: 2 } }] })).toBe('rrrrmrrrrrrrrrr');
      const why = named('hesitated', { event: 6 });
      expect(of('quarter', { follow: [{ fromNote: 5, beatsAhead: { n: 1, d: 2 } }], misreadings: why })).not.toContain(
        'm',
      );
    });
    it('a note far from its place was read otherwise, but not where the hands are all over', () => {
      const errors = (usual: number) =>
        clean.notes.map((note) => ({
          ...note,
          errorMs: note.index === 6 ? 240 : note.index % 2 === 0 ? usual : -usual,
        }));
      expect(of('quarter', { notes: errors(20) })).toBe('rrrrrrmrrrrrrrr');
      expect(of('quarter', { notes: errors(90) })).toBe('rrrrrrrrrrrrrrr');
    });
    it('a stretch that is missing is lost, not misread', () => {
      expect(of('quarter', { notes: missing(5, 8) })).toBe('rrrrrmnnrrrrrrr');
      expect(of('quarter', { notes: missing(5, 11) })).toBe('rrrrrnnnnnnrrrr');
    });
    it('where the tempo runs away only what has a name is misread', () => {
      expect(of('quarter', { notes: missing(5, 6), misreadings: named('rushing') })).toBe('rrrrrnrrrrrrrrr');
      expect(of('tie', { misreadings: [...named('rushing'), ...named('tie-restruck')] })).toBe('m');
    });
    it('what stands in a stretch that was lost is not told, up to where all is right again', () => {
      const lost = named('lost-and-recovered', { event: 5, until: { played: 2, measure: 3, beat: { n: 1, d: 1 } } });
      expect(of('quarter', { misreadings: lost })).toBe('rrrrnnnrrrrrrrr');
      expect(of('quarter', { misreadings: named('measure-skipped', { event: 8, played: 2 }) })).toMatch(
        /^rrrrrrrnnnnr+$/,
      );
      expect(of('quarter', { misreadings: named('stopped-early', { event: 12 }) })).toMatch(/^r{11}n{4}$/);
      const several = named('measure-silent', { event: 8, played: 2, count: 2 });
      expect(of('quarter', { misreadings: several }).match(/n/g)!.length).toBeGreaterThan(
        of('quarter', { misreadings: named('measure-silent', { event: 8, played: 2 }) }).match(/n/g)!.length,
      );
    });
  });

  it('counts each place once, whatever was clapped', () => {
    const claps = fc.array(fc.double({ min: -1, max: 9, noNaN: true }), { maxLength: 30 });
    fc.assert(
      fc.property(claps, fc.constantFrom('4/4 q. e (q) q | e q e h', '6/8 q e (q) e | h.'), (times, text) => {
        const pattern = patternOf(text);
        const onsets = [...times].sort((a, b) => a - b);
        const heard = heardElements(toldPlaces(pattern, resultOf({ pattern, bpm: 60, onsets })));
        expect(heard.map(({ element }) => element).sort()).toEqual([...elementsOf(pattern).keys()].sort());
        const written = toldPlaces(pattern, resultOf({ pattern, bpm: 60, onsets: [] })).length;
        const sum = heard.reduce((all, { right, misread, notTold }) => all + right + misread + notTold, 0);
        expect(sum).toBe(written);
      }),
      { numRuns: 60 },
    );
  });
});

/** Takes of one element, each `r`ight, `m`isread or `n`ot told place by place. */
const heardOf = (places: string, element: ElementId = 'tie'): HeardElement => ({
  element,
  measures: places.length,
  right: places.split('r').length - 1,
  misread: places.split('m').length - 1,
  notTold: places.split('n').length - 1,
});
const DAY = 86_400_000;
/** `0 rr, 3 m`: on which day which places. */
const recordOf = (takes: string): ElementRecord =>
  recordsOf(
    takes.split(', ').map((one) => {
      const [day, places] = one.split(' ') as [string, string];
      return { takenAt: Number(day) * DAY, elements: [heardOf(places)] };
    }),
  ).get('tie')!;

describe('how an element stands', () => {
  it.each([
    ['0 rr, 3 rr', 'firm'],
    ['0 rrrrrr', 'growing'],
    ['0 rr, 3 r', 'growing'],
    ['0 r, 3 r', 'new'],
    ['0 m, 3 m', 'new'],
    ['0 nnnn, 3 nnnn', 'new'],
    ['0 mm, 3 mm', 'shaky'],
    ['0 mm, 3 mr', 'shaky'],
    ['0 mmm', 'shaky'],
    // Who knows it misreads it now and then.
    ['0 rrr, 3 rrm, 7 rr', 'firm'],
    ['0 rrrr, 3 rrrr, 7 rrrm', 'firm'],
    ['0 rrrr, 3 rrrr, 7 mmm', 'shaky'],
    // Who does not gets it right now and then.
    ['0 mm, 3 mr, 7 mm, 10 r', 'shaky'],
    // It was learned: the newer places count more.
    ['0 mm, 3 mm, 24 rrr', 'growing'],
    ['0 mm, 3 mm, 24 rrr, 28 rr', 'firm'],
    ['0 rr, 3 rr, 7 mm, 10 mm', 'shaky'],
  ])('%s: %s', (takes, state) => {
    const record = recordOf(takes);
    expect(stateOf(record, record.lastSeen)).toBe(state);
  });

  it('what is firm is due after three weeks, nothing else is', () => {
    const firm = recordOf('0 rr, 3 rr');
    expect(stateOf(firm, 3 * DAY + DUE_AFTER_MS - 1)).toBe('firm');
    expect(stateOf(firm, 3 * DAY + DUE_AFTER_MS)).toBe('due');
    expect(stateOf(recordOf('0 rrr'), 10 * DUE_AFTER_MS)).toBe('growing');
    // Where nothing was told it was not heard.
    expect(stateOf(recordOf('0 rr, 3 rr, 20 nn'), 3 * DAY + DUE_AFTER_MS)).toBe('due');
  });
  it('two takes on one day are one day, over midnight two', () => {
    const at = (...moments: number[]) =>
      recordsOf(moments.map((takenAt) => ({ elements: [heardOf('r')], takenAt }))).get('tie')!.days;
    expect([at(0, DAY - 1), at(DAY - 1, DAY), at(0, DAY, DAY + 1)]).toEqual([1, 2, 2]);
    const noon = (moment: number) => Math.floor((moment + DAY / 2) / DAY);
    const takes = [DAY / 4, DAY].map((takenAt) => ({ elements: [heardOf('r')], takenAt }));
    expect(recordsOf(takes, noon).get('tie')!.days).toBe(2);
    expect(recordsOf([{ elements: [heardOf('n')], takenAt: 0 }]).get('tie')!.days).toBe(0);
  });
  it('says how sure that is, and from what', () => {
    const [known] = masteryOf(new Map([['tie', recordOf('0 rrn, 3 rm')]]), 3 * DAY);
    expect(known).toMatchObject({
      element: 'tie',
      heard: 5,
      places: { right: 3, misread: 1, notTold: 1 },
      right: 0.6951,
      lastSeen: 3 * DAY,
    });
    const sure = (takes: string) => masteryOf(new Map([['tie', recordOf(takes)]]), 0)[0]!.sure;
    expect(sure('0 n')).toBe(0.5);
    expect(sure('0 rr, 3 rr')).toBeGreaterThan(sure('0 rr'));
    expect(sure('0 mm, 3 mm')).toBeGreaterThan(0.99);
  });

  const taken = fc.record({
    takenAt: fc.integer({ min: 0, max: 90 * DAY }),
    places: fc.array(fc.constantFrom('r', 'm', 'n'), { minLength: 1, maxLength: 9 }),
  });
  const times = fc.uniqueArray(taken, { minLength: 1, maxLength: 12, selector: (one) => one.takenAt });
  it('is the same whatever the order in which takes arrive, and counts every place', () => {
    fc.assert(
      fc.property(times, fc.integer(), (takes, seed) => {
        const heard = takes.map(({ takenAt, places }) => ({ takenAt, elements: [heardOf(places.join(''))] }));
        const other = [...heard].sort((a, b) => ((a.takenAt * 31 + seed) % 97) - ((b.takenAt * 31 + seed) % 97));
        expect(recordsOf(other)).toEqual(recordsOf(heard));
        const record = recordsOf(heard).get('tie')!;
        expect(record.right + record.misread + record.notTold).toBe(takes.flatMap(({ places }) => places).length);
        expect(record.known).toBeGreaterThan(0);
        expect(record.known).toBeLessThan(1);
      }),
    );
  });
  it('a place read right never makes it less known, a misread one never more', () => {
    fc.assert(
      fc.property(times, (takes) => {
        const heard = takes.map(({ takenAt, places }) => ({ takenAt, elements: [heardOf(places.join(''))] }));
        const before = recordsOf(heard).get('tie')!;
        const with_ = (places: string) => withTake(before, heardOf(places), before.lastSeen).known;
        expect(with_('r')).toBeGreaterThanOrEqual(before.known);
        expect(with_('m')).toBeLessThanOrEqual(before.known);
        expect(with_('n')).toBe(before.known);
      }),
    );
  });
  it('is the same after it was packed beside the take', () => {
    const count = fc.integer({ min: 0, max: 2000 });
    const one = fc.record({
      element: fc.constantFrom(...ELEMENT_IDS),
      measures: count,
      right: count,
      misread: count,
      notTold: count,
    });
    fc.assert(
      fc.property(fc.array(one, { maxLength: 15 }), (heard) => {
        expect(unpackElements(packElements(heard))).toEqual(heard);
      }),
    );
    // As they were packed before places were counted: nothing is read from it.
    expect(unpackElements('')).toEqual([]);
    expect(unpackElements('quarter 2 1.8,quintuplet 3 2/0/0,tie 1 1/0/2')).toEqual([
      { element: 'tie', measures: 1, right: 1, misread: 0, notTold: 2 },
    ]);
  });
});

describe('a class', () => {
  const FIRM: KnownElement = { element: 'half', heard: 5, right: 1, state: 'firm', lastSeen: 0 };
  const child = (childId: string, ...mastery: Partial<KnownElement>[]) => ({
    childId,
    mastery: mastery.map((one) => ({ ...FIRM, ...one })),
  });
  it('has an element when three quarters of those heard are firm, has met it when half were heard', () => {
    const firm = (id: string) => child(id, {});
    const shaky = (id: string) => child(id, { state: 'shaky' });
    const never = ['x', 'y', 'z', 'w'].map((id) => child(id));
    expect(classStanding([firm('a'), firm('b'), firm('c'), shaky('d')])).toMatchObject([{ has: true, met: true }]);
    expect(classStanding([firm('a'), firm('b'), shaky('d')])).toMatchObject([{ has: false, met: true }]);
    expect(classStanding([firm('a'), firm('b'), firm('c'), shaky('d'), ...never])).toMatchObject([
      { element: 'half', heard: 4, firm: 3, met: true, has: true },
    ]);
    expect(classStanding([firm('a'), ...never])).toMatchObject([{ met: false, has: true }]);
    expect(classStanding([child('a', { state: 'due' }), firm('b')])).toMatchObject([
      { has: true, states: { due: 1, firm: 1 } },
    ]);
    expect(classStanding(never)).toEqual([]);
  });
  it('is grouped by what its children need, each group with all of them, the most urgent first', () => {
    const groups = needsOf([
      child('a', { state: 'growing' }),
      child('b', { state: 'shaky' }, { element: 'tie', state: 'shaky' }),
      child('c', { element: 'tie', state: 'shaky' }, { state: 'due' }),
      child('d', { state: 'due' }, { element: 'whole', state: 'due' }),
      child('e', { state: 'new' }),
      child('f'),
      child('g', {}),
    ]);
    expect(groups).toEqual([
      { kind: 'shaky', element: 'tie', children: ['b', 'c'] },
      { kind: 'shaky', element: 'half', children: ['b'] },
      { kind: 'due', element: 'half', children: ['c', 'd'] },
      { kind: 'due', element: 'whole', children: ['d'] },
      { kind: 'growing', element: 'half', children: ['a'] },
    ]);
    // Each element once, and no more than are practised at once.
    expect(hardElements(groups)).toEqual(['tie', 'half', 'whole']);
    const more = [{ kind: 'shaky', element: 'quarter', children: [] } as const, ...groups];
    expect(hardElements(more)).toEqual(['quarter', 'tie', 'half']);
  });
});

describe('the next step of a child', () => {
  it('is that of the pattern it was heard on last', () => {
    const take = (pattern: string, takenAt: number, mark: number) => ({ pattern, takenAt, mark, bpm: 60 });
    expect(nextStepOf([])).toBeUndefined();
    expect(nextStepOf([take('a', 3, 4), take('b', 2, 1), take('a', 1, 4)])).toEqual({
      pattern: 'a',
      step: { kind: 'faster', bpm: 76 },
    });
    expect(nextStepOf([take('a', 1, 4), take('a', 2, 4), take('b', 3, 4)])).toEqual({
      pattern: 'b',
      step: { kind: 'again' },
    });
    // What is misread in one pattern after the other stands against it all the same.
    const rushed = ['a', 'b', 'c'].map((pattern, i) => ({ ...take(pattern, i, 2), misread: ['rushing'] as const }));
    expect(nextStepOf(rushed)).toMatchObject({ pattern: 'c', step: { kind: 'half-click', times: 3 } });
  });
});
