import { t } from '../../../core/words/say.ts';
import { useCallback, useLayoutEffect, useMemo, useRef } from 'react';
import { scoreTimetable } from '../../../core/leading/timetable.ts';
import { parseScore } from '../../../core/rhythm/scoreText.ts';
import { voiceOf } from '../../../core/wording/voice.ts';
import { useCurrentClass } from '../../domain/currentClass.ts';
import { BoardRuler } from '../../leading/BoardRuler.tsx';
import { ClassView } from '../../leading/ClassView.tsx';
import { type Told, deviceNow, timeNow, useTold } from '../../leading/secondWindow.ts';
import { useFullScreen } from '../../ui/useFullScreen.ts';
import { useKeys } from '../../ui/useKeys.ts';
import './show.scss';

/** The window for the class: what the teacher's window shows, without anything to press. */
export default function ShowPage() {
  const told = useTold();
  const { element, toggle } = useFullScreen();
  useKeys({ f: toggle });
  return (
    <div className="show" ref={element}>
      {!told && (
        <p className="show-waits" role="status">
          {t`Open a pattern on the board, or lead one, in the other window: it is shown
            here. F fills the screen.`}
        </p>
      )}
      {told?.kind === 'board' && (
        <>
          <h1>{told.title}</h1>
          <div className="show-ruler ruler-card">
            <BoardRuler text={told.text} />
          </div>
        </>
      )}
      {told?.kind === 'lead' && <Run told={told} />}
    </div>
  );
}

const nothing = () => undefined;

/** A run, by the timetable that the other window has too. */
function Run({ told }: { readonly told: Extract<Told, { kind: 'lead' }> }) {
  const { text, brackets, state, moment, rate, covered, turned, turn } = told;
  const currentClass = useCurrentClass();
  const voice = useMemo(() => voiceOf(currentClass), [currentClass]);
  const counts = useMemo(() => [voice.counts], [voice]);
  // Told anew with every beat, it is the same plan.
  const planText = JSON.stringify(told.plan);
  const led = useMemo(() => {
    const read = parseScore(text);
    const plan = JSON.parse(planText) as typeof told.plan;
    const made = read.ok ? scoreTimetable(read.score, plan, voice.counts) : undefined;
    return read.ok && made?.ok ? { score: read.score, plan, table: made.timetable } : undefined;
  }, [text, planText, voice]);
  const latest = useRef(told);
  useLayoutEffect(() => {
    latest.current = told;
  }, [told]);
  const now = useCallback(() => timeNow(latest.current, deviceNow()), []);
  if (!led) return null;
  return (
    <>
      <h1 className="visually-hidden">{t`Lead`}</h1>
      <ClassView
        {...led}
        {...{ counts, voice, state, moment, rate, now, brackets, covered, turned, turn }}
        onMeasure={nothing}
      />
    </>
  );
}
