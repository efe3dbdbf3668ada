import { useCallback, useEffect, useRef, useState } from 'react';
import { type HearTimes, hearTimes } from '../../core/ear/hearTimes.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import type { Struck } from '../../core/sound/sounds.ts';
import { type RunningClock, startClicks } from './clickClock.ts';

/** What is going on: the beats that lead in, the app's claps, the class's own turn. */
export type HearState = 'quiet' | 'count-in' | 'listen' | 'turn';

export interface HearMoment {
  readonly state: HearState;
  /** The count-in word, or which time it is heard, from 1. */
  readonly word?: string | undefined;
  readonly play?: number | undefined;
}

const QUIET: HearMoment = { state: 'quiet' };

function momentAt({ words, plays, turn, end }: HearTimes, now: number): HearMoment {
  if (now >= end) return QUIET;
  if (turn !== undefined && now >= turn - 0.02) return { state: 'turn' };
  const play = plays.findLastIndex((start) => now >= start - 0.02) + 1;
  if (play === 0) return { state: 'count-in', word: words.findLast(({ time }) => time <= now)?.word };
  return { state: 'listen', play };
}

export interface Hearing {
  readonly moment: HearMoment;
  /** Seconds from beat 1 of the turn, or of the last time through; undefined where nothing is heard. */
  readonly now: () => number | undefined;
  readonly hear: (pattern: Pattern, bpm: number, how: HearHow) => Promise<void>;
  readonly stop: () => void;
}

export interface HearHow {
  readonly plays: number;
  readonly turn: boolean;
  /** Parts that sound beside it, and the sound it has among them. */
  readonly beside?:
    | { readonly own: Struck; readonly others: readonly { pattern: Pattern; struck: Struck }[] }
    | undefined;
  /** Told when the sound has started, and when all is over. */
  readonly onStart?: (clock: RunningClock, times: HearTimes) => void;
  readonly onEnd?: () => void;
}

/** Plays patterns as claps over the beat, and says where that stands. One at a time; another one takes its place. */
export function useHear(): Hearing {
  const [moment, setMoment] = useState(QUIET);
  const running = useRef<{ clock: RunningClock; frame: number }>(undefined);
  const asked = useRef(0);
  const stop = useCallback(() => {
    asked.current++;
    if (running.current) {
      cancelAnimationFrame(running.current.frame);
      running.current.clock.stop();
    }
    running.current = undefined;
    setMoment(QUIET);
  }, []);
  useEffect(() => stop, [stop]);
  const hear = useCallback(
    async (pattern: Pattern, bpm: number, { plays, turn, beside, onStart, onEnd }: HearHow) => {
      stop();
      const turnNumber = asked.current;
      const times = hearTimes(pattern, bpm, plays, turn);
      const struck = beside?.own ?? 'clap';
      const others = (beside?.others ?? []).flatMap((other) =>
        hearTimes(other.pattern, bpm, plays, turn).claps.map((time) => ({ time, struck: other.struck })),
      );
      const all = [...times.claps.map((time) => ({ time, struck })), ...others].sort((a, b) => a.time - b.time);
      const clock = await startClicks(times.beats, all);
      if (turnNumber !== asked.current) {
        clock.stop();
        return;
      }
      const own = { clock, frame: 0 };
      running.current = own;
      onStart?.(clock, times);
      let shown = '';
      const look = () => {
        const next = momentAt(times, clock.now());
        const key = JSON.stringify(next);
        if (key !== shown) setMoment(next);
        shown = key;
        if (next.state !== 'quiet') {
          own.frame = requestAnimationFrame(look);
          return;
        }
        running.current = undefined;
        onEnd?.();
      };
      look();
    },
    [stop],
  );
  const now = useCallback(() => running.current?.clock.now(), []);
  return { moment, now, hear, stop };
}
