import { useCallback, useEffect, useState } from 'react';
import { v4 as uuid } from 'uuid';
import type { Child } from '../../../contract/child.ts';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import { ownBpm } from '../../../core/records/lineUp.ts';
import type { Bpm } from '../../../core/timing/units.ts';
import type { Seen } from '../../../core/records/turns.ts';
import type { TornTake } from '../../store/keptTakes.ts';
import type { RunPlan } from '../../take/takeRunner.ts';
import type { Taken } from '../../take/taken.ts';
import type { PlayedSound, TakePart } from '../../take/takePart.ts';
import { type NewTake, type TakeOrigin, useJudgedTake } from '../../take/useJudgedTake.ts';
import { useTakeRun } from '../../take/useTakeRun.ts';
import { type TakeBegun, useTornTake } from '../../take/useTornTake.ts';
import type { TakeSettings } from './useTakeSettings.ts';

/** A second part that is heard at the same time, and whose it is. */
export interface Second {
  readonly part: TakePart;
  readonly child: Child;
  readonly lineUp?: TakeOrigin['lineUp'];
}

interface Heard {
  readonly teacherId: string;
  readonly schoolClass: ClassDetail;
  readonly part: TakePart;
  readonly child: Child;
  readonly second?: Second | undefined;
  /** What the app plays of other parts. */
  readonly others?: readonly PlayedSound[] | undefined;
  readonly settings: TakeSettings;
  readonly lineUp?: { readonly id: string; readonly turnSeen: Seen } | undefined;
  /** Told of each take that was clapped and judged; of two at once the other is beside it. */
  readonly onTake?: (take: NewTake) => void;
}

/** How fast it goes: of two children the slower tempo is that of both. */
export function bpmOf(bpm: Bpm, child: Child, second: Second | undefined): Bpm {
  return Math.min(ownBpm(bpm, child.adaptations), second ? ownBpm(bpm, second.child.adaptations) : Infinity);
}

/** One take of one child, or of two at once: its run, what came of it, and what was broken off before. */
export function useHearing(heard: Heard) {
  const { teacherId, schoolClass, part, child, second, others, settings, lineUp, onTake } = heard;
  const { method } = settings;
  const task = second ? 'parts' : settings.task;
  // What is made easier for the child is so without a word.
  const bpm = bpmOf(settings.bpm, child, second);
  const noClick = [child, second?.child].some((one) => one?.adaptations?.noClick === true);
  const free = settings.clicks === 'count-in' || noClick;
  const begun = { teacherId, classId: schoolClass.id, bpm, free, source: method };
  const { torn, progress, forget, drop } = useTornParts(begun, { part, child }, second);
  const { take, show, judge, problem } = useJudgedTake({
    teacherId,
    schoolClass,
    pattern: part.saved,
    bpm,
    onKept: forget,
  });
  const keepSound = typeof schoolClass.recordingDays === 'number' && !second;
  const halfClick = settings.clicks === 'half';
  const plan: RunPlan = { pattern: part.rhythm, bpm, method, task, free, halfClick, keepSound, others };
  const [silent, setSilent] = useState<Taken>();
  const done = (taken: Taken) => {
    // Nobody clapped, or nothing was heard: that is no mark before somebody says so.
    if (taken.onsets.length === 0 && !taken.feet?.length) return setSilent(taken);
    keep(taken);
  };
  const judgeNow = (taken: Taken, source: TakeOrigin['source'], wasFree = free): NewTake | undefined => {
    if (second) return judgeBoth(taken, [{ part, child, lineUp }, second], { judge, bpm, free, source });
    const named = part.name === undefined ? undefined : { name: part.name };
    return judge(taken, { childId: child.id, source, free: wasFree, part: named, lineUp });
  };
  const keep = (taken: Taken) => {
    setSilent(undefined);
    const judged = judgeNow(taken, method);
    show(judged);
    if (judged) onTake?.(judged);
  };
  const heardRun = useTakeRun(plan, done, progress);
  const { cancel: stop, problem: lost } = heardRun;
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
    const played = { patternId, title, patternText, bpm: broken.bpm, takenAt: startedAt };
    const named = broken.part === undefined ? undefined : { name: broken.part };
    const judged = judge(broken.taken, { childId, source, free: broken.free, part: named }, played);
    if (judged) drop(broken.id);
    return judged?.mark;
  };
  /** Nothing was heard, and it is not settled yet what that means: the mark 0 on request. */
  const nothing = silent && { keep: () => keep(silent) };
  const run = { ...heardRun, cancel };
  return { run, plan, take, nothing, show, judge, judgeNow, problem, torn, judgeTorn, dropTorn: drop };
}

interface Judging {
  readonly judge: ReturnType<typeof useJudgedTake>['judge'];
  readonly bpm: Bpm;
  readonly free: boolean;
  readonly source: TakeOrigin['source'];
}

/** Two takes, each of its part; one that nobody clapped is none. */
function judgeBoth(
  { onsets, feet = [] }: Taken,
  both: readonly [Second, Second],
  { judge, bpm, free, source }: Judging,
): NewTake | undefined {
  const takenAt = Date.now();
  const ids = [uuid(), uuid()] as const;
  const heard = [onsets, feet];
  const all = heard.every((claps) => claps.length > 0);
  const [one, two] = both.map(({ part, child, lineUp }, i) => {
    if (heard[i]!.length === 0) return undefined;
    const whose = { name: part.name ?? '', takeId: ids[i]!, ...(all ? { besideId: ids[1 - i]! } : {}) };
    const { id: patternId, title, text: patternText } = part.saved;
    const played = { patternId, title, patternText, bpm, takenAt };
    return judge({ onsets: heard[i]! }, { childId: child.id, source, free, part: whose, lineUp }, played);
  });
  return one && two ? { ...one, beside: two } : (one ?? two);
}

type Begun = Omit<TakeBegun, 'childId' | 'childName' | 'patternId' | 'title' | 'patternText' | 'part'>;

/** Keeps what is clapped while it is clapped: of two parts each as a take of its own. */
function useTornParts(begun: Begun, own: Second, second: Second | undefined) {
  const first = useTornTake({ ...begun, ...takeOf(own) });
  const other = useTornTake({ ...begun, ...takeOf(second ?? own) });
  const progress = ({ feet, ...claps }: Taken) => {
    if (!second) return first.progress({ ...claps, ...(feet ? { feet } : {}) });
    if (claps.onsets.length > 0) first.progress(claps);
    if (feet && feet.length > 0) other.progress({ onsets: feet });
  };
  const { forget: forgetFirst, torn, drop } = first;
  const { forget: forgetOther } = other;
  const forget = useCallback(() => {
    forgetFirst();
    forgetOther();
  }, [forgetFirst, forgetOther]);
  return { torn, progress, forget, drop };
}

/** What is known of a take of a part before it is clapped. */
function takeOf({ part: { name, saved }, child }: Second) {
  const { id: patternId, title, text: patternText } = saved;
  return { childId: child.id, childName: child.name, patternId, title, patternText, part: name };
}
