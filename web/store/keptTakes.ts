import type { TakeUpload } from '../../contract/take.ts';
import type { Bpm, Seconds } from '../../core/timing/units.ts';

/** A finished take on its way to the server. */
export interface Waiting {
  readonly id: string;
  /** Only this teacher's session sends it. */
  readonly teacherId: string;
  readonly childName: string;
  readonly upload: TakeUpload;
  /** Its class, and how this device judged it: lists show it before the server has it. */
  readonly classId?: string;
  readonly mark?: number;
  /** The recording, where the class keeps them. */
  readonly sound?: Blob;
  /** The take is stored; only its recording is still to be sent. */
  readonly stored?: true;
  /** How often the server failed at just this one, and before when it is not tried again. */
  readonly failures?: number;
  readonly notBefore?: number;
  /** Why it is not sent any more by itself; it stays until the teacher has seen that. */
  readonly refused?: string;
}

/** A take that was broken off in the middle: the page was closed, or left, or the machine went off. */
export interface TornTake {
  readonly id: string;
  readonly teacherId: string;
  readonly classId: string;
  readonly childId: string;
  readonly childName: string;
  readonly patternId: string;
  readonly title: string;
  readonly patternText: string;
  /** Of a pattern in several parts which one. */
  readonly part?: string | undefined;
  readonly bpm: Bpm;
  readonly free: boolean;
  readonly source: 'tap' | 'microphone';
  /** When it was begun, milliseconds since 1970. */
  readonly startedAt: number;
  readonly taken: {
    readonly onsets: readonly Seconds[];
    readonly feet?: readonly Seconds[];
    readonly releases?: readonly Seconds[];
  };
}
