import { t } from '../../core/words/say.ts';
import { setTimeout as wait } from 'node:timers/promises';
import { v4 as uuid } from 'uuid';
import { type Database, transacted } from '../database.ts';
import type { Tried } from '../judging/judges.ts';
import { rebuildRecords } from '../repository/childRecords.ts';
import { childIdsOf } from '../repository/children.ts';
import { classById, touchClass } from '../repository/classes.ts';
import {
  type Rejudging,
  askForRejudging,
  claimRejudging,
  endRejudging,
  findRejudging,
  letGoOfRejudgings,
  moveRejudging,
} from '../repository/rejudgings.ts';
import { countTakes, takesToJudge, updateJudgement } from '../repository/takes.ts';
import type { Resources } from '../resources.ts';
import type { JudgingBefore } from '../schema.ts';
import { OWN_WORK, judgingPart, playedPart } from './judging.ts';

const BATCH = 40;
/** A server that was killed is missed after so long; another one then goes on where it was. */
const LEASE_MS = 12_000;
const LOOK_MS = 2_000;

/** Who waits for work in this process: told at once what another one finds when it looks. */
const waiting = new Set<() => void>();

/**
 * To be called inside the transaction that changes how a class judges: settings and job are kept together or not.
 * @param before  how it judged, for whoever breaks it off; null where that cannot be
 */
export async function askToRejudge(
  inside: Database,
  classId: string,
  revision: number,
  before: JudgingBefore | null,
): Promise<void> {
  await askForRejudging(inside, classId, revision, await countTakes(inside, classId), before);
}

/** To be called when that transaction is done: work begins at once. */
export function tellRejudging(): void {
  for (const look of waiting) look();
}

/** So long whoever changes the settings waits for the marks: enough for a class of some hundred takes. */
const PATIENCE_MS = 1_500;
const ASK_AGAIN_MS = 40;

/** Waits until the marks of a class are worked out anew, or a moment has passed. */
export async function awaitRejudging(db: Database, classId: string): Promise<void> {
  const until = Date.now() + PATIENCE_MS;
  while (Date.now() < until && (await findRejudging(db, classId))) await wait(ASK_AGAIN_MS);
}

/**
 * Works on what is to be judged anew until it is stopped: what this server was asked for and what one that was killed
 * left behind. Never fails.
 */
export async function workOnRejudgings(
  resources: Resources,
  signal: AbortSignal,
  onProblem: (error: unknown, takeId?: string) => void,
  leaseMs = LEASE_MS,
): Promise<void> {
  const owner = uuid();
  const { db } = resources;
  while (!signal.aborted) {
    try {
      const job = await claimRejudging(db, owner, leaseMs);
      if (job) await workOn(resources, job, signal, leaseMs, onProblem);
      else await somethingToDo(signal);
    } catch (error) {
      if (signal.aborted) break;
      onProblem(error);
      await somethingToDo(signal);
    }
  }
  await letGoOfRejudgings(db, owner).catch(() => undefined);
}

function somethingToDo(signal: AbortSignal): Promise<void> {
  return new Promise((resolve) => {
    const done = () => {
      clearTimeout(timer);
      waiting.delete(done);
      signal.removeEventListener('abort', done);
      resolve();
    };
    const timer = setTimeout(done, LOOK_MS);
    waiting.add(done);
    signal.addEventListener('abort', done);
    if (signal.aborted) done();
  });
}

/** The teacher's own marks stay, and takes that cannot be judged any more keep what they have. */
async function workOn(
  resources: Resources,
  job: Rejudging,
  signal: AbortSignal,
  leaseMs: number,
  onProblem: (error: unknown, takeId?: string) => void,
): Promise<void> {
  const { db } = resources;
  let place = job.takeId === '' ? undefined : { takenAt: job.takenAt, id: job.takeId };
  while (!signal.aborted) {
    const settings = await classById(db, job.classId);
    // Settings that came after these have a job of their own.
    if (!settings || settings.judgingRevision !== job.revision) return;
    const takes = await takesToJudge(db, job.classId, place, BATCH);
    const last = takes.at(-1);
    if (!last) {
      await finish(db, job);
      return;
    }
    const judged = await judgeEach(resources, takes, settings, onProblem);
    const mine = await transacted(db, async (inside) => {
      if (!(await moveRejudging(inside, job, last, takes.length, leaseMs))) return false;
      for (const [i, one] of judged.entries())
        if (!('trouble' in one)) await updateJudgement(inside, takes[i]!.id, one, takes[i]!.onsets);
      await touchClass(inside, job.classId);
      return true;
    });
    if (!mine) return;
    place = last;
  }
}

/** The records are made of the marks when all of them are there; whoever asks meanwhile sees how far it is. */
async function finish(db: Database, job: Rejudging): Promise<void> {
  for (const childId of await childIdsOf(db, job.classId))
    await transacted(db, (inside) => rebuildRecords(inside, childId));
  await transacted(db, async (inside) => {
    await touchClass(inside, job.classId);
    await endRejudging(inside, job);
  });
}

type Rows = Awaited<ReturnType<typeof takesToJudge>>;

/** All together; where that fails one by one, so that a single take does not hold up the others. */
async function judgeEach(
  { judges }: Resources,
  takes: Rows,
  settings: Parameters<typeof judgingPart>[0],
  onProblem: (error: unknown, takeId?: string) => void,
): Promise<Tried[]> {
  const asked = takes.map((take) => ({
    settings: judgingPart({ ...settings, adaptations: take.adaptations }),
    played: playedPart(take),
  }));
  try {
    return await judges.judge(OWN_WORK(), asked);
  } catch {
    const each: Tried[] = [];
    for (const [i, one] of asked.entries()) {
      const [judged] = await judges.judge(OWN_WORK(), [one]).catch((error: unknown) => {
        onProblem(error, takes[i]!.id);
        return [];
      });
      each.push(judged ?? { trouble: t`it takes too long` });
    }
    return each;
  }
}
