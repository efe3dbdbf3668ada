import { counted, perLanguage, t } from '../../../core/words/say.ts';
import { BIN_DAYS } from '../../../contract/bin.ts';
import type { Retention } from '../../../contract/school.ts';

export type Kept = keyof Retention;

/** What is kept for a time, as teachers and as parents are told, in the order in which it is asked for. */
export const KEPT = perLanguage(
  (): readonly { readonly kind: Kept; readonly name: string; readonly told: string; readonly usual: string }[] => [
    {
      kind: 'takes',
      name: t`Takes and their marks`,
      told: t`What was clapped, and its marks`,
      usual: t`until a teacher removes them`,
    },
    {
      kind: 'recordings',
      name: t`Sound of takes`,
      told: t`Recordings, where there are any`,
      usual: t`as long as each class says`,
    },
    {
      kind: 'terms',
      name: t`Marks of closed terms`,
      told: t`Marks of terms that are over`,
      usual: t`as long as the class`,
    },
    {
      kind: 'left',
      name: t`Children and classes in the bin`,
      told: t`A child that has left, once the teacher has removed it`,
      usual: daysText(BIN_DAYS),
    },
  ],
);

/** Times to choose from, in days. */
export const TIMES: Readonly<Record<Kept, readonly number[]>> = {
  takes: [120, 183, 365, 730, 1095],
  recordings: [7, 14, 30, 90, 365],
  terms: [183, 365, 730, 1095, 1825],
  left: [7, 14, 90, 183, 365],
};

/** "30 days", "half a year", "2 years". */
export function daysText(days: number): string {
  if (days === 183) return t`half a year`;
  return days % 365 === 0 ? counted(days / 365, 'year') : counted(days, 'day');
}
