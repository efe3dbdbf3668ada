import { useCallback, useEffect, useRef, useState } from 'react';
import { echoRound } from '../../../core/ear/echoRound.ts';
import { countIn } from '../../../core/leading/countIn.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { pulsesOf } from '../../../core/timing/pulses.ts';
import { type RunningClock, startClicks } from '../../audio/clickClock.ts';
import type { RoomClock } from '../../room/roomClock.ts';

interface BoardRun {
  readonly pattern: Pattern;
  readonly bpm: number;
  readonly echo: boolean;
  /** Beat 1 on the room's clock; null before the start. */
  readonly startsAt: number | null;
  readonly clock: RoomClock | undefined;
}

const LOOK_MS = 40;

/** The board in step with the devices: the same clicks at the same moment, and the same beat on the ruler. */
export function useBoardRun({ pattern, bpm, echo, startsAt, clock }: BoardRun) {
  const running = useRef<RunningClock>(undefined);
  const [word, setWord] = useState<string>();
  useEffect(() => {
    const at = startsAt === null ? undefined : clock?.here(startsAt);
    if (at === undefined) return undefined;
    const words = countIn(pattern, bpm);
    const beats = [
      ...words,
      ...pulsesOf(pattern, bpm).map(({ time, accent }) => ({ time, accent: accent === 'measure' })),
    ];
    const sounds = echo ? echoRound(pattern, bpm).sounds : [];
    let gone = false;
    let timer: ReturnType<typeof setTimeout> | undefined;
    void startClicks(beats, sounds, at).then((own) => {
      if (gone) return own.stop();
      running.current = own;
      const look = () => {
        const now = own.now();
        setWord(now < 0 ? words.findLast(({ time }) => time <= now)?.word : undefined);
        if (now < 0) timer = setTimeout(look, LOOK_MS);
      };
      look();
      return undefined;
    });
    return () => {
      gone = true;
      clearTimeout(timer);
      running.current?.stop();
      running.current = undefined;
    };
  }, [pattern, bpm, echo, startsAt, clock]);
  return { word, now: useCallback(() => running.current?.now(), []) };
}
