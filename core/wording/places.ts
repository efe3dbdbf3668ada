import { perLanguage, t } from '../words/say.ts';
import { mixed } from '../rhythm/fraction.ts';
import type { PlayedPlace } from '../timing/schedule.ts';
import { type NamingId, capital, measureName } from './valueNames.ts';

const ORDINALS = perLanguage(() => [t`first`, t`second`, t`third`, t`fourth`]);

/** "measure 2"; "measure 2, second time" where it repeats; "the pickup". */
export function measureText(
  { measure, timeThrough }: Pick<PlayedPlace, 'measure' | 'timeThrough'>,
  naming: NamingId,
): string {
  const name = measure === 0 ? t`the pickup` : t`${measureName(naming)} ${measure}${''}`;
  return timeThrough === undefined ? name : t`${name}, ${ORDINALS()[timeThrough - 1] ?? t`${timeThrough}th`} time`;
}

/** "measure 2, beat 3 1/2", inside a sentence. */
export function placeText(place: PlayedPlace, naming: NamingId): string {
  return t`${measureText(place, naming)}, beat ${mixed(place.beat)}`;
}

/** "Measure 2, beat 3 1/2", before what is said of it. */
export function placeHeading(place: PlayedPlace, naming: NamingId): string {
  return capital(placeText(place, naming).replace(/^the /, ''));
}
