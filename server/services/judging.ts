import type { JudgingPreview, JudgingTrial } from '../../contract/judging.ts';
import { type JudgingSettings, type PlayedTake, judgeTake } from '../../core/judging/judgeTake.ts';
import { HIGHEST_MARK } from '../../core/judging/mark.ts';
import { RESULT_VERSION, type TakeResult } from '../../core/judging/takeResult.ts';
import { takeTroubleText } from '../../core/wording/troubles.ts';
import type { NamingId } from '../../core/wording/valueNames.ts';
import { namingOf } from '../../core/wording/voice.ts';
import type { Database } from '../database.ts';
import { Problem } from '../problem.ts';
import { touchClass } from '../repository/classes.ts';
import { type Judgement, outdatedTakes, takesToJudge, updateJudgement } from '../repository/takes.ts';

/** What judging and its words need of a class. */
export type JudgingClass = JudgingSettings & { readonly naming?: NamingId | undefined };

function tried(settings: JudgingClass, played: PlayedTake): Judgement | { trouble: string } {
  const judged = judgeTake(played, settings);
  if (!judged.ok) return { trouble: takeTroubleText(judged.trouble, namingOf(settings)) };
  const { result, windows } = judged;
  const { accuracy, mark } = result;
  return { ages: settings.ages, windows, accuracy, mark, result, resultVersion: RESULT_VERSION };
}

/** Judges a take as its class has it: the columns that judging fills. */
export function judgement(settings: JudgingClass, played: PlayedTake): Judgement {
  const judged = tried(settings, played);
  if ('trouble' in judged) throw new Problem(422, 'not-judged', `This take cannot be judged: ${judged.trouble}.`);
  return judged;
}

/** Do two settings judge alike? */
export function judgesAlike(a: JudgingClass, b: JudgingClass): boolean {
  const key = ({ ages, onTimeMs, borders, clickCounts = false }: JudgingClass) =>
    JSON.stringify([ages, onTimeMs ?? null, borders ?? null, clickCounts]);
  return key(a) === key(b);
}

/** How the marks of a class would change under other windows and borders. Takes that cannot be judged keep theirs. */
export async function previewJudging(
  db: Database,
  classId: string,
  settings: JudgingClass,
  trial: JudgingTrial,
): Promise<JudgingPreview> {
  const takes = await takesToJudge(db, classId);
  const marks = Array.from({ length: HIGHEST_MARK + 1 }, (_, i) => ({ mark: HIGHEST_MARK - i, now: 0, then: 0 }));
  let [higher, lower] = [0, 0];
  for (const take of takes) {
    const judged = tried({ ...settings, ...trial }, take);
    const then = 'trouble' in judged ? take.mark : judged.mark;
    marks[HIGHEST_MARK - take.mark]!.now++;
    marks[HIGHEST_MARK - then]!.then++;
    if (then > take.mark) higher++;
    if (then < take.mark) lower++;
  }
  return { takes: takes.length, changed: higher + lower, higher, lower, marks };
}

/**
 * Judges every take of a class anew from its onsets; the teacher's own marks stay, and takes that cannot be judged any
 * more keep what they have. To be called inside the transaction that changes the settings.
 */
export async function rejudgeClass(db: Database, classId: string, settings: JudgingClass): Promise<void> {
  for (const take of await takesToJudge(db, classId)) {
    const judged = tried(settings, take);
    if (!('trouble' in judged)) await updateJudgement(db, take.id, judged);
  }
  await touchClass(db, classId);
}

/** A judged take as it is stored, with how its class judges. */
type StoredTake = PlayedTake &
  JudgingClass & {
    readonly id: string;
    readonly classId: string;
    readonly resultVersion: number;
    readonly result: TakeResult;
    readonly accuracy: number;
    readonly mark: number;
  };

/** What judging says of a stored take today: a result of an older version is judged again, and kept. */
export async function upToDate(
  db: Database,
  take: StoredTake,
): Promise<Pick<StoredTake, 'result' | 'accuracy' | 'mark'>> {
  if (take.resultVersion === RESULT_VERSION) return take;
  const judged = judgement(take, take);
  await updateJudgement(db, take.id, judged);
  await touchClass(db, take.classId);
  return judged;
}

const BATCH = 50;

/**
 * Brings results of older versions up to date, some at a time, so that requests are answered meanwhile. Never fails.
 */
export async function renewResults(
  db: Database,
  signal: AbortSignal,
  onProblem: (error: unknown, takeId?: string) => void,
): Promise<void> {
  let after = '';
  try {
    while (!signal.aborted) {
      const takes = await outdatedTakes(db, RESULT_VERSION, after, BATCH);
      for (const take of takes) {
        if (signal.aborted) return;
        await upToDate(db, take).catch((error: unknown) => onProblem(error, take.id));
      }
      if (takes.length < BATCH) return;
      after = takes.at(-1)!.id;
    }
  } catch (error) {
    if (!signal.aborted) onProblem(error);
  }
}
