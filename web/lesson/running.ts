import { storedThing } from '../store/stored.ts';

/** The lesson that is being held, as this device knows it: it goes on after a reload. */
export interface RunningLesson {
  /** Whose lesson: somebody else at this device does not see it. */
  readonly teacherId: string;
  readonly classId: string;
  readonly lessonId: string;
  /** Milliseconds since 1970. */
  readonly startedAt: number;
  /** Where it is: the index of a stop. */
  readonly stop: number;
  /** Keys of blocks that were left out. */
  readonly leftOut: readonly number[];
  /** It is over, after so many seconds: the page of the lesson writes down how it went. */
  readonly endedAfter?: number;
}

function isRunning(kept: unknown): kept is RunningLesson {
  const { teacherId, classId, lessonId, startedAt, stop, leftOut } = (kept ?? {}) as Partial<RunningLesson>;
  return (
    typeof teacherId === 'string' &&
    typeof classId === 'string' &&
    typeof lessonId === 'string' &&
    typeof startedAt === 'number' &&
    Number.isInteger(stop) &&
    Array.isArray(leftOut)
  );
}

export const RUNNING = storedThing<RunningLesson | undefined>('lesson.on', (kept) =>
  isRunning(kept) ? kept : undefined,
);
