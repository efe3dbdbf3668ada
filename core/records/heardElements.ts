import { type ElementId, ELEMENT_IDS } from '../rhythm/elements.ts';
import type { ToldPlace } from './toldPlaces.ts';

/** How often an element was read right, misread, or stood where a take says nothing. */
export interface PlaceCounts {
  readonly right: number;
  readonly misread: number;
  readonly notTold: number;
}

/** One element in one take. */
export interface HeardElement extends PlaceCounts {
  readonly element: ElementId;
  /** In how many measures of the pattern as it is played it stood. */
  readonly measures: number;
}

/** What a take says about the elements of its pattern, in their usual order. */
export function heardElements(places: readonly ToldPlace[]): HeardElement[] {
  return ELEMENT_IDS.flatMap((element): HeardElement[] => {
    const own = places.filter((place) => place.element === element);
    if (own.length === 0) return [];
    const count = (verdict: ToldPlace['verdict']) => own.filter((place) => place.verdict === verdict).length;
    return [
      {
        element,
        measures: new Set(own.map(({ at }) => at.played)).size,
        right: count('right'),
        misread: count('misread'),
        notTold: count('not-told'),
      },
    ];
  });
}

/** As one short word, to be kept beside a take. @example "quarter 2 6/1/0,half 1 1/0/0" */
export function packElements(heard: readonly HeardElement[]): string {
  return heard
    .map(({ element, measures, right, misread, notTold }) => `${element} ${measures} ${right}/${misread}/${notTold}`)
    .join(',');
}

const PACKED = /^(\S+) (\d+) (\d+)\/(\d+)\/(\d+)$/;

/** The other way round; what is no element, or was packed before places were counted, is left out. */
export function unpackElements(packed: string): HeardElement[] {
  return packed.split(',').flatMap((one): HeardElement[] => {
    const [, name, ...numbers] = PACKED.exec(one) ?? [];
    const element = ELEMENT_IDS.find((id) => id === name);
    const [measures, right, misread, notTold] = numbers.map(Number) as [number, number, number, number];
    return element ? [{ element, measures, right, misread, notTold }] : [];
  });
}
