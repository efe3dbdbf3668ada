import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyPattern, fullPattern, patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { contentLength, placePattern } from '../rhythm/place.ts';
import { printRhythm } from '../rhythm/text.ts';
import { backwards } from './backwards.ts';
import { chunkName, durationText, planTroubleText } from '../wording/leadWords.ts';
import { chunkPattern, chunksOf } from './chunks.ts';
import { ACTIVITY_IDS, type Plan, READY_PLANS, WHO_IDS, planTrouble } from './plan.ts';
import type { Cue } from './cue.ts';
import { MomentFinder, lastAt, measureStarts } from './moment.ts';
import { type Timetable, timetable } from './timetable.ts';
import { pulsesOf } from '../timing/pulses.ts';

const PLAN: Plan = {
  title: 'x',
  passes: [{ activity: 'say-clap', who: 'together' }],
  chunks: { kind: 'whole' },
  ladder: [{ bpm: 60, passes: 1 }],
  restBeats: 0,
  countIn: 'measure',
  countInEach: true,
  divided: false,
  twoLines: false,
};

function table(text: string, change: Partial<Plan> = {}): Timetable {
  const made = timetable(patternOf(text), { ...PLAN, ...change }, { school: 'numbers' });
  if (!made.ok) throw new Error(made.trouble.code);
  return made.timetable;
}

const micro = (seconds: number) => Math.round(seconds * 1e6) / 1e6;
const of = (cues: readonly Cue[], kind: Cue['kind']) => cues.filter((cue) => cue.kind === kind);
const line = (cues: readonly Cue[], kind: Cue['kind']) =>
  of(cues, kind)
    .map(({ time, text }) => `${micro(time)} ${text}`.trim())
    .join(', ');

describe('timetable', () => {
  it.each([
    ['4/4 q e e h', 60, 'syllable', '4 1, 5 2, 5.5 &, 6 3, 7 4'],
    ['4/4 q e e h', 60, 'count-in', '0 1, 1 2, 2 ready, 3 go'],
    ['4/4 q e e h', 120, 'clap', '2, 2.5, 2.75, 3'],
    ['4/4 q. e (q) q', 60, 'syllable', '4 1, 5 2, 5.5 &, 6 3, 7 4'],
    ['4/4 h (h)', 60, 'push', '5'],
    ['4/4 h (h)', 60, 'open', '6'],
    ['4/4 q q q q', 60, 'foot', '4 R, 5 L, 6 R, 7 L'],
    ['6/8 q. q.', 60, 'click', '0, 1, 2, 3'],
    // The pickup stands after a count-in of four beats; the bar line is a beat later.
    ['4/4 ^ q | h.', 60, 'syllable', '4 4, 5 1, 6 2, 7 3'],
    // The whole note keeps its time: the dotted quarter of 6/8 lasts one and a half of the quarters of 3/4.
    ['3/4 q q q | 6/8 q. q.', 60, 'clap', '3, 4, 5, 6, 7.5'],
    ['2/4 |: q q :|', 60, 'clap', '2, 3, 4, 5'],
    ['2/4 q q | (M2)', 60, 'syllable', '2 1, 3 2, 4 1, 5 2, 6 2, 7 2'],
    ['2/4 h~ | h', 60, 'push', '3, 4, 5'],
    ['4/4 3{e e e} q h', 90, 'clap', '2.666667, 2.888889, 3.111111, 3.333333, 4'],
  ] as const)('%s at %i, %s: %s', (text, bpm, kind, expected) => {
    expect(line(table(text, { ladder: [{ bpm, passes: 1 }] }).cues, kind)).toBe(expected);
  });

  it('joins two measures at a time, climbs the ladder at the end, and adds up the time', () => {
    const { sections, seconds, passes } = table('2/4 q q | q q | q q | q q', {
      chunks: { kind: 'joined', by: 2 },
      ladder: [
        { bpm: 60, passes: 1 },
        { bpm: 120, passes: 2 },
      ],
    });
    expect(sections.map(({ chunk, bpm }) => `${chunkName(chunk, 'quarters')} ${bpm}`)).toEqual([
      'measures 1-2 60',
      'measures 3-4 60',
      'all 60',
      'all 120',
      'all 120',
    ]);
    // Each pass is its count-in of one measure and its measures.
    expect(seconds).toBe(3 * 2 + (4 + 4 + 8) * 1 + (2 * (2 + 8)) / 2);
    expect(passes).toBe(5);
  });

  it('takes half speed, 1.5 and 2 times of a rung', () => {
    expect(
      table('4/4 w', {
        ladder: [0.5, 1, 1.5, 2].map((factor) => ({ bpm: 80, passes: 1, factor: factor as 1 })),
      }).sections.map(({ bpm }) => bpm),
    ).toEqual([40, 80, 120, 160]);
  });

  it('lets the app go first, or the class; only the app sounds in its turn', () => {
    const mine = table('4/4 q q q q', { passes: [{ activity: 'clap', who: 'i-go' }] });
    expect(mine.sections.map(({ role, start }) => [role, start])).toEqual([
      ['listen', 4],
      ['answer', 8],
    ]);
    expect(of(mine.cues, 'clap').map(({ section, sounds }) => [section, sounds])).toEqual([
      ...Array<unknown>(4).fill([0, true]),
      ...Array<unknown>(4).fill([1, false]),
    ]);
    expect(of(mine.cues, 'click').every(({ sounds }) => sounds)).toBe(true);
    expect(table('4/4 w', { passes: [{ activity: 'clap', who: 'you-go' }] }).sections.map(({ role }) => role)).toEqual([
      'answer',
      'check',
    ]);
    const echo = table('4/4 w', { passes: [{ activity: 'echo', who: 'together' }] });
    expect(echo.sections.map(({ role, hidden }) => [role, hidden])).toEqual([
      ['listen', true],
      ['answer', true],
      ['check', false],
    ]);
  });

  it('keeps the beat when turns follow each other, also with a pickup', () => {
    const starts = (text: string) =>
      table(text, { passes: [{ activity: 'clap', who: 'i-go' }] }).sections.map(({ start }) => start);
    expect(starts('4/4 ^ q | h.')).toEqual([5, 9]);
    expect(starts('4/4 ^ q | w')).toEqual([5, 13]);
  });

  it('rests between passes, counts in once when asked, in the teacher’s words', () => {
    const passes = [
      { activity: 'clap', who: 'together' },
      { activity: 'say', who: 'together' },
    ] as const;
    const { cues, seconds } = table('2/4 h', {
      passes,
      restBeats: 3,
      countInEach: false,
      countIn: 'two-measures',
      countInWords: ['hands', 'up', 'off'],
    });
    expect(line(cues, 'count-in')).toBe('0 1, 1 hands, 2 up, 3 off');
    expect(seconds).toBe(4 + 2 + 3 + 2);
    expect(line(table('2/4 h', { countIn: 'two-beats' }).cues, 'count-in')).toBe('0 ready, 1 go');
  });

  it('covers one more measure with each covered pass', () => {
    expect(
      table('2/4 h | h', {
        passes: Array.from({ length: 4 }, () => ({ activity: 'covered' as const, who: 'together' as const })),
      }).sections.map(({ covered }) => covered),
    ).toEqual([1, 2, 2, 2]);
  });

  it('plays tied notes as one tone', () => {
    const { cues } = table('4/4 q h.~ | q h.', { passes: [{ activity: 'play', who: 'together' }] });
    expect(of(cues, 'tone').map(({ time, seconds }) => [time, seconds])).toEqual([
      [4, 1],
      [5, 4],
      [9, 3],
    ]);
  });

  it.each([
    [{ ladder: [] }, 'set a tempo'],
    [{ ladder: [{ bpm: 0, passes: 1 }] }, 'tempo must be'],
    [{ ladder: [{ bpm: 250, passes: 1, factor: 2 }] }, 'not 500'],
    [{ ladder: [{ bpm: 60, passes: 0 }] }, 'passes'],
    [{ passes: [] }, 'at least one pass'],
    [{ restBeats: 1.5 }, 'rest from'],
    [{ chunks: { kind: 'range', from: 2, to: 9 } }, 'measures 1 to 1'],
    [{ ladder: [{ bpm: 10, passes: 60 }], restBeats: 32 }, 'would take'],
  ] as const)('says what is wrong with %j', (change, word) => {
    const made = timetable(patternOf('4/4 w'), { ...PLAN, ...change }, { school: 'ta' });
    expect(made.ok ? '' : planTroubleText(made.trouble, 'quarters')).toContain(word);
  });

  it('is always in order, every section where its cues are, whatever is led', () => {
    const plan = fc.record({
      activity: fc.constantFrom(...ACTIVITY_IDS),
      who: fc.constantFrom(...WHO_IDS),
      by: fc.integer({ min: 1, max: 3 }),
      bpm: fc.integer({ min: 30, max: 200 }),
      rest: fc.nat({ max: 4 }),
      each: fc.boolean(),
      school: fc.constantFrom('numbers', 'ta', 'takadimi', 'pulses', 'note-names' as const),
    });
    fc.assert(
      fc.property(fullPattern, plan, (pattern, { activity, who, by, bpm, rest, each, school }) => {
        const made = timetable(
          pattern,
          {
            ...PLAN,
            passes: [
              { activity, who },
              { activity: 'say', who: 'together' },
            ],
            chunks: { kind: 'joined', by },
            ladder: [{ bpm, passes: 3 }],
            restBeats: rest,
            countInEach: each,
          },
          { school },
        );
        if (!made.ok) return;
        const { cues, sections, seconds } = made.timetable;
        // Whole notes are told apart to a billionth; the slowest lasts some seconds.
        const none = 2e-8;
        const misplaced = cues.filter(({ time, section }, i) => {
          const { from, end } = sections[section]!;
          return !(
            time >= (cues[i - 1]?.time ?? 0) - none &&
            time >= from - none &&
            time <= Math.min(end, seconds) + none
          );
        });
        expect(misplaced).toEqual([]);
        sections.forEach((section, i) => expect(section.from).toBeCloseTo(sections[i - 1]?.end ?? 0, 7));
        for (const { time } of measureStarts(made.timetable)) expect(Number.isFinite(time)).toBe(true);
      }),
      { numRuns: 150 },
    );
  });
});

describe('parts of a run', () => {
  it.each([
    [59.6, '1 min 00 s'],
    [48, '48 s'],
    [245, '4 min 05 s'],
  ])('%f seconds are %s', (seconds, text) => expect(durationText(seconds)).toBe(text));
  it('finds the last thing that is not after a moment', () => {
    const times = [0, 1, 1, 2].map((time) => ({ time }));
    expect([-1, 0, 1, 1.5, 9].map((time) => lastAt(times, time))).toEqual([-1, 0, 2, 2, 3]);
  });
  it('cuts by written numbers where a pattern has them', () => {
    const pattern = patternOf('4/4 ^ q | #5 w | "A" h h | (M2) | #20 w');
    const named = (by: number) =>
      chunksOf(pattern, { kind: 'joined', by }).map((chunk) => [
        chunkName(chunk, 'quarters'),
        printRhythm(chunkPattern(pattern, chunk)),
      ]);
    expect(named(3)).toEqual([
      ['measures 5-8', '4/4 ^ q | #5 w | "A" h h | (M1) | (M1)'],
      ['measure 20', '4/4 #20 w'],
      ['all', '4/4 ^ q | #5 w | "A" h h | (M1) | (M1) | #20 w'],
    ]);
    expect(planTrouble(pattern, { ...READY_PLANS()[0]!, chunks: { kind: 'range', from: 1, to: 2 } })).toEqual({
      code: 'range',
      first: 5,
      last: 20,
    });
    expect(planTrouble(pattern, { ...READY_PLANS()[0]!, chunks: { kind: 'range', from: 6, to: 20 } })).toBeUndefined();
  });
  it.each<[string, number, readonly string[]]>([
    ['4/4 q q h | (M3) | h h | w | (M2)', 2, ['measures 1-4', 'measures 5-8', 'all']],
    ['4/4 (M2) | q q h | h h', 1, ['measures 1-3', 'measure 4', 'all']],
    ['4/4 q q h | (q) (q) (h) | h h | w', 1, ['measure 1', 'measures 2-3', 'measures 1-3', 'measure 4', 'all']],
    ['4/4 (M1) | "A" (M1) | q q h | w', 2, ['measures 1-3', 'measure 4', 'all']],
    ['4/4 (M4)', 2, ['all']],
    ['4/4 w | (M3)', 2, ['all']],
  ])('has something to clap in every chunk of %s', (text, by, chunks) =>
    expect(chunksOf(patternOf(text), { kind: 'joined', by }).map((one) => chunkName(one, 'quarters'))).toEqual(chunks),
  );
  it('goes line by line through a page, then through all of it', () => {
    const page = patternOf('4/4 "1" w | w | "2" h h :|');
    expect(
      chunksOf(page, { kind: 'lines' }).map((one) => [
        chunkName(one, 'quarters'),
        printRhythm(chunkPattern(page, one)),
      ]),
    ).toEqual([
      ['line 1', '4/4 "1" w | w'],
      ['line 2', '4/4 "2" h h'],
      ['all', '4/4 "1" w | w | "2" h h | "1" w | w | "2" h h'],
    ]);
    const none = patternOf('4/4 w | w');
    expect(chunksOf(none, { kind: 'lines' })).toEqual(chunksOf(none, { kind: 'whole' }));
  });
  it('counts the rests of a run as in the piece, wherever it is cut', () => {
    const pattern = patternOf('4/4 w | (M3) | "A" (M2) | w');
    const numbers = (from: number, to: number) => {
      const [only] = chunksOf(pattern, { kind: 'range', from, to });
      return placePattern(chunkPattern(pattern, only!)).map(({ restNumber }) => restNumber);
    };
    expect(numbers(3, 5)).toEqual([2, 3, 1]);
    expect(numbers(6, 7)).toEqual([2, undefined]);
    expect(numbers(1, 2)).toEqual([undefined, 1]);
  });
  it('cuts chunks as numbered on paper', () => {
    const pattern = patternOf('4/4 ^ q | w | (M2) | h h~ | w |: q q h :|');
    const cut = (from: number, to: number) =>
      printRhythm(chunkPattern(pattern, chunksOf(pattern, { kind: 'range', from, to })[0]!));
    expect(cut(1, 2)).toBe('4/4 ^ q | w | (M1)');
    expect(cut(5, 6)).toBe('4/4 w | q q h');
    expect(printRhythm(chunkPattern(pattern, chunksOf(pattern, { kind: 'whole' })[0]!))).toBe(
      '4/4 ^ q | w | (M1) | (M1) | h h~ | w | q q h | q q h',
    );
    expect(chunksOf(pattern, { kind: 'joined', by: 4 }).map((chunk) => chunkName(chunk, 'quarters'))).toEqual([
      'measures 1-4',
      'measures 5-6',
      'all',
    ]);
    expect(chunksOf(pattern, { kind: 'joined', by: 1 }).map((chunk) => chunkName(chunk, 'quarters'))).toEqual([
      'measure 1',
      'measures 2-4',
      'measures 1-4',
      'measure 5',
      'measures 1-5',
      'measure 6',
      'all',
    ]);
    expect(chunksOf(pattern, { kind: 'joined', by: 8 }).map((chunk) => chunkName(chunk, 'quarters'))).toEqual(['all']);
  });
  it.each([
    ['4/4 q. e h | q q~ h', '4/4 h e q. | h~ q q'],
    ['4/4 3{q e} (q) h~ | w', '4/4 h (q) 3{e q} | w'],
    ["4/4 q'G' q~ 3{e e e} q", "4/4 q 3{e e e~} q q'G'"],
  ])('backwards: %s is %s', (text, expected) => expect(printRhythm(backwards(patternOf(text)))).toBe(expected));
  it('keeps the length of every measure backwards, and twice backwards is forwards but for ties over bars', () => {
    fc.assert(
      fc.property(anyPattern, (pattern) => {
        const back = backwards(pattern);
        expect(back.measures.map(contentLength)).toEqual(pattern.measures.map(contentLength));
        expect(printRhythm(backwards(backwards(back)))).toBe(printRhythm(back));
      }),
    );
  });
  it('accents the groups of an unequal meter, and clicks the parts of beats on demand', () => {
    expect(pulsesOf(patternOf('7/8[2+2+3] e e e e e e e'), 60).map(({ accent }) => accent)).toEqual([
      'measure',
      'beat',
      'group',
      'beat',
      'group',
      'beat',
      'beat',
    ]);
    expect(pulsesOf(patternOf('6/8 q. q.'), 60, true).map(({ accent }) => accent)).toEqual([
      'measure',
      'division',
      'division',
      'beat',
      'division',
      'division',
    ]);
  });
  it('ships plans that lead any pattern', () => {
    for (const plan of READY_PLANS())
      expect(timetable(patternOf('3/4 ^ q | h q | h'), plan, { school: 'words' }).ok).toBe(true);
  });

  describe('counts that fade', () => {
    const text = '4/4 q q h | q q h';
    const four = table(text, { ladder: [{ bpm: 60, passes: 5 }], fades: true });
    it('go a step with each pass: all, the first measure, the beat numbers, none', () => {
      expect(four.sections.map(({ fade }) => fade)).toEqual(['all', 'first', 'beats', 'none', 'none']);
      expect(table(text, { ladder: [{ bpm: 60, passes: 2 }] }).sections.map(({ fade }) => fade)).toEqual([
        'all',
        'all',
      ]);
    });
    it('are no longer said where they are no longer read, and clapped all the same', () => {
      const heard = (section: number, kind: Cue['kind']) =>
        four.cues.filter((cue) => cue.section === section && cue.kind === kind && cue.sounds).length;
      expect([0, 1, 2, 3].map((section) => heard(section, 'syllable'))).toEqual([8, 4, 0, 0]);
      expect([0, 1, 2, 3].map((section) => heard(section, 'clap'))).toEqual([6, 6, 6, 6]);
    });
    it('begin anew with other measures', () => {
      const chunks = { kind: 'joined', by: 1 } as const;
      const passes = [PLAN.passes[0]!, PLAN.passes[0]!];
      const fades = table(text, { chunks, passes, fades: true }).sections.map(({ fade }) => fade);
      expect(fades).toEqual(['all', 'first', 'all', 'first', 'all', 'first']);
    });
    it('with a pickup the first full measure still has its counts', () => {
      const { cues } = table('4/4 ^ q | w | w', { ladder: [{ bpm: 60, passes: 2 }], fades: true });
      const said = cues.filter(({ section, kind, sounds }) => section === 1 && kind === 'syllable' && sounds);
      expect(said.map(({ text: word }) => word)).toEqual(['4', '1', '2', '3', '4']);
    });
  });

  describe('a time to look before “you go first”', () => {
    const study = (change: Partial<Plan>) =>
      table('4/4 q q q q', { passes: [{ activity: 'clap', who: 'you-go' }], study: 5, ...change });
    it('is silent, and pushes the count-in back', () => {
      const { sections, cues, seconds } = study({});
      expect(sections.map(({ studyUntil }) => studyUntil)).toEqual([5, undefined]);
      expect(cues.filter(({ time, sounds }) => sounds && time < 5 - 1e-9)).toEqual([]);
      expect(sections[0]!.start).toBe(9);
      expect(seconds).toBe(17);
    });
    it('shows the seconds that are left, then counts in', () => {
      const finder = new MomentFinder(study({}));
      expect([0, 0.5, 1, 4.2, 4.999].map((time) => finder.at(time).study)).toEqual([5, 5, 4, 1, 1]);
      expect(finder.at(5.1)).toMatchObject({ leadIn: '1' });
      expect(finder.at(5.1).study).toBeUndefined();
    });
    it('is only for those who go first', () => {
      expect(study({ passes: PLAN.passes }).sections[0]!.studyUntil).toBeUndefined();
      expect(study({ passes: [{ activity: 'echo', who: 'you-go' }] }).sections[0]!.studyUntil).toBeUndefined();
    });
    it.each([61, -1, 2.5])('%s seconds are refused', (seconds) => {
      const made = timetable(patternOf('4/4 w'), { ...PLAN, study: seconds }, { school: 'numbers' });
      expect(made).toEqual({ ok: false, trouble: { code: 'study' } });
      expect(planTroubleText({ code: 'study' }, 'quarters')).toContain('0 to 60');
    });
  });
});
