import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyPattern, everydayPattern, fullPattern, patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { barCheck, barsAddUp } from '../rhythm/barCheck.ts';
import { printRhythm } from '../rhythm/text.ts';
import { mixed } from '../rhythm/fraction.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { unfold } from '../rhythm/place.ts';
import { pairHits, tolerances } from './pairHits.ts';
import { scheduleOf } from '../timing/schedule.ts';
import { judgeTake } from './judgeTake.ts';
import { judge } from './judge.ts';
import { advised, judged, resultOf, troubleWith } from './judged.test-helper.ts';
import { accuracyOf, markOf } from './mark.ts';
import { randomFrom } from '../random.ts';
import { simulateTake } from './simulatedChild.ts';
import { windowsFor } from './windows.ts';
import type { TakeResult } from './takeResult.ts';

const verdicts = (result: TakeResult) => result.notes.map(({ verdict }) => verdict);

describe('verdicts', () => {
  it('calls a take played as written right', () => {
    const result = judged('4/4 q q e e (q) | h 3{e e e} q', 60, [0, 1, 2, 2.5, 4, 6, 6.333, 6.667, 7]);
    expect(new Set(verdicts(result))).toEqual(new Set(['on-time']));
    expect(result).toMatchObject({ extras: [], accuracy: 1, mark: 4, heard: '4/4 q q e e (q) | h 3{e e e} q' });
  });

  it.each([
    // The windows of rules §8: 9-10 is ± 90 ms, never more than 40 % of the gap, reach half the gap and 250 ms.
    ['9-10', 60, 0.085, 'on-time'],
    ['9-10', 60, 0.12, 'late'],
    ['9-10', 60, -0.12, 'early'],
    ['9-10', 60, 0.26, 'missed'],
    ['5-6', 60, 0.12, 'on-time'],
    ['musician', 60, 0.06, 'late'],
    ['9-10', 240, 0.13, 'missed'],
  ] as const)('ages %s at %i: a note %f s off is %s', (ages, bpm, off, verdict) => {
    const beat = 60 / bpm;
    const onsets = Array.from({ length: 16 }, (_, i) => i * beat + (i === 6 ? off : 0)).sort((a, b) => a - b);
    const result = judged('4/4 q q q q | q q q q | q q q q | q q q q', bpm, onsets, { ages });
    expect(result.notes[6]!.verdict).toBe(verdict);
    expect(verdicts(result).filter((v) => v !== 'on-time')).toHaveLength(verdict === 'on-time' ? 0 : 1);
  });

  it('misses exactly the note that was left out', () => {
    const result = judged('4/4 q e e q q', 80, [0, 0.75, 1.5, 2.25]);
    expect(verdicts(result)).toEqual(['on-time', 'on-time', 'missed', 'on-time', 'on-time']);
    expect(result.notes[2]).toMatchObject({ measure: 1, beat: { n: 5, d: 2 } });
    expect(result.heard).toBe('4/4 q e (e) q q');
  });

  it('takes a steady lead off and reports it', () => {
    const early = judged(
      '4/4 q q q q | q q e e q',
      72,
      [0, 1, 2, 3, 4, 5, 6, 6.5, 7].map((beat) => (beat * 60) / 72 - 0.055),
    );
    expect(early.accuracy).toBe(1);
    expect(early.tempo.leadMs).toBeCloseTo(55, 0);
    expect(judged('4/4 q q q q', 60, [0.03, 1.03, 2.03, 3.03]).tempo.leadMs).toBeCloseTo(-30, 0);
  });

  it('follows a drift of tempo and reports it', () => {
    const pattern = patternOf('4/4 q q q q | q q q q | q q q q | q q q q');
    const onsets = simulateTake(pattern, 72, { spread: 0.005, drift: 0.1 }, 3);
    const result = judge({ pattern, bpm: 72, onsets });
    expect(result).toMatchObject({ ok: true, result: { accuracy: 1 } });
    if (result.ok) expect(Math.abs(result.result.tempo.driftPct - 10)).toBeLessThan(1.5);
    if (result.ok) expect(result.result.mark).toBe(2);
  });

  it('starts from the given time, and counts a pickup before it', () => {
    const result = judged('4/4 ^ q | q q h', 60, [9, 10, 11, 12], { start: 10 });
    expect(result.notes.map(({ measure, beat }) => [measure, mixed(beat)])).toEqual([
      [0, '4'],
      [1, '1'],
      [1, '2'],
      [1, '3'],
    ]);
    expect(result.accuracy).toBe(1);
  });

  it('obeys repeats, ties and meter changes', () => {
    expect(judged('2/4 |: q q :|', 60, [0, 1, 2, 3]).notes.map(({ measure }) => measure)).toEqual([1, 1, 1, 1]);
    expect(judged('4/4 q q h~ | h q q', 60, [0, 1, 2, 6, 7]).accuracy).toBe(1);
    expect(judged('3/4 q q q | 6/8 q. q.', 60, [0, 1, 2, 3, 4.5]).accuracy).toBe(1);
    expect(judged('6/8 q. q.', 60, [0, 1]).accuracy).toBe(1);
  });
});

describe('extras', () => {
  it.each([
    ['4/4 q q (q) q', [0, 1, 2, 3], 'rest', '3'],
    ['4/4 h q q', [0, 1, 2, 3], 'hold', '2'],
    ['4/4 q q q~ q | w', [0, 1, 2, 3, 4], 'tie', '4'],
    ['4/4 q q q q', [0, 1, 1.08, 2, 3], 'bounce', '2'],
    ['4/4 q q q q', [0, 1, 2, 3, 4.1], 'after', '4'],
    ['4/4 q q q q', [0, 1, 1.5, 2, 3], 'hold', '2 1/2'],
    ['4/4 (q) q q q', [0, 1, 2, 3], 'rest', '1'],
  ] as const)('%s with %j: %s at beat %s', (text, onsets, kind, beat) => {
    const { extras } = judged(text, 60, onsets);
    expect(extras).toHaveLength(1);
    expect([extras[0]!.kind, mixed(extras[0]!.beat)]).toEqual([kind, beat]);
  });

  it('takes two hits of one clap as one', () => {
    const result = judged('4/4 q q q q', 60, [0, 0.03, 1, 1.04, 2, 3]);
    expect(result).toMatchObject({ extras: [], accuracy: 1 });
  });

  it('costs half a note each', () =>
    expect(judged('4/4 q q (q) q', 60, [0, 1, 2, 3]).accuracy).toBeCloseTo(2.5 / 3, 3));
});

describe('marks', () => {
  it.each([
    [0.95, 4, 4],
    [0.95, 4.1, 3],
    [0.94, 0, 3],
    [0.8, 8, 3],
    [0.8, 9, 2],
    [0.6, 50, 2],
    [0.59, 0, 1],
    [0, 0, 1],
  ])('accuracy %f, drift %f %%: %i', (accuracy, drift, mark) =>
    expect(markOf(accuracy, drift, { heard: true })).toBe(mark),
  );
  it('is 0 when nothing was heard', () =>
    expect(judged('4/4 q q q q', 60, [])).toMatchObject({ mark: 0, accuracy: 0 }));
  it('is full for rests that were kept', () =>
    expect(judged('4/4 (w)', 60, [])).toMatchObject({ mark: 4, accuracy: 1 }));
  it('is never below nothing', () => expect(accuracyOf(4, 0, 1, 9)).toBe(0));
  it('takes the teacher’s borders', () =>
    expect(judged('4/4 q q q q', 60, [0, 1, 2.15, 3], { borders: [{ mark: 4, accuracy: 0.7 }] }).mark).toBe(4));
  const long = `4/4 ${[1, 2, 3].map(() => 'q q q q | q q q q').join(' | ')}`;
  const beats = Array.from({ length: 24 }, (_, i) => i);
  it.each([
    ['all of it', beats, 4],
    ['a note left out', beats.filter((beat) => beat !== 13), 3],
    ['a clap added', [...beats, 7.5].sort((a, b) => a - b), 3],
    ['claps before and after, and a bounce', [-1.5, ...beats, 5.03, 25].sort((a, b) => a - b), 4],
    ['a note late', beats.map((beat) => (beat === 9 ? 9.15 : beat)), 4],
  ])('is the best only where every note is there and nothing is added: %s', (_what, onsets, mark) => {
    const result = judged(long, 60, onsets);
    expect(result.accuracy).toBeGreaterThanOrEqual(0.95);
    expect(result.mark).toBe(mark);
  });
});

describe('what cannot be judged', () => {
  it.each([
    [{ bpm: 0 }, 'tempo'],
    [{ bpm: Number.NaN }, 'tempo'],
    [{ bpm: 1e9 }, 'tempo'],
    [{ onsets: [1, 0] }, 'sorted'],
    [{ onsets: [0, Number.NaN] }, 'number of seconds'],
    [{ onsets: Array.from({ length: 100_000 }, (_, i) => i) }, 'at most'],
    [{ start: Number.POSITIVE_INFINITY }, 'start'],
    [{ pattern: patternOf('4/4 q q q q q') }, 'measure 1 is 1 beat too long'],
  ])('%o', (wrong, reason) => {
    expect(troubleWith({ pattern: patternOf('4/4 q q q q'), bpm: 60, onsets: [0], ...wrong })).toContain(reason);
  });
});

describe('laws', () => {
  const onsets = fc
    .array(fc.double({ min: -5, max: 60, noNaN: true }), { maxLength: 60 })
    .map((list) => list.sort((a, b) => a - b));

  it('one verdict a note, no onset twice, nothing that is no number, whatever was played', () => {
    fc.assert(
      fc.property(anyPattern, onsets, fc.constantFrom(20, 60, 300), (pattern, played, bpm) => {
        const result = judge({ pattern, bpm, onsets: played });
        expect(result.ok).toBe(barsAddUp(barCheck(pattern)));
        if (!result.ok) return;
        const { notes, extras, accuracy, tempo, mark } = result.result;
        expect(notes.map(({ index }) => index)).toEqual(scheduleOf(pattern, bpm).notes.map((_, i) => i));
        const hit = notes.filter(({ verdict }) => verdict !== 'missed').length;
        expect(hit + extras.length).toBeLessThanOrEqual(played.length);
        for (const value of [accuracy, mark, ...Object.values<number>({ ...tempo })])
          expect(Number.isFinite(value)).toBe(true);
        expect(accuracy >= 0 && accuracy <= 1).toBe(true);
      }),
      { numRuns: 150 },
    );
  });

  it('a clean child has full marks in everyday patterns, and is heard as written', () => {
    fc.assert(
      fc.property(everydayPattern, fc.nat(), fc.double({ min: 0, max: 0.05, noNaN: true }), (pattern, seed, lead) => {
        const take = simulateTake(pattern, 72, { spread: 0.012, lead }, seed);
        const { accuracy, heard } = resultOf({ pattern, bpm: 72, onsets: take });
        expect(accuracy).toBe(1);
        const sounded = (text: string) => scheduleOf(patternOf(text), 72).notes.map(({ time }) => time.toFixed(3));
        expect(sounded(heard)).toEqual(sounded(printRhythm(unfold(pattern))));
      }),
      { numRuns: 200 },
    );
  });

  // What no hands can clap is left out: they need some eighty milliseconds to come apart.
  const clappable = (pattern: Pattern, bpm: number) => {
    const times = scheduleOf(pattern, bpm).notes.map(({ time }) => time);
    return times.length > 1 && times.every((time, i) => i === 0 || time - times[i - 1]! > 0.16) ? times : undefined;
  };

  it('what is clapped as written is right, in every meter, with ties, tuplets, pickups and repeats', () => {
    fc.assert(
      fc.property(fullPattern, fc.constantFrom(40, 60, 90), (pattern, bpm) => {
        const times = clappable(pattern, bpm);
        fc.pre(times !== undefined);
        const { accuracy, misreadings, extras } = resultOf({ pattern, bpm, onsets: times });
        expect([accuracy, misreadings, extras]).toEqual([1, [], []]);
      }),
      { numRuns: 150 },
    );
  });

  it('a clap left out in the middle is the one missed, and nothing else is wrong', () => {
    fc.assert(
      fc.property(fullPattern, fc.nat(), (pattern, which) => {
        const times = clappable(pattern, 60);
        fc.pre(times !== undefined && times.length > 4);
        const gone = 1 + (which % (times.length - 2));
        const { notes, extras } = resultOf({ pattern, bpm: 60, onsets: times.filter((_, i) => i !== gone) });
        expect(notes.filter(({ verdict }) => verdict === 'missed').map(({ index }) => index)).toEqual([gone]);
        expect(extras).toEqual([]);
      }),
      { numRuns: 150 },
    );
  });

  it('aligns in order, within reach, each hit at most once', () => {
    fc.assert(
      fc.property(onsets, onsets, (times, hits) => {
        const near = tolerances(times, windowsFor('9-10'));
        const paired = [...pairHits(times, near, hits).hits];
        const used = paired.filter((hit) => hit >= 0);
        expect(used).toEqual([...new Set(used)].sort((a, b) => a - b));
        paired.forEach((hit, i) => hit >= 0 && expect(Math.abs(hits[hit]! - times[i]!)).toBeLessThanOrEqual(0.25));
      }),
    );
  });
});

describe('the simulated child', () => {
  const pattern = patternOf('4/4 q (q) h | q q~ q (q)');
  it('is the same for the same seed', () =>
    expect(simulateTake(pattern, 80, { spread: 0.02 }, 7)).toEqual(simulateTake(pattern, 80, { spread: 0.02 }, 7)));
  it.each([
    [{ habits: { 'rest-clapped': 1 } }, ['rest', 'rest']],
    [{ habits: { 'hold-pulsed': 1 } }, ['hold']],
    [{ habits: { 'tie-restruck': 1 } }, ['tie']],
  ] as const)('%o is found as %j', (slips, kinds) => {
    const result = judge({ pattern, bpm: 80, onsets: simulateTake(pattern, 80, { spread: 0.01, ...slips }, 5) });
    expect(result.ok && result.result.extras.map(({ kind }) => kind)).toEqual(kinds);
  });
  it('leaves notes out', () => expect(simulateTake(pattern, 80, { spread: 0, leavesOut: 3 }, 5)).toHaveLength(0));
  it('draws numbers evenly', () => {
    const random = randomFrom(1);
    const drawn = Array.from({ length: 4000 }, () => random.below(4));
    for (const n of [0, 1, 2, 3]) expect(drawn.filter((d) => d === n).length).toBeGreaterThan(850);
  });
});

describe('advice', () => {
  const advice = (text: string, onsets: readonly number[]) => advised(text, 60, onsets);
  it.each([
    ['4/4 q q (q) q', [0, 1, 2, 3], 'Measure 1, beat 3: you clapped on the rest.'],
    ['4/4 h q q', [0, 1, 2, 3], 'Measure 1, beat 1: you clapped each beat of the half note.'],
    ['4/4 q q q q', [0, 1, 3], 'Measure 1, beat 3: no clap was heard here.'],
    ['4/4 q q q q', [], 'Nothing was heard.'],
    ['4/4 q q q q | q q q q', [0, 1, 2], 'Measure 1, beat 4: you stopped here.'],
  ] as const)('%s, played %j: %s', (text, onsets, sentence) => expect(advice(text, onsets).fix[0]).toContain(sentence));
  it('praises a clean take and finds nothing', () =>
    expect(advice('4/4 q q q q', [0, 1, 2, 3])).toEqual({ well: 'Well done: it was right.', fix: [] }));
  it('never gives more than three sentences', () =>
    expect(advice('4/4 q (q) h | q q~ q q', [0, 0.4, 1, 2, 3, 4.2, 5, 5.4, 6, 7.6, 9]).fix.length).toBeLessThanOrEqual(
      3,
    ));
});

describe('for those who judge for many', () => {
  const played = { patternText: '4/4 |: q q q q :|', bpm: 60, onsets: [0, 1, 2], feet: [0, 1] };
  it.each([
    [39, 'too-much'],
    [40, undefined],
  ])('eight notes with five claps and steps, where %i may be compared: %s', (most, code) => {
    const judged = judgeTake(played, { ages: '9-10' }, undefined, most);
    expect(judged.ok ? undefined : judged.trouble.code).toBe(code);
  });
});
