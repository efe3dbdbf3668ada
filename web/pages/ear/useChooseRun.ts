import { useState } from 'react';
import type { Question, RuledOut } from '../../../core/exercises/question.ts';
import type { ChangeId } from '../../../core/exercises/rhythms/changes.ts';
import { type SoundedBeat, soundedBeats } from '../../../core/rhythm/soundings.ts';
import { patternIn } from './patternIn.ts';

export const MOST_PLAYED = 3;

/** How often each change was taken for what was heard. */
export type ChangeTally = Partial<Record<ChangeId, number>>;

/** Who said what: one answer of the class, or a number of hands for each candidate. */
export type ClassAnswer =
  | { readonly kind: 'one'; readonly option: number }
  | { readonly kind: 'hands'; readonly hands: readonly number[] };

const ruledOutBy = ({ steps }: Question): RuledOut[] =>
  steps.flatMap((step) => (step.step === 'ruled-out' ? [step] : []));

/** The index of the beat at which a candidate falls. */
function fallsAt(beats: readonly SoundedBeat[], out: RuledOut): number {
  return beats.findIndex(
    ({ measure, beat, timeThrough }) => measure === out.measure && beat === out.beat && timeThrough === out.timeThrough,
  );
}

function tallied(tally: ChangeTally, { options }: Question, answer: ClassAnswer): ChangeTally {
  const next = { ...tally };
  options.forEach(({ change }, i) => {
    const times = answer.kind === 'one' ? Number(answer.option === i) : (answer.hands[i] ?? 0);
    if (change && times > 0) next[change] = (next[change] ?? 0) + times;
  });
  return next;
}

/** Whether the class was right: its one answer, or most of its hands. */
function classRight({ answer }: Question, said: ClassAnswer): boolean {
  if (said.kind === 'one') return said.option === answer;
  const most = Math.max(...said.hands);
  return most > 0 && said.hands.every((hands, i) => i === answer || hands < most) && said.hands[answer] === most;
}

/** Ten questions for the ear, one after the other: played, answered, and then opened beat by beat. */
export function useChooseRun(run: readonly Question[], onAgain: () => void) {
  const [at, setAt] = useState(0);
  const [played, setPlayed] = useState(0);
  const [said, setSaid] = useState<ClassAnswer>();
  const [opened, setOpened] = useState(0);
  const [right, setRight] = useState(0);
  const [hands, setHands] = useState({ right: 0, all: 0 });
  const [tally, setTally] = useState<ChangeTally>({});
  const question = run[at];
  const beats = question ? soundedBeats(patternIn(question.shows)) : [];
  const falls = question ? ruledOutBy(question).map((out) => ({ out, at: fallsAt(beats, out) })) : [];
  const last = Math.max(-1, ...falls.map((one) => one.at));
  const out = falls.filter((one) => one.at < opened).map((one) => one.out);
  const answer = (given: ClassAnswer) => {
    if (!question || said) return;
    setSaid(given);
    setTally(tallied(tally, question, given));
    if (classRight(question, given)) setRight(right + 1);
    if (given.kind === 'hands')
      setHands({
        right: hands.right + (given.hands[question.answer] ?? 0),
        all: hands.all + given.hands.reduce((sum, one) => sum + one, 0),
      });
  };
  const next = () => {
    if (!question) return onAgain();
    setAt(at + 1);
    setPlayed(0);
    setSaid(undefined);
    setOpened(0);
  };
  // Whether it was right is seen when it is opened, not before.
  const open = question !== undefined && said !== undefined && opened <= last;
  return {
    at,
    question,
    played,
    markPlayed: () => setPlayed(played + 1),
    said,
    answer,
    opened,
    /** One candidate is left. */
    done: said !== undefined && opened > last,
    beats,
    out,
    openNext: () => setOpened(Math.min(beats.length, opened + 1)),
    openAll: () => setOpened(beats.length),
    next,
    right: open && classRight(question, said) ? right - 1 : right,
    hands,
    tally,
  };
}
