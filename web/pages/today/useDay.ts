import { format } from '../../words/dates.ts';
import { useEffect, useMemo, useState } from 'react';
import type { SavedLesson } from '../../../contract/lesson.ts';
import type { LineUp } from '../../../contract/lineUp.ts';
import type { TermPlanEdit } from '../../../contract/termPlan.ts';
import type { Day } from '../../../core/planning/days.ts';
import { minutesOf } from '../../../core/planning/slots.ts';
import { useClassOnce, useLineUps } from '../../api/hooks.ts';
import { useLessons, useTermPlan } from '../../api/planning.ts';

/** What is known of a class for the day. */
export interface ClassFacts {
  readonly lessons: readonly SavedLesson[];
  readonly term: TermPlanEdit | null;
  readonly lineUps: readonly LineUp[];
  /** Names of those who were away when the class was heard last. */
  readonly away: readonly string[];
  /** Some of it could not be had. */
  readonly partly: boolean;
}

/** Who was away in the line-up that was held last. */
export function awayIn(lineUps: readonly LineUp[]): string[] {
  const last = [...lineUps].sort((a, b) => b.startedAt - a.startedAt)[0];
  return last?.turns.flatMap(({ childId, state }) => (state === 'absent' ? [childId] : [])) ?? [];
}

/** What the device or the server knows of a class; undefined while it is asked for. */
export function useClassFacts(classId: string): ClassFacts | undefined {
  const [lessons, term, lineUps] = [useLessons(classId), useTermPlan(classId), useLineUps(classId)];
  const ids = useMemo(() => awayIn(lineUps.data ?? []), [lineUps.data]);
  const room = useClassOnce(ids.length > 0 ? classId : undefined);
  const all = ids.length > 0 ? [lessons, term, lineUps, room] : [lessons, term, lineUps];
  const waits = all.some(({ data, error }) => data === undefined && error === undefined);
  const partly = all.some(({ data, error }) => data === undefined && error !== undefined);
  return useMemo(() => {
    if (waits) return undefined;
    const names = (room.data?.children ?? []).filter(({ id }) => ids.includes(id)).map(({ name }) => name);
    return { lessons: lessons.data ?? [], term: term.data ?? null, lineUps: lineUps.data ?? [], away: names, partly };
  }, [waits, partly, lessons.data, term.data, lineUps.data, room.data, ids]);
}

const LOOK_MS = 15_000;

/** The day and the minute of the clock on the wall, kept up. */
export function useDayAndMinute(): { readonly day: Day; readonly now: number } {
  const [at, setAt] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setAt(Date.now()), LOOK_MS);
    return () => clearInterval(timer);
  }, []);
  const day = format(at, 'yyyy-MM-dd');
  const now = minutesOf(format(at, 'HH:mm'));
  return useMemo(() => ({ day, now }), [day, now]);
}
