import { useRef, useState } from 'react';
import type { HearTimes } from '../../../core/ear/hearTimes.ts';
import { type Together, heardTogether } from '../../../core/ear/together.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import type { RunningClock } from '../../audio/clickClock.ts';
import { type LiveListener, listenLive, readyToListen } from '../../audio/microphone.ts';

/** Claps from so long before beat 1 on belong to the turn: a class that is early is heard too. */
const EARLY = 0.3;
/** A clap is known some hundredths of a second after it was heard. */
const HEARD_AFTER_MS = 350;

/** Hears a whole class clap a pattern back, while the beat goes on. */
export function useClassMicrophone(pattern: Pattern, bpm: number) {
  const [heard, setHeard] = useState<Together>();
  const [problem, setProblem] = useState<Error>();
  const live = useRef<{ listener: LiveListener; clock: RunningClock }>(undefined);
  /** Before the first click; where there is no microphone, the class claps all the same. */
  const ready = () => {
    setProblem(undefined);
    return readyToListen().catch((error: unknown) => setProblem(error as Error));
  };
  const begin = (clock: RunningClock, { beats, words }: HearTimes) => {
    setHeard(undefined);
    const toContext = clock.contextTime;
    if (!toContext) return;
    // What the app claps itself is over when the class begins; its clicks go on.
    listenLive({ times: beats.map(({ time }) => toContext(time)), countIn: words.length })
      .then((listener) => (live.current = { listener, clock }))
      .catch((error: unknown) => setProblem(error as Error));
  };
  const end = () => {
    const listening = live.current;
    live.current = undefined;
    if (!listening) return;
    setTimeout(() => {
      const { listener, clock } = listening;
      void listener.finish().then(({ onsets }) => {
        const times = onsets.map((time) => clock.atContext?.(time) ?? 0).filter((time) => time >= -EARLY);
        setHeard(heardTogether(pattern, bpm, times));
      });
    }, HEARD_AFTER_MS);
  };
  const stop = () => {
    live.current?.listener.stop();
    live.current = undefined;
  };
  return { heard, problem, ready, begin, end, stop };
}
