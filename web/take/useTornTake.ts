import { useCallback, useEffect, useRef, useState } from 'react';
import { v4 as uuid } from 'uuid';
import { useLatest } from '../ui/useLatest.ts';
import type { Taken } from './taken.ts';
import type { TornTake } from '../store/keptTakes.ts';
import { dropTorn, keepTorn, tornTakes } from '../store/torn.ts';

/** What is known of a take before it is clapped. */
export type TakeBegun = Omit<TornTake, 'id' | 'startedAt' | 'taken'>;

/**
 * Keeps what is clapped while it is clapped, and finds what was broken off before.
 * @param begun  the take that is heard now
 */
export function useTornTake(begun: TakeBegun) {
  const { teacherId, classId } = begun;
  const [torn, setTorn] = useState<readonly TornTake[]>([]);
  const current = useRef<{ readonly id: string; readonly startedAt: number } | undefined>(undefined);
  useEffect(() => {
    let gone = false;
    void tornTakes(teacherId, classId).then((takes) => !gone && setTorn(takes));
    return () => {
      gone = true;
    };
  }, [teacherId, classId]);
  const progress = useLatest(({ onsets, feet, releases }: Taken) => {
    current.current ??= { id: uuid(), startedAt: Date.now() };
    const taken = { onsets, ...(feet ? { feet } : {}), ...(releases ? { releases } : {}) };
    void keepTorn({ ...begun, ...current.current, taken });
  });
  /** The take of now is kept otherwise, or not wanted. */
  const forget = useCallback(() => {
    if (current.current) void dropTorn(current.current.id);
    current.current = undefined;
  }, []);
  const drop = useCallback((id: string) => {
    void dropTorn(id);
    setTorn((before) => before.filter((take) => take.id !== id));
  }, []);
  return { torn, progress, forget, drop };
}
