import { describe, expect, it } from 'vitest';
import { READY_PLANS } from '../leading/plan.ts';
import { timetable } from '../leading/timetable.ts';
import { turnTime } from '../records/lineUp.ts';
import { type ElementId, elementsOf } from '../rhythm/elements.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { FASTEST_BPM, SLOWEST_BPM } from '../timing/limits.ts';
import { soundKey } from '../rhythm/soundings.ts';
import { parseRhythm, printRhythm } from '../rhythm/text.ts';
import {
  LESSON_TEMPLATES,
  type LessonBlock,
  type LessonTemplate,
  USUAL_MINUTES,
  blockTime,
  blocksOf,
  lessonFor,
  lessonTime,
  tempoFor,
  timeStanding,
  unmetIn,
} from './lesson.ts';

function patternOf(text: string): Pattern {
  const parsed = parseRhythm(text);
  if (!parsed.ok) throw new Error(text);
  return parsed.pattern;
}

const CLASS = { children: 24, counts: { school: 'ta' } } as const;
const ROPE = patternOf('4/4 h q q | q q h');
const GULLS = patternOf('4/4 q q e e q | e e q e e q');
const PLAN = READY_PLANS()[0]!;

describe('the minutes of a block', () => {
  it('are those of its run, for each pattern', () => {
    const run = timetable(ROPE, PLAN, CLASS.counts);
    const block: LessonBlock = { kind: 'lead', patterns: [ROPE, ROPE], plan: PLAN };
    if (!run.ok) throw new Error(run.trouble.code);
    expect(blockTime(block, CLASS)).toEqual({ seconds: 2 * run.timetable.seconds, from: 'computed' });
  });
  it('are those of its line-up: children, tries, patterns in turn', () => {
    const block: LessonBlock = { kind: 'line-up', patterns: [ROPE, GULLS], lineUp: { bpm: 76, tries: 2 } };
    const { seconds, from } = blockTime(block, CLASS);
    expect(from).toBe('computed');
    expect(seconds).toBeCloseTo(24 * (turnTime(ROPE, 76) + turnTime(GULLS, 76)), 6);
  });
  it('are typed, or usual where nothing can be computed', () => {
    expect(blockTime({ kind: 'lead', patterns: [ROPE], plan: PLAN, minutes: 5 }, CLASS)).toEqual({
      seconds: 300,
      from: 'typed',
    });
    const usual = { seconds: 60 * USUAL_MINUTES.lead, from: 'usual' };
    expect(blockTime({ kind: 'lead', patterns: [], plan: PLAN }, CLASS)).toEqual(usual);
    expect(blockTime({ kind: 'lead', patterns: [ROPE] }, CLASS)).toEqual(usual);
    const impossible = { ...PLAN, chunks: { kind: 'range', from: 40, to: 41 } } as const;
    expect(blockTime({ kind: 'lead', patterns: [ROPE], plan: impossible }, CLASS)).toEqual(usual);
  });
  it('add up against the length of the lesson', () => {
    const blocks: LessonBlock[] = [
      { kind: 'warm-up', patterns: [], minutes: 5 },
      { kind: 'close', patterns: [] },
    ];
    expect(lessonTime(blocks, 10, CLASS)).toEqual({ seconds: 420, left: 180 });
    expect(lessonTime(blocks, 6, CLASS).left).toBe(-60);
  });
});

describe('what the class has not met', () => {
  const blocks: LessonBlock[] = [
    { kind: 'warm-up', patterns: [GULLS] },
    { kind: 'know', patterns: [], introduces: ['half'] },
    { kind: 'read', patterns: [ROPE, patternOf('4/4 q. e h')] },
  ];
  it('is said with the block, unless an earlier one introduces it', () =>
    expect(unmetIn(blocks, ['quarter'])).toEqual([
      { block: 0, element: 'eighth-pair', introducedIn: undefined },
      { block: 2, element: 'dotted-quarter', introducedIn: undefined },
    ]));
  it('names the block that comes too late for it', () =>
    expect(unmetIn([blocks[2]!, blocks[1]!], ['eighth-pair', 'dotted-quarter'])).toEqual([
      { block: 0, element: 'half', introducedIn: 1 },
    ]));
  it('is nothing where all was met', () => expect(unmetIn(blocks, ['eighth-pair', 'dotted-quarter'])).toEqual([]));
});

describe('a lesson that is held', () => {
  it.each<[number, number, object]>([
    [0, 60, { behind: 0, blockLeft: 240 }],
    [1, 200, { behind: -100, blockLeft: 400 }],
    [1, 500, { behind: 0, blockLeft: 100 }],
    [1, 700, { behind: 100, blockLeft: -100 }],
    [0, 400, { behind: 100, blockLeft: -100 }],
  ])('in block %i after %i seconds: %j', (current, elapsed, standing) =>
    expect(timeStanding([300, 300, 120], current, elapsed)).toEqual(standing),
  );
});

describe('a lesson to begin with', () => {
  it.each(Object.keys(LESSON_TEMPLATES) as LessonTemplate[])('%s fits 40 minutes', (template) => {
    const blocks = blocksOf(template);
    expect(blocks.map(({ kind }) => kind)).toEqual(LESSON_TEMPLATES[template]);
    expect(blocks.at(-1)!.kind).toBe('close');
    expect(lessonTime(blocks, 40, CLASS).left).toBeGreaterThanOrEqual(0);
  });
});

describe('a lesson for another class', () => {
  const met: readonly ElementId[] = ['quarter', 'eighth-pair', 'quarter-rest'];
  it('has other patterns where something was not met, as long, in the same meter, no two alike', () => {
    const mast = patternOf('3/4 q. e q | q. e q | h. | h.');
    const { blocks, changed, unchanged } = lessonFor(
      [
        { kind: 'warm-up', patterns: [GULLS] },
        { kind: 'read', patterns: [ROPE, mast, ROPE], minutes: 7 },
      ],
      met,
      5,
    );
    expect([changed, unchanged]).toEqual([3, 0]);
    expect(blocks[0]!.patterns[0]).toBe(GULLS);
    expect(blocks[1]!.minutes).toBe(7);
    const made = blocks[1]!.patterns;
    expect(made.map(({ measures }) => [measures.length, measures[0]!.meter.upper])).toEqual([
      [2, 4],
      [4, 3],
      [2, 4],
    ]);
    expect(printRhythm(made[0]!)).not.toBe(printRhythm(made[2]!));
    for (const pattern of made) for (const id of elementsOf(pattern).keys()) expect(met).toContain(id);
  });
  it('has none twice, however many are made', () => {
    const mast = patternOf('4/4 q. e h');
    const { blocks, changed } = lessonFor([{ kind: 'read', patterns: Array(5).fill(mast) as Pattern[] }], met, 5);
    expect(changed).toBe(5);
    expect(new Set(blocks[0]!.patterns.map(soundKey)).size).toBe(5);
  });
  it('keeps what it introduces, and what cannot be made', () => {
    const introduced: LessonBlock[] = [
      { kind: 'know', patterns: [], introduces: ['half'] },
      { kind: 'read', patterns: [ROPE] },
    ];
    expect(lessonFor(introduced, met, 1)).toMatchObject({ changed: 0, unchanged: 0 });
    const mixed = patternOf('4/4 h h | 3/4 h q');
    const { blocks, unchanged } = lessonFor([{ kind: 'read', patterns: [mixed] }], met, 1);
    expect([blocks[0]!.patterns[0], unchanged]).toEqual([mixed, 1]);
  });
});

describe('a tempo for other ages', () => {
  it.each([
    [76, '9-10', '7-8', 68],
    [68, '7-8', '9-10', 76],
    [72, '5-6', '5-6', 72],
    [380, '9-10', 'musician', FASTEST_BPM],
    [SLOWEST_BPM, '9-10', '5-6', SLOWEST_BPM],
  ] as const)('%i of %s is for %s %i', (bpm, from, to, other) => expect(tempoFor(bpm, from, to)).toBe(other));
});
