import { perLanguage, t } from '../../core/words/say.ts';
import { useEffect, useState } from 'react';
import { v4 as uuid } from 'uuid';
import type { ClassDetail } from '../../contract/schoolClass.ts';
import type { SavedPattern } from '../../contract/pattern.ts';
import type { TakeUpload } from '../../contract/take.ts';
import { judgeTake } from '../../core/judging/judgeTake.ts';
import type { Bpm } from '../../core/timing/units.ts';
import type { Seen } from '../../core/records/turns.ts';
import { takeTroubleText } from '../../core/wording/troubles.ts';
import { namingOf } from '../../core/wording/voice.ts';
import { keepOutline } from '../audio/outlines.ts';
import { keepTake, onTakeArrived } from '../api/outbox.ts';
import type { ShownTake } from './shownTake.ts';
import type { Taken } from './taken.ts';

/** A take that was just judged. */
export interface NewTake extends ShownTake {
  readonly takeId: string;
  readonly mark: number;
  /** It is on its way to the server; a practice take is not. */
  readonly kept: boolean;
  readonly title: string;
  /** Of two that were heard at once the other one, of the other part. */
  readonly beside?: NewTake;
}

interface Setting {
  readonly teacherId: string;
  readonly schoolClass: ClassDetail;
  readonly pattern: SavedPattern;
  readonly bpm: Bpm;
  /** A take is kept on its way to the server. */
  readonly onKept: () => void;
}

/** What was clapped, where it is not what the page is set to now. */
export interface PlayedPattern {
  readonly patternId: string;
  readonly title: string;
  readonly patternText: string;
  readonly bpm: Bpm;
  readonly takenAt: number;
}

/** Of a pattern in several parts: which one it is, and the take that was played beside it. */
export interface PartPlayed {
  readonly name: string;
  readonly takeId?: string;
  readonly besideId?: string;
}

/** Whose take it is and how it was heard. */
export interface TakeOrigin {
  readonly childId: string;
  readonly source: NonNullable<TakeUpload['source']>;
  readonly free: boolean;
  readonly part?: PartPlayed | undefined;
  /** In which line-up, and what stood there of the child when it began. */
  readonly lineUp?: { readonly id: string; readonly turnSeen: Seen } | undefined;
}

const NOT_KEPT = perLanguage(
  () => t`This browser keeps nothing on the device: this take is lost if the page is closed
    before the server has it. Leave it open, and allow storage for this page.`,
);

/** A take as the server has it, in its place: the shown one, or the one beside it. */
function arrivedIn(shown: NewTake, id: string, as: Pick<NewTake, 'result' | 'mark' | 'windows'>): NewTake {
  if (shown.takeId === id) return { ...shown, ...as };
  return shown.beside?.takeId === id ? { ...shown, beside: { ...shown.beside, ...as } } : shown;
}

/** A take as it is sent. */
function uploadOf(
  { onsets, feet, releases }: Taken,
  { childId, source, part, lineUp }: TakeOrigin,
  played: PlayedPattern & { readonly free: boolean },
): TakeUpload {
  return {
    ...played,
    childId,
    onsets: [...onsets],
    ...(feet ? { feet: [...feet] } : {}),
    ...(releases ? { releases: [...releases] } : {}),
    source,
    ...(part ? { part: part.name, ...(part.besideId ? { besideId: part.besideId } : {}) } : {}),
    ...(lineUp && { lineUpId: lineUp.id, turnSeen: lineUp.turnSeen }),
  };
}

/** Judges takes at once, and sends them on their way; what the server makes of one is shown as soon as it has it. */
export function useJudgedTake({ teacherId, schoolClass, pattern, bpm, onKept }: Setting) {
  const [take, setTake] = useState<NewTake>();
  const [problem, setProblem] = useState<Error>();
  useEffect(
    () =>
      onTakeArrived(({ id, result, mark, windows }) =>
        setTake((shown) => shown && arrivedIn(shown, id, { result, mark, windows })),
      ),
    [],
  );

  const send = (id: string, upload: TakeUpload, mark: number, sound: Blob | undefined) => {
    const childName = schoolClass.children.find((child) => child.id === upload.childId)?.name ?? '';
    const heard = { id, teacherId, childName, upload, classId: schoolClass.id, mark };
    void keepTake({ ...heard, ...(sound && { sound }) }).then((kept) => {
      if (!kept) setProblem(new Error(NOT_KEPT()));
      onKept();
    });
  };
  /** @returns the take with its mark; undefined when it cannot be judged, and `problem` says why */
  const judge = (
    taken: Taken,
    { childId, source, free, part, lineUp }: TakeOrigin,
    other?: PlayedPattern,
  ): NewTake | undefined => {
    const { onsets, feet, releases, outline, sound } = taken;
    const now = { patternId: pattern.id, title: pattern.title, patternText: pattern.text, bpm, takenAt: Date.now() };
    const { title, takenAt, ...rhythm } = other ?? now;
    const played = { ...rhythm, free };
    const wider = schoolClass.children.find((child) => child.id === childId)?.adaptations?.wider;
    const judged = judgeTake({ ...played, onsets, feet, releases }, { ...schoolClass, wider });
    if (!judged.ok) {
      const why = takeTroubleText(judged.trouble, namingOf(schoolClass));
      setProblem(new Error(t`${why}. Choose another tempo or pattern.`));
      return undefined;
    }
    const takeId = part?.takeId ?? uuid();
    if (outline) keepOutline(takeId, outline);
    if (source !== 'practice') {
      const upload = uploadOf(taken, { childId, source, free, part, lineUp }, { ...played, title, takenAt });
      send(takeId, upload, judged.result.mark, sound);
    }
    const { result, windows } = judged;
    return {
      ...played,
      title,
      takeId,
      kept: source !== 'practice',
      windows,
      onsets,
      outline,
      result,
      mark: result.mark,
    };
  };
  return { take, show: setTake, judge, problem };
}
