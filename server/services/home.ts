import { perLanguage, t } from '../../core/words/say.ts';
import { randomBytes } from 'node:crypto';
import { addDays, parseISO } from 'date-fns';
import {
  type FromHome,
  type HomeDone,
  type HomeLinksEdit,
  type HomeTake,
  type HomeTaken,
  type HomeWeek,
  KEPT_FROM_HOME,
} from '../../contract/home.ts';
import { DAYS_A_WEEK } from '../../contract/practice.ts';
import { ownBpm } from '../../core/records/lineUp.ts';
import { parseLeading } from '../../core/rhythm/scoreText.ts';
import { printRhythm } from '../../core/rhythm/text.ts';
import { type Database, transacted } from '../database.ts';
import { Problem, notFound } from '../problem.ts';
import { listChildren } from '../repository/children.ts';
import {
  addHomeTake,
  countDay,
  daysOf,
  dropHomeTakes,
  dropLink,
  dropLinksBefore,
  homeOf,
  homeTakesBy,
  homeTakesOf,
  keepBest,
  linksOf,
  putLink,
} from '../repository/home.ts';
import { findPractice } from '../repository/practice.ts';
import { voiceOfClass } from '../repository/rooms.ts';
import type { Resources } from '../resources.ts';
import { classOf } from './classes.ts';
import { OWN_WORK, judgement } from './judging.ts';
import { storeTake } from './takes.ts';

/** Nobody does more on one day. */
const MOST_A_DAY = 50;

const OVER = perLanguage(
  () => new Problem(410, 'week-over', t`This practice week is over, or its slip was called back. Ask your teacher.`),
);

async function homeWith(db: Database, token: string | undefined) {
  const found = token !== undefined && token.length <= 30 ? await homeOf(db, token, Date.now()) : undefined;
  if (!found) throw OVER();
  return found;
}

type Home = Awaited<ReturnType<typeof homeWith>>;

function itemOf({ plan, adaptations }: Pick<Home, 'plan' | 'adaptations'>, index: number) {
  const item = plan.items[index];
  if (!item) throw notFound('pattern of this week');
  const read = parseLeading(item.text);
  const text = read.ok ? printRhythm(read.pattern) : item.text;
  return { ...item, text, bpm: ownBpm(item.bpm, adaptations) };
}

/** What a child has to do at home this week, and how often it did it. */
export async function homeWeek(db: Database, token: string | undefined): Promise<HomeWeek> {
  const home = await homeWith(db, token);
  const voice = await voiceOfClass(db, home.classId);
  if (!voice) throw OVER();
  const done = await daysOf(db, home.weekId);
  return {
    starts: home.starts,
    title: home.plan.title,
    items: home.plan.items.map((_, index) => {
      const { title, text, bpm, times, days } = itemOf(home, index);
      return { title, text, bpm, times, days };
    }),
    voice,
    wider: home.adaptations?.wider ?? 1,
    done: done.flatMap(({ childId, ...day }) => (childId === home.childId ? [day] : [])),
  };
}

/** A take from home waits; of each pattern the best three. */
export async function storeHomeTake(
  resources: Resources,
  token: string | undefined,
  id: string,
  { item, onsets, source }: HomeTake,
): Promise<void> {
  const { db } = resources;
  const home = await homeWith(db, token);
  const { text, bpm } = itemOf(home, item);
  const voice = await voiceOfClass(db, home.classId);
  if (!voice) throw OVER();
  const played = { patternText: text, bpm, onsets };
  const { accuracy } = await judgement(resources, OWN_WORK(), { ...voice, adaptations: home.adaptations }, played);
  const { weekId, childId } = home;
  await transacted(db, async (inside) => {
    await addHomeTake(inside, { id, weekId, childId, item, bpm, onsets, source, takenAt: Date.now(), accuracy });
    await keepBest(inside, weekId, childId, item, KEPT_FROM_HOME);
  });
}

/** It was done once more. */
export async function countAtHome(db: Database, token: string | undefined, { item, day }: HomeDone): Promise<void> {
  const home = await homeWith(db, token);
  itemOf(home, item);
  await countDay(db, { weekId: home.weekId, childId: home.childId, item, day }, MOST_A_DAY);
}

async function weekOf(db: Database, teacherId: string, classId: string, weekId: string) {
  await classOf(db, teacherId, classId, 'hear');
  const week = await findPractice(db, weekId);
  if (week?.classId !== classId) throw notFound('practice week');
  return week;
}

/** The ways home of a week and what came from there, for whoever hears the class. */
export async function fromHome(db: Database, teacherId: string, classId: string, weekId: string): Promise<FromHome> {
  await weekOf(db, teacherId, classId, weekId);
  const [links, takes, done] = [
    await linksOf(db, weekId, Date.now()),
    await homeTakesOf(db, weekId),
    await daysOf(db, weekId),
  ];
  return { links, takes, done };
}

/** Makes the ways home of some children; one that was there leads nowhere any more. */
export async function makeLinks(
  db: Database,
  teacherId: string,
  classId: string,
  weekId: string,
  { children: wanted }: HomeLinksEdit,
): Promise<void> {
  await transacted(db, async (inside) => {
    const { starts } = await weekOf(inside, teacherId, classId, weekId);
    const untilAt = +addDays(parseISO(starts), DAYS_A_WEEK);
    if (untilAt <= Date.now())
      throw new Problem(409, 'week-over', t`This week is over. Make a new practice week first.`);
    const known = new Set((await listChildren(inside, classId)).map(({ id }) => id));
    for (const childId of wanted) {
      if (!known.has(childId)) throw notFound('child');
      await putLink(inside, { token: randomBytes(16).toString('base64url'), weekId, childId, untilAt });
    }
  });
}

export async function callBack(db: Database, teacherId: string, classId: string, weekId: string, childId: string) {
  await weekOf(db, teacherId, classId, weekId);
  if (!(await dropLink(db, weekId, childId))) throw notFound('way home');
}

/** Takes from home go into the records, at the time when they were clapped. */
export async function takeIn(
  resources: Resources,
  teacherId: string,
  classId: string,
  weekId: string,
  { ids }: HomeTaken,
): Promise<void> {
  const { db } = resources;
  const week = await weekOf(db, teacherId, classId, weekId);
  for (const take of await homeTakesBy(db, weekId, ids)) {
    const { patternId, title, text } = itemOf({ plan: week.plan, adaptations: null }, take.item);
    await storeTake(resources, teacherId, take.id, {
      childId: take.childId,
      patternId,
      title,
      patternText: text,
      bpm: take.bpm,
      onsets: [...take.onsets],
      source: take.source,
      takenAt: take.takenAt,
    });
    await dropHomeTakes(db, weekId, [take.id]);
  }
}

/** Takes from home that are not wanted. */
export async function leaveOut(db: Database, teacherId: string, classId: string, weekId: string, { ids }: HomeTaken) {
  await weekOf(db, teacherId, classId, weekId);
  await dropHomeTakes(db, weekId, ids);
}

export async function forgetLinks(db: Database): Promise<void> {
  await dropLinksBefore(db, Date.now());
}
