import { t } from '../../core/words/say.ts';
import { promisify } from 'node:util';
import { type ZlibOptions, gzip } from 'node:zlib';
import type {
  ChildMastery,
  ClassMisread,
  ClassRecords,
  ElementPlaces,
  PaperColumnEdit,
  TakesPage,
} from '../../contract/records.ts';
import type { TakeResult } from '../../contract/takeResult.ts';
import { USUAL_SCALE, highestOf, scaleTrouble } from '../../core/judging/scale.ts';
import { masteryOf } from '../../core/records/mastery.ts';
import { toldPlaces } from '../../core/records/toldPlaces.ts';
import { ELEMENT_IDS } from '../../core/rhythm/elements.ts';
import { parseRhythm } from '../../core/rhythm/text.ts';
import { scheduleOf } from '../../core/timing/schedule.ts';
import { type Database, atOneMoment, transacted } from '../database.ts';
import { Problem, notFound } from '../problem.ts';
import { binRow } from '../repository/binnedRows.ts';
import { elementRecords, patternRecords } from '../repository/childRecords.ts';
import { listChildren } from '../repository/children.ts';
import { classFinder, holdClass, momentOfClass } from '../repository/classes.ts';
import { findPaperColumn, listPaper, paperMarksOf, writePaperColumn } from '../repository/paper.ts';
import { classOfLineUp, turnsByHand } from '../repository/lineUps.ts';
import { misreadSince, takesOfChild, takesWith } from '../repository/takes.ts';
import { childOf } from './children.ts';
import { classOf } from './classes.ts';
import { merged } from './merge.ts';
import { breath } from './patternText.ts';

export interface Body {
  /** Another one whenever the body is another. */
  readonly tag: string;
  /** JSON in bytes ready to be sent; and the same, compressed. */
  readonly json: Buffer;
  readonly gzip: Buffer;
}

const MOST_KEPT = 200;
/** What is firm becomes due with time, so that records are made anew now and then although nothing was heard. */
const STALE_AFTER_MS = 60 * 60_000;

/** Quickly: most of what it saves is saved by the first look. */
const compress = promisify<Buffer, ZlibOptions, Buffer>(gzip);

/**
 * Reads the records of a class. What was read is kept under the class's revision, which every change makes another one
 * in the database itself, so that it is never older than the database, also with several servers, after a class was
 * deleted and made again, and after a backup was restored.
 */
export function recordsReader(db: Database): (teacherId: string, classId: string) => Promise<Body> {
  const find = classFinder(db);
  const kept = new Map<string, Body>();
  const reading = new Map<string, Promise<Body>>();
  return async (teacherId, classId) => {
    const found = await find(teacherId, classId);
    if (!found) throw notFound('class');
    const now = Date.now();
    const tagOf = (revision: string) => `${revision}.${Math.floor(now / STALE_AFTER_MS)}`;
    const before = kept.get(classId);
    if (before?.tag === tagOf(found.revision)) return before;
    const key = `${classId} ${tagOf(found.revision)}`;
    const read = async () => {
      const { revision, records } = await atOneMoment(db, (inside) => readRecords(inside, classId, now));
      const json = Buffer.from(JSON.stringify(records));
      const body = { tag: tagOf(revision), json, gzip: await compress(json, { level: 1 }) };
      if (kept.size >= MOST_KEPT) kept.delete(kept.keys().next().value!);
      kept.set(classId, body);
      return body;
    };
    const running = reading.get(key) ?? read().finally(() => reading.delete(key));
    reading.set(key, running);
    return running;
  };
}

/** All records of a class since its term began; to be asked at one moment. */
export async function readRecords(db: Database, classId: string, now: number) {
  const found = await momentOfClass(db, classId);
  if (!found) throw notFound('class');
  const children = await listChildren(db, classId);
  const ids = children.map(({ id }) => id);
  const place = new Map(ids.map((id, i) => [id, i]));
  const byElement = await elementRecords(db, ids);
  const byPattern = await patternRecords(db, ids);
  const patterns = patternColumns(byPattern);
  const column = new Map(patterns.map(({ key }, i) => [key, i]));
  const records: ClassRecords = {
    children: ids,
    patterns,
    marks: byPattern.map(({ childId, patternKey, takes, best, last, markSum }) => ({
      child: place.get(childId)!,
      pattern: column.get(patternKey)!,
      takes,
      best,
      last,
      average: Math.round((markSum / takes) * 100) / 100,
    })),
    elements: children.flatMap(({ id, adaptations }, child) =>
      masteryOf(byElement.get(id)!, now)
        .filter(({ element }) => !adaptations?.exempt?.includes(element))
        .map((mastery) => ({ child, ...mastery })),
    ),
    paper: (await listPaper(db, classId, found.termFrom)).map(({ marks, ...paper }) => ({
      ...paper,
      points: marks.flatMap(({ childId, points }) =>
        place.has(childId) ? [{ child: place.get(childId)!, points }] : [],
      ),
    })),
  };
  return { revision: found.revision, records };
}

/** A column for each pattern that was heard, named as when it was heard last; that one comes last. */
function patternColumns(rows: Awaited<ReturnType<typeof patternRecords>>): ClassRecords['patterns'] {
  const columns = new Map<string, ClassRecords['patterns'][number]>();
  for (const { patternKey: key, title, lastAt } of rows) {
    const known = columns.get(key);
    if (!known || known.lastAt < lastAt) columns.set(key, { key, title, lastAt });
  }
  return [...columns.values()].sort((a, b) => a.lastAt - b.lastAt);
}

/** What a child knows, element by element; what it is exempt from is left out. */
export async function masteryOfChild(
  db: Database,
  teacherId: string,
  classId: string,
  childId: string,
): Promise<ChildMastery> {
  const { adaptations } = await childOf(db, teacherId, classId, childId, 'look');
  const records = (await elementRecords(db, [childId])).get(childId)!;
  return masteryOf(records, Date.now()).filter(({ element }) => !adaptations?.exempt?.includes(element));
}

/** So many takes are opened. */
const TAKES_OPENED = 20;

/** From what it is told how a child stands with an element: its places in the newest takes. */
export async function placesOfElement(
  db: Database,
  teacherId: string,
  classId: string,
  childId: string,
  word: string,
): Promise<ElementPlaces> {
  await childOf(db, teacherId, classId, childId, 'look');
  const element = ELEMENT_IDS.find((id) => id === word);
  if (!element) throw notFound('element');
  const told: ElementPlaces = [];
  for (const { id, title, takenAt, patternText, bpm, result } of await takesWith(db, childId, element, TAKES_OPENED)) {
    const all = placesIn(patternText, bpm, result);
    const places = all.flatMap(({ element: own, ...place }) => (own === element ? [place] : []));
    told.push({ takeId: id, title, takenAt, places });
    await breath();
  }
  return told;
}

function placesIn(text: string, bpm: number, result: TakeResult) {
  const read = parseRhythm(text);
  if (!read.ok) return [];
  const { events } = scheduleOf(read.pattern, bpm);
  return toldPlaces(read.pattern, result).map(({ element, at, from, to, verdict, code }) => ({
    element,
    ...at,
    verdict,
    ...(code && { code }),
    from: events[from]!.time,
    to: events[to - 1]!.end,
  }));
}

const PAGE = 50;

/** A place in a list of takes as it stands in an address: when, and which. */
const cursorOf = ({ takenAt, id }: { takenAt: number; id: string }) => `${takenAt}.${id}`;

function placeOf(cursor: string) {
  const [, takenAt, id] = /^(\d{1,15})\.([0-9a-f-]{36})$/.exec(cursor) ?? [];
  if (takenAt === undefined || id === undefined)
    throw new Problem(422, 'bad-request', t`after: expected the place that came with the page before.`);
  return { takenAt: Number(takenAt), id };
}

/**
 * A child's takes, newest first, some at a time.
 * @param after  where the page before ended
 * @param patternKey  only those of one pattern
 */
export async function takesPage(
  db: Database,
  teacherId: string,
  classId: string,
  childId: string,
  after: string | undefined,
  patternKey: string | undefined,
): Promise<TakesPage> {
  await childOf(db, teacherId, classId, childId, 'look');
  const place = after === undefined ? undefined : placeOf(after);
  const takes = await takesOfChild(db, childId, place, PAGE + 1, patternKey);
  const shown = takes.slice(0, PAGE);
  return { takes: shown, next: takes.length > PAGE ? cursorOf(shown.at(-1)!) : null };
}

/** What counts as lately. */
const LATELY_MS = 28 * 24 * 60 * 60_000;

/** What children of a class misread lately. */
export async function misreadLately(db: Database, teacherId: string, classId: string): Promise<ClassMisread> {
  await classOf(db, teacherId, classId, 'look');
  const children = new Map<ClassMisread[number]['code'], number>();
  for (const { code } of await misreadSince(db, classId, Date.now() - LATELY_MS))
    children.set(code, (children.get(code) ?? 0) + 1);
  return [...children].map(([code, count]) => ({ code, children: count })).sort((a, b) => b.children - a.children);
}

/** Makes or changes a column of marks made on paper. */
export async function savePaperColumn(
  db: Database,
  teacherId: string,
  classId: string,
  columnId: string,
  wanted: PaperColumnEdit,
  was?: PaperColumnEdit,
): Promise<'made' | 'changed'> {
  checkPoints(wanted);
  return transacted(db, async (inside) => {
    await holdClass(inside, classId);
    const { termFrom, scale } = await classOf(inside, teacherId, classId, 'hear');
    const known = await findPaperColumn(inside, columnId);
    // A line-up has its column under its own id: that of another class is taken.
    const line = known ? undefined : await classOfLineUp(inside, columnId);
    if ((known ?? line ?? { classId }).classId !== classId) throw notFound('column');
    const values = known ? await mergedColumn(inside, known, wanted, was) : wanted;
    const ids = new Set((await listChildren(inside, classId)).map(({ id }) => id));
    if (Object.keys(values.points).some((childId) => !ids.has(childId))) throw notFound('child');
    // A column that is made now belongs to the term of now, whatever date it bears.
    const takenAt = known ? values.takenAt : Math.max(values.takenAt, termFrom);
    await writePaperColumn(inside, classId, columnId, { ...values, takenAt });
    await turnsByHand(inside, classId, columnId, values.points, values.scale ?? USUAL_SCALE, scale ?? USUAL_SCALE);
    return known ? 'changed' : 'made';
  });
}

/** No more than there are; where they are marks of a scale, steps of it. */
export function checkPoints({ points, outOf, scale }: PaperColumnEdit): void {
  const given = Object.values(points).filter((one) => one !== null);
  if (given.some((one) => one > outOf))
    throw new Problem(422, 'bad-request', t`points: there are at most ${outOf} in this column.`);
  if (!scale) return;
  const trouble = scaleTrouble(scale);
  if (trouble) throw new Problem(422, 'scale', t`scale: ${trouble}.`, { field: 'scale' });
  if (outOf !== highestOf(scale) || given.some((one) => !Number.isInteger(one)))
    throw new Problem(422, 'bad-request', t`points: expected the steps of the scale of this column.`);
}

/** Two who enter marks into one column do so side by side: each mark is a part of its own. */
async function mergedColumn(
  db: Database,
  { id, title, outOf, takenAt, scale }: Omit<PaperColumnEdit, 'points'> & { readonly id: string },
  wanted: PaperColumnEdit,
  was: PaperColumnEdit | undefined,
): Promise<PaperColumnEdit> {
  const flat = ({ points, ...head }: PaperColumnEdit) => ({ ...points, ...head });
  const { points } = wanted;
  const together: Record<string, unknown> = merged<Record<string, unknown>>(
    was && flat(was),
    { ...(await paperMarksOf(db, id)), title, outOf, takenAt, scale },
    flat(wanted),
  );
  const given = Object.keys(points).map((childId) => [childId, together[childId] ?? null]);
  const heads = {
    title: together['title'],
    outOf: together['outOf'],
    takenAt: together['takenAt'],
    scale: together['scale'],
  };
  return { ...heads, points: Object.fromEntries(given) as PaperColumnEdit['points'] } as PaperColumnEdit;
}

export async function dropPaperColumn(
  db: Database,
  teacherId: string,
  classId: string,
  columnId: string,
): Promise<void> {
  await transacted(db, async (inside) => {
    await classOf(inside, teacherId, classId, 'hear');
    const known = await findPaperColumn(inside, columnId);
    if (known?.classId !== classId) throw notFound('column');
    await binRow(inside, 'column', classId, columnId, known.title, Date.now());
  });
}
