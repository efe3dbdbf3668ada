import { perLanguage, t } from '../../words/say.ts';
import { add, equal, isWhole } from '../../rhythm/fraction.ts';
import { valueText } from '../../rhythm/value.ts';
import { NO_SYLLABLE } from '../beatPlace.ts';
import { type CountedEvent, type CountingSystem, speechRules, writtenValue } from '../countingSystem.ts';
import type { WordSet } from '../wordSet.ts';

interface Cells {
  /** Syllables by the rhythm text of the cell. */
  readonly syllables: ReadonlyMap<string, readonly string[]>;
  /** How many notes the longest cell has. */
  readonly longest: number;
}

const CELLS = new WeakMap<WordSet, Cells>();

function cellsOf(set: WordSet): Cells {
  const known = CELLS.get(set);
  if (known) return known;
  const syllables = new Map(Object.entries(set.cells).map(([cell, word]) => [cell, word.split('-')]));
  const cells: Cells = { syllables, longest: Math.max(0, ...[...syllables.values()].map(({ length }) => length)) };
  CELLS.set(set, cells);
  return cells;
}

/**
 * A cell of several notes stands from one beat to another (so “q e” is one in 6/8 and none in 4/4), and the longest is
 * taken; a single value may stand anywhere.
 */
function cells(events: readonly CountedEvent[], set: WordSet): (string | undefined)[] {
  const known = cellsOf(set);
  const said: (string | undefined)[] = [];
  while (said.length < events.length) {
    const cell = cellAt(events, said.length, known);
    if (cell) for (const syllable of cell) said.push(syllable);
    else said.push(undefined);
  }
  return said;
}

/**
 * The syllables of the longest cell from an event on: notes in a row, without rest, tie or label among them, and no
 * part of a tuplet. A rest is whispered as a note of its value would be said.
 */
function cellAt(
  events: readonly CountedEvent[],
  from: number,
  { syllables, longest }: Cells,
): readonly string[] | undefined {
  const first = events[from]!;
  const { kind, tuplet } = first;
  const most =
    kind === 'note' && isWhole(first.onset) && first.label === undefined ? Math.min(longest, events.length - from) : 1;
  let found: readonly string[] | undefined;
  let text = '';
  for (let size = 1; size <= most; size++) {
    const event = events[from + size - 1]!;
    if (
      event.kind === 'tied' ||
      event.kind !== kind ||
      event.tuplet !== tuplet ||
      (size > 1 && event.label !== undefined)
    )
      break;
    text += (size === 1 ? '' : ' ') + valueText(writtenValue(event));
    const word = syllables.get(tuplet ? `${tuplet.n}{${text}}` : text);
    if (
      word?.length === size &&
      (size === 1 || isWhole(add(event.onset, event.length))) &&
      (!tuplet || fills(first, event, tuplet))
    )
      found = word;
  }
  return found;
}

function fills(first: CountedEvent, last: CountedEvent, tuplet: NonNullable<CountedEvent['tuplet']>): boolean {
  return equal(first.onset, tuplet.onset) && equal(add(last.onset, last.length), add(tuplet.onset, tuplet.length));
}

/** What no cell covers: the label written on the note, or none. */
function note(event: CountedEvent): string {
  return event.label ?? NO_SYLLABLE;
}

export const words = perLanguage((): CountingSystem => ({
  title: t`Words (one syllable a note)`,
  words: {},
  meanings: {},
  rests: 'parens',
  note,
  tied: () => '-',
  cells,
  speech: speechRules({ order: 6 }),
}));
