import { add, equal, isWhole } from '../rhythm/fraction.ts';
import { valueText } from '../rhythm/value.ts';
import { NO_SYLLABLE } from './beatPlace.ts';
import type { CountedEvent, School } from './school.ts';
import type { WordSet } from './wordSet.ts';

/** The rhythm text of some neighbouring notes, as the keys of a word set write it; undefined when a rest, a tie or half a tuplet is among them. */
function cellText(events: readonly CountedEvent[]): string | undefined {
  if (events.some(({ kind }) => kind !== 'note')) return undefined;
  const text = events.map(({ value }) => valueText(value)).join(' ');
  const { tuplet } = events[0]!;
  if (events.some((event) => event.tuplet !== tuplet)) return undefined;
  if (!tuplet) return text;
  const first = equal(events[0]!.onset, tuplet.onset);
  const last = events.at(-1)!;
  return first && equal(add(last.onset, last.length), add(tuplet.onset, tuplet.length)) ? `${tuplet.n}{${text}}` : undefined;
}

/** Cells start on a beat and the longest that fits is taken; a single value may stand anywhere. */
function cells(events: readonly CountedEvent[], set: WordSet): (string | undefined)[] {
  const said: (string | undefined)[] = events.map(() => undefined);
  const longest = Math.max(...Object.keys(set.cells).map((cell) => cell.split(' ').length));
  for (let i = 0; i < events.length; ) {
    let taken = 1;
    for (let size = Math.min(longest, events.length - i); size >= 1; size--) {
      const cell = events.slice(i, i + size);
      if (size > 1 && (!isWhole(cell[0]!.onset) || cell.some((event) => event.label !== undefined))) continue;
      const word = wordOf(cell, set);
      if (word === undefined) continue;
      word.forEach((syllable, k) => (said[i + k] = syllable));
      taken = size;
      break;
    }
    i += taken;
  }
  return said;
}

function wordOf(cell: readonly CountedEvent[], set: WordSet): string[] | undefined {
  const text = cellText(cell);
  const syllables = text === undefined ? undefined : set.cells[text]?.split('-');
  return syllables?.length === cell.length ? syllables : undefined;
}

/** What no cell covers: the label written on the note, or none. */
function note(event: CountedEvent): string {
  return event.label ?? NO_SYLLABLE;
}

export const words: School = {
  id: 'words',
  title: 'Words (one syllable a note)',
  words: {},
  meanings: {},
  rests: 'parens',
  note,
  tied: () => '-',
  cells,
};
