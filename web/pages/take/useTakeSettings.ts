import type { InputMethod } from '../../take/inputs/calibration.ts';
import { TASKS, type Task } from '../../take/taken.ts';
import { useStored } from '../../ui/stored.ts';

const USUAL_BPM = 72;

export interface TakeSettings {
  readonly bpm: number;
  readonly method: InputMethod;
  readonly task: Task;
  /** Only the count-in is clicked. */
  readonly free: boolean;
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
      free: clicks === 'count-in',
    },
    set: (change) => {
      if (change.bpm !== undefined) setTempo(String(change.bpm));
      if (change.method !== undefined) setMethod(change.method);
      if (change.task !== undefined) setTask(change.task);
      if (change.free !== undefined) setClicks(change.free ? 'count-in' : 'all');
    },
  };
}
