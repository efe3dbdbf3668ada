import { t } from '../../../../core/words/say.ts';
import { rich } from '../../../ui/rich.tsx';
import { type ReactNode, useEffect, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link, useNavigate } from 'react-router';
import type { Child } from '../../../../contract/child.ts';
import type { LineUp, Turn, TurnEdit } from '../../../../contract/lineUp.ts';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import type { Teacher } from '../../../../contract/session.ts';
import type { MarkOverride } from '../../../../contract/take.ts';
import { type Scale, isFull, isInNumbers, markLabel, scaleOf } from '../../../../core/judging/scale.ts';
import type { Seen } from '../../../../core/records/turns.ts';
import { unfold } from '../../../../core/rhythm/place.ts';
import { voiceOf } from '../../../../core/wording/voice.ts';
import { Ruler } from '../../../ruler/Ruler.tsx';
import { NothingHeard } from '../../../take/NothingHeard.tsx';
import { TakeResultView } from '../../../take/TakeResultView.tsx';
import { Playing } from '../../../take/Playing.tsx';
import { useHeld } from '../../../take/useHeld.ts';
import type { NewTake } from '../../../take/useJudgedTake.ts';
import { BothVersions } from '../../../domain/BothVersions.tsx';
import { marksInWords } from '../../../domain/marksInWords.ts';
import { Notice } from '../../../ui/Notice.tsx';
import { useOwnMoves } from '../../../ui/ownMoves.ts';
import { type Keys, useKeys } from '../../../ui/useKeys.ts';
import { useLatest } from '../../../ui/useLatest.ts';
import { useEditing } from '../../../api/useEditing.ts';
import { useStored } from '../../../store/stored.ts';
import type { Pair } from '../../../take/PartPads.tsx';
import { PairResult } from '../../../take/PairResult.tsx';
import { pairOf, shownParts } from '../pairs.ts';
import { type Second, useHearing } from '../useHearing.ts';
import { type ReadPattern, heardByOf, secondInPair } from './linePlan.ts';
import type { LeftLine } from './LineUpSetupPage.tsx';
import { againKeyOf, markKeysOf } from './markKeysOf.ts';
import { useQuiet } from './useQuiet.ts';
import '../../../take/take.scss';

interface StageProps {
  readonly teacher: Teacher;
  readonly schoolClass: ClassDetail;
  readonly lineUp: LineUp;
  readonly child: Child;
  readonly nextChild: Child | undefined;
  readonly pattern: ReadPattern;
  readonly turn: Turn;
  /** Who comes next in line: in pairs the one who taps the second part. */
  readonly nextTurn: Turn | undefined;
  /** What is known here of a child before it is heard. */
  readonly seenOf: (turn: Turn) => Seen;
  readonly onHeard: (childId: string, mark: number) => void;
  readonly onTurn: (edit: TurnEdit) => void;
  /** So much slower than the line-up this child is heard from now on. */
  readonly onSlower: (slower: number) => void;
  /** This child stays in front until it is said to go on. */
  readonly onHold: () => void;
  readonly onNext: () => void;
  /** Hears this child and the others by taps, whatever the line-up says. */
  readonly byTaps: boolean;
  readonly onTaps: () => void;
}

/** Slower for this child: so much of the tempo, again and again, but no slower than this. */
const SLOWER = 0.75;
const SLOWEST = 0.25;

/** Who taps the second part: whoever comes next when it is begun, and the same to the end of it. */
function usePair({ lineUp, pattern, nextChild, nextTurn, seenOf }: StageProps) {
  const [begun, setBegun] = useState<Second>();
  const part = secondInPair(pattern, lineUp.settings);
  const coming = useMemo((): Second | undefined => {
    if (!part || !nextChild || !nextTurn) return undefined;
    return { part, child: nextChild, lineUp: { id: lineUp.id, turnSeen: seenOf(nextTurn) } };
  }, [part, nextChild, nextTurn, lineUp.id, seenOf]);
  return { second: begun ?? coming, hold: () => setBegun(begun ?? coming) };
}

/** One child's turn as it goes on: what stands in front, and what can be done. */
function useTurn(props: StageProps) {
  const { teacher, schoolClass, lineUp, child, pattern, turn, ...on } = props;
  const { second, hold } = usePair(props);
  const { byTaps, seenOf, onHeard, onHold, onSlower } = on;
  const slow = turn.slower ?? 1;
  const [turnSeen, setTurnSeen] = useState<Seen>(() => seenOf(turn));
  const [used, setUsed] = useState(0);
  const { bpm, heardBy, tries } = lineUp.settings;
  const settings = {
    bpm: Math.round(bpm * slow),
    method: byTaps ? 'tap' : heardByOf(child, heardBy),
    task: 'claps',
    clicks: 'all',
  } as const;
  const hearing = useHearing({
    teacherId: teacher.id,
    schoolClass,
    part: pattern.part,
    child,
    second,
    settings,
    lineUp: { id: lineUp.id, turnSeen },
    onTake: (made) => {
      // The result stays in view although its child has been heard now.
      onHold();
      for (const [own, who] of takesOf(made, pattern, child, second)) onHeard(who.id, own.mark);
      setUsed(used + 1);
    },
  });
  const { run, take, nothing, show } = hearing;
  const over = run.state === 'done';
  return {
    ...hearing,
    second,
    front: over && take ? 'result' : over && nothing ? 'silent' : run.state === 'ready' ? 'name' : 'run',
    used,
    left: tries + (child.adaptations?.moreTries ?? 0) - used,
    start: () => {
      // Whatever becomes of other turns meanwhile, on another device too, this child goes on.
      onHold();
      setTurnSeen(seenOf(turn));
      hold();
      run.start();
    },
    again: () => {
      show(undefined);
      run.cancel();
    },
    slower: () => onSlower(Math.max(SLOWEST, slow * SLOWER)),
  };
}

/** Whose each take is: of two at once the other is beside it, or alone where the first was silent. */
function takesOf(made: NewTake, { part }: ReadPattern, child: Child, second: Second | undefined) {
  const all = made.beside ? [made, made.beside] : [made];
  return all.map((take) => {
    const isSecond = second !== undefined && take.title !== part.saved.title;
    return [take, isSecond ? second.child : child] as const;
  });
}

/** One child's turn: its name, its takes, what came of them. */
export function TurnStage(props: StageProps) {
  const { schoolClass, child, pattern, onTurn } = props;
  const voice = useMemo(() => voiceOf(schoolClass), [schoolClass]);
  const { run, plan, take, nothing, problem, front, used, left, start, again, slower, second } = useTurn(props);
  const pair = useMemo(() => second && pairOf(pattern.part, child, second), [pattern, child, second]);
  const shown = useMemo(() => shownParts(pattern.score, pattern.part, second), [pattern, second]);
  const name = pair ? pair.names.join(' and ') : child.name;
  useOwnMoves(front);
  const trouble = problem ?? run.problem;
  const title = `${pattern.title} · ${plan.bpm}`;
  return (
    <>
      {trouble && <Notice problem={trouble} />}
      {front === 'name' && (
        <NameScreen
          {...props}
          name={name}
          bpm={plan.bpm}
          used={used}
          lost={run.problem !== undefined}
          onStart={start}
          onSlower={slower}
        />
      )}
      {front === 'run' && run.state !== 'done' && (
        <Stage name={name} title={title}>
          <Playing run={run} plan={plan} voice={voice} shown={shown} pair={pair} />
        </Stage>
      )}
      {front === 'result' && take && <TurnResult {...props} take={take} triesLeft={left} onAgain={again} pair={pair} />}
      {front === 'silent' && nothing && (
        <Stage name={name} title={title}>
          <NothingHeard onAgain={again} onAbsent={() => onTurn({ state: 'absent' })} onZero={nothing.keep} />
        </Stage>
      )}
    </>
  );
}

interface NameProps extends Omit<StageProps, 'onSlower'> {
  /** Of all who are heard. */
  readonly name: string;
  readonly bpm: number;
  readonly used: number;
  /** The microphone went away: nothing starts by itself. */
  readonly lost: boolean;
  readonly onStart: () => void;
  readonly onSlower: () => void;
}

/** Marks by hand, a key each. */
function markActions(scale: Scale, give: (mark: number) => void): Keys {
  return Object.fromEntries(markKeysOf(scale).map(({ key, mark }) => [key, () => give(mark)] as const));
}

/** The name, for the back row; one key counts in. */
function NameScreen({
  schoolClass,
  lineUp,
  child,
  nextChild,
  name,
  pattern,
  bpm,
  used,
  lost,
  onStart,
  onSlower,
  onTurn,
  onTaps,
}: NameProps) {
  const navigate = useNavigate();
  const left: LeftLine = { left: lineUp.id };
  const stop = () => void navigate('/take/line-up', { state: left });
  const absent = () => onTurn({ state: 'absent' });
  const skip = () => onTurn({ state: 'skipped' });
  const mark = (given: number) => onTurn({ state: 'heard', mark: given });
  const byItself = lineUp.settings.startsItself && used === 0 && !lost;
  const deaf = useQuiet(byItself, onStart);
  useKeys({
    ' ': onStart,
    x: absent,
    s: skip,
    l: onSlower,
    Escape: stop,
    ...markActions(scaleOf(schoolClass), mark),
  });
  return (
    <div className="name-screen">
      {deaf && <Notice problem={deaf} />}
      <h1 className="whose-turn">{name}</h1>
      <p className="whose-rhythm">
        {pattern.title} · {bpm}
        {child.adaptations?.hands === 'tapping' && t` · taps`}
        {child.adaptations?.hands === 'one-hand' && t` · one hand`}
        {used > 0 && t` · once more`}
      </p>
      {lineUp.settings.patternIds.length > 1 && <OwnRhythm pattern={pattern} />}
      {byItself && !deaf && <p role="status">{t`Starts when the room is quiet.`}</p>}
      <NameActions
        lost={lost}
        onStart={onStart}
        onSlower={onSlower}
        onTaps={onTaps}
        scale={scaleOf(schoolClass)}
        absent={absent}
        skip={skip}
        stop={stop}
        mark={mark}
      />
      {nextChild && name === child.name && <p className="who-next">{t`Then ${nextChild.name}`}</p>}
    </div>
  );
}

/** Who is dealt a rhythm of its own sees it before the count-in. */
function OwnRhythm({ pattern }: { pattern: ReadPattern }) {
  const unfolded = useMemo(() => unfold(pattern.rhythm), [pattern]);
  return (
    <div className="own-rhythm">
      <Ruler pattern={unfolded} />
    </div>
  );
}

interface NameActionsProps extends Pick<NameProps, 'lost' | 'onStart' | 'onSlower' | 'onTaps'> {
  readonly scale: Scale;
  readonly absent: () => void;
  readonly skip: () => void;
  readonly stop: () => void;
  readonly mark: (mark: number) => void;
}

/** What the keys do, for fingers. */
function NameActions({ lost, onStart, onSlower, onTaps, scale, absent, skip, stop, mark }: NameActionsProps) {
  return (
    <div className="stage-actions">
      <Button size="lg" onClick={onStart}>
        {rich`Count in ${<kbd>{t`space`}</kbd>}`}
      </Button>
      {lost && <Button variant="outline-dark" onClick={onTaps}>{t`By taps from now on`}</Button>}
      <Button variant="outline-dark" onClick={absent}>
        {rich`Absent ${<kbd>X</kbd>}`}
      </Button>
      <Button variant="outline-dark" onClick={skip}>
        {rich`Later ${<kbd>S</kbd>}`}
      </Button>
      <Button variant="outline-dark" onClick={onSlower}>
        {rich`Slower ${<kbd>L</kbd>}`}
      </Button>
      <MarkButtons scale={scale} onMark={mark} />
      <Button variant="outline-dark" onClick={stop}>
        {rich`Stop ${<kbd>{t`Esc`}</kbd>}`}
      </Button>
    </div>
  );
}

/** A mark by hand, by a finger; where the key is not what stands there it is shown. */
function MarkButtons({ scale, onMark }: { scale: Scale; onMark: (mark: number) => void }) {
  return (
    <span className="mark-buttons" role="group" aria-label={t`Mark by hand`}>
      <span>{t`Mark by hand`}</span>
      {markKeysOf(scale).map(({ key, mark }) => {
        const label = markLabel(mark, scale);
        return (
          <Button key={mark} variant="outline-dark" aria-label={t`Mark ${label}`} onClick={() => onMark(mark)}>
            {label}
            {key !== label.toLowerCase() && <kbd>{isInNumbers(scale) ? key : key.toUpperCase()}</kbd>}
          </Button>
        );
      })}
    </span>
  );
}

function Head({ name, title }: { name: string; title: string }) {
  return (
    <div className="page-head">
      <h1>{name}</h1>
      <span className="stage-title">{title}</span>
    </div>
  );
}

/** The child and its rhythm above what it does. */
function Stage({ name, title, children }: { name: string; title: string; children: ReactNode }) {
  return (
    <div className="stage">
      <Head name={name} title={title} />
      {children}
    </div>
  );
}

/** So long a result is shown before the next child is called. */
const RESULT_MS = 5_000;
interface ResultProps extends StageProps {
  readonly take: NewTake;
  readonly triesLeft: number;
  readonly pair: Pair | undefined;
  readonly onAgain: () => void;
}

/** The mark of a take that was just heard, and another one by hand; one given on another device is not wiped unseen. */
function useOwnMark(take: NewTake, onGiven: (mark: number) => void) {
  const [mark, setMark] = useState(take.mark);
  const own = useEditing<MarkOverride>(`/takes/${take.takeId}/override`, { mark: null, reason: '' }, MARKS_STAND_IN);
  const given = (by: number) => {
    setMark(by);
    onGiven(by);
  };
  const give = (by: number) => void own.save({ mark: by, reason: '' }).then((done) => done && given(by));
  const settle = (theirsStays: ReadonlySet<string>) => {
    const { theirs, mine } = own.clash!;
    const by = theirsStays.has('mark') ? theirs.mark : mine.mark;
    void own.settle(theirsStays).then((done) => done && given(typeof by === 'number' ? by : take.mark));
  };
  return { mark, give, settle, clash: own.clash, problem: own.problem };
}

/** What is another where a mark is another. */
const MARKS_STAND_IN = ['/classes', '/takes'];

function TurnResult({
  schoolClass,
  child,
  pattern,
  nextChild,
  take,
  triesLeft,
  pair,
  onAgain,
  onNext,
  onHeard,
}: ResultProps) {
  const [goes, setGoes] = useStored('line.goes', 'on');
  const scale = scaleOf(schoolClass);
  const again = againKeyOf(scale);
  const { mark, give, settle, clash, problem } = useOwnMark(take, (given) => onHeard(child.id, given));
  const more = triesLeft > 0 && !isFull(mark, scale);
  const goOn = more ? onAgain : onNext;
  const held = useHeld();
  const byItself = goes === 'on';
  const wait = () => setGoes(byItself ? 'off' : 'on');
  const marks = Object.entries(pair ? {} : markActions(scale, give)).map(
    ([key, action]) => [key, held(action)] as const,
  );
  useKeys({ ' ': held(goOn), [again]: held(onAgain), h: held(wait), ...Object.fromEntries(marks) });
  const leave = useLatest(goOn);
  const asked = clash !== undefined;
  useEffect(() => {
    if (!byItself || asked) return undefined;
    const timer = setTimeout(leave, RESULT_MS);
    return () => clearTimeout(timer);
  }, [byItself, asked, leave]);
  return (
    <div className="stage">
      <Head name={pair ? pair.names.join(' and ') : child.name} title={`${pattern.title} · ${take.bpm}`} />
      {problem && <Notice problem={{ message: t`The mark is not set: ${problem.message}` }} />}
      {clash && <BothVersions clash={marksInWords(clash, scale, (part) => part === 'mark')} onChosen={settle} />}
      <div className="stage-actions">
        <Button size="lg" onClick={goOn}>
          {more
            ? t`${pair ? pair.names.join(' and ') : child.name} once more`
            : nextChild
              ? t`Next: ${nextChild.name}`
              : t`Ready`}{' '}
          <kbd>{t`space`}</kbd>
        </Button>
        <Button variant="outline-dark" onClick={onAgain}>
          {rich`Again ${<kbd>{again.toUpperCase()}</kbd>}`}
        </Button>
        <Button variant="outline-dark" aria-pressed={byItself} onClick={wait}>
          {byItself ? t`Goes on by itself` : t`Waits for you`} <kbd>H</kbd>
        </Button>
        {!pair && <MarkButtons scale={scale} onMark={give} />}
        <Link to={`/classes/${schoolClass.id}/takes/${take.takeId}`}>{t`Correct the claps`}</Link>
      </div>
      <Result take={take} schoolClass={schoolClass} mark={mark} pair={pair} />
    </div>
  );
}

/** What was heard, of one child or of two. */
function Result({
  take,
  schoolClass,
  mark,
  pair,
}: Pick<ResultProps, 'take' | 'schoolClass' | 'pair'> & { mark: number }) {
  const voice = useMemo(() => voiceOf(schoolClass), [schoolClass]);
  return pair ? (
    <PairResult take={take} voice={voice} marking={schoolClass} pair={pair} />
  ) : (
    <TakeResultView take={take} voice={voice} mark={mark} marking={schoolClass} />
  );
}
