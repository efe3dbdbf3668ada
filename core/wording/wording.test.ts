import { counted } from '../words/say.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { judgeTake } from '../judging/judgeTake.ts';
import { advised, judged, resultOf, sentencesOf } from '../judging/judged.test-helper.ts';
import { hardestMeasure } from '../records/nextStep.ts';
import { simulate } from '../judging/simulatedChild.ts';
import { everydayPattern, patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { barCheck } from '../rhythm/barCheck.ts';
import { frac } from '../rhythm/fraction.ts';
import { FASTEST_BPM, SLOWEST_BPM } from '../timing/limits.ts';
import { adviceForChild, adviceOn } from './advice.ts';
import { cellName } from './cellNames.ts';
import { feetAndHoldsSentences } from './feetAndHolds.ts';
import { chunkName, durationText, nextText, planTroubleText } from './leadWords.ts';
import { togetherSentences } from './togetherWords.ts';
import { markArithmetic } from './markArithmetic.ts';
import { misreadingTitle } from './misreadingSentences.ts';
import { measureText, placeHeading, placeText } from './places.ts';
import { listed } from './plurals.ts';
import { barTroubleText, takeTroubleText } from './troubles.ts';
import { capital, inNaming, measureName } from './valueNames.ts';
import { PLAIN_VOICE, type Voice, voiceOf } from './voice.ts';

const CROTCHETS: Voice = { ...PLAIN_VOICE, naming: 'crotchets' };
/** Beats at 60 as a child claps them: nothing too good to be true. */
const human = (beats: readonly number[]) =>
  beats.map((beat, i) => beat + [0.012, -0.015, 0.004, -0.008, 0.017, -0.01][i % 6]!);

describe('words', () => {
  it.each([
    [1, 'step', undefined, '1 step'],
    [0, 'step', undefined, '0 steps'],
    [2, 'pass', 'passes', '2 passes'],
  ])('%i %s: %s', (n, one, many, text) => expect(counted(n, one, many)).toBe(text));
  it.each([
    [[], ''],
    [['2'], '2'],
    [['2', '3'], '2 and 3'],
    [['2', '3', '4'], '2, 3 and 4'],
  ])('%j: %s', (words, text) => expect(listed(words)).toBe(text));
  it.each([
    ['{Measure+} and {measure}', 'Measures and measure', 'Bars and bar'],
    ['a {q} in each {measure}', 'a quarter in each measure', 'a crotchet in each bar'],
  ])('%s', (text, quarters, crotchets) =>
    expect([inNaming(text, 'quarters'), inNaming(text, 'crotchets')]).toEqual([quarters, crotchets]),
  );
  it('a measure is a bar where crotchets are said', () => {
    expect([measureName('quarters'), measureName('crotchets', true), capital('bar')]).toEqual([
      'measure',
      'bars',
      'Bar',
    ]);
  });
});

describe('places', () => {
  const beat = { n: 7, d: 2 };
  it.each([
    [{ played: 1, measure: 2, beat }, 'quarters', 'measure 2, beat 3 1/2', 'Measure 2, beat 3 1/2'],
    [
      { played: 5, measure: 2, timeThrough: 2, beat },
      'quarters',
      'measure 2, second time, beat 3 1/2',
      'Measure 2, second time, beat 3 1/2',
    ],
    [
      { played: 5, measure: 2, timeThrough: 1, beat },
      'crotchets',
      'bar 2, first time, beat 3 1/2',
      'Bar 2, first time, beat 3 1/2',
    ],
    [{ played: 0, measure: 0, beat: { n: 4, d: 1 } }, 'quarters', 'the pickup, beat 4', 'Pickup, beat 4'],
  ] as const)('%j: %s', (place, naming, inside, before) =>
    expect([placeText(place, naming), placeHeading(place, naming)]).toEqual([inside, before]),
  );
  it('go on counting the times through', () =>
    expect(measureText({ measure: 3, timeThrough: 5 }, 'quarters')).toBe('measure 3, 5th time'));
});

describe('a slip in a repeat', () => {
  const text = '4/4 |: q q h | q. e q (q) :|';
  // The second time the eighth comes on the beat.
  const onsets = human([0, 1, 2, 4, 5.5, 6, 8, 9, 10, 12, 13, 14]);
  it('is named by its written measure and the time through', () => {
    const result = judged(text, 60, onsets);
    expect(result.misreadings[0]).toMatchObject({ measure: 2, timeThrough: 2 });
    expect(sentencesOf(patternOf(text), result)[0]).toMatch(/^Measure 2, second time, beat /);
    expect(sentencesOf(patternOf(text), result, CROTCHETS)[0]).toMatch(/^Bar 2, second time, beat /);
    expect(advised(text, 60, onsets).fix[0]).toMatch(/^Measure 2, second time/);
  });
  it('leads to a measure that can be practised', () =>
    expect([2, undefined]).toContain(hardestMeasure(judged(text, 60, onsets))));
  it('is the same whoever prepares the take', () => {
    const settings = { ages: '9-10', onTimeMs: null, borders: null } as const;
    const prepared = judgeTake({ patternText: text, bpm: 60, onsets }, settings);
    if (!prepared.ok) throw new Error(prepared.trouble.code);
    expect(prepared.result).toEqual(judged(text, 60, onsets, { ages: '9-10' }));
  });
  it('in whichever time it is, the places are written ones', () => {
    fc.assert(
      fc.property(everydayPattern, fc.nat({ max: 500 }), (pattern, seed) => {
        const repeated = {
          ...pattern,
          pickup: false,
          measures: pattern.measures.map((measure, i, all) => ({
            ...measure,
            ...(i === 0 ? { repeatStart: true as const } : {}),
            ...(i === all.length - 1 ? { repeatEnd: true as const } : {}),
          })),
        };
        fc.pre(barCheck(repeated).every(({ verdict }) => verdict === 'full'));
        const { onsets: played } = simulate(repeated, 70, { spread: 0.03, leavesOut: 0.2 }, seed);
        const { notes, extras, misreadings } = resultOf({ pattern: repeated, bpm: 70, onsets: played });
        const last = barCheck(repeated).at(-1)!.number;
        for (const { measure, timeThrough } of [...notes, ...extras, ...misreadings]) {
          expect(measure >= 1 && measure <= last).toBe(true);
          expect([1, 2]).toContain(timeThrough);
        }
        const half = notes.length / 2;
        expect(notes.slice(0, half).every(({ timeThrough }) => timeThrough === 1)).toBe(true);
      }),
      { numRuns: 40 },
    );
  });
});

describe('advice', () => {
  it.each([
    ['4/4 q q q q', [0, 1.2, 2, 3], 'too late. Think ahead'],
    ['4/4 q q q q', [0, 0.8, 2, 3], 'too early. Wait for the beat'],
    ['4/4 q q q q', [0, 1, 2, 3, 4.1], 'you went on after the end'],
    ['4/4 q q q q', [0, 1, 1.08, 2, 3], 'one clap was heard as two'],
  ])('%s, played %j: %s', (text, onsets, words) => expect(advised(text, 60, onsets).fix.join(' ')).toContain(words));
  it('names the costliest slip first', () => {
    // A bounce costs half a point, the two notes that are missing two.
    const fix = advised('4/4 q q q q | q q q q', 60, [0, 0.08, 1.02, 2.98, 4.01, 4.97, 7.02]).fix;
    expect(fix[0]).toContain('no clap was heard here');
    expect(fix[1]).toContain('one clap was heard as two');
  });
  it('says of the whole take what is about the whole take, and names what is just as likely', () => {
    const text = '4/4 q q e e q | h q q | q. e q q | h h';
    const { onsets } = simulate(patternOf(text), 80, { spread: 0.015, lead: 0.03, drift: 0.1 }, 4);
    expect(advised(text, 80, onsets).fix[0]).toMatch(/^The whole take: you got faster, by \d+ %\./);
    const either = '4/4 q q h | q q q. e';
    expect(advised(either, 60, human([0, 1, 2, 4, 5, 6, 8])).fix[1]).toMatch(/^Or: Measure 2/);
  });
  it.each([
    ['4/4 q q q q', [0, 1, 2, 3], false, 'You clapped it right!', ''],
    [
      '4/4 q q (q) q | q q h',
      [0, 1, 2, 3, 4, 5, 6],
      false,
      'You found every note.',
      'The rest is silent: open your hands and whisper “3”.',
    ],
    ['4/4 q q q q', [0, 1.2, 2, 3], false, 'Most of it was right.', 'Think ahead to the next note.'],
    ['4/4 q q q q', [], false, 'You tried it.', 'Clap or tap on every note, and try again.'],
  ])('tells the child of %s, played %j', (text, onsets, free, well, task) => {
    const result = judged(text, 60, human(onsets), { free });
    expect(adviceForChild(result, patternOf(text), PLAIN_VOICE)).toEqual({ well, task });
  });
  it('has one thing to do for whatever there is to fix, and no figures of a take', () => {
    fc.assert(
      fc.property(everydayPattern, fc.nat({ max: 999 }), (pattern, seed) => {
        const { onsets } = simulate(
          pattern,
          80,
          { spread: 0.05, leavesOut: 0.2, habits: { 'rest-clapped': 0.4 } },
          seed,
        );
        const result = resultOf({ pattern, bpm: 80, onsets });
        const { well, task } = adviceForChild(result, pattern, PLAIN_VOICE);
        expect(well).not.toMatch(/\d/);
        expect(task).not.toMatch(/%|ms|measure \d/);
        expect(task === '').toBe(adviceOn(result, pattern, PLAIN_VOICE).fix.length === 0);
      }),
      { numRuns: 60 },
    );
  });
  it('says first what went well', () => {
    expect(advised('4/4 (w)', 60, []).well).toBe('You kept every rest.');
    expect(advised('4/4 q q q q | q q q q', 60, [0, 1, 2, 3, 4, 5, 6.2]).well).toBe(
      '6 of 8 notes were right on time. You kept a steady beat.',
    );
    expect(advised('4/4 q q q q', 60, []).well).toBe('');
  });
  it.each([
    // All of it right.
    ['4/4 q q h | q q h', [0, 1, 2, 4, 5, 6], 'Well done: it was right.'],
    // One note late is not right all through, though every note was there.
    ['4/4 q q h | q q h', [0, 1, 2, 4, 5.2, 6], '5 of 6 notes were right on time. You kept a steady beat.'],
    ['4/4 q q q q | q (q) q q', [0, 1, 2, 3, 4, 5, 6], 'After the slip you went on right in rhythm.'],
    [
      '4/4 q. e h | q. e h | q. e h',
      [0, 1, 1.5, 3.5, 4.5, 5, 7, 8, 8.5],
      'Between the slips you were right in rhythm.',
    ],
    // Who stopped kept no steady beat.
    ['4/4 q q q q | q q h | q q h', [0, 1, 2, 3, 6, 7, 8, 10.2, 11, 12], '9 of 10 notes were right on time.'],
    ['4/4 q q h | q. e h | h q q', [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11], ''],
  ])('of %s, played %j, says: %s', (text, onsets, well) => expect(advised(text, 60, human(onsets)).well).toBe(well));
  it.each([
    [[0, 1, 2, 4, 5.45, 6, 8, 10, 12], 'Measure 2, beat 2: the clap for this note came 1/2 beat too late.'],
    [[0, 1, 2, 4, 4.55, 6, 8, 10, 12], 'Measure 2, beat 2: the clap for this note came 1/2 beat too early.'],
  ])('a clap that was moved is one thing: %j', (onsets, sentence) => {
    const { fix } = advised('4/4 q q h | q q h | h h | w', 60, human(onsets));
    expect(fix).toHaveLength(1);
    expect(fix[0]).toContain(sentence);
  });
  it('speaks as the class does', () => {
    const [text, onsets] = ['4/4 h q q', human([0, 1, 2, 3])] as const;
    expect(advised(text, 60, onsets, CROTCHETS).fix[0]).toMatch(/^Bar 1, beat 1: .*minim/);
    expect(misreadingTitle('dot-too-long', CROTCHETS)).not.toMatch(/quarter|\{/);
  });
  it('never has a hole in it, whatever was played', () => {
    fc.assert(
      fc.property(everydayPattern, fc.nat({ max: 999 }), fc.boolean(), (pattern, seed, free) => {
        const { onsets } = simulate(
          pattern,
          80,
          { spread: 0.06, leavesOut: 0.25, habits: { 'rest-clapped': 0.5 } },
          seed,
        );
        const result = resultOf({ pattern, bpm: 80, onsets, free });
        const { well, fix } = adviceOn(result, pattern, CROTCHETS);
        const lines = markArithmetic(result, free ? undefined : 80, {}, CROTCHETS);
        for (const sentence of [well, ...fix, ...lines])
          expect(sentence).not.toMatch(/undefined|NaN|[{}]|measure|object/i);
        for (const sentence of [...fix, ...lines]) expect(sentence).toMatch(/[.%]$/);
      }),
      { numRuns: 60 },
    );
  });
});

describe('the arithmetic behind a mark', () => {
  const lines = (text: string, onsets: readonly number[], more = {}) =>
    markArithmetic(judged(text, 60, onsets, more), 'free' in more ? undefined : 60, {}, PLAIN_VOICE);
  it('shows what a misreading costs', () => {
    expect(lines('4/4 q (q) q q | q q q q', [0, 1, 2, 3, 4, 5, 6])[0]).toContain('− half of 0 too many − 1 misread)');
    expect(lines('4/4 q q q q', [0, 1, 2, 3])[0]).not.toContain('misread');
  });
  it('counts what was on time, off and too many, and names the border', () => {
    const [points, tempo, beat] = lines('4/4 q q q q | q q q q', [0, 1, 2.17, 3, 3.5, 4, 5, 6]);
    expect(points).toBe(
      '(6 on time + half of 1 early or late − half of 1 too many) ÷ 8 notes = 75 %. Mark 2: at least 60 %.',
    );
    expect(tempo).toMatch(/^Click at 60, played at 6\d|^Click at 60, played at 60/);
    expect(beat).toMatch(/^With the beat itself, the child not followed: [\d.]+ % of the notes\.$/);
  });
  it('has no click in a free take, and nothing of the beat', () => {
    const free = lines('4/4 q q q q', [5, 6, 7, 8], { free: true });
    expect(free[1]).toMatch(/^No click; played at about 60\. tempo kept; unsteadiness 0 ms\.$/);
    expect(free).toHaveLength(2);
  });
  it('says where the child was followed', () => {
    const said = lines('4/4 q q (q) q | q e e h | q q q q', human([0, 1, 2, 3, 4, 4.5, 5, 7, 8, 9, 10]));
    expect(said.at(-1)).toBe(
      'A beat ahead since measure 1, beat 4; followed from there, so what came after counts as it was clapped.',
    );
  });
  it('says on which side the child was', () => {
    const text = '4/4 q. e q q | q (e) e q q | h h | e e q h';
    const said = lines(text, human([0, 2, 2.5, 3.5, 4.5, 6, 6.5, 7.5, 8.5, 10.5, 12.5, 13, 13.5, 14.5]));
    expect(said[3]).toMatch(/^Half a beat behind since measure 1, beat 2 1\/2; followed from there/);
  });
  it('tells feet and held notes', () => {
    const more = { feet: [0, 1, 2, 3, 3.5], releases: [1.9, 2.5, 3.5] };
    const said = lines('4/4 h q q', [0, 2, 3], more);
    expect(said.at(-2)).toBe(
      'Feet: 4 of 4 beats, 1 step too many, 0 ms ahead of the beat on the whole (taken off); ' +
        'hands 0 ms after the feet, give or take 0 ms.',
    );
    expect(said.at(-1)).toBe('Measure 1, beat 1: held 1.9 s of 2 s.');
    expect(feetAndHoldsSentences(judged('4/4 h q q', 60, [0, 2, 3], more), CROTCHETS)[1]).toBe(
      'Long notes: the one there is was held for its time.',
    );
  });
  it.each([
    [[0.03, 1.03, 2.03, 3.03], '30 ms behind the click'],
    [[-0.03, 0.97, 1.97, 2.97], '30 ms ahead of the click'],
    [[0, 1, 2, 3], 'With the click'],
  ])('%j: %s', (onsets, words) => expect(lines('4/4 q q q q', onsets)[1]).toContain(words));
});

describe('cells of a word set', () => {
  it.each([
    ['q', 'quarter', 'crotchet'],
    ['e e', 'two eighths', 'two quavers'],
    ['e q e', 'eighth, quarter, eighth', 'quaver, crotchet, quaver'],
    ['e. s', 'dotted eighth, sixteenth', 'dotted quaver, semiquaver'],
    ['e s s', 'eighth, two sixteenths', 'quaver, two semiquavers'],
    ['3{e e e}', 'triplet of eighths', 'triplet of quavers'],
    ['3{q e}', 'triplet: quarter, eighth', 'triplet: crotchet, quaver'],
    ['what', 'what', 'what'],
  ])('%s: %s', (cell, quarters, crotchets) =>
    expect([cellName(cell, 'quarters'), cellName(cell, 'crotchets')]).toEqual([quarters, crotchets]),
  );
});

describe('troubles', () => {
  it.each([
    ['4/4 q q q', 'measure 1 is 1 beat short', 'bar 1 is 1 beat short'],
    ['4/4 q q q q. ', 'measure 1 is 1/2 beat too long', 'bar 1 is 1/2 beat too long'],
    ['3/8 e e e', undefined, undefined],
  ])('%s: %s', (text, quarters, crotchets) => {
    const [report] = barCheck(patternOf(text));
    expect([barTroubleText(report!, 'quarters'), barTroubleText(report!, 'crotchets')]).toEqual([quarters, crotchets]);
  });
  it('say the bounds of the tempo', () => {
    expect(planTroubleText({ code: 'tempo', bpm: 500 }, 'quarters')).toBe(
      `the tempo must be from ${SLOWEST_BPM} to ${FASTEST_BPM} beats a minute, not 500`,
    );
    expect(planTroubleText({ code: 'range', first: 1, last: 4 }, 'crotchets')).toContain('bars 1 to 4');
    expect(takeTroubleText({ code: 'tempo', bpm: 0 } as never, 'quarters')).toMatch(/tempo/);
  });
});

describe('words of a run', () => {
  it.each([
    [{ from: 1, to: 1, whole: false }, 'measure 1', 'bar 1'],
    [{ from: 2, to: 3, whole: false }, 'measures 2-3', 'bars 2-3'],
    [{ from: 1, to: 4, whole: true }, 'all', 'all'],
  ])('%j: %s', (chunk, quarters, crotchets) =>
    expect([chunkName(chunk, 'quarters'), chunkName(chunk, 'crotchets')]).toEqual([quarters, crotchets]),
  );
  it.each([
    [59.4, '59 s'],
    [60, '1 min 00 s'],
    [3599.6, '60 min 00 s'],
  ])('%f seconds are %s', (seconds, text) => expect(durationText(seconds)).toBe(text));
  it('of what comes next name only what is another', () => {
    const chunk = { from: 1, to: 1, whole: false };
    const now = { role: 'together', activity: 'clap', pass: 1, chunk, bpm: 60 } as never;
    const next = (change: object) => nextText(now, { ...(now as object), ...change } as never, 1, 'quarters');
    expect(next({})).toBe('the same again');
    expect(next({ bpm: 72 })).toBe('at 72');
    expect(next({ pass: 2, activity: 'say' })).toBe('say the counts');
    expect(next({ chunk: { from: 2, to: 2, whole: false } })).toBe('measure 2');
    expect(nextText(now, { ...(now as object), bpm: 80 } as never, 0.5, 'quarters')).toBe('at 40');
  });
});

describe('the voice of a class', () => {
  it('is its way of counting and its names; without a class a plain one', () => {
    expect(voiceOf(undefined)).toEqual(PLAIN_VOICE);
    const words = {
      school: 'ta',
      rests: null,
      houseWords: { ta: { quarter: 'doo' } },
      wordSet: null,
      naming: 'crotchets',
    };
    expect(voiceOf(words as never)).toMatchObject({
      counts: { school: 'ta', houseWords: { quarter: 'doo' } },
      naming: 'crotchets',
    });
  });
});

describe('two parts together, in words', () => {
  const place = { played: 0, measure: 2, beat: frac(3) };
  const of = (change: object) =>
    togetherSentences(
      { shared: 4, apartMs: 12.4, worst: { ...place, apartMs: 31 }, ...change },
      ['Alma', 'Benno'],
      'quarters',
    );
  it.each([
    [{}, ['4 shared notes: as one, 12 ms from one clap to the other on average.']],
    [{ shared: 1, apartMs: 40 }, ['1 shared note: together, 40 ms from one clap to the other on average.']],
    [
      { apartMs: 90, worst: { ...place, apartMs: 150.4 }, leads: { part: 1, byMs: 60 } },
      [
        '4 shared notes: apart, 90 ms from one clap to the other on average.',
        'Furthest apart in measure 2, beat 3: 150 ms.',
        'Benno comes first, by 60 ms.',
      ],
    ],
  ])('%j', (change, sentences) => expect(of(change)).toEqual(sentences));
});
