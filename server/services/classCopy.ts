import { t } from '../../core/words/say.ts';
import {
  COPY_KIND,
  COPY_VERSION,
  type ClassCopy,
  type ClassPieces,
  type CopiedSound,
  type CopiedTake,
} from '../../contract/classCopy.ts';
import { scaleOf } from '../../core/judging/scale.ts';
import type { JudgingClass } from '../judging/judges.ts';
import type { Judgement } from '../repository/takes.ts';
import { type Database, transacted } from '../database.ts';
import { Problem, notFound } from '../problem.ts';
import { holdChild, rebuildRecords } from '../repository/childRecords.ts';
import { listChildren } from '../repository/children.ts';
import { addTakes, copiedTakes, idsOfTakes, soundsOf } from '../repository/copies.ts';
import { holdClass, touchClass } from '../repository/classes.ts';
import { findLineUp, classOfLineUp, listLineUps, writeLineUp } from '../repository/lineUps.ts';
import { findEarTally, listEarTallies, writeEarTally } from '../repository/ear.ts';
import { findHearing, listHearings, writeHearing } from '../repository/hearings.ts';
import { findPaperColumn, listPaper, writePaperColumn } from '../repository/paper.ts';
import { patternsInClass } from '../repository/patterns.ts';
import { findLesson, findTermPlan, listLessons, writeLesson, writeTermPlan } from '../repository/planning.ts';
import { findPractice, listPractice, writePractice } from '../repository/practice.ts';
import { addTerm, beginTerm, findTerm, listTerms, termIdTaken } from '../repository/terms.ts';
import type { Resources } from '../resources.ts';
import { classOf, settingsIn } from './classes.ts';
import { judgement } from './judging.ts';
import { checkPieces } from './pieces.ts';
import { recordingOf } from './recordings.ts';

const EVERY = Number.MAX_SAFE_INTEGER;
const TAKES_AT_ONCE = 200;

/**
 * All of a class as one JSON text, piece by piece, so that no class is too large for the server's memory. Children in
 * the bin are left out.
 */
export async function* classCopy(db: Database, teacherId: string, classId: string): AsyncGenerator<string> {
  const found = await classOf(db, teacherId, classId, 'owner');
  const { termFrom } = found;
  const children = await listChildren(db, classId);
  const ids = new Set(children.map(({ id }) => id));
  const lineUps = await listLineUps(db, classId, EVERY);
  const practice = await listPractice(db, classId, EVERY);
  const ear = await listEarTallies(db, classId, EVERY);
  const together = await listHearings(db, classId, EVERY);
  const lessons = await listLessons(db, classId, EVERY);
  const terms = await Promise.all(
    (await listTerms(db, classId)).map(async ({ id }) => (await findTerm(db, classId, id))!),
  );
  const paper = (await listPaper(db, classId, 0)).map(({ marks, ...column }) => ({
    ...column,
    points: Object.fromEntries(marks.flatMap(({ childId, points }) => (ids.has(childId) ? [[childId, points]] : []))),
  }));
  const named = new Set([
    ...lineUps.flatMap(({ turns }) => turns.map(({ patternId }) => patternId)),
    ...practice.flatMap(({ plan }) => plan.items.map(({ patternId }) => patternId)),
    ...lessons.flatMap(({ blocks }) => blocks.flatMap(({ patterns }) => patterns.map(({ patternId }) => patternId))),
  ]);
  const head: Omit<ClassCopy, 'takes' | 'sounds' | 'patterns'> = {
    kind: COPY_KIND,
    version: COPY_VERSION,
    savedAt: Date.now(),
    settings: settingsIn(found),
    termFrom,
    children,
    terms,
    paper,
    practice,
    ear,
    together,
    lessons,
    termPlan: (await findTermPlan(db, classId)) ?? null,
    lineUps,
  };
  yield `${JSON.stringify(head).slice(0, -1)},"takes":[`;
  const sounds: string[] = [];
  let first = true;
  for await (const { takes, withSound } of allTakes(db, classId)) {
    const kept = takes.filter(({ childId }) => ids.has(childId));
    for (const { patternId } of kept) if (patternId !== null) named.add(patternId);
    if (kept.length > 0) yield `${first ? '' : ','}${kept.map((take) => JSON.stringify(take)).join(',')}`;
    if (kept.length > 0) first = false;
    sounds.push(...kept.flatMap(({ id }) => (withSound.has(id) ? [id] : [])));
  }
  yield `],"patterns":${JSON.stringify(await patternsInClass(db, classId, [...named]))},"sounds":[`;
  for (const [i, takeId] of sounds.entries()) {
    const sound = await soundOf(db, teacherId, takeId);
    if (sound) yield `${i === 0 ? '' : ','}${JSON.stringify(sound)}`;
  }
  yield ']}';
}

async function* allTakes(db: Database, classId: string) {
  let after: { takenAt: number; id: string } | undefined;
  for (;;) {
    const takes: CopiedTake[] = await copiedTakes(db, classId, after, TAKES_AT_ONCE);
    if (takes.length === 0) return;
    after = takes.at(-1)!;
    const withSound = new Set(
      await soundsOf(
        db,
        takes.map(({ id }) => id),
        Date.now(),
      ),
    );
    yield { takes, withSound };
  }
}

async function soundOf(db: Database, teacherId: string, takeId: string): Promise<CopiedSound | undefined> {
  const kept = await recordingOf(db, teacherId, takeId).catch(() => undefined);
  if (!kept) return undefined;
  const pieces: Buffer[] = [];
  for await (const piece of kept.pieces()) pieces.push(piece);
  return { takeId, mime: kept.mime, until: kept.until, base64: Buffer.concat(pieces).toString('base64') };
}

/** Puts some of what a class had into one that was made for it. Sent twice it is there once. */
export async function putPieces(
  resources: Resources,
  teacherId: string,
  classId: string,
  pieces: ClassPieces,
): Promise<void> {
  const { db } = resources;
  const settings = await classOf(db, teacherId, classId, 'owner');
  const eased = new Map((await listChildren(db, classId)).map(({ id, adaptations }) => [id, adaptations]));
  const ids = new Set(eased.keys());
  const { takes = [], ...rest } = pieces;
  await checkPieces(pieces, scaleOf(settings));
  if (takes.some(({ childId }) => !ids.has(childId))) throw notFound('child');
  const judged: (CopiedTake & Judgement & { readonly classId: string })[] = [];
  for (const take of takes) {
    const adaptations = eased.get(take.childId) ?? null;
    judged.push({ ...take, classId, ...(await judgedAs(resources, teacherId, { ...settings, adaptations }, take)) });
  }
  for (const childId of new Set(takes.map((take) => take.childId)))
    await transacted(db, async (inside) => {
      await holdChild(inside, childId);
      const own = judged.filter((take) => take.childId === childId);
      const known = await idsOfTakes(
        inside,
        own.map(({ id }) => id),
      );
      if ([...known.values()].some((other) => other !== classId)) throw notFound('take');
      await addTakes(
        inside,
        teacherId,
        own.filter(({ id }) => !known.has(id)),
      );
      await rebuildRecords(inside, childId);
      await touchClass(inside, classId);
    });
  await transacted(db, (inside) => putRest(inside, classId, rest, ids));
}

/** Judged here and now: the marks of a file are not believed. */
async function judgedAs(resources: Resources, teacherId: string, settings: JudgingClass, take: CopiedTake) {
  try {
    return await judgement(resources, teacherId, settings, take);
  } catch (error) {
    if (!(error instanceof Problem) || error.code !== 'not-judged') throw error;
    throw new Problem(422, 'bad-request', t`takes: “${take.title}” cannot be judged: ${error.message}`);
  }
}

async function putRest(
  db: Database,
  classId: string,
  {
    termFrom,
    terms = [],
    paper = [],
    lineUps = [],
    practice = [],
    ear = [],
    together = [],
    ...planned
  }: Omit<ClassPieces, 'takes'>,
  children: ReadonlySet<string>,
): Promise<void> {
  await holdClass(db, classId);
  for (const term of terms) {
    if (await findTerm(db, classId, term.id)) continue;
    if (await termIdTaken(db, term.id)) throw notFound('term');
    await addTerm(db, classId, term);
  }
  if (termFrom !== undefined) await beginTerm(db, classId, termFrom);
  for (const { id, ...column } of paper) {
    const known = await findPaperColumn(db, id);
    if (known && known.classId !== classId) throw notFound('column');
    if (Object.keys(column.points).some((childId) => !children.has(childId))) throw notFound('child');
    await writePaperColumn(db, classId, id, column);
  }
  for (const { id, ...lineUp } of lineUps) {
    if (await findLineUp(db, classId, id)) continue;
    if (await classOfLineUp(db, id)) throw notFound('line-up');
    if (lineUp.turns.some(({ childId }) => !children.has(childId))) throw notFound('child');
    const column = await findPaperColumn(db, id);
    if (column && column.classId !== classId) throw notFound('line-up');
    const own = await idsOfTakes(
      db,
      lineUp.turns.flatMap(({ takeId }) => takeId ?? []),
    );
    // A take of another class is no take of this one: its mark would come along.
    const turns = lineUp.turns.map((turn) => ({
      ...turn,
      takeId: own.get(turn.takeId ?? '') === classId ? turn.takeId : null,
    }));
    await writeLineUp(db, classId, id, { ...lineUp, turns });
  }
  for (const { id, ...week } of practice) {
    const known = await findPractice(db, id);
    if (known && known.classId !== classId) throw notFound('practice week');
    await writePractice(db, classId, id, week);
  }
  await putHeard(db, classId, { ear, together });
  await putPlanning(db, classId, planned);
  await touchClass(db, classId);
}

/** How the class did by ear, and how together it clapped. */
async function putHeard(
  db: Database,
  classId: string,
  { ear = [], together = [] }: Pick<ClassPieces, 'ear' | 'together'>,
): Promise<void> {
  for (const { id, ...tally } of ear) {
    const known = await findEarTally(db, id);
    if (known && known.classId !== classId) throw notFound('tally');
    await writeEarTally(db, classId, id, tally);
  }
  for (const { id, ...hearing } of together) {
    const known = await findHearing(db, id);
    if (known && known.classId !== classId) throw notFound('hearing');
    await writeHearing(db, classId, id, hearing);
  }
}

/** Lessons, and what is planned for the term: one that is there already stays. */
async function putPlanning(
  db: Database,
  classId: string,
  { lessons = [], termPlan }: Pick<ClassPieces, 'lessons' | 'termPlan'>,
): Promise<void> {
  for (const { id, ...lesson } of lessons) {
    const known = await findLesson(db, id);
    if (known && known.classId !== classId) throw notFound('lesson');
    await writeLesson(db, classId, id, lesson);
  }
  if (!termPlan || (await findTermPlan(db, classId))) return;
  await writeTermPlan(db, classId, termPlan);
}
