import type { TakeSummary } from '../../contract/take.ts';

/** The mark that counts: the teacher's, where she gave one. */
export function markOfTake({ mark, override }: Pick<TakeSummary, 'mark' | 'override'>): number {
  return override ?? mark;
}
