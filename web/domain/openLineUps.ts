import { t } from '../../core/words/say.ts';
import { format } from '../words/dates.ts';
import type { LineUp } from '../../contract/lineUp.ts';

/** Somebody still waits. */
export const isOpen = ({ turns }: Pick<LineUp, 'turns'>) =>
  turns.some(({ state }) => state === 'waiting' || state === 'skipped');

/** "3 Dec: 4 of 26 heard". */
export function progressOf({ startedAt, turns }: Pick<LineUp, 'startedAt' | 'turns'>): string {
  const heard = turns.filter(({ state }) => state === 'heard').length;
  return t`${format(startedAt, 'd MMM')}: ${heard} of ${turns.length} heard`;
}
