import { useCallback, useEffect, useRef, useState } from 'react';
import { expectedOf } from '../../../core/judging/expected.ts';
import { type CountInBeat, beatsOf, countIn } from '../../../core/leading/countIn.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { storedCalibration } from '../../audio/calibration.ts';
import { type RunningClock, startClicks } from '../../audio/clickClock.ts';

export type RunState = 'ready' | 'count-in' | 'playing' | 'done';

/** Taps count from so many beats before the first note. */
const LISTEN_BEFORE = 1;
/** The run is over so long after the last written time: time for a late last clap. */
const AFTER_BEATS = 1;
const AFTER_SECONDS = 0.4;

export interface TakeRun {
  readonly state: RunState;
  /** The count-in word of this moment. */
  readonly word: string | undefined;
  readonly taps: number;
  readonly start: () => void;
  readonly tap: (timeStamp: number) => void;
  /** Ends now and judges what there is. */
  readonly finish: () => void;
  readonly cancel: () => void;
  /** Goes straight to the result: it came from elsewhere. */
  readonly show: () => void;
  /** Seconds from beat 1 of measure 1; undefined when nothing runs. */
  readonly now: () => number | undefined;
}

/** Counts in, clicks and collects taps for one take. `onDone` gets the onsets, in seconds from beat 1 of measure 1. */
export function useTakeRun(pattern: Pattern | undefined, bpm: number, onDone: (onsets: number[]) => void): TakeRun {
  const [state, setState] = useState<RunState>('ready');
  const [word, setWord] = useState<string>();
  const [taps, setTaps] = useState(0);
  const clock = useRef<RunningClock>(undefined);
  const onsets = useRef<number[]>([]);
  const running = useRef(false);
  const done = useRef(onDone);
  useEffect(() => {
    done.current = onDone;
  });

  const stop = useCallback((next: RunState) => {
    running.current = false;
    clock.current?.stop();
    clock.current = undefined;
    setWord(undefined);
    setState(next);
  }, []);

  const finish = useCallback(() => {
    if (!running.current) return;
    stop('done');
    done.current([...onsets.current].sort((a, b) => a - b));
  }, [stop]);

  const start = useCallback(() => {
    if (!pattern || running.current) return;
    running.current = true;
    onsets.current = [];
    setTaps(0);
    setState('count-in');
    const words = countIn(pattern, bpm);
    void startClicks([...words, ...beatsOf(pattern, bpm)]).then((started) => {
      if (!running.current) {
        started.stop();
        return;
      }
      clock.current = started;
      follow(started, words, expectedOf(pattern, bpm).end, bpm);
    });

    function follow(running_: RunningClock, words_: readonly CountInBeat[], end: number, tempo: number) {
      const beat = 60 / tempo;
      const over = end + Math.max(AFTER_BEATS * beat, AFTER_SECONDS);
      const last = words_.at(-1)!.time + beat;
      const look = () => {
        if (clock.current !== running_) return;
        const now = running_.now();
        setWord(now < last ? words_.findLast(({ time }) => time <= now)?.word : undefined);
        if (now >= last) setState('playing');
        if (now >= over) finish();
        else setTimeout(look, 20);
      };
      look();
    }
  }, [pattern, bpm, finish]);

  const tap = useCallback(
    (timeStamp: number) => {
      if (!pattern || !clock.current) return;
      const time = clock.current.at(timeStamp) - (storedCalibration('tap')?.delay ?? 0);
      const first = countIn(pattern, bpm).at(-1)!.time + 60 / bpm;
      if (time < first - (LISTEN_BEFORE * 60) / bpm) return;
      onsets.current.push(Math.round(time * 1e4) / 1e4);
      setTaps(onsets.current.length);
    },
    [pattern, bpm],
  );

  useEffect(() => () => stop('ready'), [stop]);

  const cancel = useCallback(() => stop('ready'), [stop]);
  const now = useCallback(() => clock.current?.now(), []);
  const show = useCallback(() => stop('done'), [stop]);
  return { state, word, taps, start, tap, finish, cancel, show, now };
}
