import { t } from '../../../../core/words/say.ts';
import { useEffect, useState } from 'react';
import { type LiveListener, listenLive } from '../../../audio/microphone.ts';
import { useLatest } from '../../../ui/useLatest.ts';

/** The child needs so long at least to come to the front. */
const COMING_MS = 3_000;
/** So long it must be quiet. */
const QUIET_MS = 1_200;
const LOOK_MS = 100;
/** Quiet is no louder than this, or than a little more than the quietest moment of this room. */
const QUIET_LEVEL = 0.03;
const OVER_QUIETEST = 2.5;

/**
 * Tells when the room is quiet: whoever looks gives the level of each moment and the time in milliseconds.
 * @returns true once it has been quiet for long enough
 */
export function quietWatch(): (level: number, now: number) => boolean {
  let quietest = Infinity;
  let begun: number | undefined;
  let quietSince: number | undefined;
  return (level, now) => {
    begun ??= now;
    quietest = Math.min(quietest, level);
    const quiet = level <= Math.max(QUIET_LEVEL, quietest * OVER_QUIETEST);
    quietSince = quiet ? (quietSince ?? now) : undefined;
    return now - begun >= COMING_MS && quietSince !== undefined && now - quietSince >= QUIET_MS;
  };
}

/** Listens while `on`, and calls once when the room has become quiet. @returns why it cannot listen */
export function useQuiet(on: boolean, onQuiet: () => void): Error | undefined {
  const [problem, setProblem] = useState<Error>();
  const quiet = useLatest(onQuiet);
  useEffect(() => {
    if (!on) return undefined;
    let [live, gone]: [LiveListener | undefined, boolean] = [undefined, false];
    const isQuiet = quietWatch();
    const stop = () => {
      gone = true;
      clearInterval(timer);
      live?.stop();
    };
    const timer = setInterval(() => {
      if (!live || gone) return;
      if (live.gone()) {
        stop();
        setProblem(new Error(t`The microphone gives no sound. Plug it in or wake it, or count in by space.`));
        return;
      }
      if (!isQuiet(live.level(), performance.now())) return;
      stop();
      quiet();
    }, LOOK_MS);
    listenLive()
      .then((listener) => (gone ? listener.stop() : (live = listener)))
      .catch((error: unknown) => gone || setProblem(error as Error));
    return stop;
  }, [on, quiet]);
  return problem;
}
