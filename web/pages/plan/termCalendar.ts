import { t } from '../../../core/words/say.ts';
import { addMinutes, parseISO } from 'date-fns';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import type { PlannedLesson } from '../../../core/planning/term.ts';
import { elementName, stepText } from '../../../core/wording/planWords.ts';
import { listed } from '../../../core/wording/plurals.ts';
import type { NamingId } from '../../../core/wording/valueNames.ts';

/** The lessons of a term as a calendar file, each with what is done in it. Brought in again each is there once. */
export async function termCalendar(
  { id, name }: Pick<ClassDetail, 'id' | 'name'>,
  lessons: readonly PlannedLesson[],
  naming: NamingId,
): Promise<string> {
  const { default: ical } = await import('ical-generator');
  const calendar = ical({ name, prodId: { company: 'Clapboard', product: t`Plan`, language: 'EN' } });
  for (const { day, starts, minutes, steps, again } of lessons) {
    const start = parseISO(`${day}T${starts}`);
    const about = [
      ...steps.map((one) => stepText(one, naming)),
      ...(again.length > 0 ? [t`again: ${listed(again.map((one) => elementName(one, naming)))}`] : []),
    ];
    calendar.createEvent({
      id: `${id}-${day}-${starts}`,
      // The clock on the wall of the school, wherever the calendar is read.
      floating: true,
      start,
      end: addMinutes(start, minutes),
      summary: about.length > 0 ? `${name}: ${about[0]}` : name,
      ...(about.length > 0 ? { description: about.join('\n') } : {}),
    });
  }
  return calendar.toString();
}
