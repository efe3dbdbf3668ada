import { EPSILON } from '../timing/tolerance.ts';
import { ELEMENT_IDS, type ElementId } from '../rhythm/elements.ts';
import { type Day, dayNumber, dayOf, weekdayOf } from './days.ts';
import type { PlannedLesson, Step } from './term.ts';

/** How far an element is in a week. */
export const STANDINGS = ['met', 'practised', 'firm'] as const;
export type Standing = (typeof STANDINGS)[number];

/** What was heard of an element in a week, of a whole class. */
export interface HeardWeek {
  /** Its Monday. */
  readonly week: Day;
  readonly element: ElementId;
  readonly children: number;
  /** Of its places of which something is told: how many were right, and how many there were. */
  readonly right: number;
  readonly weight: number;
}

export interface PictureCell {
  /** What the plan has for the week. */
  readonly planned?: Standing;
  /** What was heard in it. */
  readonly heard?: Standing;
  /** Of what was heard, the part that was right. */
  readonly right?: number;
}

export interface TermPicture {
  /** Mondays. */
  readonly weeks: readonly Day[];
  readonly rows: readonly { readonly element: ElementId; readonly cells: readonly PictureCell[] }[];
}

const STANDING_OF: Readonly<Record<Step, Standing>> = {
  meet: 'met',
  read: 'practised',
  write: 'practised',
  hear: 'firm',
};
/** Firm for a class, as for a child (rules §9): so much of it right, with half of the children heard. */
const FIRM_PART = 0.9;
const HALF = 1 / 2;

/** The Monday of the week of a day. */
export function mondayOf(day: Day): Day {
  const number = dayNumber(day);
  return dayOf(number - weekdayOf(number));
}

function heardAs({ weight, right, children }: HeardWeek, all: number): Standing {
  if (right >= weight * FIRM_PART - EPSILON && children >= all * HALF) return 'firm';
  return children >= all * HALF ? 'practised' : 'met';
}

/**
 * Elements by weeks: what is planned, and what was heard.
 * @param children  how many the class has
 * @returns weeks without lessons between two with some are there; elements in the order in which they come in the term,
 * then those that were only heard
 */
export function termPicture(
  lessons: readonly PlannedLesson[],
  heard: readonly HeardWeek[],
  children: number,
): TermPicture {
  const days = [...lessons.map(({ day }) => mondayOf(day)), ...heard.map(({ week }) => week)].sort();
  const [first, last] = [days[0], days.at(-1)];
  if (first === undefined || last === undefined) return { weeks: [], rows: [] };
  const weeks: Day[] = [];
  for (let number = dayNumber(first); number <= dayNumber(last); number += 7) weeks.push(dayOf(number));
  const cells = new Map<ElementId, Map<Day, PictureCell>>();
  const put = (element: ElementId, week: Day, part: PictureCell) => {
    const row = cells.get(element) ?? new Map<Day, PictureCell>();
    cells.set(element, row.set(week, { ...row.get(week), ...part }));
  };
  for (const { day, steps, again } of lessons) {
    const week = mondayOf(day);
    const plan = (element: ElementId, standing: Standing) => {
      const before = cells.get(element)?.get(week)?.planned;
      if (!before || STANDINGS.indexOf(standing) > STANDINGS.indexOf(before)) put(element, week, { planned: standing });
    };
    for (const { element, step } of steps) plan(element, STANDING_OF[step]);
    for (const element of again) plan(element, 'practised');
  }
  const planned = [...cells.keys()];
  for (const one of heard) put(one.element, one.week, { heard: heardAs(one, children), right: one.right / one.weight });
  const only = ELEMENT_IDS.filter((id) => cells.has(id) && !planned.includes(id));
  const rows = [...planned, ...only].map((element) => ({
    element,
    cells: weeks.map((week) => cells.get(element)!.get(week) ?? {}),
  }));
  return { weeks, rows };
}
