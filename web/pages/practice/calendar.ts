import { perLanguage, t } from '../../../core/words/say.ts';
import { addDays, differenceInCalendarDays, parseISO } from 'date-fns';
import { format } from '../../words/dates.ts';
import type { PracticeWeek } from '../../../contract/practice.ts';

const WORDS_OF_TIMES = perLanguage(() => ['', t`once`, t`twice`]);

export const timesText = (times: number) => WORDS_OF_TIMES()[times] ?? t`${times} times`;

/** The days of a week, from its first one. */
export function daysOf(starts: string): { readonly date: Date; readonly title: string }[] {
  const first = parseISO(starts);
  return Array.from({ length: 7 }, (_, day) => {
    const date = addDays(first, day);
    return { date, title: format(date, 'EEE d MMM') };
  });
}

/** Another first day: what was on a Tuesday stays on Tuesday. @param days  counted from the first day, 0 to 6 */
export function sameWeekdays(days: readonly number[], starts: string, from: string): number[] {
  const later = differenceInCalendarDays(parseISO(starts), parseISO(from));
  return days.map((day) => (((day - later) % 7) + 7) % 7).sort((a, b) => a - b);
}

/** A week of practice as a calendar file: on each day with something to do, what. */
export async function calendarOf({ id, starts, plan }: PracticeWeek, minutes: readonly number[]): Promise<string> {
  const { default: ical } = await import('ical-generator');
  const calendar = ical({ name: plan.title, prodId: { company: 'Clapboard', product: t`Practice`, language: 'EN' } });
  daysOf(starts).forEach(({ date }, day) => {
    const items = plan.items.filter(({ days }) => days.includes(day));
    if (items.length === 0) return;
    calendar.createEvent({
      id: `${id}-${day}`,
      start: date,
      allDay: true,
      summary: t`Clap: ${items.map(({ title }) => title).join(', ')} (${minutes[day]} min)`,
      description: items.map(({ title, times, bpm }) => t`${title}: ${timesText(times)} at ${bpm}`).join('\n'),
    });
  });
  return calendar.toString();
}
