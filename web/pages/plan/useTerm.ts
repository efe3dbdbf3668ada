import { useEffect, useMemo, useState } from 'react';
import fitsTermPlan from 'virtual:fits/term-plan';
import type { TermPlanEdit } from '../../../contract/termPlan.ts';
import type { Day } from '../../../core/planning/days.ts';
import { mondayOf } from '../../../core/planning/picture.ts';
import { lessonSlots } from '../../../core/planning/slots.ts';
import { type TermStep, isIn } from '../../../core/planning/term.ts';
import { termPlanPath } from '../../api/planning.ts';
import { mayHear } from '../../domain/currentClass.ts';
import { useKeptDraft } from '../../api/useKeptDraft.ts';
import { lessonAt, newTerm, notDone } from './termDraft.ts';
import { type Planning, dayOfMoment } from './usePlanning.ts';

const isPlan = (kept: unknown) => kept !== null && fitsTermPlan(kept);

/** What a class does in its term, as it is changed; `first` where nothing is planned yet. */
export function useTermDraft({ schoolClass, term, met }: Planning, today: Day) {
  const first = useMemo(() => newTerm(mondayOf(today), new Set(met.keys())), [today, met]);
  const path = termPlanPath(schoolClass.id);
  return useKeptDraft<TermPlanEdit>({
    path,
    saved: term ?? undefined,
    first,
    fits: isPlan,
    bare: (answer) => answer as TermPlanEdit,
    refreshes: [path],
  });
}

/**
 * What a lesson of the term left out moves to the next one.
 * @returns whether the lesson stands in the term at all
 */
export function useMovedOn(
  planning: Planning,
  day: Day | null,
  starts: string | null,
  left: readonly TermStep[],
): boolean {
  const [today] = useState(() => dayOfMoment(Date.now()));
  const { value: term, change } = useTermDraft(planning, today);
  const at = planning.term ? lessonAt(lessonSlots(term), day, starts) : -1;
  const here = at < 0 ? [] : (term.contents[at] ?? []);
  const moving = here.filter((one) => isIn(left, one));
  useEffect(() => {
    if (moving.length > 0 && mayHear(planning.schoolClass)) change(notDone(term, at, moving));
  });
  return at >= 0;
}
