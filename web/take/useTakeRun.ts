import { useEffect, useMemo, useSyncExternalStore } from 'react';
import { startClicks } from '../audio/clickClock.ts';
import { listenLive, readyToListen } from '../audio/microphone.ts';
import { useAskBeforeLeaving } from '../ui/useAskBeforeLeaving.ts';
import { useLatest } from '../ui/useLatest.ts';
import { deviceDelay } from './inputs/calibration.ts';
import { type RunDevices, type RunMoment, type RunPlan, TakeRunner } from './takeRunner.ts';
import type { Taken } from './taken.ts';

const DEVICES: RunDevices = {
  startClicks,
  readyToListen,
  listenLive,
  delay: deviceDelay,
  pageTime: () => performance.now(),
  later: (action, ms) => void setTimeout(action, ms),
};

const isRunning = (state: RunMoment['state']) => state === 'count-in' || state === 'playing';

/** A run as components see it. */
export type TakeRun = RunMoment &
  Pick<TakeRunner, 'start' | 'tap' | 'lift' | 'finish' | 'cancel' | 'showResult' | 'now'>;

/**
 * The run of one take; another plan is another run.
 * @param onProgress  told what there is so far, after every clap
 */
export function useTakeRun(
  plan: RunPlan,
  onDone: (taken: Taken) => void,
  onProgress: (taken: Taken) => void = () => {},
): TakeRun {
  const done = useLatest(onDone);
  const progress = useLatest(onProgress);
  const { pattern, bpm, method, task, free, halfClick = false, keepSound, others } = plan;
  const runner = useMemo(
    () => new TakeRunner({ pattern, bpm, method, task, free, halfClick, keepSound, others }, DEVICES, done, progress),
    [pattern, bpm, method, task, free, halfClick, keepSound, others, done, progress],
  );
  useEffect(() => () => runner.cancel(), [runner]);
  const running = useSyncExternalStore(runner.subscribe, () => isRunning(runner.moment().state));
  useAskBeforeLeaving(running);
  const moment = useSyncExternalStore(runner.subscribe, runner.moment);
  const { start, tap, lift, finish, cancel, showResult, now } = runner;
  return { ...moment, start, tap, lift, finish, cancel, showResult, now };
}
