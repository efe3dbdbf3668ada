import { useMemo, useState } from 'react';
import type { ClassDetail } from '../../contract/schoolClass.ts';
import type { TakeDetail } from '../../contract/take.ts';
import { judge } from '../../core/judging/judge.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import type { Seconds } from '../../core/timing/units.ts';
import { put } from '../api/client.ts';
import { useSave } from '../api/useSave.ts';
import { clapPlaces } from './clapPlaces.ts';

/** A clap of a take that is being corrected. */
export interface EditedClap {
  readonly id: number;
  readonly time: Seconds;
  readonly struck: boolean;
}

/** Beyond this a clap is not of this take, seconds. */
const EARLIEST: Seconds = -30;
const rounded = (time: Seconds) => Math.max(EARLIEST, Math.round(time * 1e4) / 1e4);

const asHeard = ({ onsets }: TakeDetail): EditedClap[] => onsets.map((time, id) => ({ id, time, struck: false }));

/** Claps that were found wrongly are struck out, missing ones added, others moved; the take is judged at once. */
export function useCorrection(take: TakeDetail, pattern: Pattern | undefined, schoolClass: ClassDetail) {
  const { borders, scale, clickCounts } = schoolClass;
  const [claps, setClaps] = useState<readonly EditedClap[]>(() => asHeard(take));
  const saving = useSave(
    (onsets: readonly Seconds[]) => put(`/takes/${take.id}/onsets`, { onsets }),
    '/takes',
    '/classes',
  );
  const onsets = useMemo(
    () => claps.flatMap(({ struck, time }) => (struck ? [] : [time])).sort((a, b) => a - b),
    [claps],
  );
  const changed = JSON.stringify(onsets) !== JSON.stringify(take.onsets);
  const result = useMemo(() => {
    if (!changed || !pattern) return take.result;
    const { bpm, free, windows } = take;
    const judged = judge({
      pattern,
      bpm,
      onsets,
      free,
      windows,
      feet: take.feet ?? undefined,
      borders: borders ?? undefined,
      scale: scale ?? undefined,
      clickCounts,
    });
    return judged.ok ? judged.result : take.result;
  }, [changed, pattern, take, onsets, borders, scale, clickCounts]);
  // By the claps as they were heard: what is moved must not move the others.
  const places = useMemo(() => (pattern ? clapPlaces(pattern, take) : undefined), [pattern, take]);
  const change = (id: number, to: Partial<EditedClap>) =>
    setClaps(claps.map((clap) => (clap.id === id ? { ...clap, ...to } : clap)));
  return {
    claps,
    places,
    onsets,
    result,
    changed,
    problem: saving.problem,
    add: (time: Seconds) => setClaps([...claps, { id: claps.length, time: rounded(time), struck: false }]),
    strike: (id: number) => change(id, { struck: !claps.find((clap) => clap.id === id)?.struck }),
    move: (id: number, time: Seconds) => change(id, { time: rounded(time) }),
    reset: () => setClaps(asHeard(take)),
    save: () => void saving.save(onsets),
  };
}

export type Correction = ReturnType<typeof useCorrection>;
