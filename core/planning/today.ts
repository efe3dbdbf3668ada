import { type Day, dayNumber, dayOf } from './days.ts';
import { mondayOf } from './picture.ts';
import { type TermDays, lessonSlots, minutesOf, standsIn } from './slots.ts';
import { type TermStep, isIn } from './term.ts';

/** A lesson as far as its day goes. */
export interface DayLesson {
  readonly id: string;
  readonly day: Day | null;
  /** "09:40"; null where only its day is known. */
  readonly starts: string | null;
  readonly minutes: number;
  readonly held: unknown;
}

/** What is known of a class before its day. */
export interface ClassDays<Lesson extends DayLesson> {
  readonly classId: string;
  readonly term: (TermDays & { readonly contents: readonly (readonly TermStep[])[] }) | null;
  readonly lessons: readonly Lesson[];
}

/** A lesson of a day, prepared or only in the calendar. */
export interface DueLesson<Lesson extends DayLesson> {
  readonly classId: string;
  readonly day: Day;
  readonly starts: string | null;
  readonly minutes: number;
  readonly lesson: Lesson | undefined;
}

export interface Today<Lesson extends DayLesson> {
  /** Those of the day by time, those without a time last. */
  readonly lessons: readonly DueLesson<Lesson>[];
  /** The one that is on or comes next, today or on a later day. */
  readonly next: DueLesson<Lesson> | undefined;
}

/** Beyond so many days nobody looks ahead to the next lesson. */
const AHEAD = 21;

function lessonsOn<Lesson extends DayLesson>(
  { classId, term, lessons }: ClassDays<Lesson>,
  from: Day,
  until: Day,
): DueLesson<Lesson>[] {
  const isNear = ({ day }: { readonly day: Day | null }) => day !== null && from <= day && day <= until;
  const slots = term ? lessonSlots(term).filter(isNear) : [];
  const taken = new Set<Lesson>();
  const inTerm = slots.map((slot): DueLesson<Lesson> => {
    const lesson = lessons.find((one) => !taken.has(one) && standsIn(one, slot));
    if (lesson) taken.add(lesson);
    return { classId, ...slot, lesson };
  });
  const beside = lessons
    .filter((one) => isNear(one) && !taken.has(one))
    .map((lesson) => ({ classId, day: lesson.day!, starts: lesson.starts, minutes: lesson.minutes, lesson }));
  return [...inTerm, ...beside];
}

/** Later than every time of a day: where no time is known. */
const NO_TIME = '99:99';

/**
 * What a day brings, of all classes of a teacher.
 * @param now  minutes since midnight
 */
export function todayOf<Lesson extends DayLesson>(
  classes: readonly ClassDays<Lesson>[],
  day: Day,
  now: number,
): Today<Lesson> {
  const until = dayOf(dayNumber(day) + AHEAD);
  const place = ({ day: on, starts }: DueLesson<Lesson>) => `${on} ${starts ?? NO_TIME}`;
  const all = classes
    .flatMap((one) => lessonsOn(one, day, until))
    .sort((a, b) => (place(a) < place(b) ? -1 : place(a) > place(b) ? 1 : 0));
  const isOver = ({ day: on, starts, minutes, lesson }: DueLesson<Lesson>) =>
    Boolean(lesson?.held) || (on === day && starts !== null && minutesOf(starts) + minutes <= now);
  return { lessons: all.filter((one) => one.day === day), next: all.find((one) => !isOver(one)) };
}

/** What of a term falls into the week of a day, from the day on: each step once, in order. */
export function stepsOfWeek({ term }: Pick<ClassDays<DayLesson>, 'term'>, day: Day): TermStep[] {
  if (!term) return [];
  const monday = mondayOf(day);
  const due: TermStep[] = [];
  lessonSlots(term).forEach((slot, i) => {
    if (slot.day < day || mondayOf(slot.day) !== monday) return;
    for (const one of term.contents[i] ?? []) if (!isIn(due, one)) due.push(one);
  });
  return due;
}
