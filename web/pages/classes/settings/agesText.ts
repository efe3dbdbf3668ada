import type { Ages } from '../../../../core/judging/windows.ts';

/** "ages 9-10", as it follows the name of a class. */
export function agesText(ages: Ages): string {
  return ages === 'musician' ? 'judged as musicians' : `ages ${ages}`;
}
