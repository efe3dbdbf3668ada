import { t } from '../../../core/words/say.ts';
import { useState } from 'react';
import type { Focus } from '../../../core/making/focus.ts';
import { type Level, LEVELS } from '../../../core/making/level.ts';
import type { Made, MakeTrouble, PatternWanted } from '../../../core/making/makePattern.ts';
import { elementsOf } from '../../../core/rhythm/elements.ts';
import { printRhythm } from '../../../core/rhythm/text.ts';
import { askOnce } from '../../files/askWorker.ts';
import type { MakeAnswer, MakeRequest } from '../../files/makeMessages.ts';

/** A made pattern on its card. */
export interface MadeCard extends Made {
  readonly key: number;
  readonly text: string;
  /** What it was made from: what is easier, harder and alike is made of the same. */
  readonly wanted: PatternWanted;
}

/** Why nothing came, or fewer came than were asked for. */
export type MadeTrouble =
  | { readonly kind: MakeTrouble; readonly focus: Focus | undefined }
  /** With a level: the others are harder. */
  | { readonly kind: 'short'; readonly made: number; readonly of: number; readonly level?: Level }
  | { readonly kind: 'broken'; readonly message: string };

const anySeed = () => Math.floor(Math.random() * 2 ** 32);

async function ask(request: MakeRequest): Promise<MakeAnswer> {
  const worker = new Worker(new URL('../../workers/make.worker.ts', import.meta.url), { type: 'module' });
  return askOnce<MakeAnswer>(worker, request, t`Nothing could be made; reload the page.`);
}

let nextKey = 1;

/**
 * The patterns that were made in this visit.
 * @param known  rhythm texts of the teacher's own: nothing is made that sounds like one of them
 */
export function useMade(known: readonly string[]) {
  const [cards, setCards] = useState<readonly MadeCard[]>([]);
  const [trouble, setTrouble] = useState<MadeTrouble>();
  const [making, setMaking] = useState(false);
  const made = async (wanted: PatternWanted, count: number, besides: readonly MadeCard[]) => {
    setMaking(true);
    setTrouble(undefined);
    try {
      const answer = await ask({
        wanted,
        count,
        seed: anySeed(),
        known: [...known, ...besides.map(({ text }) => text)],
      });
      if (typeof answer === 'string') {
        setTrouble({ kind: answer, focus: wanted.focus });
        return [];
      }
      if (answer.short) setTrouble({ kind: 'short', made: answer.made.length, of: count });
      return answer.made.map((one) => ({ ...one, key: nextKey++, text: printRhythm(one.pattern), wanted }));
    } catch (error) {
      setTrouble({ kind: 'broken', message: (error as Error).message });
      return [];
    } finally {
      setMaking(false);
    }
  };
  /** Where there are too few of the level, the rest is a level harder. */
  const anew = async (wanted: PatternWanted, count: number) => {
    const fresh = await made(wanted, count, []);
    const level = LEVELS.find((one) => one > wanted.level);
    const few = fresh.length > 0 && fresh.length < count && level !== undefined;
    const harder = few ? await made({ ...wanted, level }, count - fresh.length, fresh) : [];
    if (harder.length > 0) setTrouble({ kind: 'short', made: fresh.length, of: count, level: wanted.level });
    if (fresh.length > 0) setCards([...fresh, ...harder]);
  };
  const instead = async (card: MadeCard, wanted: PatternWanted) => {
    const [one] = await made(wanted, 1, cards);
    if (one) setCards((all) => all.map((other) => (other.key === card.key ? one : other)));
  };
  return {
    cards,
    trouble,
    making,
    anew,
    /** A set that is not shown, unlike those on the cards too. */
    set: (wanted: PatternWanted, count: number) => made(wanted, count, cards),
    /** The same material a level up or down. */
    shift: (card: MadeCard, by: 1 | -1) => {
      const level = (card.level + by) as Level;
      return LEVELS.includes(level) ? instead(card, { ...card.wanted, level }) : undefined;
    },
    /** Twelve of nothing but what is in it, as hard as it is. */
    alike: (card: MadeCard, count: number) =>
      anew({ ...card.wanted, elements: [...elementsOf(card.pattern).keys()], level: card.level }, count),
    /** Some measures stay, the others are made anew. */
    around: (card: MadeCard, locked: ReadonlySet<number>) => {
      const measures = new Map([...locked].map((index) => [index, card.pattern.measures[index]!]));
      return instead(card, { ...card.wanted, locked: measures });
    },
  };
}
