import { useRef, useState } from 'react';
import type { Child } from '../../../contract/child.ts';
import type { Seconds } from '../../../core/timing/units.ts';
import { type HeardRecording, listenToFile } from '../../audio/recordings.ts';
import { childInName } from './childInName.ts';

/** A recording that was brought, and how far it is. */
export interface RecordingRow {
  readonly id: number;
  readonly name: string;
  readonly childId: string;
  readonly done: number;
  readonly heard?: HeardRecording;
  readonly problem?: string;
  /** What came of it: the mark. */
  readonly mark?: number;
}

export interface RecordingTake {
  readonly childId: string;
  readonly heard: HeardRecording;
  /** Undefined when there was no click. */
  readonly start: Seconds | undefined;
}

/** Recordings that children brought: listened to one after the other, each matched to a name. */
export function useRecordings(children: readonly Child[], onTake: (take: RecordingTake) => number | undefined) {
  const [rows, setRows] = useState<readonly RecordingRow[]>([]);
  const nextId = useRef(0);
  const stops = useRef(new Map<number, AbortController>());
  const change = (id: number, part: Partial<RecordingRow>) =>
    setRows((before) => before.map((row) => (row.id === id ? { ...row, ...part } : row)));

  const add = async (files: readonly File[]) => {
    const added = files.map((file) => {
      const childId = childInName(file.name, children);
      return { file, row: { id: nextId.current++, name: file.name, childId, done: 0 } satisfies RecordingRow };
    });
    setRows((before) => [...before, ...added.map(({ row }) => row)]);
    // One after the other: each takes all of a processor.
    for (const { file, row } of added) {
      const stop = new AbortController();
      stops.current.set(row.id, stop);
      try {
        const heard = await listenToFile(file, (done) => change(row.id, { done }), stop.signal);
        change(row.id, { heard, done: 1 });
      } catch (error) {
        change(row.id, { problem: (error as Error).message });
      }
    }
  };
  const remove = (id: number) => {
    stops.current.get(id)?.abort();
    setRows((before) => before.filter((row) => row.id !== id));
  };
  const ready = rows.filter(({ heard, childId, mark }) => heard && childId !== '' && mark === undefined);
  const judge = (start: Seconds | undefined) => {
    for (const { id, heard, childId } of ready) {
      const mark = onTake({ childId, heard: heard!, start });
      if (mark !== undefined) change(id, { mark });
    }
  };
  return {
    rows,
    add,
    remove,
    judge,
    ready: ready.length,
    setChild: (id: number, childId: string) => change(id, { childId }),
  };
}
