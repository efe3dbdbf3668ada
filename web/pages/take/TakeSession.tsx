import { t } from '../../../core/words/say.ts';
import { useEffect, useMemo } from 'react';
import { useSearchParams } from 'react-router';
import type { SavedPattern } from '../../../contract/pattern.ts';
import type { ClassDetail, ClassSummary } from '../../../contract/schoolClass.ts';
import type { Teacher } from '../../../contract/session.ts';
import { scaleOf } from '../../../core/judging/scale.ts';
import type { Score } from '../../../core/rhythm/score.ts';
import { parseScore } from '../../../core/rhythm/scoreText.ts';
import { partKey } from '../../../core/records/partKey.ts';
import { takeParts } from '../../take/takePart.ts';
import { useTakesPage } from '../../api/takes.ts';
import { CALIBRATE } from '../../take/inputs/calibration.ts';
import { TakeStage } from '../../take/TakeStage.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { useChooseClass } from '../../domain/currentClass.ts';
import { TakeSetup } from './TakeSetup.tsx';
import { NextStepLine } from '../../take/NextStepLine.tsx';
import { nextStepFor } from './nextStepFor.ts';
import { pairOf, shownParts } from './pairs.ts';
import { type Session, useSession } from './useSession.ts';
import '../../take/take.scss';

interface SessionProps {
  readonly teacher: Teacher;
  readonly schoolClass: ClassDetail;
  readonly classes: readonly ClassSummary[];
  readonly patterns: readonly SavedPattern[];
  readonly pattern: SavedPattern;
}

/** A class heard on one pattern after the other. */
export function TakeSession(props: SessionProps) {
  const read = useMemo(() => parseScore(props.pattern.text), [props.pattern.text]);
  if (!read.ok)
    return <Notice problem={{ message: t`This pattern cannot be read. Open it under Patterns and mend its text.` }} />;
  return <ReadableSession {...props} score={read.score} />;
}

/** Before a take its settings, then the take itself and what came of it. */
function ReadableSession(props: SessionProps & { score: Score }) {
  const { classes, patterns, pattern, score } = props;
  const parts = useMemo(() => takeParts(pattern, score), [pattern, score]);
  const [search, setSearch] = useSearchParams();
  const chooseClass = useChooseClass();
  const session = useSession({ ...props, parts, scoreParts: score.parts });
  const { run, again, settings, set } = session;
  const calibrate = search.has(CALIBRATE);
  // Asked for beside a result: what was heard is kept, and the calibration comes before the next take.
  useEffect(() => {
    if (calibrate) again();
    // Only when it is asked for.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [calibrate]);
  if (run.state !== 'ready') return <UnderWay {...props} session={session} />;
  return (
    <TakeSetup
      {...session}
      {...props}
      classes={classes}
      patterns={patterns}
      problem={run.problem ?? session.problem}
      settings={settings}
      onSettings={set}
      onClass={(id) => (again(), chooseClass(id))}
      onPattern={(id) => (again(), setSearch({ ...Object.fromEntries(search), pattern: id }, { replace: true }))}
      onChild={session.setChildId}
      onStart={run.start}
      onPractise={session.practiseOnce}
      onRecording={session.takeRecording}
    />
  );
}

function UnderWay({ schoolClass, pattern, score, session }: SessionProps & { score: Score; session: Session }) {
  const { second, child, chosen } = session;
  const { part } = chosen;
  const shown = useMemo(() => shownParts(score, part, second), [score, part, second]);
  const pair = useMemo(() => second && pairOf(part, child, second), [part, child, second]);
  const { run, plan, nextChild, voice, take, nothing, problem, again, next, set } = session;
  const before = useTakesPage(schoolClass.id, child.id, partKey(pattern.id, part.name)).data?.takes;
  const step = take && !second && before && nextStepFor(before, take, scaleOf(schoolClass));
  const lineOfStep = step && (
    <NextStepLine
      step={step}
      patternId={pattern.id}
      naming={voice.naming}
      to={`/take?child=${child.id}&pattern=${pattern.id}`}
      onSet={(change) => {
        // Feet are tapped: a microphone does not tell them from hands.
        set({ ...change, ...(change.task ? { method: 'tap' } : {}) });
        again();
      }}
    />
  );
  return (
    <>
      {problem && <Notice problem={problem} />}
      <TakeStage
        run={run}
        plan={plan}
        child={child}
        title={second ? pattern.title : part.saved.title}
        shown={shown}
        pair={pair}
        voice={voice}
        take={take}
        nothing={nothing}
        marking={schoolClass}
        nextChild={nextChild}
        takePath={take?.kept ? `/classes/${schoolClass.id}/takes/${take.takeId}` : undefined}
        step={lineOfStep}
        onAgain={again}
        onNext={next}
      />
    </>
  );
}
