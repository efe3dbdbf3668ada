import { counted, t } from '../../core/words/say.ts';
import { rich } from '../ui/rich.tsx';
import { type ReactNode, useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { type Mistake, isRight, mistakesIn } from '../../core/exercises/answering.ts';
import type { Question } from '../../core/exercises/question.ts';
import { misconceptionText, questionWords } from '../../core/wording/questionWords.ts';
import type { NamingId } from '../../core/wording/valueNames.ts';
import { useOwnMoves } from '../ui/ownMoves.ts';
import { useKeys } from '../ui/useKeys.ts';
import { OptionButtons, Reveal, optionKeys } from './Answering.tsx';
import { Shown } from './Shown.tsx';
import { MatchSigns, SpotSigns } from './StaffQuestions.tsx';

/** How often each misunderstanding was behind a wrong answer. */
export type Tally = Partial<Record<Mistake, number>>;

/** How a run went. */
export interface RunScore {
  readonly right: number;
  readonly count: number;
  readonly tally: Tally;
}

/** Where a run stands. */
function useRun(run: readonly Question[], onAgain: () => void) {
  const [at, setAt] = useState(0);
  const [given, setGiven] = useState<readonly number[]>();
  const [right, setRight] = useState(0);
  const [tally, setTally] = useState<Tally>({});
  const question = run[at];
  const answer = (options: readonly number[]) => {
    if (!question || given !== undefined || options.some((option) => option >= question.options.length)) return;
    setGiven(options);
    if (isRight(question, options)) setRight(right + 1);
    const mistakes = mistakesIn(question, options);
    setTally(mistakes.reduce((sum, id) => ({ ...sum, [id]: (sum[id] ?? 0) + 1 }), tally));
  };
  const next = () => {
    if (!question) onAgain();
    else if (given !== undefined) {
      setGiven(undefined);
      setAt(at + 1);
    }
  };
  return { at, question, given, right, tally, answer, next };
}

interface RunProps {
  readonly run: readonly Question[];
  readonly naming: NamingId;
  readonly onAgain: () => void;
  /** Seconds for each question; as long as it takes where there are none. */
  readonly limit?: number | undefined;
  /** What can be done with the score. */
  readonly keep?: (score: RunScore) => ReactNode;
}

/** Kinds that are answered on the staff itself. */
const ON_STAFF: ReadonlySet<Question['asked']['kind']> = new Set(['sign-spot', 'sign-match']);

/** Questions one after the other, then how it went. */
export function QuestionRun({ run, naming, onAgain, limit, keep }: RunProps) {
  const { at, question, given, right, tally, answer, next } = useRun(run, onAgain);
  const onStaff = question !== undefined && ON_STAFF.has(question.asked.kind);
  const choose = (option: number) => answer([option]);
  // Time runs out by itself: what is pressed just then was an answer.
  useOwnMoves(`${at} ${given === undefined}`);
  useKeys({ ...(onStaff ? {} : optionKeys(choose)), ' ': next });
  if (run.length === 0)
    return <div className="empty">{t`With these values no question can be made. Choose more of them below.`}</div>;
  if (!question)
    return <Score score={{ right, count: run.length, tally }} naming={naming} onAgain={onAgain} keep={keep} />;
  return (
    <section className="question" aria-label={t`Question ${at + 1} of ${run.length}`}>
      <p className="question-number">
        {t`${at + 1} of ${run.length} · ${right} right`}
        {limit !== undefined && (
          <TimeLeft key={at} seconds={limit} running={given === undefined} onOver={() => answer([])} />
        )}
      </p>
      <h2 className="big-line">{questionWords(question, naming).prompt}</h2>
      {onStaff ? (
        <AnsweredOnStaff key={at} question={question} naming={naming} given={given} onAnswer={answer} />
      ) : (
        <>
          <Shown question={question} />
          <OptionButtons question={question} naming={naming} chosen={chosenOf(given)} onChoose={choose} />
        </>
      )}
      <Reveal question={question} chosen={chosenOf(given)} naming={naming}>
        <Button size="lg" onClick={next}>
          {at + 1 < run.length ? t`Next` : t`How it went`} <kbd>{t`space`}</kbd>
        </Button>
      </Reveal>
    </section>
  );
}

/** An option that does not exist where time ran out, or where the answer is on the staff. */
const NONE = -1;
const chosenOf = (given: readonly number[] | undefined) => given && (given[0] ?? NONE);

function AnsweredOnStaff(props: {
  question: Question;
  naming: NamingId;
  given: readonly number[] | undefined;
  onAnswer: (options: readonly number[]) => void;
}) {
  return props.question.asked.kind === 'sign-match' ? <MatchSigns {...props} /> : <SpotSigns {...props} />;
}

/** Counts down, a second at a time. */
function TimeLeft({ seconds, running, onOver }: { seconds: number; running: boolean; onOver: () => void }) {
  const [left, setLeft] = useState(seconds);
  useEffect(() => {
    if (!running) return undefined;
    if (left <= 0) {
      onOver();
      return undefined;
    }
    const timer = setTimeout(() => setLeft(left - 1), 1000);
    return () => clearTimeout(timer);
  });
  return <span className="time-left"> {t`· ${counted(left, 'second')} left`}</span>;
}

interface ScoreProps {
  readonly score: RunScore;
  readonly naming: NamingId;
  readonly onAgain: () => void;
  readonly keep: RunProps['keep'];
}

function Score({ score, naming, onAgain, keep }: ScoreProps) {
  const { right, count, tally } = score;
  const found = (Object.entries(tally) as [Mistake, number][]).sort((a, b) => b[1] - a[1]);
  return (
    <section className="question">
      <h2 className="big-line" role="status">
        {t`${right} of ${count} right`}
      </h2>
      {found.length > 0 && (
        <ul className="tally">
          {found.map(([id, times]) => (
            <li key={id}>
              <strong>{times} ×</strong> {id === 'slip' ? t`A slip.` : misconceptionText(id, naming)}
            </li>
          ))}
        </ul>
      )}
      {keep?.(score)}
      <Button size="lg" onClick={onAgain}>
        {rich`${count === 10 ? t`Ten` : count} new ones ${<kbd>{t`space`}</kbd>}`}
      </Button>
    </section>
  );
}
