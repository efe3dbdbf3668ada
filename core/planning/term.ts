import type { ElementId } from '../rhythm/elements.ts';
import { type Day, daysBetween } from './days.ts';
import type { LessonSlot } from './slots.ts';

/** How an element is learned (rules §12): met by echo and speech, then read, then written, then heard for a mark. */
export const STEPS = ['meet', 'read', 'write', 'hear'] as const;
export type Step = (typeof STEPS)[number];

export interface TermStep {
  readonly element: ElementId;
  readonly step: Step;
}

/** What is new in each lesson, in the order of the lessons. */
export type Contents = readonly (readonly TermStep[])[];

/** Old elements come back before so many days are over (rules §12) … */
export const BACK_WITHIN = 21;
/** … as few in one lesson as will do; those that were not seen for so many days come where there is room. */
const AGAIN_AT_ONCE = [3, 4, 5] as const;
const BACK_FROM = 14;
/** Before holidays more than one lesson’s worth has to come back: so many lessons are looked ahead. */
const AHEAD = 3;
/** From one new element to the next no more lessons than these: then there is room to practise, not to forget. */
const WIDEST_PACE = 4;

/**
 * Spreads new elements over the lessons of a term, each a step further from lesson to lesson.
 * @param order  the new elements, in the teacher's order
 * @param past   lessons that are over and stay as they are; what was begun in them goes on at once
 * @returns `left`: what does not fit any more
 */
export function spread(
  order: readonly ElementId[],
  lessons: number,
  past: Contents = [],
): { contents: TermStep[][]; left: TermStep[] } {
  const contents = Array.from({ length: lessons }, (_, i): TermStep[] => [...(past[i] ?? [])]);
  const from = Math.min(past.length, lessons);
  const done = past.flat();
  const open = order
    .map((element) => ({ element, steps: STEPS.filter((step) => !isIn(done, { element, step })) }))
    .filter(({ steps }) => steps.length > 0);
  const begun = open.filter(({ steps }) => steps.length < STEPS.length);
  const fresh = open.filter(({ steps }) => steps.length === STEPS.length);
  const room = lessons - from - STEPS.length;
  const pace = fresh.length < 2 ? 1 : Math.max(1, Math.min(WIDEST_PACE, Math.floor(room / (fresh.length - 1))));
  const left: TermStep[] = [];
  const put = ({ element, steps }: (typeof open)[number], at: number) =>
    steps.forEach((step, k) => (contents[at + k] ?? left).push({ element, step }));
  for (const one of begun) put(one, from);
  fresh.forEach((one, i) => put(one, from + (i + (begun.length > 0 ? 1 : 0)) * pace));
  return { contents, left };
}

/** Whether a step is among some others. */
export function isIn(steps: readonly TermStep[], { element, step }: TermStep): boolean {
  return steps.some((one) => one.element === element && one.step === step);
}

/** Each element's steps in their order again, in the lessons in which it stands. */
export function inSteps(contents: Contents): TermStep[][] {
  const next = new Map<ElementId, Step[]>();
  for (const { element, step } of contents.flat()) next.set(element, [...(next.get(element) ?? []), step]);
  for (const steps of next.values()) steps.sort((a, b) => STEPS.indexOf(a) - STEPS.indexOf(b));
  return contents.map((lesson) => lesson.map(({ element }) => ({ element, step: next.get(element)!.shift()! })));
}

/** A lesson put where another one stands, and the others follow; no element is read before it was met. */
export function moveLesson(contents: Contents, from: number, to: number): TermStep[][] {
  const moved = [...contents];
  moved.splice(to, 0, ...moved.splice(from, 1));
  return inSteps(moved);
}

/**
 * What was not done moves to the next lesson. An element goes one step a lesson, so that its later steps move too.
 * @param lesson  the index of the lesson that is over
 * @param done    of its steps those that were done
 * @returns `left`: what does not fit into the term any more
 */
export function moveOn(
  contents: Contents,
  lesson: number,
  done: readonly TermStep[],
): { contents: TermStep[][]; left: TermStep[] } {
  const after = contents.map((steps) => [...steps]);
  const left: TermStep[] = [];
  const over = after[lesson] ?? [];
  let moving = over.filter((one) => !isIn(done, one));
  after[lesson] = over.filter((one) => isIn(done, one));
  for (let at = lesson + 1; moving.length > 0; at++) {
    const here = after[at];
    if (!here) {
      left.push(...moving);
      break;
    }
    const pushed = here.filter(({ element }) => moving.some((one) => one.element === element));
    after[at] = [...moving, ...here.filter((one) => !pushed.includes(one))];
    moving = pushed;
  }
  return { contents: after, left };
}

export interface PlannedLesson extends LessonSlot {
  readonly steps: readonly TermStep[];
  /** Old elements that come back. */
  readonly again: readonly ElementId[];
}

/** An element that the class does not see for too long. */
export interface Late {
  readonly element: ElementId;
  readonly from: Day;
  readonly days: number;
}

export interface PlannedTerm {
  readonly lessons: readonly PlannedLesson[];
  readonly late: readonly Late[];
}

/**
 * The lessons with what comes back in them: whatever was heard for a mark, or was known before, before three weeks are
 * over.
 * @param known  elements the class knew before, and when it saw each of them last
 */
export function planTerm(
  slots: readonly LessonSlot[],
  contents: Contents,
  known: ReadonlyMap<ElementId, Day> = new Map(),
): PlannedTerm {
  let best: PlannedTerm | undefined;
  for (const most of AGAIN_AT_ONCE) {
    const term = withOld(slots, contents, known, most);
    if (!best || term.late.length < best.late.length) best = term;
    if (best.late.length === 0) break;
  }
  return best!;
}

/** @param most  old elements in one lesson */
function withOld(
  slots: readonly LessonSlot[],
  contents: Contents,
  known: ReadonlyMap<ElementId, Day>,
  most: number,
): PlannedTerm {
  const seen = new Map(known);
  // Plain quarters stand in every rhythm there is.
  seen.delete('quarter');
  const learned = new Set(seen.keys());
  const late: Late[] = [];
  const lessons = slots.map((slot, i): PlannedLesson => {
    const { day } = slot;
    const steps = contents[i] ?? [];
    const today = new Set(steps.map(({ element }) => element));
    for (const [element, from] of seen) {
      const days = daysBetween(from, day);
      if (days > BACK_WITHIN) late.push({ element, from, days });
    }
    const by = (slots[i + AHEAD] ?? slots.at(-1))!.day;
    const again = comingBack(seen, learned, today, day, by).slice(0, most);
    for (const element of [...today, ...again]) seen.set(element, day);
    for (const { element, step } of steps) if (step === 'hear') learned.add(element);
    return { ...slot, steps, again };
  });
  return { lessons, late };
}

/**
 * What would be late by a coming lesson, and what was not seen for long; the longest ago first.
 * @param by  the day of that lesson
 */
function comingBack(
  seen: ReadonlyMap<ElementId, Day>,
  learned: ReadonlySet<ElementId>,
  today: ReadonlySet<ElementId>,
  day: Day,
  by: Day,
): ElementId[] {
  const old = [...seen]
    .filter(([element]) => learned.has(element) && !today.has(element))
    .map(([element, last]) => ({ element, days: daysBetween(last, day) }))
    .sort((a, b) => b.days - a.days);
  const until = daysBetween(day, by);
  return old.filter(({ days }) => days + until > BACK_WITHIN || days >= BACK_FROM).map(({ element }) => element);
}
