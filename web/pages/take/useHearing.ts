import { useCallback, useEffect, useState } from 'react';
import type { Child } from '../../../contract/child.ts';
import type { SavedPattern } from '../../../contract/pattern.ts';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import { ownBpm } from '../../../core/records/lineUp.ts';
import type { Said } from '../../../core/records/turns.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import type { TornTake } from '../../store/keptTakes.ts';
import type { RunPlan } from '../../take/takeRunner.ts';
import type { Taken } from '../../take/taken.ts';
import { type NewTake, useJudgedTake } from '../../take/useJudgedTake.ts';
import { useTakeRun } from '../../take/useTakeRun.ts';
import { useTornTake } from '../../take/useTornTake.ts';
import type { TakeSettings } from './useTakeSettings.ts';

interface Heard {
  readonly teacherId: string;
  readonly schoolClass: ClassDetail;
  readonly pattern: SavedPattern;
  readonly rhythm: Pattern;
  readonly child: Child;
  readonly settings: TakeSettings;
  readonly lineUp?: { readonly id: string; readonly turnSeen: Said } | undefined;
  /** Told of each take that was clapped and judged. */
  readonly onTake?: (take: NewTake) => void;
}

/** One take of one child: its run, what came of it, and what was broken off before. */
export function useHearing({ teacherId, schoolClass, pattern, rhythm, child, settings, lineUp, onTake }: Heard) {
  const { method, task } = settings;
  // What is made easier for the child is so without a word.
  const bpm = ownBpm(settings.bpm, child.adaptations);
  const free = settings.clicks === 'count-in' || child.adaptations?.noClick === true;
  const { torn, progress, forget, drop } = useTornTake({
    teacherId,
    classId: schoolClass.id,
    childId: child.id,
    childName: child.name,
    patternId: pattern.id,
    title: pattern.title,
    patternText: pattern.text,
    bpm,
    free,
    source: method,
  });
  const { take, show, judge, problem } = useJudgedTake({ teacherId, schoolClass, pattern, bpm, onKept: forget });
  const keepSound = typeof schoolClass.recordingDays === 'number';
  const halfClick = settings.clicks === 'half';
  const plan: RunPlan = { pattern: rhythm, bpm, method, task, free, halfClick, keepSound };
  const [silent, setSilent] = useState<Taken>();
  const done = (taken: Taken) => {
    // Nobody clapped, or nothing was heard: that is no mark before somebody says so.
    if (taken.onsets.length === 0 && !taken.feet?.length) return setSilent(taken);
    keep(taken);
  };
  const keep = (taken: Taken) => {
    setSilent(undefined);
    const judged = judge(taken, { childId: child.id, source: method, free, lineUp });
    show(judged);
    if (judged) onTake?.(judged);
  };
  const heard = useTakeRun(plan, done, progress);
  const { cancel: stop, problem: lost } = heard;
  useEffect(() => {
    if (lost) forget();
  }, [lost, forget]);
  const cancel = useCallback(() => {
    stop();
    forget();
    setSilent(undefined);
  }, [stop, forget]);
  /** @returns the mark */
  const judgeTorn = (broken: TornTake) => {
    const { patternId, title, patternText, startedAt, childId, source } = broken;
    const other = { patternId, title, patternText, bpm: broken.bpm, takenAt: startedAt };
    const judged = judge(broken.taken, { childId, source, free: broken.free }, other);
    if (judged) drop(broken.id);
    return judged?.mark;
  };
  /** Nothing was heard, and it is not settled yet what that means: the mark 0 on request. */
  const nothing = silent && { keep: () => keep(silent) };
  return { run: { ...heard, cancel }, plan, take, nothing, show, judge, problem, torn, judgeTorn, dropTorn: drop };
}
