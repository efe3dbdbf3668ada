import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { type LiveListener, closeMicrophone, listenLive } from '../../audio/microphone.ts';
import type { RunningClock } from '../../audio/clickClock.ts';
import { CalibrationPanel } from './CalibrationPanel.tsx';

/** Loudest sample of a clap: below it is too soft to stand out, above it the microphone is overdriven. */
const TOO_SOFT = 0.04;
const TOO_LOUD = 0.97;

type Check =
  | { readonly kind: 'asking' }
  | { readonly kind: 'off' }
  | { readonly kind: 'on' }
  | { readonly kind: 'problem'; readonly problem: Error };

/** Explains, asks for the microphone, and hears one clap to see whether it is loud enough. */
export function MicrophonePanel({ keeps, onTap }: { keeps: number | null; onTap: () => void }) {
  const [check, setCheck] = useState<Check>({ kind: 'off' });
  const [loudest, setLoudest] = useState(0);
  const [level, setLevel] = useState(0);
  const [calibrating, setCalibrating] = useState(false);
  const ear = useRef<LiveListener>(undefined);
  useEffect(
    () => () => {
      ear.current?.stop();
      void closeMicrophone();
    },
    [],
  );
  useEffect(() => {
    if (check.kind !== 'on' || calibrating) return undefined;
    const timer = setInterval(() => {
      const now = ear.current?.level() ?? 0;
      setLevel(now);
      if ((ear.current?.onsets().length ?? 0) > 0) setLoudest((before) => Math.max(before, now));
    }, 100);
    return () => clearInterval(timer);
  }, [check, calibrating]);
  const ask = async () => {
    setCheck({ kind: 'asking' });
    setLoudest(0);
    try {
      ear.current?.stop();
      ear.current = await listenLive();
      setCheck({ kind: 'on' });
    } catch (problem) {
      setCheck({ kind: 'problem', problem: problem as Error });
    }
  };
  const verdict =
    loudest === 0
      ? 'Clap once.'
      : loudest < TOO_SOFT
        ? 'Too soft: come closer, or turn the microphone up.'
        : loudest > TOO_LOUD
          ? 'Too loud: go further away, or turn the microphone down.'
          : 'Good.';
  if (calibrating)
    return <CalibrationPanel way="microphone" listen={listenWith} onDone={() => setCalibrating(false)} />;
  return (
    <section className="card-paper microphone" aria-label="Microphone">
      {check.kind === 'on' ? (
        <>
          <p className="microphone-verdict" role="status">
            {verdict}
          </p>
          <div
            className="level"
            role="meter"
            aria-label="Loudness"
            aria-valuemin={0}
            aria-valuemax={100}
            aria-valuenow={Math.round(level * 100)}
          >
            <span style={{ width: `${Math.min(100, Math.round(Math.sqrt(level) * 100))}%` }} />
          </div>
        </>
      ) : (
        <p role="status">
          {check.kind === 'problem'
            ? check.problem.message
            : check.kind === 'asking'
              ? 'Waiting for the browser …'
              : 'The browser will ask whether this page may use the microphone. The sound is listened to here, on this device, and goes nowhere.'}
        </p>
      )}
      <p className="caution">
        {keeps === null
          ? 'No sound is kept.'
          : `This class keeps recordings for ${keeps} ${keeps === 1 ? 'day' : 'days'}; then they are deleted.`}
      </p>
      <div className="stage-actions">
        {check.kind !== 'on' && (
          <Button variant="outline-dark" disabled={check.kind === 'asking'} onClick={() => void ask()}>
            Use the microphone
          </Button>
        )}
        {check.kind === 'on' && (
          <>
            <Button variant="outline-dark" onClick={() => void ask()}>
              Clap once more
            </Button>
            <Button variant="outline-dark" onClick={() => setCalibrating(true)}>
              Calibrate with claps
            </Button>
          </>
        )}
        <Button variant="outline-dark" onClick={onTap}>
          Tap instead
        </Button>
      </div>
    </section>
  );
}

/** For calibrating: claps by the clock of the clicks. */
async function listenWith(clock: RunningClock): Promise<{ onsets: () => readonly number[]; stop: () => void }> {
  const ear = await listenLive();
  const { atContext } = clock;
  return { onsets: () => (atContext ? ear.onsets().map(atContext) : []), stop: ear.stop };
}
