import { ELEMENT_IDS, type ElementId, elementsOf } from '../rhythm/elements.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { isAboutTake } from './misreadings/table.ts';
import type { TakeResult } from './takeResult.ts';

/** How well one element is known. */
export interface Mastery {
  readonly element: ElementId;
  /** In how many measures with it the child was heard, and the part of them that was right; newer ones weigh more. */
  readonly heard: number;
  readonly right: number;
  /** Milliseconds since 1970. */
  readonly lastSeen: number;
}

export interface HeardTake {
  readonly pattern: Pattern;
  readonly result: Pick<TakeResult, 'notes' | 'extras' | 'misreadings'>;
  readonly takenAt: number;
}

/** With each newer measure what came before counts so much of what it did. */
const FADING = 0.8;

/** A measure was right when every note in it was on time, and nothing was added or misread there. */
function rightMeasures({ notes, extras, misreadings }: HeardTake['result']): (measure: number) => boolean {
  const wrong = new Set(
    [
      ...notes.filter(({ verdict }) => verdict !== 'on-time'),
      ...extras,
      ...misreadings.filter((one) => !isAboutTake(one)),
    ].map(({ measure }) => measure),
  );
  return (measure) => !wrong.has(measure);
}

/**
 * What a child knows, element by element in the usual order, over all its takes; elements it has not met are left out.
 */
export function masteryOf(takes: readonly HeardTake[]): Mastery[] {
  const known = new Map<ElementId, { heard: number; weight: number; right: number; lastSeen: number }>();
  for (const { pattern, result, takenAt } of [...takes].sort((a, b) => a.takenAt - b.takenAt)) {
    const isRight = rightMeasures(result);
    for (const [element, measures] of elementsOf(pattern)) {
      const so = known.get(element) ?? { heard: 0, weight: 0, right: 0, lastSeen: 0 };
      for (const measure of measures) {
        so.heard++;
        so.weight = so.weight * FADING + 1;
        so.right = so.right * FADING + (isRight(measure) ? 1 : 0);
      }
      known.set(element, { ...so, lastSeen: takenAt });
    }
  }
  return ELEMENT_IDS.flatMap((element): Mastery[] => {
    const so = known.get(element);
    return so
      ? [{ element, heard: so.heard, right: Math.round((so.right / so.weight) * 100) / 100, lastSeen: so.lastSeen }]
      : [];
  });
}
