import { t } from '../../core/words/say.ts';
import { createHash } from 'node:crypto';
import type { MarkOverride, TakeDetail, TakeUpload } from '../../contract/take.ts';
import { type Database, Overtaken, once, retried, transacted } from '../database.ts';
import type { Role } from '../../contract/schoolClass.ts';
import { PATIENCE_MS, notFound } from '../problem.ts';
import { holdChild, rebuildRecords } from '../repository/childRecords.ts';
import { touchIfJudgedSo } from '../repository/classes.ts';
import {
  type TakeKey,
  type Arriving,
  type JudgedAs,
  addTakes,
  findTake,
  judgingOfChildren,
  overrideMark,
  ownMarkOf,
  removeTake,
  takeIdTaken,
  updateJudgement,
} from '../repository/takes.ts';
import { partKey } from '../../core/records/partKey.ts';
import type { Resources } from '../resources.ts';
import { batchesOf } from '../batches.ts';
import { demand } from './access.ts';
import { classOf } from './classes.ts';
import { checkMark } from './classSettings.ts';
import { judgement, upToDate } from './judging.ts';
import { merged } from './merge.ts';

/**
 * Takes that come at once are stored together, those of a class one batch after the other: whoever waits for its row
 * holds no connection to the database meanwhile. A batch is as many as a class has children who end together.
 */
const MOST_AT_ONCE = 20;

interface ToStore extends Arriving {
  readonly db: Database;
  readonly judgedAs: JudgedAs;
}

const TOGETHER = { most: MOST_AT_ONCE, patienceMs: PATIENCE_MS };

const storing = batchesOf(async (takes: readonly ToStore[]) => {
  const { db, judgedAs } = takes[0]!;
  await addTakes(db, takes, judgedAs);
  return takes;
}, TOGETHER);

interface Asked {
  readonly db: Database;
  readonly teacherId: string;
  readonly childId: string;
  readonly patternId: string | null;
}

const asking = batchesOf(async (asked: readonly Asked[]) => {
  const { db, teacherId, patternId } = asked[0]!;
  const ids = [...new Set(asked.map(({ childId }) => childId))];
  const found = await judgingOfChildren(db, teacherId, ids, patternId);
  return asked.map(({ childId }) => found.get(childId));
}, TOGETHER);

type OwnedTake = NonNullable<Awaited<ReturnType<typeof findTake>>>;

/** A take of a child of whom the teacher may do so much. */
async function ownTake(db: Database, teacherId: string, takeId: string, needed: Role): Promise<OwnedTake> {
  const take = await findTake(db, teacherId, takeId);
  if (!take) throw notFound('take');
  demand(take.role, needed);
  return take;
}

/** Of a pattern that is nowhere but in the take. */
const keyOfText = (text: string) => createHash('sha256').update(text).digest('hex').slice(0, 36);

/** A take that the teacher may hear and mark, with its child and class. */
export async function keyOfTake(db: Database, teacherId: string, takeId: string): Promise<TakeKey> {
  const { id, childId, classId } = await ownTake(db, teacherId, takeId, 'hear');
  return { id, childId, classId };
}

/** A take of one of the teacher's children, as it goes out. */
export async function takeOf(resources: Resources, teacherId: string, takeId: string): Promise<TakeDetail> {
  const take = await ownTake(resources.db, teacherId, takeId, 'look');
  const {
    classId: _class,
    judgingRevision: _revision,
    resultVersion: _version,
    onTimeMs: _onTime,
    borders: _borders,
    scale: _scale,
    clickCounts: _click,
    naming: _naming,
    adaptations: _adaptations,
    role: _role,
    ...shown
  } = take;
  const { result, accuracy, mark } = await upToDate(resources, teacherId, take);
  return {
    ...shown,
    // In the scale of the class, also where it was given in another one.
    result: { ...result, mark },
    accuracy,
    mark,
    onsets: [...take.onsets],
    feet: take.feet && [...take.feet],
    releases: take.releases && [...take.releases],
    recordingUntil: take.recordingUntil !== null && take.recordingUntil > Date.now() ? take.recordingUntil : null,
  };
}

/**
 * Judges a take from its onsets and stores it. Sent twice it is stored once, and the first one is the answer.
 * A pattern that was removed meanwhile does not lose the take: it carries its own text.
 * @param turn  whose turn it is to be judged: the teacher's, or a room's where a class sends all at once
 */
export async function storeTake(
  resources: Resources,
  teacherId: string,
  takeId: string,
  upload: TakeUpload,
  turn = teacherId,
): Promise<TakeDetail> {
  const { db } = resources;
  const { free = false, source = 'tap', feet = null, releases = null, part = null, besideId = null, childId } = upload;
  const stored = await retried(async () => {
    const { patternId } = upload;
    const child = await asking(`${teacherId} ${patternId}`, { db, teacherId, childId, patternId });
    if (!child) throw notFound('child');
    demand(child.role, 'hear');
    const judged = await judgement(resources, turn, child, { ...upload, free });
    const { classId, patternId: known } = child;
    const { lineUpId, turnSeen, ...played } = upload;
    const lineUp = lineUpId === undefined ? undefined : { id: lineUpId, seen: turnSeen };
    const key = upload.patternId === null ? keyOfText(upload.patternText) : partKey(upload.patternId, upload.part);
    const whose = { classId, patternId: known, patternKey: key, part, besideId };
    const take = { ...played, ...judged, ...whose, feet, releases, id: takeId, free, source };
    try {
      // Together only what was judged alike.
      const owner = `${classId} ${child.judgingRevision} ${child.termFrom}`;
      await storing(owner, { db, take, lineUp, judgedAs: child });
    } catch (error) {
      if (await takeIdTaken(db, takeId)) return undefined;
      throw error;
    }
    return take;
  });
  if (!stored) return takeOf(resources, teacherId, takeId);
  const {
    resultVersion: _version,
    classId: _class,
    elements: _elements,
    hardest: _hardest,
    misread: _misread,
    ...shown
  } = stored;
  return { ...shown, override: null, overrideReason: '', given: null, corrected: false, recordingUntil: null };
}

/** Judges a take anew from onsets that were put right by hand; it is marked as corrected. */
export async function correctTake(
  resources: Resources,
  teacherId: string,
  takeId: string,
  onsets: readonly number[],
): Promise<TakeDetail> {
  const { db } = resources;
  await retried(async () => {
    const take = await ownTake(db, teacherId, takeId, 'hear');
    const { classId, judgingRevision } = take;
    // A clap that stays keeps its release; when an added one was let go nobody knows.
    const releases = take.releases && onsets.map((time) => take.releases?.[take.onsets.indexOf(time)] ?? null);
    const judged = await judgement(
      resources,
      teacherId,
      { ...take, ...(await classOf(db, teacherId, classId, 'hear')) },
      { ...take, onsets, releases },
    );
    await once(db, async (inside) => {
      await holdChild(inside, take.childId);
      const corrected = { ...judged, onsets, releases, corrected: true };
      if (!(await updateJudgement(inside, takeId, corrected, take.onsets)))
        throw new Overtaken(t`the take was corrected by another request`);
      await rebuildRecords(inside, take.childId);
      await touchIfJudgedSo(inside, classId, judgingRevision);
    });
  });
  return takeOf(resources, teacherId, takeId);
}

/**
 * The teacher's own mark with her reason; null takes it back.
 * @param was  what it was where it was given: another one given meanwhile is not wiped unseen
 */
export async function setOwnMark(
  resources: Resources,
  teacherId: string,
  takeId: string,
  wanted: MarkOverride,
  was?: MarkOverride,
): Promise<TakeDetail> {
  await transacted(resources.db, async (inside) => {
    const { scale, ...key } = await ownTake(inside, teacherId, takeId, 'hear');
    checkMark(wanted.mark, scale);
    const { mark, reason = '' } = merged(was && whole(was), await ownMarkOf(inside, key), whole(wanted));
    await overrideMark(inside, key, mark, mark === null ? '' : reason);
  });
  return takeOf(resources, teacherId, takeId);
}

const whole = ({ mark, reason = '' }: MarkOverride): MarkOverride => ({ mark, reason });

export async function dropTake(db: Database, teacherId: string, takeId: string): Promise<void> {
  await transacted(db, async (inside) => {
    await removeTake(inside, await keyOfTake(inside, teacherId, takeId));
  });
}
