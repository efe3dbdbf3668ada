import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fullPattern, patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { Aligner } from './alignment.ts';
import type { TakeResult } from './takeResult.ts';
import { frac } from '../rhythm/fraction.ts';
import { scheduleOf } from '../timing/schedule.ts';
import { judge } from './judge.ts';
import { advised, judged, resultOf, sentencesOf } from './judged.test-helper.ts';
import { type MisreadingCode, MISREADINGS, MISREADING_CODES } from './misreadings/table.ts';
import { scoreOf } from './scoreEvents.ts';
import { simulate } from './simulatedChild.ts';
import { heardTime, writtenTime } from '../timing/tempoCurve.ts';

/** Onsets a little uneven, so that nothing is too good to be true. */
const human = (beats: readonly number[], bpm = 80) =>
  beats.map((beat, i) => (beat * 60) / bpm - 0.03 + [0.012, -0.015, 0.004, -0.008, 0.017, -0.01][i % 6]!);

const CASES: readonly (readonly [MisreadingCode, string, readonly number[], string])[] = [
  [
    'rest-clapped',
    '4/4 q q (q) q | h q q',
    [0, 1, 2, 3, 4, 6, 7],
    'Measure 1, beat 3: you clapped on the rest. The rest is silent: open your hands and whisper “3”.',
  ],
  ['rest-skipped', '4/4 q q (q) q | q e e h', [0, 1, 2, 3, 4, 4.5, 5], 'Measure 1, beat 3: you gave the rest no time'],
  [
    'rest-too-long',
    '4/4 e (e) q q q | q e e h',
    [0, 1.5, 2.5, 3.5, 4.5, 5.5, 6, 6.5],
    'Measure 1, beat 1 1/2: you gave the rest 1 beat. The rest lasts only 1/2 beat',
  ],
  [
    'rest-too-short',
    '4/4 q q q q | q (h) q | q e e h | q q h | q q h',
    [0, 1, 2, 3, 4, 6, 7, 8, 8.5, 9, 11, 12, 13, 15, 16, 17],
    'Measure 2, beat 2: you gave the rest only 1 beat, and what follows came too early. The rest lasts 2 beats',
  ],
  [
    'rest-too-short',
    '4/4 q (q) q q | q e e h | q q h',
    [0, 1.5, 2.5, 3.5, 4.5, 5, 5.5, 7.5, 8.5, 9.5],
    'Measure 1, beat 2: you gave the rest only 1/2 beat',
  ],
  [
    'hold-cut',
    '4/4 q q q q | w | q e e h',
    [0, 1, 2, 3, 4, 6, 7, 7.5, 8],
    'Measure 2, beat 1: you held the whole note only 2 beats. The whole note lasts 4 beats',
  ],
  [
    'dot-too-long',
    '4/4 q. e q q | q q h',
    [0, 2, 2.5, 3.5, 4.5, 5.5, 6.5],
    'Measure 1, beat 1: you held the dotted quarter note too long',
  ],
  [
    'dot-too-short',
    '4/4 q. e q q | q q h',
    [0, 1, 1.5, 2.5, 3.5, 4.5, 5.5],
    'you left out the dot. The dotted quarter note lasts 1 1/2 beats',
  ],
  ['tie-restruck', '4/4 q q h~ | q q h', [0, 1, 2, 4, 5, 6], 'Measure 2, beat 1: you clapped the tied-on note'],
  [
    'hold-pulsed',
    '4/4 h. q | q q h',
    [0, 1, 2, 3, 4, 5, 6],
    'Measure 1, beat 1: you clapped each beat of the dotted half note. ' +
      'Clap the dotted half note once, keep your hands together and push on beats 2 and 3.',
  ],
  [
    'hold-cut',
    '4/4 h e e q | q q h',
    [0, 1, 1.5, 2, 3, 4, 5],
    'Measure 1, beat 1: you held the half note only 1 beat. The half note lasts 2 beats',
  ],
  [
    'upbeat-on-beat',
    '4/4 (e) e q q q | q e e h',
    [0, 1, 2, 3, 4, 5, 5.5, 6],
    'Measure 1, beat 1 1/2: you clapped on the beat; this note comes after it, on “&”',
  ],
  [
    'eighths-uneven',
    '4/4 e e e e q q | e e e e h',
    [0, 0.667, 1, 1.667, 2, 3, 4, 4.667, 5, 5.667, 6],
    'Measure 1, beat 1: your pairs of eighths were long and short',
  ],
  [
    'sixteenths-slow',
    '4/4 q s s s s q q | h h',
    [0, 1, 1.5, 2, 2.5, 3, 4, 5, 7],
    'Measure 1, beat 2: you played the four sixteenths at half their speed',
  ],
  [
    'syncopation-straightened',
    '4/4 e q e q q | q q h',
    [0, 0.5, 1, 2, 3, 4, 5, 6],
    'Measure 1, beat 1: short, long, short',
  ],
  ['entered-early', '4/4 q e e q (q) | h q q', [-1, 0, 0.5, 1, 3, 5, 6], 'you came in 1 beat too early'],
  ['entered-late', '4/4 q e e q (q) | h q q', [2, 3, 3.5, 4, 6, 8, 9], 'you came in 2 beats too late'],
  ['half-tempo', '4/4 q e e q q | h h', [0, 2, 3, 4, 6, 8, 12], 'at half the tempo'],
  ['double-tempo', '4/4 q e e q q | h h', [0, 0.5, 0.75, 1, 1.5, 2, 3], 'at twice the tempo'],
  [
    'measure-skipped',
    '4/4 q q q q | e e e e h | h q q | q. e h',
    [0, 1, 2, 3, 4, 6, 7, 8, 9.5, 10],
    'Measure 2, beat 1: you left this measure out',
  ],
  [
    'measure-repeated',
    '4/4 q q h | e e e e h | h q q',
    [0, 1, 2, 4, 4.5, 5, 5.5, 6, 8, 8.5, 9, 9.5, 10, 12, 14, 15],
    'Measure 2, beat 1: you played this measure twice',
  ],
  ['stopped-early', '4/4 q q h | e e e e h | h q q', [0, 1, 2, 4, 4.5, 5], 'Measure 2, beat 2 1/2: you stopped here'],
  [
    'lost-and-recovered',
    '4/4 q q q q | q e e q q | q q e e q | h h',
    [0, 1, 2, 3, 4.35, 4.9, 5.4, 6.4, 6.75, 8, 9, 10, 10.5, 11, 12, 14],
    'were right again from measure 3, beat 1',
  ],
  [
    'hesitated',
    '4/4 q q h | q e e h | q q q q | h h',
    [0, 1, 2, 4, 5, 5.5, 6, 10.3, 11.3, 12.3, 13.3, 14.3, 16.3],
    'Measure 3, beat 1: you stopped before this note, then went on right.',
  ],
  [
    'started-again',
    '4/4 q q h | q e e h | q. e q q | h h',
    [0, 1, 2, 4, 5, 5.5, 6, 8, 9.5, 12, 13.5, 14, 15, 16, 18],
    'Measure 3, beat 1: you broke off and began again from here.',
  ],
  [
    'started-again',
    '4/4 q q h | q e e h | h q q',
    [0, 1, 2, 4, 5, 8.6, 9.6, 10.6, 12.6, 13.6, 14.1, 14.6, 16.6, 18.6, 19.6],
    'Measure 1, beat 1: you broke off and began again from here.',
  ],
  [
    'measure-skipped',
    '4/4 q q h | e e e e h | h q q | q. e h | q q q q | e e h q',
    [0, 1, 2, 4, 4.5, 5, 5.5, 6, 8, 9, 10, 11, 12, 12.5, 13, 15],
    'Measure 3, beat 1: you left 2 measures from here out.',
  ],
  [
    'measure-repeated',
    '4/4 q q h | e e e e h | h q q | q. e h',
    [0, 1, 2, 4, 4.5, 5, 5.5, 6, 8, 9, 10, 12, 12.5, 13, 13.5, 14, 16, 18, 19, 20, 21.5, 22],
    'Measure 1, beat 1: you played the 2 measures from here twice.',
  ],
  [
    'measure-silent',
    '4/4 q q h | e e e e h | h q q | q. e h',
    [0, 1, 2, 8, 10, 11, 12, 13.5, 14],
    'Measure 2, beat 1: you clapped nothing in this measure, and came in again in the right place.',
  ],
  [
    'joined-late',
    '4/4 q q h | e e e e h | h q q | q. e h',
    [4, 4.5, 5, 5.5, 6, 8, 10, 11, 12, 13.5, 14],
    'Measure 1, beat 1: you clapped nothing until measure 2, beat 1; from there you were in the right place.',
  ],
  [
    'behind-the-click',
    '4/4 q q h | q e e h | q. e q q',
    [0, 1, 2, 4, 5, 5.5, 6, 8, 9.5, 10, 11].map((beat) => beat + 0.32),
    'The whole take: the rhythm itself was right; all of it came 0.21 seconds after the click.',
  ],
  [
    'ahead-of-the-click',
    '4/4 q q h | q e e h | q. e q q',
    [0, 1, 2, 4, 5, 5.5, 6, 8, 9.5, 10, 11].map((beat) => beat - 0.25),
    'seconds before the click. Listen to the count-in to its end',
  ],
  [
    'own-tempo',
    '4/4 q q h | q e e h | q. e q q',
    [0, 0.8, 1.6, 3.2, 4, 4.4, 4.8, 6.4, 7.6, 8, 8.8],
    'The whole take: right rhythm: you kept a steady 100 beats a minute; the click was at 80.',
  ],
  [
    'only-the-beat',
    '4/4 h e e q | q. e h | e e e e h',
    [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11],
    'The whole take: you clapped the steady beat, not the rhythm.',
  ],
  [
    'another-rhythm',
    '4/4 h q q | q. e h | e e e e h | q q h',
    [0, 0.5, 1.5, 2, 2.5, 3.5, 4.5, 5, 6.5, 7.5, 9.5, 10, 11.5, 12.5, 13.5, 14.5],
    'The whole take: this is not the rhythm on the board.',
  ],
  [
    'dot-too-short',
    '4/4 q. e q q | q q h | q. e h | q. e q q | h h',
    [0, 1, 1.5, 2.5, 3.5, 4.5, 5.5, 7.5, 8.5, 9, 11, 12, 12.5, 13.5, 14.5, 16.5],
    'Measure 1, beat 1, and each time after that: you left out the dot.',
  ],
  [
    'rest-too-long',
    '4/4 q q q (q) | q e e h | q q h | h h',
    [0, 1, 2, 5, 6, 6.5, 7, 9, 10, 11, 13, 15],
    'Measure 1, beat 4: you gave the rest 2 beats. The rest lasts only 1 beat',
  ],
  [
    'rest-too-short',
    '4/4 q q h | (M4) | q e e h | q q h',
    [0, 1, 2, 16, 17, 17.5, 18, 20, 21, 22],
    'Measure 2, beat 1: you gave the rest only 3 measures, and what follows came too early. The rest lasts 4 measures',
  ],
  [
    'rest-too-long',
    '4/4 q q h | (M4) | q e e h | q q h',
    [0, 1, 2, 24, 25, 25.5, 26, 28, 29, 30],
    'Measure 2, beat 1: you gave the rest 5 measures. The rest lasts only 4 measures',
  ],
  [
    'hold-too-long',
    '4/4 q q h | q e e h | q. e q q | h h',
    [0, 1, 2, 5, 6, 6.5, 7, 9, 10.5, 11, 12, 13, 15],
    'Measure 1, beat 3: you held the half note 3 beats. The half note lasts only 2 beats; then go on',
  ],
  [
    'beat-misread',
    '4/4 q e. s q q | h q q | e. s q h',
    [0, 1, 1.5, 2, 3, 4, 6, 7, 8, 8.75, 9, 10],
    'Measure 1, beat 2: you clapped “2 &”; “2 a” is written. Say “2 a” slowly',
  ],
  [
    'beat-misread',
    '6/8 q. q e | q. q. | e e e q.',
    [0, 1, 1.333, 2, 3, 4, 4.333, 4.667, 5],
    'Measure 1, beat 2: you clapped “2 la”; “2 li” is written.',
  ],
  [
    'beat-misread',
    '4/4 q q 3{e e e} q | h q q | 3{e e e} q h',
    [0, 1, 2, 2.5, 3, 4, 6, 7, 8, 8.333, 8.667, 9, 10],
    'Measure 1, beat 3: you clapped “3 &”; “3 la li” is written.',
  ],
  [
    'looped',
    '4/4 q q h | q. e h | e e q q q | h q q | q (q) h | q e e q q',
    [0, 1, 2, 4, 5.5, 6, 8, 9.5, 10, 12, 13.5, 14, 16, 17.5, 18, 20, 21.5, 22],
    'Measure 2, beat 1: you clapped this measure again and again.',
  ],
  [
    'measures-too-long',
    '3/4 q q q | q e e q | h q | q. e q | q q q | h.',
    [0, 1, 2, 4, 5, 5.5, 6, 8, 10, 12, 13.5, 14, 16, 17, 18, 20],
    'The whole take: you waited 1 beat too long at each bar line.',
  ],
  [
    'measures-too-short',
    '4/4 q q h | e e q h | q. e h | q e e h | q q h',
    [0, 1, 2, 3, 3.5, 4, 5, 6, 7.5, 8, 9, 10, 10.5, 11, 12, 13, 14],
    'The whole take: each measure was 1 beat too short at its end.',
  ],
  [
    'clapped-the-counts',
    '4/4 q q h | q. e h | h q q | q q h',
    Array.from({ length: 32 }, (_, i) => i / 2),
    'The whole take: you clapped every half beat, not the rhythm.',
  ],
  [
    'half-tempo',
    '6/8 q. e e e | q e q. | e e e q.',
    [0, 3, 4, 5, 6, 8, 9, 12, 13, 14, 15],
    'right rhythm, at a third of the tempo: you gave each beat three clicks.',
  ],
  [
    'measure-skipped',
    '4/4 |: q q h | e e e e h :| h q q | q. e h',
    [0, 1, 2, 4, 4.5, 5, 5.5, 6, 8, 10, 11, 12, 13.5, 14],
    'you did not take the repeat.',
  ],
];

/** Without a click there is nothing to come in with, and no tempo but the child's. */
const NEEDS_CLICK: readonly MisreadingCode[] = [
  'entered-early',
  'entered-late',
  'half-tempo',
  'double-tempo',
  'joined-late',
  'behind-the-click',
  'ahead-of-the-click',
  'own-tempo',
];

describe('misreadings', () => {
  it.each([
    ['rest-too-short', { beats: frac(12) }],
    ['looped', { count: 1 }],
    ['beat-misread', { as: 'e e' }],
    ['clapped-the-counts', { as: 'e e' }],
    ['measures-too-long', { beats: frac(1) }],
    ['hold-too-long', { beats: frac(3) }],
    ['half-tempo', { factor: frac(1, 3) }],
    ['hold-cut', { beats: frac(2) }],
  ] as const)('%s says how much it was: %j', (code, amounts) => {
    const found = CASES.filter(([one]) => one === code).map(([, text, beats]) => judged(text, 80, human(beats)));
    expect(found.map(({ misreadings: [first] }) => first)).toContainEqual(expect.objectContaining(amounts));
  });
  it.each(CASES)('%s in %s', (code, text, beats, sentence) => {
    const result = judged(text, 80, human(beats));
    expect(result.misreadings[0]?.code).toBe(code);
    expect(sentencesOf(patternOf(text), result)[0]).toContain(sentence);
  });
  it.each(CASES.filter(([code]) => !NEEDS_CLICK.includes(code)))('%s without a click: %s', (code, text, beats) => {
    expect(
      judged(
        text,
        80,
        human(beats).map((time) => 4 + 1.12 * time),
        { free: true },
      ).misreadings[0]?.code,
    ).toBe(code);
  });
  it('a whole take behind or ahead of the click costs nothing, and is followed', () => {
    const beats = [0, 1, 2, 4, 5, 5.5, 6, 8, 9.5, 10, 11];
    const text = '4/4 q q h | q e e h | q. e q q';
    const right = judged(text, 80, human(beats));
    for (const seconds of [-0.22, 0.13, 0.2, 0.28, 0.32]) {
      const onsets = human(beats).map((time) => time + seconds);
      const off = judged(text, 80, onsets, { clickCounts: true });
      expect(off).toMatchObject({ accuracy: 1, mark: right.mark, follow: [] });
      expect(off.notes.map(({ verdict }) => verdict)).toEqual(right.notes.map(({ verdict }) => verdict));
      expect(off.misreadings[0]!.ms! * Math.sign(seconds)).toBeGreaterThan(seconds * 1000 - 60);
      expect(Math.abs(off.misreadings[0]!.ms! - Math.abs(seconds * 1000))).toBeLessThan(60);
      expect(off.offClick).toBeUndefined();
      expect(off.withBeat).toBeLessThan(1);
      expect(judged(text, 80, onsets, { free: true }).misreadings).toEqual([]);
    }
  });
  it('who rushes, or claps twice, is not ahead of the click', () => {
    const { onsets } = simulate(patternOf('4/4 q q h | q e e h | q q q q | h h'), 72, { spread: 0.01, drift: 0.12 }, 3);
    const ahead = onsets.map((time) => time - 0.09);
    expect(judged('4/4 q q h | q e e h | q q q q | h h', 72, ahead).misreadings.map(({ code }) => code)).toEqual([
      'rushing',
    ]);
    expect(judged('4/4 q q q q | q q q q', 72, [-0.15, 0.7]).misreadings.map(({ code }) => code)).not.toContain(
      'ahead-of-the-click',
    );
  });
  it('a note left out at the beginning or inside is a note missed', () => {
    const text = '4/4 q q h | q q h | h q q | q. e h';
    const beats = [0, 1, 2, 4, 5, 6, 8, 10, 11, 12, 13.5, 14];
    for (const missed of [[0], [3], [6]])
      expect(judged(text, 80, human(beats.filter((_beat, i) => !missed.includes(i)))).misreadings).toEqual([]);
  });
  it('who stops after a clap or two of a measure has not gone on in another one', () => {
    const text = '4/4 q q q q | q q h | q q q q | e e q h | q q h | w';
    expect(judged(text, 84, human([0, 1, 2, 3, 4, 5, 6, 8], 84)).misreadings[0]?.code).toBe('stopped-early');
  });
  it('without a click nobody joins late, or is behind it; three claps show no lag', () => {
    const text = '4/4 q q h | e e e e h | q. e q q | h h';
    const rest = human([4, 4.5, 5, 5.5, 6, 8, 9.5, 10, 11, 12, 14]).map((time) => time + 0.2);
    for (const { code } of judged(text, 80, rest, { free: true }).misreadings) expect(NEEDS_CLICK).not.toContain(code);
    const three = judged('4/4 q q q q | q q q q', 60, [0.3, 1.3, 2.3]).misreadings;
    expect(three.map(({ code }) => code)).not.toContain('behind-the-click');
  });
  it('with a click it names a rest at the very beginning that was skipped, or given too long', () => {
    const text = '4/4 (e) e q q q | q e (e) q q | h q q';
    const beats = [0.5, 1, 2, 3, 4, 5, 6, 7, 8, 10, 11];
    for (const [off, code] of [
      [-0.5, 'rest-skipped'],
      [0.5, 'rest-too-long'],
    ] as const) {
      const { misreadings, accuracy } = judged(text, 80, human(beats.map((beat) => beat + off)));
      expect(misreadings[0]).toMatchObject({ code, measure: 1, beat: { n: 1, d: 1 } });
      // Every note was followed; the slip itself costs one.
      expect(accuracy).toBeCloseTo(10 / 11, 4);
    }
  });
  it('names another misreading that comes to the very same claps', () => {
    const text = '4/4 q q h | q q q. e';
    const result = judged(text, 80, human([0, 1, 2, 4, 5, 6, 8]));
    expect(result.misreadings.map(({ code, instead }) => [code, instead])).toEqual([
      ['dot-too-long', undefined],
      ['upbeat-on-beat', true],
    ]);
    expect(sentencesOf(patternOf(text), result)[1]).toMatch(/^Or: Measure 2, /);
  });
  it('names a tempo that drifts, and follows it', () => {
    for (const [drift, code] of [
      [0.1, 'rushing'],
      [-0.1, 'dragging'],
    ] as const) {
      const { onsets } = simulate(
        patternOf('4/4 q q e e q | h q q | q. e q q | h h'),
        80,
        { spread: 0.015, lead: 0.03, drift },
        4,
      );
      const result = judged('4/4 q q e e q | h q q | q. e q q | h h', 80, onsets);
      expect(result.misreadings.map((misreading) => misreading.code)).toEqual([code]);
      expect(result.accuracy).toBe(1);
      expect(result.withBeat).toBeLessThan(0.8);
    }
  });
  it('names two of one take', () => {
    const result = judged(
      '4/4 q. e q q | q q (q) q | q e e h',
      80,
      human([0, 2, 2.5, 3.5, 4.5, 5.5, 6.5, 7.5, 8.5, 9.5, 10, 10.5]),
    );
    expect(result.misreadings.map(({ code }) => code).sort()).toEqual(['dot-too-long', 'rest-clapped']);
  });
  it('speaks in the words of the class', () => {
    const voice = { counts: { school: 'ta', houseWords: { quarterRest: 'hush' } }, naming: 'crotchets' } as const;
    const said = (text: string, beats: readonly number[]) =>
      sentencesOf(patternOf(text), judged(text, 80, human(beats)), voice)[0];
    expect(said('4/4 q q (q) q | h q q', [0, 1, 2, 3, 4, 6, 7])).toContain('whisper “hush”');
    expect(said('4/4 q. e q q | q q h', [0, 2, 2.5, 3.5, 4.5, 5.5, 6.5])).toMatch(
      /Bar 1.*dotted crotchet too long. The dotted crotchet lasts 1 1\/2 beats: the next note comes on “ti” \(beat 2 1\/2\)/,
    );
  });
  it('the same rest is not both clapped and too long', () => {
    const { misreadings } = judged(
      '4/4 q q (q) q | q e e h | q q h | h h',
      80,
      human([0, 1, 2, 3.5, 4.5, 5.5, 6, 6.5, 8.5, 9.5, 10.5, 12.5, 14.5]),
    );
    expect(misreadings.map(({ code }) => code)).toEqual(['rest-too-long']);
  });
  it.each([
    ['4/4 q q e e q | h q q', [0, 1, 2, 2.75, 3, 4, 6, 7], '4/4 q q e. s q | h q q'],
    ['4/4 q e. s h | h q q', [0, 1, 1.5, 2, 4, 6, 7], '4/4 q e e h | h q q'],
    ['4/4 q q 3{e e e} q | h q q', [0, 1, 2, 2.5, 3, 4, 6, 7], '4/4 q q e e q | h q q'],
    ['6/8 q e q. | e e e q.', [0, 0.5, 1, 2, 2.333, 2.667, 3], '6/8 e. e. q. | e e e q.'],
    ['6/8 q e q. | e e e q.', [0, 0.333, 1, 2, 2.333, 2.667, 3], '6/8 e q q. | e e e q.'],
  ])('a beat of %s that was divided otherwise is written as it was clapped: %j', (text, beats, heard) =>
    expect(judged(text, 80, human(beats)).heard).toBe(heard),
  );
  it('so fast that nobody hears it no beat can be divided otherwise', () => {
    const kind = MISREADINGS['beat-misread'];
    const ways = (bpm: number) =>
      'hypotheses' in kind
        ? kind.hypotheses(scoreOf(scheduleOf(patternOf('4/4 e. s q h'), bpm))).map(({ as }) => as)
        : [];
    expect(ways(80)).toContain('e e');
    expect(ways(160)).not.toContain('e e');
  });
  it('names what cannot be told apart side by side', () => {
    const codes = judged('4/4 h. (q) | q q h', 80, human([0, 3, 4, 5])).misreadings.map(({ code }) => code);
    expect(codes.sort()).toEqual(['hold-cut', 'rest-skipped']);
  });
});

describe('following the child', () => {
  it('lets one mistake cost once: what follows a skipped rest keeps its verdicts', () => {
    const text = '4/4 q q (q) q | q e e h | q q q q';
    const right = judged(text, 80, human([0, 1, 3, 4, 5, 5.5, 6, 8, 9, 10, 11]));
    const early = judged(text, 80, human([0, 1, 2, 3, 4, 4.5, 5, 7, 8, 9, 10]));
    expect(early.notes.map(({ verdict }) => verdict)).toEqual(right.notes.map(({ verdict }) => verdict));
    expect(early.follow).toEqual([{ fromNote: 2, beatsAhead: { n: 1, d: 1 } }]);
    expect(early.heard).toMatch(/^4\/4 q q q q \| e e/);
    expect(early.withBeat).toBeLessThan(0.8);
  });
  it('adds shifts up', () => {
    const { follow } = judged(
      '4/4 q. e q q | q (e) e q q | h h | e e q h',
      80,
      human([0, 2, 2.5, 3.5, 4.5, 6, 6.5, 7.5, 8.5, 10.5, 12.5, 13, 13.5, 14.5]),
    );
    expect(follow[0]).toEqual({ fromNote: 1, beatsAhead: { n: -1, d: 2 } });
  });
  it('says how a take at half the tempo went', () => {
    const result = judged('4/4 q e e q q | h h', 80, human([0, 2, 3, 4, 6, 8, 12]));
    expect(result.accuracy).toBe(1);
    expect(result.tempo.bpm).toBeGreaterThan(38);
    expect(result.tempo.bpm).toBeLessThan(42);
  });
  it('finds tempo and start of a free take', () => {
    const result = judged(
      '4/4 q e e q q | q q h',
      80,
      [0, 1, 1.5, 2, 3, 4, 5, 6].map((beat) => 7.3 + beat * 0.5),
      { free: true },
    );
    expect(result).toMatchObject({ accuracy: 1, withBeat: null, misreadings: [], heard: '4/4 q e e q q | q q h' });
    expect(result.tempo.bpm).toBeCloseTo(120, 0);
  });
  it('turns a curve round', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 10, noNaN: true }),
        fc.double({ min: -0.5, max: 0.5, noNaN: true }),
        fc.double({ min: -0.5, max: 0.5, noNaN: true }),
        (time, tempo, bend) => {
          const curve = { lag: 0.2, tempo, bend, from: 0, length: 10 };
          expect(writtenTime(curve, heardTime(curve, time))).toBeCloseTo(time, 6);
        },
      ),
    );
  });
});

describe('what children do', () => {
  const TEXT = '4/4 q q h | q e e h | q. e q q | h h';
  const RIGHT = [0, 1, 2, 4, 5, 5.5, 6, 8, 9.5, 10, 11, 12, 14];
  const codes = ({ misreadings }: TakeResult) => misreadings.map(({ code }) => code);

  it.each([1, 1.6, 2.4, 3.1, 4])('a stop of %f beats is a stop and nothing else, and costs one', (beats) => {
    const result = judged(TEXT, 80, human(RIGHT.map((beat, i) => (i >= 4 ? beat + beats : beat))));
    expect(codes(result)).toEqual(['hesitated']);
    expect(result.accuracy).toBeCloseTo(12 / 13, 4);
    expect(result.mark).toBe(3);
  });

  it.each([0.64, 0.8, 1.25, 1.5])('at %f of the tempo the rhythm is judged in its own time', (speed) => {
    const result = judged(TEXT, 80, human(RIGHT.map((beat) => beat / speed)));
    expect(codes(result)).toEqual(['own-tempo']);
    expect(result.tempo.leadMs).toBe(0);
    expect(result.tempo.bpm / (80 * speed)).toBeCloseTo(1, 1);
    expect([result.accuracy, result.mark]).toEqual([1, 4]);
    expect(result.withBeat).toBeLessThan(0.5);
  });

  it('a slip at a tempo of its own is named besides', () => {
    const slipped = RIGHT.map((beat, i) => (i >= 8 ? beat - 0.5 : beat) / 0.7);
    expect(codes(judged(TEXT, 80, human(slipped)))).toEqual(['own-tempo', 'dot-too-short']);
  });

  it.each([
    [[-4, -3, -2, -1], false],
    [[-1], false],
    [[-2.6, -1.3], true],
    [[-1.7], true],
  ] as const)('claps at %j are before the start (free: %s)', (before, free) => {
    const result = judged(TEXT, 80, human([...before, ...RIGHT]), { free });
    expect(codes(result)).toEqual([]);
    expect(result.extras.map(({ kind }) => kind)).toEqual(before.map(() => 'before'));
    expect(result.notes.every(({ verdict }) => verdict === 'on-time')).toBe(true);
  });

  it.each([false, true])('claps heard twice are no reason for anything (free: %s)', (free) => {
    const twice = human(RIGHT).flatMap((time, i) => (i % 2 === 0 ? [time, time + 0.045 + 0.004 * (i % 7)] : [time]));
    const result = judged(TEXT, 80, twice, { free });
    expect([codes(result), result.extras, result.accuracy]).toEqual([[], [], 1]);
  });

  it('what was played before a new start counts for nothing', () => {
    const again = [0, 1, 2, 4, 5, ...RIGHT.map((beat) => beat + 8.6)];
    const result = judged(TEXT, 80, human(again));
    expect(codes(result)).toEqual(['started-again']);
    expect(result.extras).toEqual([]);
    expect(result.notes.map(({ onset }) => onset)).toEqual(RIGHT.map((_, i) => i + 5));
  });

  it.each([
    [[0, 0.8, 1.6, 3.2, 4, 4.4, 4.8, 6.4, 7.6, 8, 8.8, 9.6, 11.2], 'Every note was right in rhythm.'],
    [RIGHT.map((beat, i) => (i >= 7 ? beat + 2 : beat)), 'After the slip you went on right in rhythm.'],
    [[0, 0.5, 1.5, 2, 2.5, 3.5, 4.5, 5.25, 6.5, 7.5, 9, 10.5, 11.5, 12.5, 13.5, 14.5], ''],
    [[0], '1 of 13 notes was right on time.'],
  ])('of %j it says first what went well: %s', (beats, well) => {
    expect(advised(TEXT, 80, human(beats)).well).toBe(well);
  });

  it('two claps have stopped, and are not read further', () => {
    expect(codes(judged(TEXT, 80, human([0, 1])))).toEqual(['stopped-early']);
  });

  it('a habit is one reading with its places, costs at each, and is no 4', () => {
    const text = '4/4 q (q) q q | q q (q) q | h h | q (q) h';
    const skipped = [0, 1, 2, 3, 4, 5, 6, 8, 10, 11];
    const { misreadings, accuracy, slips, mark } = judged(text, 80, human(skipped));
    expect(misreadings.map(({ code, again }) => [code, again?.map(({ measure }) => measure)])).toEqual([
      ['rest-skipped', [2, 4]],
    ]);
    expect([slips, mark]).toEqual([3, 2]);
    expect(accuracy).toBeCloseTo(7 / 10, 4);
  });

  it('with a misreading of the rhythm no take is a 4, with one of the whole take it may be', () => {
    const text = `4/4 q (q) q q | ${Array.from({ length: 6 }, () => 'q q q q').join(' | ')}`;
    const beats = [0, ...Array.from({ length: 26 }, (_, i) => i + 2)];
    const skipped = judged(text, 80, human([0, ...beats.slice(1).map((beat) => beat - 1)]));
    expect([codes(skipped), skipped.mark]).toEqual([['rest-skipped'], 3]);
    expect(skipped.accuracy).toBeGreaterThan(0.95);
    const late = judged(text, 80, human(beats.map((beat) => beat + 2)));
    expect([codes(late), late.mark]).toEqual([['entered-late'], 4]);
  });

  it('a free take is told of its tempo only where a listener would notice', () => {
    const faster = (by: number, text: string, beats: readonly number[]) => {
      const length = beats.at(-1)!;
      const onsets = human(beats.map((beat) => beat - (by * beat * beat) / (2 * length)));
      return codes(judged(text, 80, onsets, { free: true }));
    };
    const long = `${TEXT} | q q h | q q q q`;
    const more = [...RIGHT, 16, 17, 18, 20, 21, 22, 23];
    expect(faster(0.05, long, more)).toEqual([]);
    expect(faster(0.16, long, more)).toEqual(['rushing']);
    expect(faster(0.16, '4/4 q q q q | h h', [0, 1, 2, 3, 4, 6])).toEqual([]);
  });

  it('the longest text there is, with a few claps, has stopped', () => {
    const text = `4/4 ${Array.from({ length: 235 }, () => Array(16).fill('s').join(' ')).join(' | ')}`;
    expect(codes(judged(text, 80, [0, 0.19, 0.38, 0.56, 0.75]))).toEqual(['stopped-early']);
  });
});

describe('simulated takes', () => {
  const PATTERNS = [
    '4/4 q. e q (q) | e q e h | q s s s s q e e | h~ q q',
    '3/4 q e (e) q | h q | e e e e q | q. e q',
    '4/4 h. q | (e) e q q (q) | e e e e h | q q~ q q',
  ];
  const takes = PATTERNS.flatMap((text) => Array.from({ length: 12 }, (_, seed) => ({ text, seed })));

  it.each(MISREADING_CODES.filter((code) => 'hypotheses' in MISREADINGS[code]))(
    '%s is named in nearly all of them',
    (code) => {
      let made = 0;
      let named = 0;
      for (const { text, seed } of takes) {
        const pattern = patternOf(text);
        const { onsets, slips } = simulate(pattern, 80, { spread: 0.02, lead: 0.03, misreads: [{ code }] }, seed);
        if (slips.length === 0) continue;
        made++;
        const result = judge({ pattern, bpm: 80, onsets });
        if (result.ok && result.result.misreadings.some((misreading) => misreading.code === code)) named++;
      }
      expect(named).toBeGreaterThanOrEqual(0.9 * made);
    },
  );
  it('names nothing in clean ones, and just the note that was missed', () => {
    for (const { text, seed } of takes) {
      const pattern = patternOf(text);
      const clean = judge({
        pattern,
        bpm: 80,
        onsets: simulate(pattern, 80, { spread: 0.02, lead: 0.03 }, seed).onsets,
      });
      expect(clean.ok && clean.result.misreadings).toEqual([]);
      const missed = 1 + (seed % 8);
      const result = judge({
        pattern,
        bpm: 80,
        onsets: simulate(pattern, 80, { spread: 0.02, lead: 0.03, missed: [missed] }, seed).onsets,
      });
      expect(
        result.ok && result.result.notes.filter(({ verdict }) => verdict === 'missed').map(({ index }) => index),
      ).toEqual([missed]);
    }
  });
});

describe('laws', () => {
  it('every hypothesis of every pattern is about an event, and keeps each note at most once', () => {
    fc.assert(
      fc.property(
        fullPattern,
        fc.array(fc.double({ min: -5, max: 60, noNaN: true }), { maxLength: 40 }),
        fc.boolean(),
        fc.constantFrom(20, 60, 300),
        (pattern, played, free, bpm) => {
          const onsets = [...played].sort((a, b) => a - b);
          const result = resultOf({ pattern, bpm, onsets, free });
          const { notes, extras, misreadings, tempo, heard } = result;
          expect(notes.map(({ index }) => index)).toEqual(scheduleOf(pattern, bpm).notes.map((_, i) => i));
          expect(notes.filter(({ verdict }) => verdict !== 'missed').length + extras.length).toBeLessThanOrEqual(
            played.length,
          );
          expect(misreadings.length).toBeLessThanOrEqual(3);
          for (const sentence of sentencesOf(pattern, result)) expect(sentence).not.toMatch(/undefined|NaN/);
          for (const value of Object.values(tempo)) expect(Number.isFinite(value)).toBe(true);
          patternOf(heard);
        },
      ),
      { numRuns: 120 },
    );
  });
  it('gives no onset to two claps', () => {
    const times = fc
      .array(fc.double({ min: 0, max: 20, noNaN: true }), { maxLength: 30 })
      .map((list) => list.sort((a, b) => a - b));
    fc.assert(
      fc.property(times, times, fc.boolean(), (due, onsets, free) => {
        const fit = new Aligner(Float64Array.from(onsets), free).fit(
          due.map((time, note) => ({ note, written: time, time })),
        );
        const used = [...fit.hits].filter((hit) => hit >= 0);
        expect(new Set(used).size).toBe(used.length);
        expect(Number.isFinite(fit.cost)).toBe(true);
      }),
    );
  });
});
