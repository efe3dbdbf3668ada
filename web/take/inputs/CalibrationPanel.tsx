import { t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { useCallback, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { type RunningClock, startClicks } from '../../audio/clickClock.ts';
import { readyToListen } from '../../audio/microphone.ts';
import { useKeys } from '../../ui/useKeys.ts';
import { type Calibration, type InputMethod, TOO_WIDE, storeCalibration, storedCalibration } from './calibration.ts';
import { Calibrator, type ClapSource } from './calibrator.ts';

export interface CalibrationPanelProps {
  readonly method: InputMethod;
  /** Listens to claps instead of taps. */
  readonly listen?: (clock: RunningClock) => Promise<ClapSource>;
  readonly onDone: () => void;
}

type Found = Calibration | 'none' | undefined;

/** A measurement that can be made again and again. */
function useCalibrator(method: InputMethod, listen: CalibrationPanelProps['listen']) {
  const [heard, setHeard] = useState<number>();
  const [found, setFound] = useState<Found>(() => storedCalibration(method));
  const running = useRef<Calibrator>(undefined);
  const start = useCallback(async () => {
    setHeard(0);
    running.current = new Calibrator({
      startClicks,
      listen,
      ready: readyToListen,
      later: (action, ms) => void setTimeout(action, ms),
    });
    const calibration = await running.current.run(setHeard);
    running.current = undefined;
    setHeard(undefined);
    if (calibration) storeCalibration(method, calibration);
    setFound(calibration ?? 'none');
  }, [listen, method]);
  const tap = (timeStamp: number) => {
    if (running.current && !listen) setHeard(running.current.tap(timeStamp));
  };
  const forget = () => {
    storeCalibration(method, undefined);
    setFound(undefined);
  };
  return { heard, found, start, tap, forget };
}

/** Tap along with sixteen clicks: how late does this device hear? Done in fifteen seconds, and again at any time. */
export function CalibrationPanel({ method, listen, onDone }: CalibrationPanelProps) {
  const { heard, found, start, tap, forget } = useCalibrator(method, listen);
  const running = heard !== undefined;
  const act = method === 'tap' ? t`Tap` : t`Clap`;
  const keys = { ' ': () => void start(), Escape: onDone };
  useKeys(running ? { ' ': (event) => tap(event.timeStamp) } : keys, [' ']);
  return (
    <section
      className="card-paper calibration"
      aria-label={t`Calibrate this device`}
      onPointerDown={(event) => running && tap(event.timeStamp)}
    >
      <h2>{t`${act} along with sixteen clicks`}</h2>
      {running ? (
        <p className="calibration-count" role="status">
          {heard === 0 ? t`${act} with the click` : heard}
        </p>
      ) : (
        <p role="status">{foundText(found, method)}</p>
      )}
      <div className="stage-actions">
        <Button disabled={running} onClick={() => void start()}>
          {found === undefined ? t`Start` : t`Once more`} <kbd>{t`space`}</kbd>
        </Button>
        {found !== undefined && found !== 'none' && !running && (
          <Button variant="outline-dark" onClick={forget}>{t`Forget it`}</Button>
        )}
        <Button variant="outline-dark" disabled={running} onClick={onDone}>
          {rich`Close ${<kbd>{t`Esc`}</kbd>}`}
        </Button>
      </div>
    </section>
  );
}

const ms = (seconds: number) => t`${Math.round(Math.abs(seconds) * 1000)} ms`;

function foundText(found: Found, method: InputMethod): string {
  const act = method === 'tap' ? t`Tap` : t`Clap`;
  if (found === undefined)
    return t`Every device hears a little late. ${act} along once, and Clapboard knows by how much.`;
  if (found === 'none') return t`Too few ${act.toLowerCase()}s came with the click. Try once more, on every click.`;
  const { delay, spread } = found;
  const wide =
    spread > TOO_WIDE
      ? t` Your taps were ${ms(spread)} apart from each other: that is too uneven to trust.
        Try once more, with relaxed hands.`
      : t` Your taps spread by ${ms(spread)}.`;
  const off = ms(delay);
  return delay >= 0
    ? t`This device is ${off} late; that is taken off.${wide}`
    : t`This device is ${off} early; that is taken off.${wide}`;
}
