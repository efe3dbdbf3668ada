import { type PointerEvent, type ReactNode, useEffect, useRef } from 'react';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { countIn } from '../../core/leading/countIn.ts';
import { pulsesOf } from '../../core/timing/pulses.ts';
import type { RunMoment, TakeRunner } from '../take/takeRunner.ts';

interface DrumProps {
  readonly run: TakeRunner;
  readonly moment: RunMoment;
  readonly pattern: Pattern;
  readonly bpm: number;
  readonly isRunning: boolean;
  /** Otherwise it is clapped, and a touch is none. */
  readonly byTouch: boolean;
  /** The beat is seen and felt instead of heard. */
  readonly lit: boolean;
  readonly waiting: string;
  readonly children: ReactNode;
}

/** The whole screen is the drum. */
export function Drum({ run, moment, pattern, bpm, isRunning, byTouch, lit, waiting, children }: DrumProps) {
  const press = (event: PointerEvent) => {
    if (!isRunning) return;
    event.preventDefault();
    if (byTouch) run.tap(event.timeStamp, 'hands', String(event.pointerId));
  };
  useEffect(() => {
    const key = (event: KeyboardEvent) => {
      if (event.repeat || ![' ', 'f', 'j'].includes(event.key.toLowerCase())) return;
      event.preventDefault();
      if (byTouch) run.tap(event.timeStamp, 'hands', event.key);
    };
    addEventListener('keydown', key);
    return () => removeEventListener('keydown', key);
  }, [run, byTouch]);
  const light = useLight({ run, pattern, bpm, isOn: lit && isRunning });
  const word = moment.word ?? (moment.state === 'playing' ? '' : waiting);
  return (
    <div ref={light} className="room-drum" data-testid="drum" data-beat-one={moment.beatOne} onPointerDown={press}>
      {children}
      <p className={moment.word ? 'room-word' : 'room-waiting'} role="status">
        {word}
      </p>
      <p className="room-count" aria-hidden>
        {moment.taps > 0 ? moment.taps : ''}
      </p>
      {moment.problem && (
        <p className="room-said" role="alert">
          {moment.problem.message}
        </p>
      )}
    </div>
  );
}

const LIT_MS = 120;
/** Nothing may flash more than three times a second. */
const CLOSEST_S = 1 / 3;

/** A frame of light on each beat, and a push of the device where it can. */
function useLight({
  run,
  pattern,
  bpm,
  isOn,
}: Pick<DrumProps, 'run' | 'pattern' | 'bpm'> & { readonly isOn: boolean }) {
  const ref = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!isOn) return undefined;
    const beats = [...countIn(pattern, bpm), ...pulsesOf(pattern, bpm)].map(({ time }) => time);
    const times = beats.filter((_, i) => i % Math.ceil((CLOSEST_S * bpm) / 60) === 0);
    let next = 0;
    let asked = 0;
    const look = () => {
      asked = requestAnimationFrame(look);
      const now = run.now();
      if (now === undefined || now < (times[next] ?? Infinity)) return;
      while (now >= (times[next] ?? Infinity)) next++;
      ref.current?.classList.add('room-lit');
      setTimeout(() => ref.current?.classList.remove('room-lit'), LIT_MS);
      (navigator as { vibrate?: (ms: number) => boolean }).vibrate?.(LIT_MS / 3);
    };
    look();
    return () => cancelAnimationFrame(asked);
  }, [run, pattern, bpm, isOn]);
  return ref;
}
