import { t } from '../../../../core/words/say.ts';
import type { Ages } from '../../../../core/judging/windows.ts';

/** "ages 9-10", as it follows the name of a class. */
export function agesText(ages: Ages): string {
  return ages === 'musician' ? t`judged as musicians` : t`ages ${ages}`;
}
