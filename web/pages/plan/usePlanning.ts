import { useMemo } from 'react';
import { format } from '../../words/dates.ts';
import type { SavedLesson } from '../../../contract/lesson.ts';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import type { TermPlanEdit } from '../../../contract/termPlan.ts';
import type { Day } from '../../../core/planning/days.ts';
import { classStanding } from '../../../core/records/classStanding.ts';
import type { ElementId } from '../../../core/rhythm/elements.ts';
import { type Voice, voiceOf } from '../../../core/wording/voice.ts';
import { useClass, useRecords } from '../../api/hooks.ts';
import { useLessons, useTermPlan } from '../../api/planning.ts';
import type { ClassRecords } from '../../../contract/records.ts';
import { knownChildren } from '../../domain/knownChildren.ts';

/** All that planning for a class stands on. */
export interface Planning {
  readonly schoolClass: ClassDetail;
  readonly voice: Voice;
  readonly lessons: readonly SavedLesson[];
  readonly term: TermPlanEdit | null;
  /** Elements the class has met, by its records and by the lessons it had; and when it saw each of them last. */
  readonly met: ReadonlyMap<ElementId, Day>;
}

/** What each part of planning is given. */
export interface PlanViewProps {
  readonly planning: Planning;
  readonly teacherId: string;
  /** Where the main button goes. */
  readonly actions: HTMLElement;
}

export const dayOfMoment = (moment: number): Day => format(moment, 'yyyy-MM-dd');

/** What the class has met, with the day on which it saw it last. */
export function metElements(records: ClassRecords, lessons: readonly SavedLesson[]): Map<ElementId, Day> {
  const met = new Map<ElementId, Day>();
  const saw = (element: ElementId, day: Day) => {
    if ((met.get(element) ?? '') < day) met.set(element, day);
  };
  const known = new Set(classStanding(knownChildren(records)).flatMap((one) => (one.met ? [one.element] : [])));
  for (const { element, lastSeen } of records.elements) if (known.has(element)) saw(element, dayOfMoment(lastSeen));
  for (const { held, blocks } of lessons) {
    if (!held) continue;
    for (const { key, steps } of blocks)
      if (!held.leftOut.includes(key)) for (const { element } of steps) saw(element, dayOfMoment(held.at));
  }
  return met;
}

/** @returns nothing yet, a problem, or all of it */
export function usePlanning(classId: string | undefined): {
  readonly planning: Planning | undefined;
  readonly problem: Error | undefined;
  readonly again: () => void;
} {
  const [room, records, lessons, term] = [
    useClass(classId),
    useRecords(classId),
    useLessons(classId),
    useTermPlan(classId),
  ];
  const planning = useMemo((): Planning | undefined => {
    if (!room.data || !records.data || !lessons.data || term.data === undefined) return undefined;
    return {
      schoolClass: room.data,
      voice: voiceOf(room.data),
      lessons: lessons.data,
      term: term.data,
      met: metElements(records.data, lessons.data),
    };
  }, [room.data, records.data, lessons.data, term.data]);
  const again = () => void Promise.all([room.mutate(), records.mutate(), lessons.mutate(), term.mutate()]);
  return { planning, problem: room.error ?? records.error ?? lessons.error ?? term.error, again };
}
