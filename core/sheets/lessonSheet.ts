import { dayNumber } from '../planning/days.ts';
import { minutesOf } from '../planning/slots.ts';
import type { PlannedLesson } from '../planning/term.ts';
import type { Level } from '../making/level.ts';
import type { ElementId } from '../rhythm/elements.ts';
import { MOST_PATTERNS, SEEDS, type SheetPart } from './sheet.ts';
import type { SheetKind } from './sheetQuestion.ts';
import { usualCount } from './sheetKinds.ts';

/** Kinds that a child works on alone in a booklet, and that are about elements. */
export const BOOKLET_KINDS = [
  'counts',
  'complete',
  'bar-lines',
  'wrong-measure',
  'how-many',
  'true-false',
  'sums',
  'circle',
] as const satisfies readonly SheetKind[];
export type BookletKind = (typeof BOOKLET_KINDS)[number];

/** Questions of all kinds together that a page holds, and of one kind at least and at most. */
const ON_A_PAGE = 8;
const FEWEST = 2;
const MOST = 5;

export interface LessonSheetOptions {
  readonly kinds: readonly BookletKind[];
  readonly level: Level;
}

/** Whether the questions of a kind are made of rhythms that the teacher can give. */
const TAKES_PATTERNS: ReadonlySet<SheetKind> = new Set(['counts', 'complete', 'bar-lines', 'wrong-measure']);

/** What a lesson is about: what is new in it, else what comes back. */
export function elementsOf({ steps, again }: Pick<PlannedLesson, 'steps' | 'again'>): readonly ElementId[] {
  return steps.length > 0 ? [...new Set(steps.map(({ element }) => element))] : again;
}

/**
 * What a child works on for a lesson of the term: its new elements, else what comes back in it, with quarters between;
 * the lesson's own patterns where a kind is made of patterns.
 */
export function lessonSheet(
  { steps, again }: Pick<PlannedLesson, 'steps' | 'again'>,
  patterns: readonly string[],
  { kinds, level }: LessonSheetOptions,
): SheetPart[] {
  const about = elementsOf({ steps, again });
  const elements = about.length > 0 ? { elements: [...new Set<ElementId>(['quarter', ...about])] } : {};
  // The first kinds have one more where they do not come out even.
  const share = (key: number) => Math.floor((ON_A_PAGE + kinds.length - 1 - key) / kinds.length);
  const given = patterns.slice(0, MOST_PATTERNS);
  return kinds.map((kind, key) => ({
    key,
    kind,
    level,
    count: Math.min(MOST, Math.max(FEWEST, share(key)), usualCount(kind)),
    ...elements,
    ...(given.length > 0 && TAKES_PATTERNS.has(kind) ? { patterns: given } : {}),
  }));
}

/** Prime, and far from the days of a year: what comes next is another sheet every day. */
const FAR = 7919;

/**
 * The seed of a lesson's sheet: the same whenever the booklet is printed again.
 * @param variant  0 at first; others for other questions
 */
export function lessonSeed({ day, starts }: Pick<PlannedLesson, 'day' | 'starts'>, variant: number): number {
  return (dayNumber(day) * 1440 + minutesOf(starts) + variant * FAR) % SEEDS;
}
