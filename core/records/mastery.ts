import { ELEMENT_IDS, type ElementId } from '../rhythm/elements.ts';
import { EPSILON } from '../timing/tolerance.ts';
import { FADING, type HeardElement, weightOf } from './heardElements.ts';

export const STATES = ['new', 'growing', 'shaky', 'firm', 'due'] as const;
export type MasteryState = (typeof STATES)[number];

/** What is kept of one element of one child: enough to go on with the next take, and to say how it stands. */
export interface ElementRecord {
  /** In how many measures with it the child was heard. */
  readonly measures: number;
  /** How many of them were right, and how many there were, a newer one counting more. */
  readonly right: number;
  readonly weight: number;
  /** On how many days: one, or two for any more. */
  readonly days: number;
  /** Milliseconds since 1970. */
  readonly lastSeen: number;
}

/** How well one element is known. */
export interface Mastery {
  readonly element: ElementId;
  readonly heard: number;
  /** 0 to 1; newer measures weigh more. */
  readonly right: number;
  readonly state: MasteryState;
  /** Milliseconds since 1970. */
  readonly lastSeen: number;
}

export interface HeardTake {
  readonly elements: readonly HeardElement[];
  /** Milliseconds since 1970. */
  readonly takenAt: number;
}

const DAY_MS = 24 * 60 * 60 * 1000;
/** Handbook §9. */
const FIRM = { right: 0.9, measures: 4, days: 2 };
const SHAKY = { right: 0.75, measures: 3 };
const NEW_BELOW = 3;
export const DUE_AFTER_MS = 21 * DAY_MS;

/** Which day it was where the children are, counted from any day. */
export type DayOf = (moment: number) => number;
export const dayInUtc: DayOf = (moment) => Math.floor(moment / DAY_MS);

/** A record after one more take, which must not be older than the last one. */
export function withTake(
  before: ElementRecord | undefined,
  { measures, right }: HeardElement,
  takenAt: number,
  dayOf: DayOf = dayInUtc,
): ElementRecord {
  // Each measure weighs one, and takes a part of all before it.
  const fading = FADING ** measures;
  const weight = weightOf(measures);
  if (!before) return { measures, right, weight, days: 1, lastSeen: takenAt };
  return {
    measures: before.measures + measures,
    right: before.right * fading + right,
    weight: before.weight * fading + weight,
    days: before.days > 1 || dayOf(before.lastSeen) !== dayOf(takenAt) ? 2 : 1,
    lastSeen: takenAt,
  };
}

/** The records of a child from all its takes, in any order. */
export function recordsOf(takes: readonly HeardTake[], dayOf: DayOf = dayInUtc): Map<ElementId, ElementRecord> {
  const records = new Map<ElementId, ElementRecord>();
  for (const { elements, takenAt } of [...takes].sort((a, b) => a.takenAt - b.takenAt))
    for (const heard of elements)
      records.set(heard.element, withTake(records.get(heard.element), heard, takenAt, dayOf));
  return records;
}

/** How an element stands. @param now  milliseconds since 1970: what is firm becomes due with time */
export function stateOf({ measures, right, weight, days, lastSeen }: ElementRecord, now: number): MasteryState {
  const part = right / weight;
  if (measures >= FIRM.measures && days >= FIRM.days && part >= FIRM.right - EPSILON)
    return now - lastSeen >= DUE_AFTER_MS ? 'due' : 'firm';
  if (measures >= SHAKY.measures && part < SHAKY.right - EPSILON) return 'shaky';
  return measures < NEW_BELOW ? 'new' : 'growing';
}

/** What a child knows, element by element in the usual order; elements it has not met are left out. */
export function masteryOf(records: ReadonlyMap<ElementId, ElementRecord>, now: number): Mastery[] {
  return ELEMENT_IDS.flatMap((element): Mastery[] => {
    const record = records.get(element);
    if (!record) return [];
    const { measures, right, weight, lastSeen } = record;
    const part = Math.round((right / weight) * 1e4) / 1e4;
    return [{ element, heard: measures, right: part, state: stateOf(record, now), lastSeen }];
  });
}
