import { type Day, dayNumber, dayOf, weekdayOf } from './days.ts';

/** When a class has its lesson, week by week. */
export interface WeeklySlot {
  /** From 0, Monday, to 6, Sunday. */
  readonly weekday: number;
  /** "09:40". */
  readonly starts: string;
  readonly minutes: number;
}

/** First and last day of them. */
export interface Holidays {
  readonly from: Day;
  readonly until: Day;
}

export interface TermDays {
  readonly from: Day;
  readonly until: Day;
  readonly slots: readonly WeeklySlot[];
  readonly holidays: readonly Holidays[];
}

/** One lesson in the calendar. */
export interface LessonSlot {
  readonly day: Day;
  readonly starts: string;
  readonly minutes: number;
}

/** Every lesson of a term, in order, without those in the holidays. */
export function lessonSlots({ from, until, slots, holidays }: TermDays): LessonSlot[] {
  const inOrder = [...slots].sort((a, b) => a.starts.localeCompare(b.starts));
  const free = (day: Day) => holidays.some((one) => one.from <= day && day <= one.until);
  const lessons: LessonSlot[] = [];
  for (let number = dayNumber(from); number <= dayNumber(until); number++) {
    const day = dayOf(number);
    if (free(day)) continue;
    for (const { weekday, starts, minutes } of inOrder)
      if (weekday === weekdayOf(number)) lessons.push({ day, starts, minutes });
  }
  return lessons;
}

/** Whether a lesson is that of a day of the term; one without a time is the day’s. */
export function standsIn(
  { day, starts }: { readonly day: Day | null; readonly starts: string | null },
  slot: LessonSlot,
): boolean {
  return day === slot.day && (starts === null || starts === slot.starts);
}

/** Minutes since midnight. @example minutesOf('09:40')  // 580 */
export function minutesOf(time: string): number {
  const [hours = 0, minutes = 0] = time.split(':').map(Number);
  return hours * 60 + minutes;
}
