import type { TakesTogether } from '../../../contract/together.ts';
import type { Seconds } from '../../../core/timing/units.ts';

export type Counting = 'best' | 'last';
type Take = TakesTogether['takes'][number];

/** One take of each child, at a tempo for all. */
export interface OfChild {
  readonly childId: string;
  readonly onsets: readonly Seconds[];
}

const better = (one: Take, other: Take) => one.mark - other.mark || one.accuracy - other.accuracy;

/**
 * Of each child the take that counts, in the order of the class list.
 * @param takes  newest first
 * @param children  ids, in order; who is not among them is left out
 */
export function takesChosen(
  takes: readonly Take[],
  children: readonly string[],
  counting: Counting,
  bpm: number,
): OfChild[] {
  return children.flatMap((childId) => {
    const own = takes.filter((take) => take.childId === childId);
    const [newest, ...older] = own;
    if (!newest) return [];
    const chosen =
      counting === 'last' ? newest : older.reduce((best, take) => (better(take, best) > 0 ? take : best), newest);
    return [{ childId, onsets: chosen.onsets.map((onset) => (onset * chosen.bpm) / bpm) }];
  });
}

/** The tempo most of them were clapped at; of several the faster one. */
export function usualBpm(takes: readonly Take[]): number | undefined {
  const counts = new Map<number, number>();
  for (const { bpm } of takes) counts.set(bpm, (counts.get(bpm) ?? 0) + 1);
  return [...counts].sort(([a, many], [b, other]) => other - many || b - a)[0]?.[0];
}
