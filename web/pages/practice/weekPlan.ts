import type { PracticeItem, PracticeWeek } from '../../../contract/practice.ts';
import type { Child } from '../../../contract/child.ts';
import { practiceMinutes } from '../../../core/records/practice.ts';
import { parseLeading } from '../../../core/rhythm/scoreText.ts';

/** Minutes on each day of the week; a pattern that cannot be read takes none. */
export function minutesOf(items: readonly PracticeItem[]): number[] {
  return practiceMinutes(
    items.flatMap(({ text, bpm, times, days }) => {
      const read = parseLeading(text);
      return read.ok ? [{ pattern: read.pattern, bpm, times, days }] : [];
    }),
  );
}

/** Who of the class practises. */
export function practising(week: PracticeWeek, children: readonly Child[]): readonly Child[] {
  const only = week.plan.children;
  return only ? children.filter(({ id }) => only.includes(id)) : children;
}

/** How far a child is with what there is to do on a day: how often of how often; undefined where there is nothing. */
export function doneOn(
  { plan, practised }: PracticeWeek,
  childId: string,
  day: number,
): { readonly done: number; readonly due: number } | undefined {
  const items = plan.items.flatMap(({ times, days }, item) => (days.includes(day) ? [{ times, item }] : []));
  if (items.length === 0) return undefined;
  const heard = (item: number) =>
    practised.find((one) => one.childId === childId && one.item === item && one.day === day)?.times ?? 0;
  return {
    done: items.reduce((sum, { item, times }) => sum + Math.min(times, heard(item)), 0),
    due: items.reduce((sum, { times }) => sum + times, 0),
  };
}
