import { and, asc, count, desc, eq, gt, inArray, isNotNull, isNull, lt, max, or, sql } from 'drizzle-orm';
import type { RoomSettings, RoundEdit } from '../../contract/room.ts';
import type { Database } from '../database.ts';
import { children, classes, roomAnswers, roomRounds, roomSeats, rooms, takes, teachers } from '../schema.ts';
import type { Language } from '../../core/words/say.ts';

const present = isNull(children.binnedAt);

export type RoomRow = typeof rooms.$inferSelect;

/** The revisions of rooms by their ids; one that is gone has none. */
export async function roomRevisions(db: Database, ids: readonly string[]): Promise<ReadonlyMap<string, number>> {
  if (ids.length === 0) return new Map();
  const rows = await db
    .select({ id: rooms.id, revision: rooms.revision })
    .from(rooms)
    .where(inArray(rooms.id, [...ids]));
  return new Map(rows.map(({ id, revision }) => [id, revision]));
}

export async function findRoom(db: Database, roomId: string): Promise<RoomRow | undefined> {
  const [row] = await db.select().from(rooms).where(eq(rooms.id, roomId)).limit(1);
  return row;
}

/** The newest room with these pictures: the one that is open, or one that was. */
export async function roomWith(db: Database, pictures: string): Promise<RoomRow | undefined> {
  const [row] = await db
    .select()
    .from(rooms)
    .where(eq(rooms.pictures, pictures))
    .orderBy(desc(isNotNull(rooms.door)), desc(rooms.openedAt))
    .limit(1);
  return row;
}

/** The open rooms whose pictures begin like this. */
export async function roomsBeginning(db: Database, pictures: string): Promise<string[]> {
  const rows = await db
    .select({ id: rooms.id })
    .from(rooms)
    .where(sql`${rooms.door} like ${`${pictures} %`}`);
  return rows.map(({ id }) => id);
}

export async function openRooms(db: Database, classId: string, now: number) {
  return db
    .select({ id: rooms.id, openedAt: rooms.openedAt, endsAt: rooms.endsAt })
    .from(rooms)
    .where(and(eq(rooms.classId, classId), gt(rooms.endsAt, now), isNotNull(rooms.door)))
    .orderBy(desc(rooms.openedAt));
}

export async function addRoom(db: Database, room: typeof rooms.$inferInsert): Promise<void> {
  await db.insert(rooms).values(room);
}

/** Lets their pictures be drawn again. */
export async function closeDoors(db: Database, endedBefore: number): Promise<void> {
  await db
    .update(rooms)
    .set({ door: null })
    .where(and(lt(rooms.endsAt, endedBefore), isNotNull(rooms.door)));
}

/** All that is known of rooms that ended before then: devices, answers, rounds. */
export async function removeRooms(db: Database, endedBefore: number): Promise<void> {
  await db.delete(rooms).where(lt(rooms.endsAt, endedBefore));
}

/** Something in it has changed. */
export async function touchRoom(db: Database, roomId: string, values: Partial<RoomRow> = {}): Promise<void> {
  await db
    .update(rooms)
    .set({ ...values, revision: sql`${rooms.revision} + 1` })
    .where(eq(rooms.id, roomId));
}

/** Waits until nobody else changes the room; for the start of a transaction that does. */
export async function holdRoom(db: Database, roomId: string): Promise<RoomRow | undefined> {
  const [row] = await db.select().from(rooms).where(eq(rooms.id, roomId)).for('update');
  return row;
}

export async function setRoom(
  db: Database,
  roomId: string,
  values: RoomSettings & { readonly pictures?: string; readonly door?: string },
): Promise<void> {
  await touchRoom(db, roomId, values);
}

/** Devices with their room and their child, by the hash of their token; one that has no seat any more is not there. */
export async function seatsOf(db: Database, tokenHashes: readonly string[]) {
  const rows = await db
    .select({ seat: roomSeats, room: rooms, name: children.name, adaptations: children.adaptations })
    .from(roomSeats)
    .innerJoin(rooms, eq(rooms.id, roomSeats.roomId))
    .innerJoin(classes, and(eq(classes.id, rooms.classId), isNull(classes.binnedAt)))
    .leftJoin(children, and(eq(children.id, roomSeats.childId), present))
    .where(inArray(roomSeats.tokenHash, [...tokenHashes]));
  return new Map(rows.map((row) => [row.seat.tokenHash, row]));
}

/** Devices in a room; those without a name only as long as somebody may be choosing one. */
export async function countSeats(db: Database, roomId: string, seenSince: number): Promise<number> {
  const [row] = await db
    .select({ count: count() })
    .from(roomSeats)
    .where(and(eq(roomSeats.roomId, roomId), or(isNotNull(roomSeats.childId), gt(roomSeats.seenAt, seenSince))));
  return row!.count;
}

export async function addSeat(db: Database, seat: typeof roomSeats.$inferInsert): Promise<void> {
  await db.insert(roomSeats).values(seat);
}

/** Those who have the pictures and took no name. */
export async function dropUnnamed(db: Database, roomId: string, seenBefore: number): Promise<void> {
  await db
    .delete(roomSeats)
    .where(and(eq(roomSeats.roomId, roomId), isNull(roomSeats.childId), lt(roomSeats.seenAt, seenBefore)));
}

export async function nextPlace(db: Database, roomId: string): Promise<number> {
  const [row] = await db
    .select({ last: max(roomSeats.place) })
    .from(roomSeats)
    .where(and(eq(roomSeats.roomId, roomId), isNotNull(roomSeats.childId)));
  return row?.last === null || row === undefined ? 0 : row.last + 1;
}

export async function nameSeat(db: Database, tokenHash: string, childId: string, place: number): Promise<void> {
  await db.update(roomSeats).set({ childId, place }).where(eq(roomSeats.tokenHash, tokenHash));
}

export async function seeSeat(db: Database, tokenHash: string, seenAt: number): Promise<void> {
  await db.update(roomSeats).set({ seenAt }).where(eq(roomSeats.tokenHash, tokenHash));
}

export async function dropSeat(db: Database, tokenHash: string): Promise<void> {
  await db.delete(roomSeats).where(eq(roomSeats.tokenHash, tokenHash));
}

/** @returns whether somebody sat there */
export async function freeSeat(db: Database, roomId: string, childId: string): Promise<boolean> {
  const [{ affectedRows }] = await db
    .delete(roomSeats)
    .where(and(eq(roomSeats.roomId, roomId), eq(roomSeats.childId, childId)));
  return affectedRows > 0;
}

export async function putRound(db: Database, roomId: string, { number, ...values }: RoundEdit): Promise<void> {
  await db
    .insert(roomRounds)
    .values({ roomId, number, ...values })
    .onDuplicateKeyUpdate({ set: values });
}

export async function findRound(db: Database, roomId: string, number: number): Promise<RoundEdit | undefined> {
  const [row] = await db
    .select({
      number: roomRounds.number,
      task: roomRounds.task,
      phase: roomRounds.phase,
      startsAt: roomRounds.startsAt,
    })
    .from(roomRounds)
    .where(and(eq(roomRounds.roomId, roomId), eq(roomRounds.number, number)))
    .limit(1);
  return row;
}

type Answer = typeof roomAnswers.$inferInsert;
export type AnswerKey = Pick<Answer, 'roomId' | 'number' | 'childId'>;

/** Notes of a round at one device; what is left out stays. */
export async function putAnswer(
  db: Database,
  key: AnswerKey,
  values: Partial<Pick<Answer, 'ready' | 'option' | 'text' | 'takeId'>>,
): Promise<void> {
  await db
    .insert(roomAnswers)
    .values({ ...key, ...values })
    .onDuplicateKeyUpdate({ set: values });
}

/** The take that a child gives as its own in a round. */
export interface Claim extends AnswerKey {
  readonly takeId: string;
}

/**
 * Notes takes of one round, each where its child has none yet.
 * @returns for each the take that its child has now
 */
export async function claimAnswers(db: Database, claims: readonly Claim[]): Promise<(string | null)[]> {
  const kept = sql`coalesce(${roomAnswers.takeId}, values(${roomAnswers.takeId}))`;
  await db
    .insert(roomAnswers)
    .values(claims.map((claim) => ({ ...claim, ready: true })))
    .onDuplicateKeyUpdate({ set: { ready: true, takeId: kept } });
  const { roomId, number } = claims[0]!;
  const children = claims.map(({ childId }) => childId);
  const rows = await db
    .select({ childId: roomAnswers.childId, takeId: roomAnswers.takeId })
    .from(roomAnswers)
    .where(and(eq(roomAnswers.roomId, roomId), eq(roomAnswers.number, number), inArray(roomAnswers.childId, children)));
  const taken = new Map(rows.map(({ childId, takeId }) => [childId, takeId]));
  return children.map((childId) => taken.get(childId) ?? null);
}

/** What became of a round, with the marks of its takes as they are now. */
export async function answersIn(db: Database, roomId: string, number: number) {
  return db
    .select({
      childId: roomAnswers.childId,
      ready: roomAnswers.ready,
      option: roomAnswers.option,
      text: roomAnswers.text,
      takeId: roomAnswers.takeId,
      mark: sql<number | null>`coalesce(${takes.override}, ${takes.mark})`,
    })
    .from(roomAnswers)
    .leftJoin(takes, eq(takes.id, roomAnswers.takeId))
    .where(and(eq(roomAnswers.roomId, roomId), eq(roomAnswers.number, number)));
}

/** What was clapped in a round. */
export async function resultsIn(db: Database, roomId: string, number: number) {
  return db
    .select({
      childId: takes.childId,
      takeId: takes.id,
      part: takes.part,
      mark: sql<number>`coalesce(${takes.override}, ${takes.mark})`,
      result: takes.result,
    })
    .from(roomAnswers)
    .innerJoin(takes, eq(takes.id, roomAnswers.takeId))
    .where(and(eq(roomAnswers.roomId, roomId), eq(roomAnswers.number, number)));
}

/** Those who sit in a room, in the order in which they sat down. */
export async function seatsIn(db: Database, roomId: string) {
  return db
    .select({
      tokenHash: roomSeats.tokenHash,
      childId: children.id,
      name: children.name,
      adaptations: children.adaptations,
      place: roomSeats.place,
      seenAt: roomSeats.seenAt,
    })
    .from(roomSeats)
    .innerJoin(children, and(eq(children.id, roomSeats.childId), present))
    .where(eq(roomSeats.roomId, roomId))
    .orderBy(asc(roomSeats.place));
}

/** The children of a room's class nobody has sat down as. */
export async function freeNames(db: Database, classId: string, roomId: string) {
  return db
    .select({ id: children.id, name: children.name })
    .from(children)
    .leftJoin(roomSeats, and(eq(roomSeats.childId, children.id), eq(roomSeats.roomId, roomId)))
    .where(and(eq(children.classId, classId), present, isNull(roomSeats.tokenHash)))
    .orderBy(asc(children.name));
}

export async function countChildren(db: Database, classId: string): Promise<number> {
  const [row] = await db
    .select({ count: count() })
    .from(children)
    .where(and(eq(children.classId, classId), present));
  return row!.count;
}

export async function childByCode(db: Database, classId: string, code: string) {
  const [row] = await db
    .select({ id: children.id })
    .from(children)
    .where(and(eq(children.classId, classId), eq(children.roomCode, code), present))
    .limit(1);
  return row?.id;
}

export async function listCodes(db: Database, classId: string) {
  return db
    .select({ childId: children.id, name: children.name, code: children.roomCode })
    .from(children)
    .where(and(eq(children.classId, classId), present))
    .orderBy(asc(children.position), asc(children.name));
}

export async function setCode(db: Database, childId: string, roomCode: string): Promise<void> {
  await db.update(children).set({ roomCode }).where(eq(children.id, childId));
}

/** How a class speaks and judges. */
export async function voiceOfClass(db: Database, classId: string) {
  const [row] = await db
    .select({
      ages: classes.ages,
      school: classes.school,
      rests: classes.rests,
      naming: classes.naming,
      // A class without a language of its own learns in its teacher’s.
      language: sql<Language | null>`coalesce(${classes.language}, ${teachers.language})`,
      houseWords: classes.houseWords,
      wordSet: classes.wordSet,
      onTimeMs: classes.onTimeMs,
      borders: classes.borders,
      scale: classes.scale,
      clickCounts: classes.clickCounts,
      counts: classes.counts,
    })
    .from(classes)
    .innerJoin(teachers, eq(teachers.id, classes.teacherId))
    .where(eq(classes.id, classId))
    .limit(1);
  if (!row) return undefined;
  return { ...row, houseWords: row.houseWords ?? {}, borders: row.borders ? [...row.borders] : null };
}
