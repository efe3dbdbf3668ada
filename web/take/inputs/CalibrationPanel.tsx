import { useCallback, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import {
  CALIBRATION_CLICKS,
  type Calibration,
  TOO_WIDE,
  type InputMethod,
  calibrationOf,
  storeCalibration,
  storedCalibration,
} from './calibration.ts';
import { type RunningClock, startClicks } from '../../audio/clickClock.ts';
import { useKeys } from '../../ui/useKeys.ts';

const BEAT_SECONDS = 0.6;
const COUNT_IN = 4;
const clicks = Array.from({ length: COUNT_IN + CALIBRATION_CLICKS }, (_, i) => ({
  time: i * BEAT_SECONDS,
  accent: i % 4 === 0,
}));

export interface CalibrationPanelProps {
  readonly way: InputMethod;
  /** Listens to claps instead of taps: called with the running clock, gives what stops it and the claps so far. */
  readonly listen?: (
    clock: RunningClock,
  ) => Promise<{ readonly onsets: () => readonly number[]; readonly stop: () => void }>;
  readonly onDone: () => void;
}

/** Tap along with sixteen clicks: how late does this device hear? Done in fifteen seconds, and again at any time. */
export function CalibrationPanel({ way, listen, onDone }: CalibrationPanelProps) {
  const [running, setRunning] = useState(false);
  const [heard, setHeard] = useState(0);
  const [found, setFound] = useState<Calibration | 'none' | undefined>(() => storedCalibration(way));
  const clock = useRef<RunningClock>(undefined);
  const taps = useRef<number[]>([]);
  const act = way === 'tap' ? 'Tap' : 'Clap';

  const tap = (timeStamp: number) => {
    if (!clock.current || way !== 'tap') return;
    taps.current.push(clock.current.at(timeStamp));
    setHeard(taps.current.length);
  };
  const start = useCallback(async () => {
    taps.current = [];
    setHeard(0);
    setRunning(true);
    const started = await startClicks(clicks);
    clock.current = started;
    const ear = await listen?.(started);
    const look = () => {
      if (clock.current !== started) return;
      if (ear) {
        taps.current = [...ear.onsets()];
        setHeard(taps.current.length);
      }
      if (started.now() < clicks.at(-1)!.time + 1) {
        setTimeout(look, 80);
        return;
      }
      ear?.stop();
      clock.current = undefined;
      setRunning(false);
      const calibration = calibrationOf(
        taps.current,
        clicks.slice(COUNT_IN).map(({ time }) => time),
      );
      if (calibration) storeCalibration(way, calibration);
      setFound(calibration ?? 'none');
    };
    look();
  }, [listen, way]);
  useKeys(running ? { ' ': (event) => tap(event.timeStamp) } : { ' ': () => void start(), Escape: onDone }, [' ']);
  const forget = () => {
    storeCalibration(way, undefined);
    setFound(undefined);
  };

  return (
    <section
      className="card-paper calibration"
      aria-label="Calibrate this device"
      onPointerDown={(event) => running && tap(event.timeStamp)}
    >
      <h2>{act} along with sixteen clicks</h2>
      {running ? (
        <p className="calibration-count" role="status">
          {heard === 0 ? `${act} with the click` : heard}
        </p>
      ) : (
        <p role="status">
          {found === undefined
            ? `Every device hears a little late. ${act} along once, and Clapboard knows by how much.`
            : found === 'none'
              ? `Too few ${way === 'tap' ? 'taps' : 'claps'} came with the click. Try once more, on every click.`
              : wordsOf(found)}
        </p>
      )}
      <div className="stage-actions">
        <Button disabled={running} onClick={() => void start()}>
          {found === undefined ? 'Start' : 'Once more'} <kbd>space</kbd>
        </Button>
        {found !== undefined && found !== 'none' && !running && (
          <Button variant="outline-dark" onClick={forget}>
            Forget it
          </Button>
        )}
        <Button variant="outline-dark" disabled={running} onClick={onDone}>
          Close <kbd>Esc</kbd>
        </Button>
      </div>
    </section>
  );
}

function wordsOf({ delay, spread }: Calibration): string {
  const ms = (seconds: number) => `${Math.round(Math.abs(seconds) * 1000)} ms`;
  const wide =
    spread > TOO_WIDE
      ? ` Your taps were ${ms(spread)} apart from each other: that is too uneven to trust. Try once more, with relaxed hands.`
      : ` Your taps spread by ${ms(spread)}.`;
  return `This device is ${ms(delay)} ${delay >= 0 ? 'late' : 'early'}; that is taken off.${wide}`;
}
