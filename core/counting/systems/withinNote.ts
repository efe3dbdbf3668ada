import { perLanguage, t } from '../../words/say.ts';
import { ZERO, add, ceil, compare, frac } from '../../rhythm/fraction.ts';
import type { CountedEvent, CountingSystem } from '../countingSystem.ts';

/**
 * Each note is counted from one by its own beats, or its label stands for the one: half → "1-2", labelled G → "G-2".
 */
function note(event: CountedEvent): string {
  let said = event.label ?? '1';
  for (let beat = 2; beat <= ceil(event.length); beat++) said += `-${beat}`;
  return said;
}

/** A tied-on note counts on where the note before it stopped. */
function tied(event: CountedEvent): string {
  const from = event.sounding?.beats ?? ZERO;
  const to = add(from, event.length);
  let said = '';
  for (let beat = ceil(from); compare(frac(beat), to) < 0; beat++) said += `-${beat + 1}`;
  return said || '-';
}

export const withinNote = perLanguage((): CountingSystem => ({
  title: t`Within the note (1-2 for a half)`,
  words: {},
  meanings: {},
  rests: 'rest',
  note,
  tied,
}));
