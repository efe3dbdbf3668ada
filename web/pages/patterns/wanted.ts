import type { SavedPattern } from '../../../contract/pattern.ts';
import type { ElementId } from '../../../core/rhythm/elements.ts';

/** What is looked for in the list; what is empty is not asked. */
export interface Wanted {
  readonly words: string;
  readonly meter: string;
  readonly element: ElementId | '';
  readonly level: string;
  readonly folder: string;
  /** Only what is made of these. */
  readonly met: ReadonlySet<ElementId> | undefined;
}

export const NOTHING_WANTED: Wanted = { words: '', meter: '', element: '', level: '', folder: '', met: undefined };

/** All words stand in the title, the rhythm or the folder, in any order. */
export function hasWords({ title, text, folder = '' }: SavedPattern, words: string): boolean {
  const said = `${title} ${text} ${folder}`.toLowerCase();
  return words
    .toLowerCase()
    .split(/\s+/)
    .every((word) => said.includes(word));
}

/** What the list is for: to open one, to take some out, to put them into order, or one under the other. */
export type Mode = 'open' | 'take-out' | 'arrange' | 'page';
