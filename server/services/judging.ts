import type { ClassSettings, JudgingPreview, JudgingTrial } from '../../contract/school.ts';
import type { TakeDetail } from '../../contract/take.ts';
import { countsOf, namingOf } from '../../core/wording/voice.ts';
import { judge } from '../../core/judging/judge.ts';
import { HIGHEST_MARK } from '../../core/judging/mark.ts';
import { windowsOf } from '../../core/judging/windows.ts';
import type { Database } from '../database.ts';
import { Problem } from '../problem.ts';
import { touchClass } from '../repository/classes.ts';
import { type Rejudged, takesToJudge, updateJudgement } from '../repository/takes.ts';
import { readPatternText } from './patternText.ts';

type Room = Pick<
  ClassSettings,
  'ages' | 'onTimeMs' | 'borders' | 'school' | 'rests' | 'naming' | 'houseWords' | 'wordSet'
>;

export interface Played {
  readonly patternText: string;
  readonly bpm: number;
  readonly onsets: readonly number[];
  readonly feet?: readonly number[] | null | undefined;
  readonly releases?: readonly (number | null)[] | null | undefined;
  readonly free: boolean;
}

/** Judges a take as its class has it, with its windows, borders and words: the columns that judging fills. */
export function judgement(room: Room, { patternText, bpm, onsets, feet, releases, free }: Played): Rejudged {
  const windows = windowsOf(room);
  const pattern = readPatternText(patternText, 'patternText');
  const judged = judge({
    pattern,
    bpm,
    onsets,
    feet: feet ?? undefined,
    releases: releases ?? undefined,
    free,
    windows,
    borders: room.borders ?? undefined,
    speech: { counts: countsOf(room), naming: namingOf(room) },
  });
  if (!judged.ok) throw new Problem(422, 'not-judged', `This take cannot be judged: ${judged.reason}.`);
  const { result } = judged;
  return {
    ages: room.ages,
    windows,
    accuracy: result.accuracy,
    mark: result.mark,
    result: structuredClone(result) as TakeDetail['result'],
  };
}

/** Do two settings judge alike? */
export function judgesAlike(a: Room, b: Room): boolean {
  const key = ({ ages, onTimeMs, borders }: Room) => JSON.stringify([ages, onTimeMs ?? null, borders ?? null]);
  return key(a) === key(b);
}

/** Takes that cannot be judged any more keep what they have. */
function tried(room: Room, played: Played): Rejudged | undefined {
  try {
    return judgement(room, played);
  } catch (error) {
    if (error instanceof Problem) return undefined;
    throw error;
  }
}

/** How the marks of a class would change under other windows and borders. */
export async function previewJudging(
  db: Database,
  classId: string,
  room: Room,
  trial: JudgingTrial,
): Promise<JudgingPreview> {
  const takes = await takesToJudge(db, classId);
  const marks = Array.from({ length: HIGHEST_MARK + 1 }, (_, i) => ({ mark: HIGHEST_MARK - i, now: 0, then: 0 }));
  let [higher, lower] = [0, 0];
  for (const take of takes) {
    const then = tried({ ...room, ...trial }, take)?.mark ?? take.mark;
    marks[HIGHEST_MARK - take.mark]!.now++;
    marks[HIGHEST_MARK - then]!.then++;
    if (then > take.mark) higher++;
    if (then < take.mark) lower++;
  }
  return { takes: takes.length, changed: higher + lower, higher, lower, marks };
}

/** Judges every take of a class anew from its onsets; the teacher's own marks stay. */
export async function rejudgeClass(db: Database, classId: string, room: Room): Promise<void> {
  await db.transaction(async (tx) => {
    const inside = tx as unknown as Database;
    for (const take of await takesToJudge(inside, classId)) {
      const judged = tried(room, take);
      if (judged) await updateJudgement(inside, take.id, judged);
    }
    await touchClass(inside, classId);
  });
}
