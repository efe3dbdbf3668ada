import { useEffect } from 'react';
import { FASTEST_BPM, SLOWEST_BPM } from '../../../core/timing/limits.ts';
import type { InputMethod } from '../../take/inputs/calibration.ts';
import { TASKS, type Task } from '../../take/taken.ts';
import { useStored } from '../../store/stored.ts';

const USUAL_BPM = 72;

/** Which beats are clicked: all, every other one, or those of the count-in only. */
export const CLICKS = ['all', 'half', 'count-in'] as const;
type Clicks = (typeof CLICKS)[number];

export interface TakeSettings {
  readonly bpm: number;
  readonly method: InputMethod;
  readonly task: Task;
  readonly clicks: Clicks;
}

/** How this device hears takes: remembered from one lesson to the next. */
export function useTakeSettings(): {
  readonly settings: TakeSettings;
  readonly set: (change: Partial<TakeSettings>) => void;
} {
  const [tempo, setTempo] = useStored('take.bpm', String(USUAL_BPM));
  const [method, setMethod] = useStored('take.way', 'tap');
  const [clicks, setClicks] = useStored('take.clicks', 'all');
  const [task, setTask] = useStored('take.task', 'claps');
  const tapped = method !== 'microphone';
  return {
    settings: {
      bpm: Number(tempo) || USUAL_BPM,
      method: tapped ? 'tap' : 'microphone',
      // A microphone hears neither feet nor when a note is let go.
      task: tapped ? (TASKS.find((one) => one === task) ?? 'claps') : 'claps',
      clicks: CLICKS.find((one) => one === clicks) ?? 'all',
    },
    set: (change) => {
      if (change.bpm !== undefined) setTempo(String(change.bpm));
      if (change.method !== undefined) setMethod(change.method);
      if (change.task !== undefined) setTask(change.task);
      if (change.clicks !== undefined) setClicks(change.clicks);
    },
  };
}

/**
 * What another view asked for in the address holds from the first look on: "at 54", "with the feet", "every other
 * click".
 */
export function useAskedSettings(search: URLSearchParams, set: (change: Partial<TakeSettings>) => void): void {
  useEffect(() => {
    const bpm = Number(search.get('bpm'));
    const clicks = CLICKS.find((one) => one === search.get('clicks'));
    const task = TASKS.find((one) => one === search.get('task'));
    set({
      ...(bpm >= SLOWEST_BPM && bpm <= FASTEST_BPM ? { bpm } : {}),
      ...(clicks ? { clicks } : {}),
      ...(task ? { task, method: 'tap' } : {}),
    });
    // Once: after that it is what is chosen here.
    // oxlint-disable-next-line react/exhaustive-deps
  }, []);
}
