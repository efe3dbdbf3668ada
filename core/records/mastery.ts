import { ELEMENT_IDS, type ElementId } from '../rhythm/elements.ts';
import type { HeardElement, PlaceCounts } from './heardElements.ts';

export const STATES = ['new', 'growing', 'shaky', 'firm', 'due'] as const;
export type MasteryState = (typeof STATES)[number];

/** What is kept of one element of one child: enough to go on with the next take, and to say how it stands. */
export interface ElementRecord extends PlaceCounts {
  /** In how many measures with it the child was heard. */
  readonly measures: number;
  /** How probable it is that the child can read it, after all that was heard: 0 to 1. */
  readonly known: number;
  /** The part of the told places that was right, a newer one counting more; and what they count together. */
  readonly part: number;
  readonly weight: number;
  /** On how many days something was told of it: none, one, or two for any more. */
  readonly days: number;
  /** When it was heard last, milliseconds since 1970. */
  readonly lastSeen: number;
}

/** How well one element is known. */
export interface Mastery {
  readonly element: ElementId;
  /** In how many measures it was heard. */
  readonly heard: number;
  /** The part of its told places that was right, 0 to 1; newer ones weigh more. 0 where nothing was told. */
  readonly right: number;
  readonly state: MasteryState;
  readonly places: PlaceCounts;
  /** How sure it is that the child can read it, or that it cannot: 0.5 to 1. */
  readonly sure: number;
  /** Milliseconds since 1970. */
  readonly lastSeen: number;
}

/** What is needed of it to say how a class stands. */
export type KnownElement = Pick<Mastery, 'element' | 'heard' | 'right' | 'state' | 'lastSeen'>;

export interface HeardTake {
  readonly elements: readonly HeardElement[];
  /** Milliseconds since 1970. */
  readonly takenAt: number;
}

const DAY_MS = 24 * 60 * 60 * 1000;
export const DUE_AFTER_MS = 21 * DAY_MS;

/**
 * The model (rules §9): at each moment the child can read an element or cannot. Who can misreads one place in
 * twenty all the same (a slip, or a slip of something else that was taken for it); who cannot gets three in ten right.
 * With each day some learn it, and very few lose it. Tuned on the simulated terms of
 * `npm run bench -- records`, and tried there on others.
 */
const MODEL = {
  atFirst: 0.5,
  rightWhenKnown: 0.95,
  rightWhenNot: 0.3,
  learnedADay: 0.007,
  lostADay: 0.001,
} as const;
/** What was heard before counts so much less with each place that is told. */
const FADING = 0.8;

/** Called firm from so probable on, with so many places told on so many days; shaky down from so improbable. */
const FIRM = { known: 0.9, told: 4, days: 2 } as const;
const SHAKY = { known: 0.2 } as const;
/** With fewer places told it is hardly heard yet. */
const NEW_BELOW = 3;

/** Which day it was where the children are, counted from any day. */
export type DayOf = (moment: number) => number;
export const dayInUtc: DayOf = (moment) => Math.floor(moment / DAY_MS);

/** How probable it is that the child can, after so many right and so many misread. */
function afterPlaces(before: number, right: number, misread: number): number {
  const { rightWhenKnown: can, rightWhenNot: cannot } = MODEL;
  const known = before * can ** right * (1 - can) ** misread;
  const unknown = (1 - before) * cannot ** right * (1 - cannot) ** misread;
  return known / (known + unknown);
}

/** The same so many days later. */
function daysLater(known: number, days: number): number {
  const [learned, lost] = [MODEL.learnedADay, MODEL.lostADay].map((a) => 1 - (1 - a) ** days) as [number, number];
  return known * (1 - lost) + (1 - known) * learned;
}

/** No probability is so near to sure that nothing could be learned any more. */
const within = (known: number) => Math.min(1 - 1e-6, Math.max(1e-6, known));

/** A record after one more take, which must not be older than the last one. */
export function withTake(
  before: ElementRecord | undefined,
  { measures, right, misread, notTold }: HeardElement,
  takenAt: number,
  dayOf: DayOf = dayInUtc,
): ElementRecord {
  const told = right + misread;
  const {
    measures: sofar = 0,
    days = 0,
    lastSeen = takenAt,
    ...known
  } = before ?? { right: 0, misread: 0, notTold: 0, known: MODEL.atFirst, part: 0, weight: 0 };
  const apart = dayOf(takenAt) - dayOf(lastSeen);
  const isNewDay = apart !== 0;
  const from = told > 0 && days > 0 ? daysLater(known.known, Math.abs(apart)) : known.known;
  // Each place weighs one, and takes a part of all before it.
  const fading = FADING ** told;
  const weight = (1 - fading) / (1 - FADING);
  return {
    measures: sofar + measures,
    right: known.right + right,
    misread: known.misread + misread,
    notTold: known.notTold + notTold,
    known: within(afterPlaces(from, right, misread)),
    part: told === 0 ? known.part : known.part * fading + (weight * right) / told,
    weight: known.weight * fading + weight,
    days: told === 0 ? days : days === 0 ? 1 : days > 1 || isNewDay ? 2 : 1,
    lastSeen: told === 0 && days > 0 ? lastSeen : takenAt,
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
export function stateOf({ right, misread, known, days, lastSeen }: ElementRecord, now: number): MasteryState {
  const told = right + misread;
  if (told < NEW_BELOW) return 'new';
  if (known <= SHAKY.known) return 'shaky';
  if (known >= FIRM.known && told >= FIRM.told && days >= FIRM.days)
    return now - lastSeen >= DUE_AFTER_MS ? 'due' : 'firm';
  return 'growing';
}

/** What a child knows, element by element in the usual order; elements it has not met are left out. */
export function masteryOf(records: ReadonlyMap<ElementId, ElementRecord>, now: number): Mastery[] {
  const rounded = (part: number) => Math.round(part * 1e4) / 1e4;
  return ELEMENT_IDS.flatMap((element): Mastery[] => {
    const record = records.get(element);
    if (!record) return [];
    const { measures, right, misread, notTold, known, part, weight, lastSeen } = record;
    return [
      {
        element,
        heard: measures,
        right: weight > 0 ? rounded(part / weight) : 0,
        state: stateOf(record, now),
        places: { right, misread, notTold },
        sure: rounded(Math.max(known, 1 - known)),
        lastSeen,
      },
    ];
  });
}
