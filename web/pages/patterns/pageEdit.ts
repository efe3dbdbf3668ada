import { t } from '../../../core/words/say.ts';
import type { Bracket, PatternEdit } from '../../../contract/pattern.ts';
import { LONGEST_TEXT, MOST_MEASURES, printRhythm } from '../../../core/rhythm/text.ts';
import { linesOf, pageOfLines } from '../../../core/rhythm/lines.ts';
import { placePattern } from '../../../core/rhythm/place.ts';
import { LONGEST_TITLE } from '../../../core/sheets/sheet.ts';
import { MOST_BRACKETS } from '../../../core/timing/limits.ts';
import type { Shelved } from './shelf.ts';

/** "Lines: Waves, Rope, Tide". */
export function usualTitle(chosen: readonly Shelved[]): string {
  const titles = chosen.map(({ saved }) => saved.title);
  const all = t`Lines: ${titles.join(', ')}`;
  if (titles.length === 0 || all.length <= LONGEST_TITLE) return titles.length === 0 ? t`Lines` : all;
  const more = t` and ${titles.length - 1} more`;
  return t`Lines: ${titles[0]!.slice(0, LONGEST_TITLE - t`Lines: `.length - more.length)}${more}`;
}

/**
 * Patterns as the lines of one, with the words over them; undefined where that is more than a pattern holds.
 * @param chosen  each can be read
 */
export function pageEdit(chosen: readonly Shelved[], title: string): PatternEdit | undefined {
  const page = pageOfLines(chosen.map(({ pattern }) => pattern!));
  const text = printRhythm(page);
  if (placePattern(page).length > MOST_MEASURES || text.length > LONGEST_TEXT || title.trim() === '') return undefined;
  const lines = linesOf(page);
  const brackets = chosen.flatMap(({ saved, pattern }, i): Bracket[] => {
    // Written out, the measures are others than those that the words stand over.
    if (pattern!.pickup && pattern!.measures.some(({ repeatEnd }) => repeatEnd)) return [];
    const numbers = placePattern(pattern!).map(({ number }) => number);
    const moved = ({ measure, beat }: Bracket['from']) => ({
      measure: lines[i]!.first + numbers.indexOf(measure) + 1,
      beat,
    });
    return (saved.brackets ?? []).map(({ from, to, words }) => ({ from: moved(from), to: moved(to), words }));
  });
  return { title: title.trim(), text, ...(brackets.length > 0 ? { brackets: brackets.slice(0, MOST_BRACKETS) } : {}) };
}
