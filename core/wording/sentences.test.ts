import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { REST_STYLES, type RestStyle } from '../counting/countingSystem.ts';
import { type CountingSystemId, COUNTING_SYSTEM_IDS } from '../counting/countingSystems.ts';
import { MISREADING_CODES, type MisreadingCode } from '../judging/misreadings/table.ts';
import type { Misreading } from '../judging/takeResult.ts';
import { everydayPattern, patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { frac } from '../rhythm/fraction.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { scheduleOf } from '../timing/schedule.ts';
import { type AboutTake, misreadingSentence } from './misreadingSentences.ts';
import { anyRestKept } from './saidCounts.ts';
import type { Voice } from './voice.ts';

const CLICK: AboutTake = { notes: [], extras: [], misreadings: [], withBeat: 1 };
const NUMBERS: Voice = { counts: { school: 'numbers' }, naming: 'quarters' };

/** The sentence about the event so far on in the pattern, repeats played. */
function said(
  code: MisreadingCode,
  pattern: Pattern,
  event: number,
  voice: Voice = NUMBERS,
  more: Partial<Misreading> = {},
  take: Partial<AboutTake> = {},
): string {
  const { place } = scheduleOf(pattern, 60).events[event]!;
  const misreading: Misreading = { code, event, ...place, ...more };
  return misreadingSentence(pattern, misreading, { ...CLICK, misreadings: [misreading], ...take }, voice);
}

describe('each misreading in words', () => {
  const onlyHere: readonly [MisreadingCode, string, number, string, Partial<Misreading>?][] = [
    [
      'rest-clapped',
      '4/4 q q (q) q',
      2,
      'Measure 1, beat 3: you clapped on the rest. The rest is silent: open your hands and whisper “3”.',
    ],
    [
      'rest-skipped',
      '4/4 q (e) e q q',
      1,
      'Measure 1, beat 2: you gave the rest no time, and what follows came too early. ' +
        'The rest lasts 1/2 beat: open your hands and whisper “2”.',
    ],
    [
      'rest-too-short',
      '4/4 q (h) q',
      1,
      'Measure 1, beat 2: you gave the rest only 1/2 beat, and what follows came too early. ' +
        'The rest lasts 2 beats: open your hands and whisper “2 3”.',
      { beats: frac(1, 2) },
    ],
    [
      'rest-too-long',
      '4/4 q (e) e q q',
      1,
      'Measure 1, beat 2: you gave the rest 1 beat. ' +
        'The rest lasts only 1/2 beat: open your hands, whisper “2”, and go on: the next note comes on “&”.',
      { beats: frac(1) },
    ],
    [
      'dot-too-long',
      '4/4 q. e q q',
      0,
      'Measure 1, beat 1: you held the dotted quarter note too long. ' +
        'The dotted quarter note lasts 1 1/2 beats: the next note comes on “&”.',
    ],
    [
      'dot-too-short',
      '4/4 q q q. (e)',
      2,
      'Measure 1, beat 3: you left out the dot. The dotted quarter note lasts 1 1/2 beats: the next rest comes on “&”.',
    ],
    [
      'dot-too-short',
      '3/4 q q. e | h.',
      3,
      'Measure 2, beat 1: you left out the dot. The dotted half note lasts 3 beats: hold it to the end.',
    ],
    [
      'tie-restruck',
      '4/4 q q q q~ | q q h',
      4,
      'Measure 2, beat 1: you clapped the tied-on note. ' +
        'A tied-on note only goes on: keep your hands together and push them forward.',
    ],
    [
      'hold-pulsed',
      '4/4 h. q',
      0,
      'Measure 1, beat 1: you clapped each beat of the dotted half note. ' +
        'Clap the dotted half note once, keep your hands together and push on beats 2 and 3.',
    ],
    [
      'hold-cut',
      '4/4 h h',
      1,
      'Measure 1, beat 3: you held the half note only 1 beat. ' +
        'The half note lasts 2 beats: push on beat 4 before you go on.',
      { beats: frac(1) },
    ],
    [
      'upbeat-on-beat',
      '4/4 q (e) e q q',
      2,
      'Measure 1, beat 2 1/2: you clapped on the beat; this note comes after it, on “&”. ' +
        'Tap the beat with your foot and clap when it is up.',
    ],
    [
      'eighths-uneven',
      '4/4 e e e e h',
      0,
      'Measure 1, beat 1: your pairs of eighths were long and short. ' +
        'Make the two eighths of a pair the same length: clap the second on “&”, just in the middle.',
    ],
    [
      'eighths-uneven',
      '2/2 q q h',
      0,
      'Measure 1, beat 1: your pairs of quarters were long and short. ' +
        'Make the two quarters of a pair the same length: clap the second on “&”, just in the middle.',
    ],
    [
      'sixteenths-slow',
      '2/2 e e e e h',
      0,
      'Measure 1, beat 1: you played the four eighths at half their speed. ' +
        'Four eighths fit into one beat: say them once on their own, then clap.',
    ],
    [
      'syncopation-straightened',
      '4/4 e q e h',
      0,
      'Measure 1, beat 1: short, long, short: you made it straight. ' +
        'After the short note the next note comes on “&” and lasts over the beat.',
    ],
    [
      'entered-early',
      '4/4 q q h',
      0,
      'Measure 1, beat 1: you came in 2 beats too early; the rhythm itself was right. Wait for the whole count-in.',
      { beats: frac(2) },
    ],
    [
      'entered-late',
      '4/4 q q h',
      0,
      'Measure 1, beat 1: you came in 1 beat too late; the rhythm itself was right. ' +
        'Breathe in on the last count and start with the next beat.',
      { beats: frac(1) },
    ],
    [
      'half-tempo',
      '4/4 q q h',
      0,
      'The whole take: right rhythm, at half the tempo: you gave each beat two clicks. Step with the click, then clap.',
    ],
    [
      'double-tempo',
      '4/4 q q h',
      0,
      'The whole take: right rhythm, at twice the tempo: you put two beats on each click. ' +
        'Step with the click, then clap.',
    ],
    [
      'half-tempo',
      '4/4 q q h | e e e e h',
      3,
      'Measure 2, beat 1: you played this measure at half its speed. Step the beat and say the measure, then clap it.',
      { part: true },
    ],
    [
      'double-tempo',
      '4/4 q q h | e e e e h | w',
      3,
      'Measure 2, beat 1: you played at twice the tempo from here on. Step the beat and say the measure, then clap it.',
      { part: true, factor: { n: 2, d: 1 } },
    ],
    [
      'own-tempo',
      '4/4 q q h',
      0,
      'The whole take: right rhythm: you kept a steady 96 beats a minute; the click was at 72. ' +
        'Step with the click first, then clap.',
      { kept: { bpm: 96, click: 72 } },
    ],
    [
      'hesitated',
      '4/4 q q h',
      2,
      'Measure 1, beat 3: you stopped before this note, then went on right. Keep the beat going in your feet.',
    ],
    [
      'started-again',
      '4/4 q q h | h h',
      3,
      'Measure 2, beat 1: you broke off and began again from here. Keep going to the end, even after a slip.',
    ],
    [
      'only-the-beat',
      '4/4 e e q h',
      0,
      'The whole take: you clapped the steady beat, not the rhythm. Say the rhythm first, then clap what you say.',
    ],
    [
      'another-rhythm',
      '4/4 e e q h',
      0,
      'The whole take: this is not the rhythm on the board. Listen to the rhythm once more, say it, then clap it.',
    ],
    [
      'rushing',
      '4/4 q q h',
      0,
      'The whole take: you got faster, by 9 %. Keep your feet with the click.',
      { percent: 9 },
    ],
    [
      'dragging',
      '4/4 q q h',
      0,
      'The whole take: you got slower, by 6 %. Keep your feet with the click.',
      { percent: 6 },
    ],
    [
      'lost-and-recovered',
      '4/4 q q h | h h',
      1,
      'Measure 1, beat 2: you got lost here, and were right again from measure 2, beat 1: well recovered. ' +
        'Practise the stretch where you got lost.',
      { until: { played: 1, measure: 2, beat: frac(1) } },
    ],
    [
      'measure-skipped',
      '4/4 q q h | h h | h h | w',
      3,
      'Measure 2, beat 1: you left 2 measures from here out. Follow the notes with a finger, measure by measure.',
      { count: 2 },
    ],
    [
      'measure-repeated',
      '4/4 q q h | h h | h h | w',
      3,
      'Measure 2, beat 1: you played the 2 measures from here twice. ' +
        'At the end of a measure go straight on to the next.',
      { count: 2 },
    ],
    [
      'measure-silent',
      '4/4 q q h | h h | h h | w',
      3,
      'Measure 2, beat 1: you clapped nothing in these 2 measures, and came in again in the right place. ' +
        'Keep saying the counts, and clap with them all the way.',
      { count: 2 },
    ],
    [
      'joined-late',
      '4/4 q q h | h h',
      0,
      'Measure 1, beat 1: you clapped nothing until measure 2, beat 1; from there you were in the right place. ' +
        'Breathe in on the last count of the count-in, and clap the very first note.',
      { until: { played: 1, measure: 2, beat: frac(1) } },
    ],
    [
      'behind-the-click',
      '4/4 q q h | h h',
      0,
      'The whole take: the rhythm itself was right; all of it came 0.2 seconds after the click. ' +
        'Do not wait to hear the click: clap together with it.',
      { ms: 200 },
    ],
    [
      'ahead-of-the-click',
      '4/4 q q h | h h',
      0,
      'The whole take: the rhythm itself was right; all of it came 0.15 seconds before the click. ' +
        'Listen to the count-in to its end, and clap together with the click.',
      { ms: 150 },
    ],
    [
      'measure-skipped',
      '4/4 q q h | h h',
      3,
      'Measure 2, beat 1: you left this measure out. Follow the notes with a finger, measure by measure.',
    ],
    [
      'measure-repeated',
      '4/4 w | h h',
      1,
      'Measure 2, beat 1: you played this measure twice. ' + 'At the end of a measure go straight on to the next.',
    ],
    [
      'measure-repeated',
      '4/4 q q h | h h',
      3,
      'Measure 2, beat 1: you clapped the measure before once more instead of this one. ' +
        'Before each measure, look at its first note.',
      { beats: frac(0) },
    ],
    [
      'stopped-early',
      '4/4 w | h h',
      2,
      'Measure 2, beat 3: you stopped here. Keep going to the end, even after a slip.',
    ],
    [
      'rest-too-short',
      '4/4 q q h | (M4) | w',
      3,
      'Measure 2, beat 1: you gave the rest only 3 measures, and what follows came too early. ' +
        'The rest lasts 4 measures: open your hands and whisper “1 2 3 4”.',
      { beats: frac(12) },
    ],
    [
      'rest-too-long',
      '4/4 q (q) (q) q | w',
      1,
      'Measure 1, beat 2: you gave the rest 4 beats. ' +
        'The rest lasts only 2 beats: open your hands, whisper “2 3”, and go on: the next note comes on “4”.',
      { beats: frac(4) },
    ],
    [
      'hold-too-long',
      '4/4 h q q',
      0,
      'Measure 1, beat 1: you held the half note 2 1/2 beats. ' +
        'The half note lasts only 2 beats; then go on: the next note comes on “3”.',
      { beats: frac(5, 2) },
    ],
    [
      'beat-misread',
      '4/4 q e. s h',
      1,
      'Measure 1, beat 2: you clapped “2 &”; “2 a” is written. Say “2 a” slowly, then clap just what you say.',
      { as: 'e e' },
    ],
    [
      'beat-misread',
      '4/4 q e e h',
      1,
      'Measure 1, beat 2: you clapped “2 la li”; “2 &” is written. Say “2 &” slowly, then clap just what you say.',
      { as: '3{e e e}' },
    ],
    [
      'beat-misread',
      '7/8 q q q.',
      0,
      'Measure 1, beat 1: you clapped “1 4 6”; “1 3 5” is written. Say “1 3 5” slowly, then clap just what you say.',
      { as: 'q. q q', count: 1 },
    ],
    [
      'half-tempo',
      '6/8 q. q e',
      0,
      'The whole take: right rhythm, at a third of the tempo: you gave each beat three clicks. ' +
        'Step with the click, then clap.',
      { factor: frac(1, 3) },
    ],
    [
      'double-tempo',
      '6/8 q. q e',
      0,
      'The whole take: right rhythm, at three times the tempo: you put three beats on each click. ' +
        'Step with the click, then clap.',
      { factor: frac(3) },
    ],
    [
      'hold-too-long',
      '4/4 q q q q~ | q q h',
      3,
      'Measure 1, beat 4: you held the tied note 3 beats. ' +
        'The tied note lasts only 2 beats; then go on: the next note comes on “2”.',
      { beats: frac(3) },
    ],
    [
      'measure-skipped',
      '4/4 |: q q h | h h :| w',
      5,
      'Measure 1, second time, beat 1: you did not take the repeat. ' +
        'At the repeat sign go back, and play it all once more.',
      { count: 2 },
    ],
    [
      'measure-repeated',
      '4/4 |: q q h | h h :| w',
      0,
      'Measure 1, first time, beat 1: you took the repeat once too often. ' +
        'Count the times through, and after the last one go straight on.',
      { count: 2 },
    ],
    [
      'measure-skipped',
      '4/4 |: q q h | h h :| w',
      3,
      'Measure 2, first time, beat 1: you did not take the repeat. ' +
        'At the repeat sign go back, and play it all once more.',
      { count: 2 },
    ],
    [
      'measure-skipped',
      '4/4 |: q q h | h h :| w',
      3,
      'Measure 2, first time, beat 1: you left this measure out. Follow the notes with a finger, measure by measure.',
    ],
    [
      'rushing',
      '4/4 q q h | e e e e h',
      3,
      'Measure 2, beat 1: you got faster in this measure, by 10 %. Keep your feet with the click.',
      { percent: 10, part: true },
    ],
    [
      'dragging',
      '4/4 q q h | e e e e h',
      3,
      'Measure 2, beat 1: you got slower from here on, by 20 %. Keep your feet with the click.',
      { percent: 20, part: true, count: 3 },
    ],
    ...(
      [
        ['e e', 'every half beat'],
        ['h', 'every other beat'],
        ['s s s s', 'four to every beat'],
        ['e e e', 'every third of the beat'],
      ] as const
    ).map(([as, every]): [MisreadingCode, string, number, string, Partial<Misreading>] => [
      'clapped-the-counts',
      '4/4 q q h',
      0,
      `The whole take: you clapped ${every}, not the rhythm. ` +
        'Whisper the counts, and clap only where a note is written.',
      { as },
    ]),
    [
      'looped',
      '4/4 q q h | h h | w',
      0,
      'Measure 1, beat 1: you clapped the 2 measures from here again and again. ' +
        'Follow the notes with a finger, and go on to the next measure.',
      { count: 2 },
    ],
    [
      'measures-too-long',
      '4/4 q q h | h h | w | w',
      3,
      'The whole take: you waited 1 beat too long at each bar line from measure 2 on. ' +
        'Count each measure, and go straight on: just after its last beat comes the next measure.',
      { beats: frac(1) },
    ],
    [
      'measures-too-short',
      '4/4 q q h | h h | w',
      0,
      'The whole take: each measure was 1/2 beat too short at its end. ' +
        'Count every measure to its last beat before you go on.',
      { beats: frac(1, 2) },
    ],
  ];
  it.each(onlyHere)('%s in %s', (code, text, event, sentence, more) =>
    expect(said(code, patternOf(text), event, NUMBERS, more)).toBe(sentence),
  );
  it('has an example for every code', () =>
    expect([...new Set(onlyHere.map(([code]) => code))].sort()).toEqual([...MISREADING_CODES].sort()));
  it('says “right” only when nothing else was wrong', () => {
    const pattern = patternOf('4/4 q q h');
    const missed = { notes: [{ verdict: 'missed' }] } as never;
    for (const code of ['entered-late', 'half-tempo', 'double-tempo', 'own-tempo', 'hesitated'] as const)
      expect(said(code, pattern, 0, NUMBERS, { beats: frac(1) }, missed)).not.toMatch(/right/);
  });
  it('knows no click where there was none', () => {
    const pattern = patternOf('4/4 q q h');
    expect(said('rushing', pattern, 0, NUMBERS, { percent: 9 }, { withBeat: null })).toBe(
      'The whole take: you got faster, by 9 %. Tap your foot evenly, and clap to your foot.',
    );
  });
  it('names a habit once, with its places', () => {
    const at = (measure: number, n: number) => ({ played: measure - 1, measure, beat: frac(n) });
    const habit = (text: string, again: Misreading['again']) =>
      said('dot-too-short', patternOf(text), 0, NUMBERS, { again: again! }).replace(/:.*/, '');
    expect(habit('4/4 q. e q. e | h h', [at(1, 3)])).toBe('Measure 1, beat 1, and again in the same measure');
    expect(habit('4/4 |: q. e q q :| q. e h | q. e h', [{ ...at(1, 1), played: 1, timeThrough: 2 }])).toBe(
      'Measure 1, first time, beat 1, and again when it came back',
    );
    expect(habit('4/4 q. e h | q. e q. e | q. e h', [at(2, 1), at(3, 1)])).toBe(
      'Measure 1, beat 1, and again in measures 2 and 3',
    );
    expect(habit('4/4 q. e h | q. e h | q. e h', [at(2, 1), at(3, 1)])).toBe(
      'Measure 1, beat 1, and each time after that',
    );
  });
});

describe('in each way of counting', () => {
  it.each<[CountingSystemId, RestStyle | undefined, string, string]>([
    ['numbers', undefined, 'whisper “3”', 'on “&”'],
    ['numbers', 'whisper', 'whisper “3”', 'on “&”'],
    ['numbers', 'rest', 'whisper “rest”', 'on “&”'],
    ['numbers', 'silent', 'keep still', 'on “&”'],
    ['pulses', undefined, 'whisper “3 &”', 'on “&”'],
    ['numbers-te', undefined, 'whisper “3”', 'on “te”'],
    ['takadimi', undefined, 'whisper “ta”', 'on “di” (beat 2 1/2)'],
    ['ta', undefined, 'whisper “sh”', 'on “ti” (beat 2 1/2)'],
    ['ta', 'silent', 'keep still', 'on “ti” (beat 2 1/2)'],
    ['note-names', undefined, 'whisper “rest”', 'on “eighth” (beat 2 1/2)'],
    ['within-note', undefined, 'whisper “rest”', 'on “1” (beat 2 1/2)'],
    ['feet', undefined, 'whisper “down up”', 'on “up” (beat 2 1/2)'],
    ['words', undefined, 'whisper “crab”', 'on “phin” (beat 2 1/2)'],
  ])('%s, rests %s: %s; %s', (school, rests, whispered, next) => {
    const voice: Voice = { counts: { school, rests }, naming: 'quarters' };
    const pattern = patternOf('4/4 q. e (q) q');
    expect(said('rest-clapped', pattern, 2, voice)).toContain(`The rest is silent: open your hands and ${whispered}.`);
    expect(said('dot-too-long', pattern, 0, voice)).toContain(`the next note comes ${next}.`);
  });
  it.each<[RestStyle, string]>([
    ['parens', 'whisper the count'],
    ['whisper', 'whisper the count'],
    ['rest', 'whisper “rest”'],
    ['sh', 'whisper the word of the rest'],
    ['silent', 'keep still'],
  ])('a clap in a rest, rests %s: %s', (rests, words) => expect(anyRestKept({ school: 'numbers', rests })).toBe(words));
  it('nobody is told to say a sign, a hyphen between numbers, or a count that is none', () => {
    const anyCode = fc.constantFrom(...MISREADING_CODES);
    const anySystem = fc.constantFrom(...COUNTING_SYSTEM_IDS);
    const anyStyle = fc.constantFrom(undefined, ...REST_STYLES);
    fc.assert(
      fc.property(everydayPattern, anyCode, anySystem, anyStyle, fc.nat(), (pattern, code, school, rests, at) => {
        const { events } = scheduleOf(pattern, 60);
        const voice: Voice = { counts: { school, rests }, naming: 'crotchets' };
        const more = { beats: frac(1), kept: { bpm: 90, click: 60 } };
        const sentence = said(code, pattern, at % events.length, voice, more, { withBeat: null });
        expect(sentence).not.toMatch(/undefined|NaN|[{}·_~₀-₉]|measure|“”|\d-/);
      }),
      { numRuns: 300 },
    );
  });
});
