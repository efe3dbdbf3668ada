import { perLanguage, t } from '../../core/words/say.ts';
import { rich } from '../ui/rich.tsx';
import { type PointerEvent, useEffect, useMemo } from 'react';
import Button from 'react-bootstrap/Button';
import { unfold } from '../../core/rhythm/place.ts';
import type { Voice } from '../../core/wording/voice.ts';
import { MovingBeat } from '../ruler/MovingBeat.tsx';
import { Ruler } from '../ruler/Ruler.tsx';
import { type Part, unfoldedParts } from '../../core/rhythm/score.ts';
import { type Pair, PartPads } from './PartPads.tsx';
import { nameOf, useKeys } from '../ui/useKeys.ts';
import type { RunPlan } from './takeRunner.ts';
import type { Limb, Task } from './taken.ts';
import type { TakeRun } from './useTakeRun.ts';

/** What to do on the pad, before the first clap. */
const TASK_WORDS = perLanguage((): Readonly<Record<Task, string>> => ({
  claps: t`Tap!`,
  held: t`Tap and hold!`,
  feet: t`Go!`,
  parts: t`Tap!`,
}));
const TASK_RULES = perLanguage((): Readonly<Record<Task, string>> => ({
  claps: t`Tap with`,
  held: t`Tap, and hold a long note to its end, with`,
  feet: t`Feet on every beat, hands in the rhythm, with`,
  parts: t`Each part at its key:`,
}));

/** Taps of keys, wherever the focus is, and the lifting of keys and fingers. */
function useTaps({ tap, lift, cancel }: Pick<TakeRun, 'tap' | 'lift' | 'cancel'>, task: Task): void {
  const tapKey = (limb: Limb) => (event: KeyboardEvent) => tap(event.timeStamp, limb, nameOf(event));
  const keys = {
    // Of two parts each has its key, and the bar between them none.
    ' ': task === 'parts' ? () => undefined : tapKey('hands'),
    f: tapKey(task === 'feet' ? 'feet' : 'hands'),
    j: tapKey(task === 'parts' ? 'feet' : 'hands'),
  };
  useKeys({ ...keys, Escape: cancel }, [' ', 'f', 'j', 'Escape']);
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
}

interface PlayingProps {
  readonly run: TakeRun;
  readonly plan: RunPlan;
  readonly voice: Voice;
  /** Of a pattern in several parts all of them; and the two that are tapped at once. */
  readonly shown?: ShownParts | undefined;
  readonly pair?: Pair | undefined;
}

/** What stands on the ruler while a part of it is clapped. */
export interface ShownParts {
  readonly parts: readonly Part[];
  /** Indices of those that others have. */
  readonly resting: readonly number[];
}

/** Count-in and take: the rhythm with the moving beat, and the pad. */
export function Playing({ run, plan, voice, shown, pair }: PlayingProps) {
  const { pattern, bpm, method, task } = plan;
  const unfolded = useMemo(() => unfold(pattern), [pattern]);
  const counts = useMemo(() => [voice.counts], [voice]);
  const parts = useMemo(() => shown && unfoldedParts(shown.parts), [shown]);
  useTaps(run, task);
  return (
    <div className="playing">
      <div className="playing-ruler">
        <Ruler
          pattern={parts?.[0]?.pattern ?? unfolded}
          parts={parts}
          {...(shown ? { resting: shown.resting } : {})}
          size="board"
          fit
          counts={counts}
          overlay={(system, layout) => (
            <MovingBeat pattern={unfolded} bpm={bpm} now={run.now} system={system} layout={layout} />
          )}
        />
      </div>
      {pair ? (
        <PartPads run={run} pair={pair} />
      ) : (
        <Pads run={run} asked={method === 'tap' ? TASK_WORDS()[task] : t`Clap!`} task={task} />
      )}
      <div className="stage-actions">
        <span>{method === 'tap' ? <TapRule task={task} /> : t`Clap: the microphone listens`}</span>
        <StageButton onPress={run.finish}>{t`Done`}</StageButton>
        <StageButton onPress={run.cancel}>{rich`Stop ${<kbd>{t`Esc`}</kbd>}`}</StageButton>
      </div>
    </div>
  );
}

/** Keyboard taps come through the space bar, wherever the focus is: it must not press a button too. */
function StageButton({ onPress, children }: { onPress: () => void; children: React.ReactNode }) {
  return (
    <Button variant="outline-dark" onClick={onPress} onKeyDown={(event) => event.key === ' ' && event.preventDefault()}>
      {children}
    </Button>
  );
}

function Pads({ run, asked, task }: { run: TakeRun; asked: string; task: Task }) {
  const press = (limb: Limb) => (event: PointerEvent) => {
    event.preventDefault();
    run.tap(event.timeStamp, limb, String(event.pointerId));
  };
  const waiting = run.state === 'playing' ? (run.taps === 0 ? asked : '') : '…';
  return (
    <div className="pads">
      {task === 'feet' && (
        <div className="pad pad-feet" onPointerDown={press('feet')} data-testid="feet-pad">
          <span className="pad-limb">{rich`Feet ${<kbd>F</kbd>}`}</span>
        </div>
      )}
      <div className="pad" onPointerDown={press('hands')} data-testid="pad" data-beat-one={run.beatOne}>
        <span className="pad-word" role="status">
          {run.word ?? waiting}
        </span>
        {task === 'feet' && <span className="pad-limb">{rich`Hands ${<kbd>J</kbd>}`}</span>}
        {run.level !== undefined && (
          <meter className="pad-level" aria-label={t`Loudness`} max={1} value={Math.sqrt(run.level)} />
        )}
        <span className="pad-taps" aria-hidden>
          {run.taps > 0 ? run.taps : ''}
        </span>
      </div>
    </div>
  );
}

const isTwoKeys = (task: Task) => task === 'feet' || task === 'parts';

function TapRule({ task }: { task: Task }) {
  return (
    <>
      {TASK_RULES()[task]} <kbd>{isTwoKeys(task) ? 'F' : t`space`}</kbd>
      {isTwoKeys(task) && <> {rich`and ${<kbd>J</kbd>}`}</>}
      {t`, a click or a touch`}
    </>
  );
}
