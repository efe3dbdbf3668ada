import { perLanguage, t } from '../../core/words/say.ts';
import { randomBytes } from 'node:crypto';
import type {
  ChildRoom,
  ChildTask,
  EnterRoom,
  RoomDoor,
  RoomTake,
  RoomTask,
  RoundAnswer,
  RoundEdit,
  TakeSeat,
} from '../../contract/room.ts';
import { ROOM_TO_SPARE } from '../../contract/roomPictures.ts';
import { partTitle } from '../../core/records/partKey.ts';
import type { TakeUpload } from '../../contract/take.ts';
import { parseScore } from '../../core/rhythm/scoreText.ts';
import { retried, transacted } from '../database.ts';
import { Problem, notFound } from '../problem.ts';
import {
  addSeat,
  childByCode,
  countChildren,
  countSeats,
  dropSeat,
  dropUnnamed,
  freeNames,
  holdRoom,
  nameSeat,
  nextPlace,
  putAnswer,
  roomWith,
  roomsBeginning,
  seatsOf,
  seeSeat,
  touchRoom,
} from '../repository/rooms.ts';
import type { Resources } from '../resources.ts';
import { tokenHash } from './codes.ts';
import { AWAY_MS, LATE_MS, NOTHING_DONE, ROOM_ENDED, type RoomResources, isOpen } from './rooms.ts';
import type { RoomSnapshot } from './roomSnapshots.ts';
import { storeTake } from './takes.ts';

/** Who has the pictures and took no name for so long is not counted any more. */
const CHOOSING_MS = 3 * 60_000;

const NO_SEAT = perLanguage(
  () => new Problem(401, 'no-seat', t`You are not in this room any more. Tap the pictures on the board again.`),
);
const NO_NAME = perLanguage(() => new Problem(401, 'no-name', t`Choose your name first.`));
const TAKEN = perLanguage(
  () => new Problem(409, 'name-taken', t`Somebody has this name already. Choose yours, or tell your teacher.`),
);
const WRONG_PICTURES = perLanguage(
  () => new Problem(404, 'wrong-pictures', t`These are not the pictures on the board. Look, and try again.`),
);
const FULL = perLanguage(() => new Problem(409, 'room-full', t`The room is full. Tell your teacher.`));

/** A device that has taken a name. */
interface Seated {
  readonly tokenHash: string;
  readonly roomId: string;
  readonly childId: string;
  readonly place: number;
  readonly teacherId: string;
  readonly marksShown: boolean;
}

/**
 * A device that has the pictures. It has no name yet.
 * @returns the token of its cookie, and what stands at the door
 */
export async function enterRoom(
  { db, clock, tries }: RoomResources,
  { pictures }: EnterRoom,
  address: string,
): Promise<{ readonly token: string; readonly door: RoomDoor; readonly endsAt: number }> {
  const beginning = await roomsBeginning(db, pictures.slice(0, 2).join(' '));
  tries.demandRest(address, beginning);
  await clock.ready();
  const [room, now] = [await roomWith(db, pictures.join(' ')), clock.now()];
  if (!room) {
    await tries.wrong(address, beginning);
    throw WRONG_PICTURES();
  }
  if (!isOpen(room, now)) throw ROOM_ENDED();
  const token = randomBytes(32).toString('base64url');
  await transacted(db, async (inside) => {
    await holdRoom(inside, room.id);
    await dropUnnamed(inside, room.id, now - CHOOSING_MS);
    const size = (await countChildren(inside, room.classId)) + ROOM_TO_SPARE;
    if ((await countSeats(inside, room.id, now - CHOOSING_MS)) >= size) throw FULL();
    await addSeat(inside, { tokenHash: tokenHash(token), roomId: room.id, seenAt: Math.floor(now) });
  });
  const names = room.codes ? [] : await freeNames(db, room.classId, room.id);
  return { token, door: { codes: room.codes, names }, endsAt: room.endsAt };
}

/** A device by its token, with its room; `late` also so long after the end as a take may still come. */
async function seatWith({ batches, clock }: RoomResources, token: string | undefined, late = false) {
  const found = token === undefined || token.length > 100 ? undefined : await batches.seatOf(tokenHash(token));
  if (!found) throw NO_SEAT();
  const now = clock.now();
  const open = isOpen(found.room, now);
  if (!open && !(late && now < found.room.endsAt + LATE_MS)) throw ROOM_ENDED();
  return found;
}

async function seated(resources: RoomResources, token: string | undefined, late = false): Promise<Seated> {
  const { seat, room, name } = await seatWith(resources, token, late);
  if (seat.childId === null) throw NO_NAME();
  // Its child was put into the bin meanwhile.
  if (name === null) throw NO_SEAT();
  const { tokenHash: hash, roomId, childId, place } = seat;
  return { tokenHash: hash, roomId, childId, place, teacherId: room.teacherId, marksShown: room.marksShown };
}

/** What stands at the door for a device that has the pictures already: names may have been taken meanwhile. */
export async function doorOf(resources: RoomResources, token: string | undefined): Promise<RoomDoor> {
  const { room, seat } = await seatWith(resources, token);
  if (seat.childId !== null) return { codes: room.codes, names: [] };
  return { codes: room.codes, names: room.codes ? [] : await freeNames(resources.db, room.classId, room.id) };
}

/** Takes a name, by itself or by its code. */
export async function takeName(
  resources: RoomResources,
  token: string | undefined,
  wanted: TakeSeat,
  address: string,
): Promise<ChildRoom> {
  const { db, tries } = resources;
  const { seat, room } = await seatWith(resources, token);
  if ('code' in wanted !== room.codes)
    throw new Problem(409, 'other-way', t`This room is entered another way by now. Tap the pictures again.`);
  if ('code' in wanted) tries.demandRest(address, [room.id]);
  const childId = await transacted(db, async (inside) => {
    await holdRoom(inside, room.id);
    const now = (await seatsOf(inside, [seat.tokenHash])).get(seat.tokenHash);
    if (!now) throw NO_SEAT();
    const own = 'code' in wanted ? await childByCode(inside, room.classId, wanted.code) : wanted.childId;
    if (now.seat.childId !== null && now.seat.childId === own) return own;
    const free = await freeNames(inside, room.classId, room.id);
    if (own === undefined || !free.some(({ id }) => id === own)) return undefined;
    await nameSeat(inside, seat.tokenHash, own, await nextPlace(inside, room.id));
    await touchRoom(inside, room.id);
    return own;
  });
  if (childId === undefined) {
    if (!('code' in wanted)) throw TAKEN();
    await tries.wrong(address, [room.id]);
    throw new Problem(404, 'wrong-code', t`This is not a code of this class, or it is in use. Look at it again.`, {
      field: 'code',
    });
  }
  resources.news.look();
  return roomOfSeat(resources, token);
}

/** Gives the name back: it was not its own, or the lesson is over for it. */
export async function leaveSeat(resources: RoomResources, token: string | undefined): Promise<void> {
  const { seat } = await seatWith(resources, token);
  await dropSeat(resources.db, seat.tokenHash);
  await touchRoom(resources.db, seat.roomId);
  resources.news.look();
}

/** The room as the device of a token sees it. */
export async function roomOfSeat(resources: RoomResources, token: string | undefined): Promise<ChildRoom> {
  return (await watchedSeat(resources, token)).shown;
}

/** The same, with what is needed to go on watching it. */
export async function watchedSeat(resources: RoomResources, token: string | undefined) {
  const { tokenHash: hash, roomId } = await seated(resources, token);
  const snapshot = await resources.snapshots.of(roomId);
  if (!snapshot) throw ROOM_ENDED();
  return {
    shown: shownTo(snapshot, hash, resources.clock.now()),
    tokenHash: hash,
    roomId,
    revision: snapshot.row.revision,
  };
}

/**
 * Another word whenever what one device is told of a room is something else: most of what happens in a room changes
 * nothing for most of them, and need not be put together for each.
 */
export function wordFor({ row, seats, round, answers }: RoomSnapshot, hash: string, now: number): string {
  const own = seats.find((one) => one.tokenHash === hash);
  const { door, endsAt, marksShown } = row;
  const is = [door !== null && now < endsAt, marksShown, own?.name, round?.number, round?.phase, round?.startsAt];
  return JSON.stringify([...is, own && answers.get(own.childId)]);
}

/** What one device is told of a room. Throws where it has no seat in it any more, or the room has ended. */
export function shownTo({ row, voice, seats, round, answers }: RoomSnapshot, hash: string, now: number): ChildRoom {
  if (!isOpen(row, now)) throw ROOM_ENDED();
  const own = seats.find((one) => one.tokenHash === hash);
  if (!own) throw NO_SEAT();
  const { mark, ...done } = answers.get(own.childId) ?? NOTHING_DONE;
  return {
    name: own.name,
    endsAt: row.endsAt,
    voice,
    wider: own.adaptations?.wider ?? 1,
    marksShown: row.marksShown,
    round: round
      ? { number: round.number, phase: round.phase, startsAt: round.startsAt, task: taskFor(round, own.place) }
      : null,
    done,
    mark: row.marksShown ? mark : null,
  };
}

/** The part of a pattern in parts that a device has. */
function partOf(task: Extract<RoomTask, { kind: 'take' }>, place: number) {
  return task.parts.length === 0 ? undefined : task.parts[place % task.parts.length]!;
}

/** Nothing that is right is told before the answer is shown. */
function taskFor({ task, phase }: RoundEdit, place: number): ChildTask {
  const open = phase === 'answer';
  if (task.kind === 'take') {
    const { title, text, bpm, heardBy, echo } = task;
    const part = partOf(task, place);
    return { kind: 'take', title, text: part?.text ?? text, part: part?.name ?? null, bpm, heardBy, echo };
  }
  if (task.kind === 'question') {
    const { asked, options, right, reasons } = task;
    return { kind: 'question', asked, options, right: open ? right : null, reasons: open ? reasons : [] };
  }
  const { text, bpm } = task;
  const read = parseScore(text);
  const measures = read.ok ? read.score.parts[0]!.pattern.measures : [];
  const { upper, lower } = measures[0]?.meter ?? { upper: 4, lower: 4 };
  return { kind: 'write', meter: `${upper}/${lower}`, measures: measures.length, bpm, text: open ? text : null };
}

/** A sign of life of a device. */
export async function seen({ db, clock }: RoomResources, hash: string): Promise<void> {
  await seeSeat(db, hash, Math.floor(clock.now()));
}

/** A device has gone: it is away soon, unless it comes back. */
export async function gone(resources: RoomResources, hash: string, roomId: string): Promise<void> {
  const { db, clock, news } = resources;
  await seeSeat(db, hash, Math.floor(clock.now() - AWAY_MS));
  await touchRoom(db, roomId);
  news.look();
}

async function roundOf({ batches }: RoomResources, roomId: string, number: number): Promise<RoundEdit> {
  const round = await batches.roundOf(roomId, number);
  if (!round) throw notFound('round');
  return round;
}

const TOO_LATE = perLanguage(
  () => new Problem(409, 'answered', t`The answer is shown already, so this one does not count.`),
);

/** It has its clock and its rhythm, and can begin. */
export async function setReady(resources: RoomResources, token: string | undefined, number: number): Promise<void> {
  const { roomId, childId } = await seated(resources, token);
  await roundOf(resources, roomId, number);
  await retried(() => putAnswer(resources.db, { roomId, number, childId }, { ready: true }));
  await resources.batches.touch(roomId);
  resources.news.look();
}

/** What a child answers; it may think again until the answer is shown. */
export async function setAnswer(
  resources: RoomResources,
  token: string | undefined,
  number: number,
  answer: RoundAnswer,
): Promise<void> {
  const { roomId, childId } = await seated(resources, token);
  const { task, phase } = await roundOf(resources, roomId, number);
  if (phase === 'answer') throw TOO_LATE();
  const fits =
    'option' in answer ? task.kind === 'question' && answer.option < task.options.length : task.kind === 'write';
  if (!fits) throw new Problem(422, 'bad-request', t`This is no answer to what is asked.`);
  await retried(() => putAnswer(resources.db, { roomId, number, childId }, { ready: true, ...answer }));
  await resources.batches.touch(roomId);
  resources.news.look();
}

const HAS_CLAPPED = perLanguage(() => new Problem(409, 'has-clapped', t`You have clapped this one already.`));

/**
 * Stores what a child clapped in a round, as its teacher would: whose it is and what was to be clapped the room says.
 * @returns its mark, where children see theirs
 */
export async function storeRoomTake(
  resources: RoomResources & Resources,
  token: string | undefined,
  takeId: string,
  { round: number, onsets, releases, source }: RoomTake,
): Promise<{ readonly mark: number | null }> {
  const { db, batches } = resources;
  const { roomId, childId, place, teacherId, marksShown } = await seated(resources, token, true);
  const { task, startsAt } = await roundOf(resources, roomId, number);
  if (task.kind !== 'take' || startsAt === null)
    throw new Problem(422, 'bad-request', t`Nothing is clapped in this round.`);
  const key = { roomId, number, childId };
  // Claimed first: of two takes of one round one is stored.
  const claimed = await batches.claim({ ...key, takeId });
  if (claimed !== takeId) throw HAS_CLAPPED();
  const part = partOf(task, place);
  const upload: TakeUpload = {
    childId,
    patternId: task.patternId,
    title: part ? partTitle(task.title, part.name) : task.title,
    patternText: part?.text ?? task.text,
    bpm: task.bpm,
    onsets,
    ...(releases ? { releases } : {}),
    source: source ?? task.heardBy,
    ...(part ? { part: part.name } : {}),
    takenAt: startsAt,
  };
  const take = await storeTake(resources, teacherId, takeId, upload, roomId);
  // An id that is another child's take stores nothing, and tells nothing of it.
  if (take.childId !== childId) {
    await putAnswer(db, key, { takeId: null });
    throw HAS_CLAPPED();
  }
  await batches.touch(roomId);
  resources.news.look();
  return { mark: marksShown ? (take.override ?? take.mark) : null };
}
