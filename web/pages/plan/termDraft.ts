import { addDays, parseISO } from 'date-fns';
import { format } from '../../words/dates.ts';
import type { LessonEdit } from '../../../contract/lesson.ts';
import type { TermPlanEdit } from '../../../contract/termPlan.ts';
import type { Day } from '../../../core/planning/days.ts';
import { type LessonSlot, lessonSlots, standsIn } from '../../../core/planning/slots.ts';
import {
  type PlannedTerm,
  type TermStep,
  inSteps,
  isIn,
  moveLesson,
  moveOn,
  planTerm,
  spread,
} from '../../../core/planning/term.ts';
import { ELEMENT_IDS, type ElementId } from '../../../core/rhythm/elements.ts';
import { moved } from '../../ui/lists.ts';

const WEEKS = 14;
/** So many new elements are offered for a term. */
const NEW_AT_FIRST = 4;

/** A term to begin with: one lesson a week, the next elements in their usual order. @param monday  its first day */
export function newTerm(monday: Day, met: ReadonlySet<ElementId>): TermPlanEdit {
  const until = format(addDays(parseISO(monday), WEEKS * 7 - 3), 'yyyy-MM-dd');
  const order = ELEMENT_IDS.filter((id) => id !== 'quarter' && !met.has(id)).slice(0, NEW_AT_FIRST);
  const days = { from: monday, until, slots: [{ weekday: 0, starts: '09:40', minutes: 40 }], holidays: [] };
  return inOrder({ ...days, order, contents: [], left: [] }, order, monday);
}

/**
 * Other new elements, or in another order: spread over the lessons that are not over.
 * @param today  is still to come
 */
export function inOrder(term: TermPlanEdit, order: readonly ElementId[], today: Day): TermPlanEdit {
  const slots = lessonSlots(term);
  const over = slots.filter(({ day }) => day < today).length;
  const { contents, left } = spread(order, slots.length, filled(term).slice(0, over));
  return { ...term, order: [...order], contents, left };
}

/**
 * Other days: lessons that are over keep what they had, what is to come stays in its order, lesson by lesson, and what
 * does not fit any more is left.
 * @param today  is still to come
 */
export function onDays(term: TermPlanEdit, change: Partial<TermPlanEdit>, today: Day): TermPlanEdit {
  const next = { ...term, ...change };
  const [before, slots] = [lessonSlots(term), lessonSlots(next)];
  const contents = filled(term);
  const coming = contents.filter((_, i) => before[i]!.day >= today);
  const after = slots.map(({ day, starts }) =>
    day < today ? (contents[lessonAt(before, day, starts)] ?? []) : (coming.shift() ?? []),
  );
  const left = [...coming.flat(), ...term.left];
  // What was left comes in again at the end, where there is room.
  const last = after.findLastIndex((steps) => steps.length > 0);
  const free = slots.flatMap(({ day }, i) => (day >= today && i > last ? [i] : []));
  free.forEach((lesson, i) => {
    after[lesson] = taken(left, Math.ceil(left.length / (free.length - i)));
  });
  return { ...next, contents: after, left };
}

/** The first of what is left, of each element one: an element goes one step a lesson. */
function taken(left: TermStep[], most: number): TermStep[] {
  const steps: TermStep[] = [];
  for (let i = 0; i < left.length && steps.length < most;) {
    const one = left[i]!;
    if (steps.some(({ element }) => element === one.element)) i++;
    else steps.push(...left.splice(i, 1));
  }
  return steps;
}

export function dragged(term: TermPlanEdit, from: number, to: number): TermPlanEdit {
  return { ...term, contents: moveLesson(filled(term), from, to) };
}

/** A lesson is on another day: its steps go along, each element's in their order; its old day has none of them. */
export function carried(term: TermPlanEdit, from: number, to: number): TermPlanEdit {
  const contents = filled(term);
  const moving = contents[from] ?? [];
  const after = contents.map((steps, i) => (i === from ? [] : i === to ? [...steps, ...moving] : steps));
  return { ...term, contents: inSteps(after) };
}

/**
 * Lessons that are kept for days between two of the term, on the days on which they are once one of them moves, and as
 * they were.
 */
export function movedAlong<L extends Pick<LessonEdit, 'day' | 'starts' | 'held'>>(
  lessons: readonly L[],
  slots: readonly LessonSlot[],
  from: number,
  to: number,
): { readonly now: L; readonly was: L }[] {
  const order = moved(
    slots.map((_, i) => i),
    from,
    to,
  );
  return lessons.flatMap((lesson) => {
    const at = lesson.held ? -1 : lessonAt(slots, lesson.day, lesson.starts);
    const slot = at < 0 ? undefined : slots[order.indexOf(at)]!;
    if (!slot || slot === slots[at]) return [];
    const now = { ...lesson, day: slot.day, starts: lesson.starts === null ? null : slot.starts };
    return [{ now, was: lesson }];
  });
}

/** Some steps of a lesson were not done: they move on, and what builds on them. */
export function notDone(term: TermPlanEdit, lesson: number, steps: readonly TermStep[]): TermPlanEdit {
  const contents = filled(term);
  const done = (contents[lesson] ?? []).filter((one) => !isIn(steps, one));
  const after = moveOn(contents, lesson, done);
  return { ...term, contents: after.contents, left: [...after.left, ...term.left] };
}

/** As many lists of steps as there are lessons. */
function filled(term: TermPlanEdit): TermStep[][] {
  return Array.from({ length: lessonSlots(term).length }, (_, i) => term.contents[i] ?? []);
}

/** The lessons of a term, with what comes back in them. @param met  with the day on which each was seen last */
export function planned(term: TermPlanEdit, met: ReadonlyMap<ElementId, Day>): PlannedTerm {
  const before = [...met].filter(([, day]) => day < term.from);
  // What was seen within the term was known before it, or is new in it.
  const within = [...met].filter(([id, day]) => day >= term.from && !term.order.includes(id));
  return planTerm(
    lessonSlots(term),
    filled(term),
    new Map([...before, ...within.map(([id]) => [id, term.from] as const)]),
  );
}

/** Which lesson of the term stands at a time; -1 for none. */
export function lessonAt(slots: readonly LessonSlot[], day: Day | null, starts: string | null): number {
  return slots.findIndex((slot) => standsIn({ day, starts }, slot));
}
