import { useState } from 'react';
import type { Question } from '../../../core/exercises/question.ts';
import { questions } from '../../../core/exercises/questions.ts';
import { type Part, totalBeats } from '../../../core/exercises/valueSums.ts';
import { compare, mul, sub } from '../../../core/rhythm/fraction.ts';
import { VALUE, type ValueLetter, valueOfLength } from '../../../core/rhythm/value.ts';

export type Side = 'left' | 'right';
export const SIDES = ['left', 'right'] as const;
export const MOST_PARTS = 8;

const START: Readonly<Record<Side, readonly Part[]>> = {
  left: [{ kind: 'note', value: { base: 'h', dots: 0 } }],
  right: [
    { kind: 'note', value: { base: 'q', dots: 0 } },
    { kind: 'note', value: { base: 'e', dots: 0 } },
  ],
};

const ASKED_ABOUT = { values: ['w', 'h', 'q', 'e'], dots: true, ties: false, rests: true } as const;

/** What lies on the balance, and which way it tips. */
function weigh(sides: Readonly<Record<Side, readonly Part[]>>, beat: ValueLetter) {
  const totals = { left: totalBeats(sides.left, beat), right: totalBeats(sides.right, beat) };
  const tilt = compare(totals.left, totals.right);
  const difference = tilt < 0 ? sub(totals.right, totals.left) : sub(totals.left, totals.right);
  const lighter: Side = tilt > 0 ? 'right' : 'left';
  // The one value that would make both sides as long, where one can.
  const missing = tilt === 0 ? undefined : valueOfLength(mul(difference, VALUE[beat].of));
  return { totals, tilt, difference, lighter, missing };
}

/** A balance to build on, or one that asks. */
export function useBalance(beat: ValueLetter) {
  const [sides, setSides] = useState(START);
  const [active, setActive] = useState<Side>('right');
  const [shown, setShown] = useState(true);
  const [seed, setSeed] = useState(() => Math.floor(Math.random() * 10_000));
  const [lastAsked, setAsked] = useState<{ question: Question; chosen: number | undefined; beat: ValueLetter }>();
  // About another beat it is another question.
  const asked = lastAsked?.beat === beat ? lastAsked : undefined;
  const weighed = weigh(sides, beat);
  const change = (side: Side, parts: readonly Part[]) => setSides({ ...sides, [side]: parts });
  const complete = () => {
    const { missing, lighter } = weighed;
    if (missing) change(lighter, [...sides[lighter], { kind: 'note', value: missing }]);
  };
  const ask = () => {
    const [question] = questions({ ...ASKED_ABOUT, beat }, seed, 1, ['true-false', 'balance']);
    setSeed(seed + 1);
    if (!question?.sides) return;
    const [left, right] = question.sides;
    setAsked({ question, chosen: undefined, beat });
    setSides({ left, right });
    setShown(false);
  };
  const choose = (option: number) => {
    if (!asked || asked.chosen !== undefined || option >= asked.question.options.length) return;
    setAsked({ ...asked, chosen: option });
    setShown(true);
    if (asked.question.asked.kind === 'balance') complete();
  };
  const stop = () => {
    setAsked(undefined);
    setShown(true);
  };
  return { sides, active, shown, asked, ...weighed, change, complete, ask, choose, stop, setActive, setShown };
}

export type Balance = ReturnType<typeof useBalance>;
