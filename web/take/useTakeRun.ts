import { useCallback, useEffect, useRef, useState } from 'react';
import { scheduleOf } from '../../core/timing/schedule.ts';
import { type CountInBeat, countIn } from '../../core/leading/countIn.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { storedCalibration } from './inputs/calibration.ts';
import { type RunningClock, startClicks } from '../audio/clickClock.ts';
import { type LiveListener, listenLive } from '../audio/microphone.ts';
import type { Outline } from '../workers/listen.worker.ts';
import { beatTimes } from '../../core/timing/pulses.ts';

export type RunState = 'ready' | 'count-in' | 'playing' | 'done';
/** How the child is heard. */
export type HeardBy = 'tap' | 'microphone';
/** What is asked of it beside the claps: nothing, to hold the long notes, or to step the beat as well. */
export const TASKS = ['claps', 'held', 'feet'] as const;
export type Task = (typeof TASKS)[number];
export type Limb = 'hands' | 'feet';

/** Taps count from so many beats before the first note. */
const LISTEN_BEFORE = 1;
/** The run is over so long after the last written time: time for a late last clap. */
const AFTER_BEATS = 1;
const AFTER_SECONDS = 0.4;
/** Without a click a child may begin later and be slower: so much longer is listened. “Done” ends it at once. */
const FREE_PART = 0.3;
const FREE_SECONDS = 1.5;
/** The sound clock of a busy machine may slip beside the page's; less than this is not worth telling. */
const SLIP_MS = 6;
/** A clap is known some hundredths of a second after it was heard; the last ones are waited for. */
const EAR_SECONDS = 0.15;

export interface Taken {
  /** Seconds from beat 1 of measure 1. */
  readonly onsets: number[];
  /** Where the feet were heard too. */
  readonly feet?: number[];
  /** For each onset when it was let go, where that was asked. */
  readonly releases?: number[];
  readonly outline?: Outline;
  readonly sound?: Blob;
}

export interface TakeRun {
  readonly state: RunState;
  /** The count-in word of this moment. */
  readonly word: string | undefined;
  readonly taps: number;
  readonly problem: Error | undefined;
  readonly start: () => void;
  /** @param finger  the key or pointer that does it, so that its lifting is known */
  readonly tap: (timeStamp: number, limb: Limb, finger: string) => void;
  readonly lift: (timeStamp: number, finger: string) => void;
  /** Ends now and judges what there is. */
  readonly finish: () => void;
  readonly cancel: () => void;
  /** Goes straight to the result: it came from elsewhere. */
  readonly show: () => void;
  /** When beat 1 is heard, in milliseconds on the clock of the page's events; undefined before the run has begun. */
  readonly beatOne: number | undefined;
  /** Seconds from beat 1 of measure 1; undefined when nothing runs. */
  readonly now: () => number | undefined;
}

export interface RunOptions {
  readonly way: HeardBy;
  readonly task: Task;
  /** Only the count-in is clicked; then the child is alone with its own tempo. */
  readonly free: boolean;
  /** Hand over the sound as well. */
  readonly keepSound: boolean;
}

interface Clap {
  readonly time: number;
  readonly finger: string;
  lifted: number | undefined;
}

const rounded = (time: number) => Math.round(time * 1e4) / 1e4;
const tidy = (times: readonly number[]) => times.map(rounded).sort((a, b) => a - b);

/** What a key or finger that is still down when all is over did: it held to the end. */
function tapped(claps: readonly Clap[], steps: readonly number[], task: Task, ended: number): Taken {
  const inOrder = [...claps].sort((a, b) => a.time - b.time);
  return {
    onsets: inOrder.map(({ time }) => rounded(time)),
    ...(task === 'feet' ? { feet: tidy(steps) } : {}),
    ...(task === 'held'
      ? { releases: inOrder.map(({ time, lifted }) => rounded(Math.max(time, lifted ?? ended))) }
      : {}),
  };
}

/** Counts in, clicks and collects taps, or claps through the microphone, for one take. */
export function useTakeRun(
  pattern: Pattern | undefined,
  bpm: number,
  { way, task, free, keepSound }: RunOptions,
  onDone: (taken: Taken) => void,
): TakeRun {
  const [state, setState] = useState<RunState>('ready');
  const [word, setWord] = useState<string>();
  const [taps, setTaps] = useState(0);
  const [problem, setProblem] = useState<Error>();
  const [beatOne, setBeatOne] = useState<number>();
  const clock = useRef<RunningClock>(undefined);
  const ear = useRef<LiveListener>(undefined);
  const claps = useRef<Clap[]>([]);
  const steps = useRef<number[]>([]);
  const running = useRef(false);
  const done = useRef(onDone);
  useEffect(() => {
    done.current = onDone;
  });

  const stop = useCallback((next: RunState) => {
    running.current = false;
    clock.current?.stop();
    clock.current = undefined;
    ear.current?.stop();
    ear.current = undefined;
    setWord(undefined);
    setBeatOne(undefined);
    setState(next);
  }, []);

  /** When the first tap can count. */
  const listenFrom = useCallback(
    () => (pattern ? countIn(pattern, bpm).at(-1)!.time + 60 / bpm - (LISTEN_BEFORE * 60) / bpm : 0),
    [pattern, bpm],
  );

  const finish = useCallback(() => {
    if (!running.current) return;
    const ended = (clock.current?.now() ?? 0) - (storedCalibration('tap')?.delay ?? 0);
    const listening = ear.current;
    const toTake = clock.current?.atContext;
    ear.current = undefined;
    stop('done');
    if (!listening || !toTake) {
      done.current(tapped(claps.current, steps.current, task, ended));
      return;
    }
    void listening.finish().then(({ onsets: heard, outline, sound }) => {
      const delay = storedCalibration('microphone')?.delay ?? 0;
      const times = heard.map((time) => toTake(time) - delay).filter((time) => time >= listenFrom());
      done.current({
        onsets: tidy(times),
        outline: { ...outline, from: toTake(outline.from) - delay },
        ...(sound ? { sound } : {}),
      });
    });
  }, [stop, listenFrom, task]);

  const start = useCallback(() => {
    if (!pattern || running.current) return;
    running.current = true;
    claps.current = [];
    steps.current = [];
    setTaps(0);
    setProblem(undefined);
    setState('count-in');
    const words = countIn(pattern, bpm);
    const beats = free ? words : [...words, ...beatTimes(pattern, bpm)];
    const begin = async () => {
      const started = await startClicks(beats);
      if (way === 'microphone') {
        const { contextTime } = started;
        try {
          ear.current = await listenLive(contextTime ? beats.map(({ time }) => contextTime(time)) : [], keepSound);
        } catch (error) {
          started.stop();
          setProblem(error as Error);
          stop('ready');
          return;
        }
      }
      if (!running.current) {
        started.stop();
        ear.current?.stop();
        return;
      }
      clock.current = started;
      follow(started, words, scheduleOf(pattern, bpm).end, bpm);
    };
    void begin();

    function follow(running_: RunningClock, words_: readonly CountInBeat[], end: number, tempo: number) {
      const beat = 60 / tempo;
      const late = Math.max(AFTER_BEATS * beat, AFTER_SECONDS) + (way === 'microphone' ? EAR_SECONDS : 0);
      const over = end + late + (free ? FREE_PART * end + FREE_SECONDS : 0);
      const last = words_.at(-1)!.time + beat;
      const look = () => {
        if (clock.current !== running_) return;
        const now = running_.now();
        setWord(now < last ? words_.findLast(({ time }) => time <= now)?.word : undefined);
        // The sound clock needs a moment until it knows the page's clock.
        const one = performance.now() - now * 1000;
        if (now > words_[0]!.time)
          setBeatOne((known) => (known !== undefined && Math.abs(known - one) < SLIP_MS ? known : one));
        if (now >= last) setState('playing');
        if (ear.current)
          setTaps(ear.current.onsets().filter((time) => (running_.atContext?.(time) ?? 0) >= listenFrom()).length);
        if (now >= over) finish();
        else setTimeout(look, 20);
      };
      look();
    }
  }, [pattern, bpm, way, free, keepSound, finish, stop, listenFrom]);

  const tap = useCallback(
    (timeStamp: number, limb: Limb, finger: string) => {
      if (!pattern || !clock.current || way === 'microphone') return;
      const time = clock.current.at(timeStamp) - (storedCalibration('tap')?.delay ?? 0);
      if (time < listenFrom()) return;
      if (limb === 'feet') steps.current.push(time);
      else setTaps(claps.current.push({ time, finger, lifted: undefined }));
    },
    [pattern, way, listenFrom],
  );
  const lift = useCallback((timeStamp: number, finger: string) => {
    const held = claps.current.findLast((clap) => clap.finger === finger);
    if (held && held.lifted === undefined && clock.current)
      held.lifted = clock.current.at(timeStamp) - (storedCalibration('tap')?.delay ?? 0);
  }, []);

  useEffect(() => () => stop('ready'), [stop]);

  const cancel = useCallback(() => stop('ready'), [stop]);
  const show = useCallback(() => stop('done'), [stop]);
  const now = useCallback(() => clock.current?.now(), []);
  return { state, word, taps, problem, beatOne, start, tap, lift, finish, cancel, show, now };
}
