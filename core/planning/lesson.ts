import type { CountOptions } from '../counting/count.ts';
import type { Ages } from '../judging/windows.ts';
import type { Plan } from '../leading/plan.ts';
import { scoreTimetable } from '../leading/timetable.ts';
import { difficultyOf } from '../making/level.ts';
import { makeSet } from '../making/makeSet.ts';
import { turnTime } from '../records/lineUp.ts';
import { type ElementId, elementsOf } from '../rhythm/elements.ts';
import { sameMeter } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { type Score, scoreOfPattern } from '../rhythm/score.ts';
import { soundKey } from '../rhythm/soundings.ts';
import { FASTEST_BPM, SLOWEST_BPM } from '../timing/limits.ts';
import type { Bpm, Seconds } from '../timing/units.ts';

/** What a lesson is made of, in the order of the work (rules §12). */
export const BLOCK_KINDS = ['warm-up', 'know', 'read', 'lead', 'ear', 'make', 'line-up', 'close'] as const;
export type BlockKind = (typeof BLOCK_KINDS)[number];

/** Minutes of a block for which none are typed and none can be computed. */
export const USUAL_MINUTES: Readonly<Record<BlockKind, number>> = {
  'warm-up': 4,
  know: 6,
  read: 8,
  lead: 6,
  ear: 6,
  make: 8,
  'line-up': 10,
  close: 2,
};

/** One part of a lesson. */
export interface LessonBlock {
  readonly kind: BlockKind;
  /** Typed by the teacher; where it is left out the minutes are computed, or usual. */
  readonly minutes?: number;
  readonly patterns: readonly Pattern[];
  /** The same with all their parts, where some have several. */
  readonly scores?: readonly Score[];
  /** Elements that are new in it: from here on the class has met them. */
  readonly introduces?: readonly ElementId[];
  /** How its patterns are led. */
  readonly plan?: Plan;
  /** How each child is heard on one of its patterns. */
  readonly lineUp?: { readonly bpm: Bpm; readonly tries: number };
}

/** The class a lesson is held in. */
export interface LessonClass {
  readonly children: number;
  readonly counts: CountOptions;
}

export interface BlockTime {
  readonly seconds: Seconds;
  readonly from: 'typed' | 'computed' | 'usual';
}

function ledFor(
  { patterns, scores = patterns.map(scoreOfPattern), plan }: LessonBlock,
  counts: CountOptions,
): Seconds | undefined {
  if (!plan || patterns.length === 0) return undefined;
  let seconds = 0;
  for (const score of scores) {
    const run = scoreTimetable(score, plan, counts);
    if (!run.ok) return undefined;
    seconds += run.timetable.seconds;
  }
  return seconds;
}

/** Patterns are dealt out in turn, as in the line-up itself. */
function heardFor({ patterns, lineUp }: LessonBlock, children: number): Seconds | undefined {
  if (!lineUp || patterns.length === 0) return undefined;
  let seconds = 0;
  for (let child = 0; child < children; child++)
    seconds += turnTime(patterns[child % patterns.length]!, lineUp.bpm) * lineUp.tries;
  return seconds;
}

/** How long a block takes: as typed, else as its run or its line-up takes, else as usual. */
export function blockTime(block: LessonBlock, { children, counts }: LessonClass): BlockTime {
  if (block.minutes !== undefined) return { seconds: block.minutes * 60, from: 'typed' };
  const seconds = ledFor(block, counts) ?? heardFor(block, children);
  if (seconds !== undefined) return { seconds, from: 'computed' };
  return { seconds: USUAL_MINUTES[block.kind] * 60, from: 'usual' };
}

/** How long the lesson takes, and what is left of its minutes; below 0: it is too long. */
export function lessonTime(
  blocks: readonly LessonBlock[],
  minutes: number,
  schoolClass: LessonClass,
): { readonly seconds: Seconds; readonly left: Seconds } {
  const seconds = blocks.reduce((all, block) => all + blockTime(block, schoolClass).seconds, 0);
  return { seconds, left: minutes * 60 - seconds };
}

/** Something the class has not met in a block. */
export interface Unmet {
  readonly block: number;
  readonly element: ElementId;
  /** The later block that would introduce it, were it earlier; undefined where none does. */
  readonly introducedIn: number | undefined;
}

/** What the class has not met when a block comes to it; plain quarters are known to everybody. */
export function unmetIn(blocks: readonly LessonBlock[], met: Iterable<ElementId>): Unmet[] {
  const known = new Set<ElementId>(['quarter', ...met]);
  return blocks.flatMap(({ patterns, scores = patterns.map(scoreOfPattern), introduces = [] }, block) => {
    for (const element of introduces) known.add(element);
    const elements = new Set(
      scores.flatMap(({ parts }) => parts.flatMap(({ pattern }) => [...elementsOf(pattern).keys()])),
    );
    return [...elements]
      .filter((element) => !known.has(element))
      .map((element): Unmet => {
        const later = blocks.findIndex((one, i) => i > block && one.introduces?.includes(element));
        return { block, element, introducedIn: later < 0 ? undefined : later };
      });
  });
}

/**
 * How the time stands while a lesson is held.
 * @param times    of its blocks, in order
 * @param current  the index of the block that is on
 * @param elapsed  since the lesson began
 * @returns `behind`: so much later than planned, below 0 earlier; `blockLeft`: of this block by the plan
 */
export function timeStanding(
  times: readonly Seconds[],
  current: number,
  elapsed: Seconds,
): { readonly behind: Seconds; readonly blockLeft: Seconds } {
  const sum = (upTo: number) => times.slice(0, upTo).reduce((all, one) => all + one, 0);
  const [begins, ends] = [sum(current), sum(current + 1)];
  const behind = elapsed < begins ? elapsed - begins : Math.max(0, elapsed - ends);
  return { behind, blockLeft: ends - elapsed };
}

/** Kinds of lessons to begin with, each as its blocks. */
export const LESSON_TEMPLATES = {
  'something-new': ['warm-up', 'know', 'read', 'lead', 'make', 'close'],
  practice: ['warm-up', 'read', 'lead', 'ear', 'close'],
  'hear-all': ['warm-up', 'lead', 'line-up', 'close'],
  'write-and-listen': ['warm-up', 'ear', 'make', 'read', 'close'],
} as const satisfies Readonly<Record<string, readonly BlockKind[]>>;
export type LessonTemplate = keyof typeof LESSON_TEMPLATES;

/** The blocks of a template, still without material. */
export function blocksOf(template: LessonTemplate): LessonBlock[] {
  return LESSON_TEMPLATES[template].map((kind) => ({ kind, patterns: [] }));
}

/**
 * A lesson for another class: patterns with something it has not met are made anew of what it has, in the same meter,
 * as long and as hard as they can be; what the lesson itself introduces stays.
 * @returns the blocks, and how many patterns are others now or could not be made
 */
export function lessonFor(
  blocks: readonly LessonBlock[],
  met: readonly ElementId[],
  seed: number,
): { readonly blocks: LessonBlock[]; readonly changed: number; readonly unchanged: number } {
  const unmet = new Set(unmetIn(blocks, met).map(({ element }) => element));
  const heard = new Set(blocks.flatMap(({ patterns }) => patterns.map(soundKey)));
  let [changed, unchanged] = [0, 0];
  const adapted = blocks.map((block, b) => ({
    ...block,
    patterns: block.patterns.map((pattern, p) => {
      if (![...elementsOf(pattern).keys()].some((element) => unmet.has(element))) return pattern;
      const made = likeIt(pattern, met, seed + 97 * b + p, heard);
      if (!made) unchanged++;
      if (!made) return pattern;
      changed++;
      heard.add(soundKey(made));
      return made;
    }),
  }));
  return { blocks: adapted, changed, unchanged };
}

/** How fast children of an age read rhythms, set against nine and ten: a teacher's rule of thumb. */
const PACE: Readonly<Record<Ages, number>> = { '5-6': 0.8, '7-8': 0.9, '9-10': 1, '11-13': 1.1, musician: 1.25 };

/**
 * A tempo for children of other ages.
 * @example tempoFor(76, '9-10', '7-8')  // 68
 */
export function tempoFor(bpm: Bpm, from: Ages, to: Ages): Bpm {
  const other = Math.round((bpm * PACE[to]) / PACE[from]);
  return Math.max(SLOWEST_BPM, Math.min(FASTEST_BPM, other));
}

/** As long, in the same meter, at its level or the nearest below that can be made; undefined where none can. */
function likeIt(
  pattern: Pattern,
  elements: readonly ElementId[],
  seed: number,
  known: ReadonlySet<string>,
): Pattern | undefined {
  const [{ meter }] = pattern.measures as [Pattern['measures'][number]];
  if (pattern.measures.some((measure) => !sameMeter(measure.meter, meter))) return undefined;
  const measures = pattern.measures.length - (pattern.pickup ? 1 : 0);
  const set = makeSet({ meter, measures, elements, level: difficultyOf(pattern).level }, 1, seed, known);
  return typeof set === 'string' ? undefined : set.made[0]?.pattern;
}
