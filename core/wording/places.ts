import { mixed } from '../rhythm/fraction.ts';
import type { PlayedPlace } from '../timing/schedule.ts';
import { type NamingId, capital, measureName } from './valueNames.ts';

const ORDINALS = ['first', 'second', 'third', 'fourth'] as const;

/** "measure 2"; "measure 2, second time" where it repeats; "the pickup". */
export function measureText(
  { measure, timeThrough }: Pick<PlayedPlace, 'measure' | 'timeThrough'>,
  naming: NamingId,
): string {
  const name = measure === 0 ? 'the pickup' : `${measureName(naming)} ${measure}`;
  return timeThrough === undefined ? name : `${name}, ${ORDINALS[timeThrough - 1] ?? `${timeThrough}th`} time`;
}

/** "measure 2, beat 3 1/2", inside a sentence. */
export function placeText(place: PlayedPlace, naming: NamingId): string {
  return `${measureText(place, naming)}, beat ${mixed(place.beat)}`;
}

/** "Measure 2, beat 3 1/2", before what is said of it. */
export function placeHeading(place: PlayedPlace, naming: NamingId): string {
  return capital(placeText(place, naming).replace(/^the /, ''));
}
