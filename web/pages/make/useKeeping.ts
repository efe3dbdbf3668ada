import { t } from '../../../core/words/say.ts';
import { format } from '../../words/dates.ts';
import { useState } from 'react';
import { v4 as uuid } from 'uuid';
import type { PatternEdit, SavedPattern } from '../../../contract/pattern.ts';
import { ELEMENTS, ELEMENT_IDS, elementsOf } from '../../../core/rhythm/elements.ts';
import { parseRhythm } from '../../../core/rhythm/text.ts';
import { type NamingId, capital, inNaming } from '../../../core/wording/valueNames.ts';
import { numbered } from '../../ui/numbered.ts';
import { useKeepPatterns } from '../../domain/keepPatterns.ts';
import type { MadeCard } from './useMade.ts';

/**
 * What a made pattern is called until its teacher names it: the hardest thing in it, and a number. A child reads it,
 * so that it says nothing of what went wrong before.
 */
function titleOf({ text, level }: MadeCard, naming: NamingId): string {
  const read = parseRhythm(text);
  const held = read.ok ? elementsOf(read.pattern) : new Map();
  const hardest = ELEMENT_IDS.filter((id) => held.has(id)).at(-1);
  return hardest ? capital(inNaming(ELEMENTS()[hardest].title, naming)) : t`Level ${level}`;
}

/** A folder for patterns that were made together. */
export function setFolder(className: string): string {
  return `${className}, ${format(new Date(), 'd MMM')}`.slice(0, 60);
}

/** Keeps made patterns among the teacher's own. Kept again they are there once. */
export function useKeeping(patterns: readonly SavedPattern[], naming: NamingId) {
  const [kept, setKept] = useState<ReadonlyMap<number, string>>(new Map());
  const saving = useKeepPatterns();
  /** @returns the ids of all of them; undefined where they could not be stored */
  const keep = async (cards: readonly MadeCard[], folder?: string): Promise<string[] | undefined> => {
    const ids = new Map(kept);
    const taken = new Set(patterns.map(({ title }) => title));
    const edits: [string, PatternEdit][] = [];
    for (const card of cards) {
      if (ids.has(card.key)) continue;
      const title = numbered(titleOf(card, naming), taken);
      taken.add(title);
      ids.set(card.key, uuid());
      edits.push([ids.get(card.key)!, { title, text: card.text, ...(folder === undefined ? {} : { folder }) }]);
    }
    if (!(await saving.save(edits))) return undefined;
    setKept(ids);
    return cards.map(({ key }) => ids.get(key)!);
  };
  return { kept, keep, saving: saving.saving, problem: saving.problem };
}
