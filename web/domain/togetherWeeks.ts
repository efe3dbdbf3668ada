import { startOfWeek } from 'date-fns';
import { format } from '../words/dates.ts';
import type { Hearing } from '../../contract/together.ts';

/** Where it is shown how together a class claps. */
export const togetherPath = (classId: string) => `/classes/${classId}/together`;

/** Passes of one pattern in one week, the oldest first. */
export type Passes = readonly [Hearing, ...Hearing[]];

/** How together a class was in one pattern, week by week. */
export interface PatternWeeks {
  readonly text: string;
  readonly title: string;
  /** By the Monday of the week, "2026-11-30". */
  readonly weeks: ReadonlyMap<string, Passes>;
}

/** Weeks side by side: a term of them. */
const MOST_WEEKS = 12;

/** Those with the same key together, keys in the order in which they come. */
function grouped<T>(all: readonly T[], keyOf: (one: T) => string): Map<string, [T, ...T[]]> {
  const groups = new Map<string, [T, ...T[]]>();
  for (const one of all) {
    const group = groups.get(keyOf(one));
    if (group) group.push(one);
    else groups.set(keyOf(one), [one]);
  }
  return groups;
}

/** The Monday of a moment, "2026-11-30". @param at  milliseconds since 1970 */
export const mondayOf = (at: number): string => format(startOfWeek(at, { weekStartsOn: 1 }), 'yyyy-MM-dd');

/**
 * What was heard, a pattern a row and a week a column; the pattern that was heard last comes first.
 * @param hearings  newest first
 */
export function weeksOf(hearings: readonly Hearing[]): {
  readonly mondays: readonly string[];
  readonly rows: readonly PatternWeeks[];
} {
  const told = hearings.filter(({ heard }) => heard.widthMs !== undefined);
  const mondays = [...new Set(told.map(({ takenAt }) => mondayOf(takenAt)))].slice(0, MOST_WEEKS).toReversed();
  const byText = grouped(told, ({ patternText }) => patternText);
  const rows = [...byText].map(([text, own]): PatternWeeks => {
    const byWeek = grouped(own.toReversed(), ({ takenAt }) => mondayOf(takenAt));
    return { text, title: own[0].title, weeks: new Map([...byWeek].filter(([monday]) => mondays.includes(monday))) };
  });
  return { mondays, rows: rows.filter(({ weeks }) => weeks.size > 0) };
}

/** How much narrower a class became since a week before, ms; wider is below 0. */
export function narrower({ weeks }: PatternWeeks, mondays: readonly string[]): number | undefined {
  const last = mondays.flatMap((monday) => weeks.get(monday)?.at(-1)?.heard.widthMs ?? []);
  return last.length < 2 ? undefined : Math.round(last.at(-2)! - last.at(-1)!);
}
