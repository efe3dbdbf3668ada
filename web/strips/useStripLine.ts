import { t } from '../../core/words/say.ts';
import { useState } from 'react';
import {
  type Changed,
  type Strip,
  colourStrip,
  dotStrip,
  insertStrip,
  joinStrips,
  leftToFill,
  moveStrip,
  removeStrip,
  restStrip,
  splitStrip,
  stripsPattern,
  stripsThatFit,
  tieStrip,
} from '../../core/exercises/strips.ts';
import type { NoteValue } from '../../core/rhythm/value.ts';
import { LINES, type LineChoice, lineLength } from './stripLines.ts';

/**
 * Strips laid end to end on a line, and which of them is chosen.
 * @param given  the line; one of several to choose from where it is left out
 */
export function useStripLine(given?: LineChoice) {
  const [chosenLine, setChosenLine] = useState(0);
  const [strips, setStrips] = useState<readonly Strip[]>([]);
  const [at, setAt] = useState(0);
  /** Why the last change did not work. */
  const [trouble, setTrouble] = useState('');
  const own = given ?? LINES[chosenLine]!;
  const { meter } = own;
  const length = lineLength(own);
  const current = Math.min(at, strips.length - 1);
  const make = (changed: Changed, next = current) => {
    setTrouble(changed.ok ? '' : t`That does not work: ${changed.reason}.`);
    if (!changed.ok) return;
    setStrips(changed.strips);
    setAt(Math.max(0, Math.min(next, changed.strips.length - 1)));
  };
  const change = (how: (strips: readonly Strip[], at: number) => Changed) => {
    if (strips.length > 0) make(how(strips, current));
  };
  const move = (from: number, to: number) => {
    if (to >= 0 && to < strips.length) make(moveStrip(strips, from, to), to);
  };
  return {
    strips,
    current,
    trouble,
    chosenLine,
    length,
    left: leftToFill(strips, length),
    pattern: stripsPattern(strips, meter),
    /** Says why something that was asked for is not done. */
    refuse: setTrouble,
    chooseLine: (next: number) => {
      setChosenLine(next);
      setStrips(stripsThatFit(strips, lineLength(LINES[next]!)));
    },
    choose: (next: number) => setAt(Math.max(0, Math.min(strips.length - 1, next))),
    lay: (value: NoteValue, place = strips.length) =>
      make(insertStrip(strips, place, { kind: 'note', value }, length), place),
    move,
    remove: () => change(removeStrip),
    clear: () => setStrips([]),
    actions: [
      { key: 'x', name: t`Split in two`, run: () => change(splitStrip) },
      { key: 'j', name: t`Join with the next`, run: () => change(joinStrips) },
      { key: 't', name: t`Tie to the one before`, run: () => change(tieStrip) },
      { key: '.', name: t`Dot`, run: () => change((list, i) => dotStrip(list, i, length)) },
      { key: 'r', name: t`Rest`, run: () => change(restStrip) },
      { key: 'c', name: t`Other colour`, run: () => change(colourStrip) },
    ] as const,
  };
}

export type StripLine = ReturnType<typeof useStripLine>;
