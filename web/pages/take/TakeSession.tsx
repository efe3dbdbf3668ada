import { useEffect, useMemo } from 'react';
import { useSearchParams } from 'react-router';
import type { SavedPattern } from '../../../contract/pattern.ts';
import type { ClassDetail, ClassSummary } from '../../../contract/schoolClass.ts';
import type { Teacher } from '../../../contract/session.ts';
import { scaleOf } from '../../../core/judging/scale.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { parseRhythm } from '../../../core/rhythm/text.ts';
import { useTakesPage } from '../../api/takes.ts';
import { CALIBRATE } from '../../take/inputs/calibration.ts';
import { TakeStage } from '../../take/TakeStage.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { useChooseClass } from '../../domain/currentClass.ts';
import { TakeSetup } from './TakeSetup.tsx';
import { NextStepLine } from '../../take/NextStepLine.tsx';
import { nextStepFor } from './nextStepFor.ts';
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
  const read = useMemo(() => parseRhythm(props.pattern.text), [props.pattern.text]);
  if (!read.ok)
    return <Notice problem={{ message: 'This pattern cannot be read. Open it under Patterns and mend its text.' }} />;
  return <ReadableSession {...props} rhythm={read.pattern} />;
}

/** Before a take its settings, then the take itself and what came of it. */
function ReadableSession(props: SessionProps & { rhythm: Pattern }) {
  const { classes, patterns } = props;
  const [search, setSearch] = useSearchParams();
  const chooseClass = useChooseClass();
  const session = useSession(props);
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

function UnderWay({ schoolClass, pattern, session }: SessionProps & { session: Session }) {
  const { run, plan, child, nextChild, voice, take, nothing, problem, again, next, set } = session;
  const before = useTakesPage(schoolClass.id, child.id, pattern.id).data?.takes;
  const step = take && before && nextStepFor(before, take, scaleOf(schoolClass));
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
        title={pattern.title}
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
