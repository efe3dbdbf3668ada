import { countIn } from '../leading/countIn.ts';
import { type Random, randomFrom } from '../random.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { scheduleOf } from '../timing/schedule.ts';
import type { Bpm, Seconds } from '../timing/units.ts';
import type { TurnState } from './turns.ts';

/** As in the class list, by name, by chance, or those first who have not been heard in it yet. */
export const ORDERS = ['list', 'name', 'shuffled', 'not-yet'] as const;
export type Order = (typeof ORDERS)[number];

interface InClass {
  readonly id: string;
  readonly name: string;
}

/** The children in the order in which they are heard. @param heard  who has been heard in it before */
export function lineOf<Child extends InClass>(
  children: readonly Child[],
  order: Order,
  seed: number,
  heard: ReadonlySet<string> = new Set(),
): Child[] {
  switch (order) {
    case 'list':
      return [...children];
    case 'name':
      return [...children].sort((a, b) => a.name.localeCompare(b.name));
    case 'shuffled':
      return shuffled(children, randomFrom(seed));
    case 'not-yet':
      return [...children.filter(({ id }) => !heard.has(id)), ...children.filter(({ id }) => heard.has(id))];
  }
}

function shuffled<T>(things: readonly T[], random: Random): T[] {
  const left = [...things];
  return things.map(() => left.splice(random.below(left.length), 1)[0]!);
}

/** A line-up deals out no more patterns than these. */
export const MOST_DEALT = 40;

/**
 * A set of patterns dealt out: each equally often, neighbours never the same. The same seed deals the same, however
 * many there are in line, so that whoever comes late is dealt the next one.
 */
export function dealt<T>(patterns: readonly T[], count: number, seed: number): T[] {
  const random = randomFrom(seed);
  const out: T[] = [];
  while (out.length < count && patterns.length > 0) {
    const round = shuffled(patterns, random);
    if (patterns.length > 1 && round[0] === out.at(-1)) round.push(round.shift()!);
    out.push(...round);
  }
  return out.slice(0, count);
}

/** From one child to the next: a look at the result, one sits down, the other comes. */
export const CHANGE_OVER: Seconds = 9;

/** How long one child takes with one try: count-in, pattern and change-over (rules §9). */
export function turnTime(pattern: Pattern, bpm: Bpm): Seconds {
  return scheduleOf(pattern, bpm).end - countIn(pattern, bpm)[0]!.time + CHANGE_OVER;
}

/** The tempo of a child for whom it is made easier: a whole number of beats a minute. */
export function ownBpm(bpm: Bpm, adaptations: { readonly slower?: number | undefined } | null): Bpm {
  return Math.round(bpm * (adaptations?.slower ?? 1));
}

interface InLine {
  readonly state: TurnState;
}

/** Whose turn it is: the first who waits, then whoever was passed over; undefined when all were heard or are away. */
export function turnToCome<T extends InLine>(turns: readonly T[]): T | undefined {
  return turns.find(({ state }) => state === 'waiting') ?? turns.find(({ state }) => state === 'skipped');
}
