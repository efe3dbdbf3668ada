import { t } from '../../../core/words/say.ts';
import { useState } from 'react';
import {
  type Card,
  type CardSize,
  cardsOf,
  cardsPattern,
  changeOneThing,
  moveCard,
  reverseCard,
  silenceCard,
  swapCards,
  turnCard,
  turnedAs,
} from '../../../core/ear/cards.ts';
import { type Vocabulary, joined, vocabularyIn } from '../../../core/exercises/rhythms/vocabulary.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { newSeed } from './earSettings.ts';

const MOST_CARDS = 32;

/** A row of cards on the table, and which of them is chosen. */
export function useCards(source: Pattern, size: CardSize, met: Vocabulary) {
  const [rows, setRows] = useState<readonly (readonly Card[])[]>(() => [cardsOf(source, size)]);
  const [at, setAt] = useState(0);
  const [trouble, setTrouble] = useState('');
  const cards = rows.at(-1)!;
  const { meter } = source.measures[0]!;
  const current = Math.max(0, Math.min(at, cards.length - 1));
  const pattern = cardsPattern(cards, meter);
  const lay = (next: readonly Card[], to = current) => {
    setTrouble('');
    if (next !== cards) setRows([...rows.slice(-50), next]);
    setAt(to);
  };
  const move = (from: number, to: number) => {
    if (to >= 0 && to < cards.length) lay(moveCard(cards, from, to), to);
  };
  const changeOne = () => {
    const other = pattern && changeOneThing(pattern, joined(vocabularyIn(pattern), met), newSeed());
    if (other) lay(turnedAs(cards, cardsOf(other, size)));
    else setTrouble(t`Nothing can be changed with what the class has met.`);
  };
  return {
    cards,
    current,
    meter,
    pattern,
    trouble,
    choose: (next: number) => setAt(Math.max(0, Math.min(cards.length - 1, next))),
    move,
    actions: [
      { key: 'w', name: t`Swap with the next`, run: () => lay(swapCards(cards, current, current + 1)) },
      { key: 't', name: t`Turn over`, run: () => lay(turnCard(cards, current)) },
      { key: 'b', name: t`Backwards`, run: () => lay(reverseCard(cards, current)) },
      { key: 'r', name: t`Silent`, run: () => lay(silenceCard(cards, current, meter)) },
      {
        key: 'd',
        name: t`Once more`,
        run: () => {
          if (cards.length < MOST_CARDS) lay(cards.toSpliced(current, 0, cards[current]!), current + 1);
        },
      },
      {
        key: 'Backspace',
        name: t`Take away`,
        run: () => {
          if (cards.length > 1) lay(cards.toSpliced(current, 1));
        },
      },
      { key: 'c', name: t`Change one thing`, run: changeOne },
      {
        key: 'z',
        name: t`Undo`,
        run: () => {
          if (rows.length > 1) setRows(rows.slice(0, -1));
        },
      },
    ] as const,
  };
}

export type CardRow = ReturnType<typeof useCards>;
