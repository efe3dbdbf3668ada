import { isAboutTake } from '../judging/misreadings/table.ts';
import type { TakeResult } from '../judging/takeResult.ts';
import { ELEMENT_IDS, type ElementId, elementsOf } from '../rhythm/elements.ts';
import type { Pattern } from '../rhythm/pattern.ts';

/** With each newer measure what came before counts so much of what it did (handbook §9). */
export const FADING = 0.8;

/** How much so many measures count together. */
export function weightOf(measures: number): number {
  return (1 - FADING ** measures) / (1 - FADING);
}

/** One element in one take. */
export interface HeardElement {
  readonly element: ElementId;
  /** In how many measures it stood. */
  readonly measures: number;
  /** How many of them were right, the last one whole and each one before it so much less. */
  readonly right: number;
}

type Facts = Pick<TakeResult, 'notes' | 'extras' | 'misreadings'>;

/**
 * A measure is right when every note in it was on time, and nothing was added or misread there; what was misread as a
 * habit was so at each of its places.
 */
function rightMeasures({ notes, extras, misreadings }: Facts): (measure: number) => boolean {
  const wrong = new Set(
    [
      ...notes.filter(({ verdict }) => verdict !== 'on-time'),
      ...extras,
      ...misreadings.filter((one) => !one.instead && !isAboutTake(one)).flatMap((one) => [one, ...(one.again ?? [])]),
    ].map(({ measure }) => measure),
  );
  return (measure) => !wrong.has(measure);
}

/** What a take says about the elements of its pattern, in their usual order. */
export function heardElements(pattern: Pattern, result: Facts): HeardElement[] {
  const isRight = rightMeasures(result);
  const found = elementsOf(pattern);
  return ELEMENT_IDS.flatMap((element): HeardElement[] => {
    const measures = found.get(element);
    if (!measures) return [];
    const right = measures.reduce((so, measure) => so * FADING + (isRight(measure) ? 1 : 0), 0);
    return [{ element, measures: measures.length, right }];
  });
}

/** Digits of what was right that are kept: more than any border between two states can tell. */
const DIGITS = 9;

/** As one short word, to be kept beside a take. @example "quarter 2 1.8,half 1 1" */
export function packElements(heard: readonly HeardElement[]): string {
  return heard.map(({ element, measures, right }) => `${element} ${measures} ${+right.toFixed(DIGITS)}`).join(',');
}

/** The other way round; what is no element is left out. */
export function unpackElements(packed: string): HeardElement[] {
  return packed.split(',').flatMap((one): HeardElement[] => {
    const [name, measures, right] = one.split(' ');
    const element = ELEMENT_IDS.find((id) => id === name);
    return element ? [{ element, measures: Number(measures), right: Number(right) }] : [];
  });
}
