import { perLanguage, t } from '../../core/words/say.ts';
import type { JudgingPreview, JudgingTrial } from '../../contract/judging.ts';
import { USUAL_SCALE, carried, highestOf } from '../../core/judging/scale.ts';
import type { PlayedTake } from '../../core/judging/judgeTake.ts';
import { RESULT_VERSION, type TakeResult } from '../../core/judging/takeResult.ts';
import { Overtaken, once } from '../database.ts';
import type { JudgingClass } from '../judging/judges.ts';
import { Problem } from '../problem.ts';
import { holdChild, rebuildRecords } from '../repository/childRecords.ts';
import { touchIfJudgedSo } from '../repository/classes.ts';
import { type Judgement, countTakes, outdatedTakes, takesToJudge, updateJudgement } from '../repository/takes.ts';
import type { Resources } from '../resources.ts';

/** The server's own work takes turns with that of the teachers. */
export const OWN_WORK = perLanguage(() => t`the server`);

/** Judges a take as its class has it: the columns that judging fills. */
export async function judgement(
  { judges }: Resources,
  owner: string,
  settings: JudgingClass,
  played: PlayedTake,
): Promise<Judgement> {
  const [judged] = await judges.judge(owner, [{ settings: judgingPart(settings), played: playedPart(played) }]);
  if (!judged || 'trouble' in judged)
    throw new Problem(422, 'not-judged', t`This take cannot be judged: ${judged?.trouble ?? t`nothing came of it`}.`);
  return judged;
}

/** Of a row with more in it, what is sent to the judge. */
export function judgingPart({
  ages,
  onTimeMs,
  borders,
  scale,
  clickCounts,
  naming,
  adaptations,
}: JudgingClass): JudgingClass {
  return { ages, onTimeMs, borders, scale, clickCounts, naming, wider: adaptations?.wider };
}

export function playedPart({ patternText, bpm, onsets, feet, releases, free }: PlayedTake): PlayedTake {
  return { patternText, bpm, onsets, feet, releases, free };
}

/** Do two settings judge alike? */
export function judgesAlike(a: JudgingClass, b: JudgingClass): boolean {
  const key = ({ ages, onTimeMs, borders, scale, clickCounts = false }: JudgingClass) =>
    JSON.stringify([ages, onTimeMs ?? null, borders ?? null, scale ?? USUAL_SCALE, clickCounts]);
  return key(a) === key(b);
}

/** A preview looks at so many takes, the newest: what a class does now is what the teacher wants to know. */
const MOST_PREVIEWED = 2_000;
const PREVIEWED_AT_ONCE = 100;

/** How the marks of a class would change under other windows and borders. Takes that cannot be judged keep theirs. */
export async function previewJudging(
  { db, judges }: Resources,
  teacherId: string,
  classId: string,
  settings: JudgingClass,
  trial: JudgingTrial,
): Promise<JudgingPreview> {
  const from = settings.scale ?? USUAL_SCALE;
  const to = trial.scale === undefined ? from : (trial.scale ?? USUAL_SCALE);
  const highest = highestOf(to);
  const marks = Array.from({ length: highest + 1 }, (_, i) => ({ mark: highest - i, now: 0, then: 0 }));
  let [takes, higher, lower] = [0, 0, 0];
  let after: { takenAt: number; id: string } | undefined;
  while (takes < MOST_PREVIEWED) {
    const rows = await takesToJudge(db, classId, after, PREVIEWED_AT_ONCE);
    const judged = await judges.judge(
      teacherId,
      rows.map((row) => ({
        settings: judgingPart({ ...settings, ...trial, adaptations: row.adaptations }),
        played: playedPart(row),
      })),
    );
    for (const [i, row] of rows.entries()) {
      const mark = carried(row.mark, from, to);
      const one = judged[i]!;
      const then = 'trouble' in one ? mark : one.mark;
      marks[highest - mark]!.now++;
      marks[highest - then]!.then++;
      if (then > mark) higher++;
      if (then < mark) lower++;
    }
    takes += rows.length;
    after = rows.at(-1);
    if (rows.length < PREVIEWED_AT_ONCE) break;
  }
  const all = takes < MOST_PREVIEWED ? takes : await countTakes(db, classId);
  return { takes, all, changed: higher + lower, higher, lower, marks };
}

/** A judged take as it is stored, with how its class judges. */
type StoredTake = PlayedTake &
  JudgingClass & {
    readonly id: string;
    readonly childId: string;
    readonly classId: string;
    readonly judgingRevision: number;
    readonly resultVersion: number;
    readonly result: TakeResult;
    readonly accuracy: number;
    readonly mark: number;
  };

/**
 * What judging says of a stored take today: a result of an older version is judged again, and kept, unless the class
 * judges otherwise by now: then all of its takes are judged anyway.
 */
export async function upToDate(
  resources: Resources,
  owner: string,
  take: StoredTake,
): Promise<Pick<StoredTake, 'result' | 'accuracy' | 'mark'>> {
  if (take.resultVersion === RESULT_VERSION) return take;
  const judged = await judgement(resources, owner, take, take);
  await once(resources.db, async (inside) => {
    await holdChild(inside, take.childId);
    await updateJudgement(inside, take.id, judged, take.onsets);
    await rebuildRecords(inside, take.childId);
    await touchIfJudgedSo(inside, take.classId, take.judgingRevision);
  }).catch((error: unknown) => {
    if (!(error instanceof Overtaken)) throw error;
  });
  return judged;
}

const BATCH = 50;

/**
 * Brings results of older versions up to date, some at a time, so that requests are answered meanwhile. Never fails.
 */
export async function renewResults(
  resources: Resources,
  signal: AbortSignal,
  onProblem: (error: unknown, takeId?: string) => void,
): Promise<void> {
  let after = '';
  try {
    while (!signal.aborted) {
      const takes = await outdatedTakes(resources.db, RESULT_VERSION, after, BATCH);
      for (const take of takes) {
        if (signal.aborted) return;
        await upToDate(resources, OWN_WORK(), take).catch((error: unknown) => onProblem(error, take.id));
      }
      if (takes.length < BATCH) return;
      after = takes.at(-1)!.id;
    }
  } catch (error) {
    if (!signal.aborted) onProblem(error);
  }
}
