import { type PointerEvent, type ReactNode, useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import type { Child } from '../../contract/school.ts';
import type { CountOptions } from '../../core/counting/count.ts';
import type { MarkBorder } from '../../core/judging/mark.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { Link } from 'react-router';
import { MovingBeat } from '../ruler/MovingBeat.tsx';
import { Ruler } from '../ruler/Ruler.tsx';
import { nameOf, useKeys } from '../ui/useKeys.ts';
import { type JudgedTake, TakeResultView } from './TakeResultView.tsx';
import type { Limb, TakeRun, Task, HeardBy } from './useTakeRun.ts';

export type StageTake = JudgedTake & { readonly mark: number; readonly kept: boolean; readonly takeId: string };

interface StageProps {
  readonly run: TakeRun;
  readonly way: HeardBy;
  readonly task: Task;
  readonly child: Child;
  readonly title: string;
  readonly pattern: Pattern;
  readonly bpm: number;
  readonly counts: readonly CountOptions[];
  readonly take: StageTake | undefined;
  readonly borders: readonly MarkBorder[] | null | undefined;
  readonly nextChild: Child | undefined;
  /** Where the take is found once it is stored. */
  readonly takePath: string | undefined;
  /** What comes next for this child with this pattern. */
  readonly step: ReactNode;
  readonly onAgain: () => void;
  readonly onNext: () => void;
}

/** From the count-in to the result: what the child sees. */
export function Stage({
  run,
  way,
  task,
  child,
  title,
  pattern,
  bpm,
  counts,
  take,
  borders,
  takePath,
  step,
  nextChild,
  onAgain,
  onNext,
}: StageProps) {
  return (
    <div className="stage">
      <div className="page-head">
        <h1>{child.name}</h1>
        <span className="stage-title">
          {title} · {bpm}
        </span>
      </div>
      {run.state === 'done' ? (
        take && (
          <Done
            take={take}
            counts={counts}
            borders={borders}
            takePath={takePath}
            step={step}
            nextChild={nextChild}
            onAgain={onAgain}
            onNext={onNext}
          />
        )
      ) : (
        <Playing run={run} pattern={pattern} bpm={bpm} counts={counts} way={way} task={task} />
      )}
    </div>
  );
}

/** What to do on the pad, before the first clap. */
const TASK_WORDS: Readonly<Record<Task, string>> = { claps: 'Tap!', held: 'Tap and hold!', feet: 'Go!' };
const TASK_RULES: Readonly<Record<Task, string>> = {
  claps: 'Tap with',
  held: 'Tap, and hold a long note to its end, with',
  feet: 'Feet on every beat, hands in the rhythm, with',
};

function Playing({
  run,
  pattern,
  bpm,
  counts,
  way,
  task,
}: Pick<StageProps, 'run' | 'pattern' | 'bpm' | 'counts' | 'way' | 'task'>) {
  const tapKey = (limb: Limb) => (event: KeyboardEvent) => run.tap(event.timeStamp, limb, nameOf(event));
  useKeys(
    { ' ': tapKey('hands'), f: tapKey(task === 'feet' ? 'feet' : 'hands'), j: tapKey('hands'), Escape: run.cancel },
    [' ', 'f', 'j', 'Escape'],
  );
  const { lift } = run;
  useEffect(() => {
    const up = (event: KeyboardEvent) => lift(event.timeStamp, nameOf(event));
    const off = (event: globalThis.PointerEvent) => lift(event.timeStamp, String(event.pointerId));
    addEventListener('keyup', up);
    addEventListener('pointerup', off);
    addEventListener('pointercancel', off);
    return () => {
      removeEventListener('keyup', up);
      removeEventListener('pointerup', off);
      removeEventListener('pointercancel', off);
    };
  }, [lift]);
  const press = (limb: Limb) => (event: PointerEvent) => {
    event.preventDefault();
    run.tap(event.timeStamp, limb, String(event.pointerId));
  };
  const asked = way === 'tap' ? TASK_WORDS[task] : 'Clap!';
  return (
    <>
      <Ruler
        pattern={pattern}
        counts={counts}
        overlay={(system, layout) => (
          <MovingBeat pattern={pattern} bpm={bpm} now={run.now} system={system} layout={layout} />
        )}
      />
      {/* Keyboard taps come through the space bar, wherever the focus is. */}
      <div className="pads">
        {task === 'feet' && (
          <div className="pad pad-feet" onPointerDown={press('feet')} data-testid="feet-pad">
            <span className="pad-limb">
              Feet <kbd>F</kbd>
            </span>
          </div>
        )}
        <div className="pad" onPointerDown={press('hands')} data-testid="pad" data-beat-one={run.beatOne}>
          <span className="pad-word" role="status">
            {run.word ?? (run.state === 'playing' ? (run.taps === 0 ? asked : '') : '…')}
          </span>
          {task === 'feet' && (
            <span className="pad-limb">
              Hands <kbd>J</kbd>
            </span>
          )}
          <span className="pad-taps" aria-hidden>
            {run.taps > 0 ? run.taps : ''}
          </span>
        </div>
      </div>
      <div className="stage-actions">
        <span>
          {way === 'tap' ? (
            <>
              {TASK_RULES[task]} <kbd>{task === 'feet' ? 'F' : 'space'}</kbd>
              {task === 'feet' && (
                <>
                  {' '}
                  and <kbd>J</kbd>
                </>
              )}
              , a click or a touch
            </>
          ) : (
            'Clap: the microphone listens'
          )}
        </span>
        <Button
          variant="outline-dark"
          onClick={run.finish}
          onKeyDown={(event) => event.key === ' ' && event.preventDefault()}
        >
          Done
        </Button>
        <Button
          variant="outline-dark"
          onClick={run.cancel}
          onKeyDown={(event) => event.key === ' ' && event.preventDefault()}
        >
          Stop <kbd>Esc</kbd>
        </Button>
      </div>
    </>
  );
}

/** Taps that come after the end must not skip the result: keys work only after this moment. */
const HOLD_MS = 900;

function Done({
  take,
  counts,
  borders,
  takePath,
  step,
  nextChild,
  onAgain,
  onNext,
}: Pick<StageProps, 'counts' | 'borders' | 'takePath' | 'step' | 'nextChild' | 'onAgain' | 'onNext'> & {
  take: StageTake;
}) {
  const [from] = useState(() => performance.now() + HOLD_MS);
  const held = (action: () => void) => (event: KeyboardEvent) => {
    if (event.timeStamp > from) action();
  };
  useKeys({ ' ': held(onNext), a: held(onAgain) });
  useEffect(() => void scrollTo({ top: 0 }), []);
  return (
    <>
      {!take.kept && <p className="practice-note">This was the practice child: nothing of it is kept.</p>}
      <TakeResultView take={take} counts={counts} mark={take.mark} borders={borders} />
      {step}
      <div className="stage-actions">
        <Button size="lg" onClick={onNext}>
          {nextChild ? `Next: ${nextChild.name}` : 'Ready'} <kbd>space</kbd>
        </Button>
        <Button size="lg" variant="outline-dark" onClick={onAgain}>
          Again <kbd>A</kbd>
        </Button>
        {takePath && (
          <Link className="btn btn-outline-dark" to={takePath}>
            Correct the claps, or the mark
          </Link>
        )}
      </div>
    </>
  );
}
