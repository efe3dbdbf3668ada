import { counted, t } from '../../../core/words/say.ts';
import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import type { RunningClock } from '../../audio/clickClock.ts';
import { type LiveListener, closeMicrophone, listenLive } from '../../audio/microphone.ts';
import { CalibrationPanel } from './CalibrationPanel.tsx';
import { CLICKS, COUNT_IN, type ClapSource } from './calibrator.ts';

/** Loudest sample of a clap: below it is too soft to stand out, above it the microphone is overdriven. */
const TOO_SOFT = 0.04;
const TOO_LOUD = 0.97;
const LOOK_MS = 100;

type Check =
  | { readonly kind: 'asking' }
  | { readonly kind: 'off' }
  | { readonly kind: 'on' }
  | { readonly kind: 'problem'; readonly problem: Error };

/** The microphone being tried: asked for, and how loud it hears. */
function useMicrophoneCheck(paused: boolean) {
  const [check, setCheck] = useState<Check>({ kind: 'off' });
  const [loudest, setLoudest] = useState(0);
  const [level, setLevel] = useState(0);
  const live = useRef<LiveListener>(undefined);
  useEffect(
    () => () => {
      live.current?.stop();
      void closeMicrophone();
    },
    [],
  );
  useEffect(() => {
    if (check.kind !== 'on' || paused) return undefined;
    const timer = setInterval(() => {
      const now = live.current?.level() ?? 0;
      setLevel(now);
      if ((live.current?.onsets().length ?? 0) > 0) setLoudest((before) => Math.max(before, now));
    }, LOOK_MS);
    return () => clearInterval(timer);
  }, [check, paused]);
  const ask = async () => {
    setCheck({ kind: 'asking' });
    setLoudest(0);
    try {
      live.current?.stop();
      live.current = await listenLive();
      setCheck({ kind: 'on' });
    } catch (problem) {
      setCheck({ kind: 'problem', problem: problem as Error });
    }
  };
  return { check, loudest, level, ask };
}

/** What one clap says of the place of the microphone. */
function verdictOn(loudest: number): string {
  if (loudest === 0) return t`Clap once.`;
  if (loudest < TOO_SOFT) return t`Too soft: come closer, or turn the microphone up.`;
  return loudest > TOO_LOUD ? t`Too loud: go further away, or turn the microphone down.` : t`Good.`;
}

function offText(check: Check): string {
  if (check.kind === 'problem') return check.problem.message;
  if (check.kind === 'asking') return t`Waiting for the browser …`;
  return t`The browser will ask whether this page may use the microphone. The sound is listened
      to here, on this device, and goes nowhere.`;
}

function keptText(days: number | null): string {
  if (days === null) return t`No sound is kept.`;
  return t`This class keeps recordings for ${counted(days, 'day')}; then they are deleted.`;
}

interface MicrophonePanelProps {
  readonly keeps: number | null;
  /** The calibration was asked for. */
  readonly calibrate?: boolean | undefined;
  readonly onTap: () => void;
}

/** Explains, asks for the microphone, and hears one clap to see whether it is loud enough. */
export function MicrophonePanel({ keeps, calibrate = false, onTap }: MicrophonePanelProps) {
  const [calibrating, setCalibrating] = useState(calibrate);
  const { check, loudest, level, ask } = useMicrophoneCheck(calibrating);
  if (calibrating)
    return <CalibrationPanel method="microphone" listen={listenWith} onDone={() => setCalibrating(false)} />;
  const on = check.kind === 'on';
  return (
    <section className="card-paper microphone" aria-label={t`Microphone`}>
      {on ? (
        <>
          <p className="microphone-verdict" role="status">
            {verdictOn(loudest)}
          </p>
          <Level level={level} />
        </>
      ) : (
        <p role="status">{offText(check)}</p>
      )}
      <p className="caution">{keptText(keeps)}</p>
      <div className="stage-actions">
        <Button variant="outline-dark" disabled={check.kind === 'asking'} onClick={() => void ask()}>
          {on ? t`Clap once more` : t`Use the microphone`}
        </Button>
        {on && <Button variant="outline-dark" onClick={() => setCalibrating(true)}>{t`Calibrate with claps`}</Button>}
        <Button variant="outline-dark" onClick={onTap}>{t`Tap instead`}</Button>
      </div>
    </section>
  );
}

function Level({ level }: { level: number }) {
  return (
    <div
      className="level"
      role="meter"
      aria-label={t`Loudness`}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(level * 100)}
    >
      <span style={{ width: `${Math.min(100, Math.round(Math.sqrt(level) * 100))}%` }} />
    </div>
  );
}

/** For calibrating: claps by the clock of the clicks. */
async function listenWith({ atContext, contextTime }: RunningClock): Promise<ClapSource> {
  const times = contextTime ? CLICKS.map(({ time }) => contextTime(time)) : [];
  const live = await listenLive({ times, countIn: COUNT_IN });
  return { onsets: () => (atContext ? live.onsets().map(atContext) : []), stop: live.stop };
}
