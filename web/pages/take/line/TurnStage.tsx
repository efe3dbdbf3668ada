import { useEffect, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link, useNavigate } from 'react-router';
import type { Child } from '../../../../contract/child.ts';
import type { LineUp, TurnEdit } from '../../../../contract/lineUp.ts';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import type { Teacher } from '../../../../contract/session.ts';
import { FULL_MARK, HIGHEST_MARK } from '../../../../core/judging/mark.ts';
import { voiceOf } from '../../../../core/wording/voice.ts';
import { put } from '../../../api/client.ts';
import { TakeResultView } from '../../../take/TakeResultView.tsx';
import { Playing } from '../../../take/Playing.tsx';
import type { NewTake } from '../../../take/useJudgedTake.ts';
import { Notice } from '../../../ui/Notice.tsx';
import { useOwnMoves } from '../../../ui/ownMoves.ts';
import { type Keys, useKeys } from '../../../ui/useKeys.ts';
import { useLatest } from '../../../ui/useLatest.ts';
import { useSave } from '../../../ui/useSave.ts';
import { useStored } from '../../../ui/stored.ts';
import { useHearing } from '../useHearing.ts';
import { type ReadPattern, heardByOf } from './linePlan.ts';
import { useQuiet } from './useQuiet.ts';
import '../../../take/take.scss';

interface StageProps {
  readonly teacher: Teacher;
  readonly schoolClass: ClassDetail;
  readonly lineUp: LineUp;
  readonly child: Child;
  readonly nextChild: Child | undefined;
  readonly pattern: ReadPattern;
  readonly onHeard: (childId: string, mark: number) => void;
  readonly onTurn: (edit: TurnEdit) => void;
  /** This child stays in front until it is said to go on. */
  readonly onHold: () => void;
  readonly onNext: () => void;
}

/** Slower for this child, now: so much of the tempo. */
const SLOWER = 0.75;

/** One child's turn: its name, its takes, what came of them. */
export function TurnStage(props: StageProps) {
  const { teacher, schoolClass, lineUp, child, pattern, onHeard, onHold } = props;
  const [slow, setSlow] = useState(1);
  const [used, setUsed] = useState(0);
  const voice = useMemo(() => voiceOf(schoolClass), [schoolClass]);
  const { bpm, heardBy, tries } = lineUp.settings;
  const settings = {
    bpm: Math.round(bpm * slow),
    method: heardByOf(child, heardBy),
    task: 'claps',
    free: false,
  } as const;
  const hearing = useHearing({
    teacherId: teacher.id,
    schoolClass,
    pattern,
    rhythm: pattern.rhythm,
    child,
    settings,
    lineUpId: lineUp.id,
    onTake: ({ mark }) => {
      // The result stays in view although its child has been heard now.
      onHold();
      onHeard(child.id, mark);
      setUsed(used + 1);
    },
  });
  const { run, plan, take, show, problem } = hearing;
  const start = () => {
    // Whatever becomes of other turns meanwhile, on another device too, this child goes on.
    onHold();
    run.start();
  };
  const again = () => {
    show(undefined);
    run.cancel();
  };
  const left = tries + (child.adaptations?.moreTries ?? 0) - used;
  const result = take && run.state === 'done';
  useOwnMoves(result ? 'result' : run.state === 'ready' ? 'name' : 'run');
  return (
    <>
      {(problem ?? run.problem) && <Notice problem={(problem ?? run.problem)!} />}
      {run.state === 'ready' && (
        <NameScreen {...props} bpm={plan.bpm} used={used} onStart={start} onSlower={() => setSlow(slow * SLOWER)} />
      )}
      {(run.state === 'count-in' || run.state === 'playing') && (
        <div className="stage">
          <div className="page-head">
            <h1>{child.name}</h1>
            <span className="stage-title">
              {pattern.title} · {plan.bpm}
            </span>
          </div>
          <Playing run={run} plan={plan} voice={voice} />
        </div>
      )}
      {result && <TurnResult {...props} take={take} triesLeft={left} onAgain={again} />}
    </>
  );
}

interface NameProps extends StageProps {
  readonly bpm: number;
  readonly used: number;
  readonly onStart: () => void;
  readonly onSlower: () => void;
}

/** Marks by hand, a key each. */
function markKeys(give: (mark: number) => void): Keys {
  return Object.fromEntries(
    Array.from({ length: HIGHEST_MARK + 1 }, (_, mark) => [String(mark), () => give(mark)] as const),
  );
}

/** The name, for the back row; one key counts in. */
function NameScreen({ lineUp, child, nextChild, pattern, bpm, used, onStart, onSlower, onTurn }: NameProps) {
  const navigate = useNavigate();
  const stop = () => void navigate('/take/line-up');
  const absent = () => onTurn({ state: 'absent' });
  const skip = () => onTurn({ state: 'skipped' });
  const byItself = lineUp.settings.startsItself && used === 0;
  const deaf = useQuiet(byItself, onStart);
  useKeys({
    ' ': onStart,
    x: absent,
    s: skip,
    l: onSlower,
    Escape: stop,
    ...markKeys((mark) => onTurn({ state: 'heard', mark })),
  });
  return (
    <div className="name-screen">
      {deaf && <Notice problem={deaf} />}
      <h1 className="whose-turn">{child.name}</h1>
      <p className="whose-rhythm">
        {pattern.title} · {bpm}
        {child.adaptations?.hands === 'tapping' && ' · taps'}
        {child.adaptations?.hands === 'one-hand' && ' · one hand'}
        {used > 0 && ' · once more'}
      </p>
      {byItself && !deaf && <p role="status">Starts when the room is quiet.</p>}
      <div className="stage-actions">
        <Button size="lg" onClick={onStart}>
          Count in <kbd>space</kbd>
        </Button>
        <Button variant="outline-dark" onClick={absent}>
          Absent <kbd>X</kbd>
        </Button>
        <Button variant="outline-dark" onClick={skip}>
          Later <kbd>S</kbd>
        </Button>
        <Button variant="outline-dark" onClick={onSlower}>
          Slower <kbd>L</kbd>
        </Button>
        <span>
          Mark by hand <kbd>0</kbd>–<kbd>4</kbd>
        </span>
        <Button variant="outline-dark" onClick={stop}>
          Stop <kbd>Esc</kbd>
        </Button>
      </div>
      {nextChild && <p className="who-next">Then {nextChild.name}</p>}
    </div>
  );
}

/** So long a result is shown before the next child is called. */
const RESULT_MS = 5_000;
/** Taps that come after the end must not skip the result. */
const HOLD_MS = 900;

interface ResultProps extends StageProps {
  readonly take: NewTake;
  readonly triesLeft: number;
  readonly onAgain: () => void;
}

/** The mark of a take that was just heard, and another one by hand. */
function useOwnMark(take: NewTake, onGiven: (mark: number) => void) {
  const [mark, setMark] = useState(take.mark);
  const own = useSave((given: number) => put(`/takes/${take.takeId}/override`, { mark: given }), '/classes', '/takes');
  const give = (given: number) =>
    void own.save(given).then((done) => {
      if (!done) return;
      setMark(given);
      onGiven(given);
    });
  return { mark, give, problem: own.problem };
}

function TurnResult({
  schoolClass,
  child,
  pattern,
  nextChild,
  take,
  triesLeft,
  onAgain,
  onNext,
  onHeard,
}: ResultProps) {
  const voice = useMemo(() => voiceOf(schoolClass), [schoolClass]);
  const [goes, setGoes] = useStored('line.goes', 'on');
  const [from] = useState(() => performance.now() + HOLD_MS);
  const { mark, give, problem } = useOwnMark(take, (given) => onHeard(child.id, given));
  const more = triesLeft > 0 && mark < FULL_MARK;
  const goOn = more ? onAgain : onNext;
  const held = (action: (event: KeyboardEvent) => void) => (event: KeyboardEvent) => {
    if (event.timeStamp > from) action(event);
  };
  const byItself = goes === 'on';
  const wait = () => setGoes(byItself ? 'off' : 'on');
  const marks = Object.entries(markKeys(give)).map(([key, action]) => [key, held(action)] as const);
  useKeys({ ' ': held(goOn), a: held(onAgain), h: held(wait), ...Object.fromEntries(marks) });
  const leave = useLatest(goOn);
  useEffect(() => {
    if (!byItself) return undefined;
    const timer = setTimeout(leave, RESULT_MS);
    return () => clearTimeout(timer);
  }, [byItself, leave]);
  return (
    <div className="stage">
      <div className="page-head">
        <h1>{child.name}</h1>
        <span className="stage-title">
          {pattern.title} · {take.bpm}
        </span>
      </div>
      {problem && <Notice problem={{ message: `The mark is not set: ${problem.message}` }} />}
      <div className="stage-actions">
        <Button size="lg" onClick={goOn}>
          {more ? `${child.name} once more` : nextChild ? `Next: ${nextChild.name}` : 'Ready'} <kbd>space</kbd>
        </Button>
        <Button variant="outline-dark" onClick={onAgain}>
          Again <kbd>A</kbd>
        </Button>
        <Button variant="outline-dark" aria-pressed={byItself} onClick={wait}>
          {byItself ? 'Goes on by itself' : 'Waits for you'} <kbd>H</kbd>
        </Button>
        <span>
          Another mark <kbd>0</kbd>–<kbd>4</kbd>
        </span>
        <Link to={`/classes/${schoolClass.id}/takes/${take.takeId}`}>Correct the claps</Link>
      </div>
      <TakeResultView take={take} voice={voice} mark={mark} borders={schoolClass.borders} />
    </div>
  );
}
