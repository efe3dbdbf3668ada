/** What became of one child in a line-up, where several may say so at once. */

export const TURN_STATES = ['waiting', 'heard', 'absent', 'skipped'] as const;
export type TurnState = (typeof TURN_STATES)[number];

/** What is said of a child: a mark only where it was heard. */
export interface Said {
  readonly state: TurnState;
  readonly mark: number | null;
}

/** What stands of a child. */
export interface StandingTurn extends Said {
  /** What was heard, where it was a take; else the mark is by hand. */
  readonly takeId: string | null;
  /** What somebody else said meanwhile without having seen it: both are asked which of the two is so. */
  readonly clash: Said | null;
}

/** What stood where something was said, and whatever else whoever says it has said before without an answer. */
export type Seen = Said | Said[];

/** Something new that is said. */
export interface Saying extends Said {
  /** Whoever says nothing of it has seen everything. */
  readonly seen?: Seen | undefined;
  /** It is the answer to the question which of two is so. */
  readonly settles?: boolean | undefined;
}

const isSame = (a: Said, b: Said) => a.state === b.state && a.mark === b.mark;
const allOf = (seen: Seen): Said[] => ([] as Said[]).concat(seen);
const sees = (seen: Seen, what: Said) => allOf(seen).some((one) => isSame(one, what));

/**
 * What somebody has seen who says something again before the first was heard to have arrived: what stood there, what
 * was said, and what stands now. By this nobody is asked whether the first or the second is so.
 * @param before  what was said first; undefined: nothing is on its way
 */
export function seenSince(before: Partial<Saying> | undefined, now: Seen | undefined): Seen | undefined {
  const { state, mark = null, seen = [] } = before ?? {};
  const all = [...allOf(seen), ...(state ? [{ state, mark }] : []), ...allOf(now ?? [])];
  const each = all.filter((one, i) => all.findIndex((other) => isSame(one, other)) === i);
  return each.length > 1 ? each : each[0];
}

/** What is not to be undone by somebody who has not seen it. */
const isFinal = ({ state }: Said) => state === 'heard' || state === 'absent';

/**
 * A turn after something was said of it. What was seen gives way, what was not stays and both are kept. A take was
 * clapped by somebody: it is not undone by a word, only its mark.
 */
export function afterSaying(now: StandingTurn, { seen, settles = false, ...said }: Saying): StandingTurn {
  const isSeen = settles
    ? now.clash !== null
    : !seen || sees(seen, now) || (now.clash !== null && sees(seen, now.clash));
  const { state, mark } = said;
  if (isSame(said, now)) return settles ? { ...now, clash: null } : now;
  if (now.takeId !== null) {
    if (!isFinal(said)) return now;
    return isSeen && state === 'heard' ? { ...now, mark, clash: null } : { ...now, clash: { state, mark } };
  }
  if (isSeen || !isFinal(now)) return { state, mark, takeId: null, clash: null };
  return isFinal(said) ? { ...now, clash: { state, mark } } : now;
}

/**
 * A turn after a take of it came in. Of several tries the better mark stays where the best counts.
 * @param seen  what stood when the child began; undefined: everything
 */
export function afterTake(
  now: StandingTurn,
  take: { readonly id: string; readonly mark: number },
  counts: 'best' | 'last' | 'average',
  seen: Seen | undefined,
): StandingTurn {
  const heard = { state: 'heard', mark: take.mark, takeId: take.id } as const;
  const isUnseen = seen !== undefined && now.takeId === null && isFinal(now) && !sees(seen, now);
  if (isUnseen) return { ...heard, clash: { state: now.state, mark: now.mark } };
  const isBetter = counts === 'best' && now.state === 'heard' && now.mark !== null && now.mark > take.mark;
  return isBetter ? now : { ...heard, clash: now.clash };
}

/** A turn after its take was removed: what else was said of it stands, or it waits. */
export function withoutTake({ clash }: StandingTurn): StandingTurn {
  return { ...(clash ?? { state: 'waiting', mark: null }), takeId: null, clash: null };
}

/** The mark by hand that stands in the grid in a column of the line-up; null: none does. */
export const markByHand = ({ state, mark, takeId }: StandingTurn): number | null =>
  state === 'heard' && takeId === null ? mark : null;
