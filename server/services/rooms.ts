import { perLanguage, t } from '../../core/words/say.ts';
import { randomInt } from 'node:crypto';
import {
  type OpenRooms,
  ROOM_LASTS_MS,
  type Room,
  type RoomCodes,
  type RoomEdit,
  type RoomSettings,
  type RoomTask,
  type RoundEdit,
  type RoundResults,
} from '../../contract/room.ts';
import { CODE_LENGTH, PICTURES, PICTURES_OF_A_ROOM, type Picture, ROOM_TO_SPARE } from '../../contract/roomPictures.ts';
import { type Database, transacted } from '../database.ts';
import { Problem, notFound } from '../problem.ts';
import {
  type RoomRow,
  addRoom,
  closeDoors,
  findRoom,
  findRound,
  freeSeat,
  holdRoom,
  listCodes,
  openRooms,
  putRound,
  removeRooms,
  resultsIn,
  roomWith,
  setCode,
  setRoom,
  touchRoom,
} from '../repository/rooms.ts';
import { classOf } from './classes.ts';
import { readEach } from './patternText.ts';
import type { RoomBatches } from './roomBatches.ts';
import type { RoomClock } from './roomClock.ts';
import type { RoomNews } from './news.ts';
import type { RoomSnapshots } from './roomSnapshots.ts';
import { GUESSED, type RoomTries } from './roomTries.ts';

/** What the services of rooms work with. */
export interface RoomResources {
  readonly db: Database;
  readonly clock: RoomClock;
  readonly news: RoomNews;
  readonly tries: RoomTries;
  readonly snapshots: RoomSnapshots;
  readonly batches: RoomBatches;
  /** Where children's devices come in, in the networks of this machine. */
  readonly reachedAt: () => readonly string[];
}

/** A take that was clapped before the end is taken for so long after it; then the room is forgotten. */
export const LATE_MS = 10 * 60_000;

/** A device that was not heard of for so long is away. */
export const AWAY_MS = 40_000;

export const ROOM_ENDED = perLanguage(
  () => new Problem(410, 'room-ended', t`This room has ended. Your teacher can open a new one.`),
);

export const isOpen = ({ endsAt, door }: RoomRow, now: number) => door !== null && now < endsAt;

/** A room of a class in which the teacher hears children; one that has ended is said to have. */
async function ownRoom({ db, clock }: RoomResources, teacherId: string, classId: string, roomId: string) {
  await classOf(db, teacherId, classId, 'hear');
  const room = await findRoom(db, roomId);
  if (room?.classId !== classId) throw notFound('room');
  if (!isOpen(room, clock.now())) throw ROOM_ENDED();
  return room;
}

function drawnPictures(): Picture[] {
  const left: Picture[] = [...PICTURES];
  return Array.from({ length: PICTURES_OF_A_ROOM }, () => left.splice(randomInt(left.length), 1)[0]!);
}

/** Pictures that no open room has. */
async function freePictures(db: Database): Promise<string> {
  for (;;) {
    const drawn = drawnPictures().join(' ');
    const there = await roomWith(db, drawn);
    if (!there || there.door === null) return drawn;
  }
}

/** The open rooms of a class: another device of its teacher goes on in them. */
export async function openRoomsOf(
  { db, clock }: RoomResources,
  teacherId: string,
  classId: string,
): Promise<OpenRooms> {
  await classOf(db, teacherId, classId, 'hear');
  return openRooms(db, classId, clock.now());
}

const USUAL: RoomSettings = { codes: false, marksShown: false, namesShown: false };

/** Opens a room, or changes what is set in it. */
export async function saveRoom(
  resources: RoomResources,
  teacherId: string,
  classId: string,
  roomId: string,
  { newPictures = false, ...settings }: RoomEdit,
): Promise<'made' | 'changed'> {
  const { db, clock } = resources;
  await clock.ready();
  const done = await transacted(db, async (inside) => {
    await classOf(inside, teacherId, classId, 'hear');
    const known = await holdRoom(inside, roomId);
    if (known) {
      if (known.classId !== classId) throw notFound('room');
      if (!isOpen(known, clock.now())) throw ROOM_ENDED();
      const pictures = newPictures ? await freePictures(inside) : undefined;
      await setRoom(inside, roomId, { ...settings, ...(pictures && { pictures, door: pictures }) });
      return 'changed';
    }
    const openedAt = clock.now();
    await closeDoors(inside, openedAt);
    const pictures = await freePictures(inside);
    const times = { openedAt, endsAt: openedAt + ROOM_LASTS_MS };
    await addRoom(inside, {
      id: roomId,
      classId,
      teacherId,
      pictures,
      door: pictures,
      ...USUAL,
      ...settings,
      ...times,
    });
    return 'made';
  });
  resources.news.look();
  return done;
}

/** Ends a room: no device is in it any more, and what was clapped stays. */
export async function endRoom(resources: RoomResources, teacherId: string, classId: string, roomId: string) {
  const { id } = await ownRoom(resources, teacherId, classId, roomId);
  await touchRoom(resources.db, id, { door: null, endsAt: Math.floor(resources.clock.now()) });
  resources.news.look();
}

/** Nothing is kept of a room but what was clapped in it. */
export async function forgetRooms(db: Database, now: number): Promise<void> {
  await removeRooms(db, now - LATE_MS);
}

/** A room as its teacher sees it. */
export async function roomOf(
  resources: RoomResources,
  teacherId: string,
  classId: string,
  roomId: string,
): Promise<{ readonly room: Room; readonly revision: number }> {
  await resources.clock.ready();
  await ownRoom(resources, teacherId, classId, roomId);
  return shownRoom(resources, roomId);
}

export async function shownRoom(resources: RoomResources, roomId: string) {
  const { clock, tries, snapshots, reachedAt } = resources;
  const snapshot = await snapshots.of(roomId);
  if (!snapshot) throw notFound('room');
  const { row, children, seats, round, answers } = snapshot;
  const now = clock.now();
  if (!isOpen(row, now)) throw ROOM_ENDED();
  const { id, classId, pictures, codes, marksShown, namesShown, openedAt, endsAt, revision } = row;
  const room: Room = {
    id,
    classId,
    pictures: pictures.split(' ') as Picture[],
    codes,
    marksShown,
    namesShown,
    openedAt,
    endsAt,
    guessed: (await tries.guesses(id)) >= GUESSED,
    size: children + ROOM_TO_SPARE,
    addresses: [...reachedAt()],
    seats: seats.map(({ childId, name, place, seenAt }) => {
      const { mark, ...done } = answers.get(childId) ?? NOTHING_DONE;
      return { childId, name, place, away: seenAt < now - AWAY_MS, done, mark };
    }),
    round: round ?? null,
  };
  return { room, revision };
}

export const NOTHING_DONE = { ready: false, option: null, text: null, takeId: null, mark: null } as const;

/** The rhythms of a task, each with its field. */
function* textsIn(task: RoomTask): Iterable<readonly [text: string, field: string]> {
  if (task.kind === 'question') {
    if (task.heard) yield [task.heard.text, 'task.heard.text'];
    return;
  }
  yield [task.text, 'task.text'];
  if (task.kind === 'take') for (const [i, { text }] of task.parts.entries()) yield [text, `task.parts.${i}.text`];
}

function checkTask(task: RoomTask): void {
  if (task.kind === 'question' && task.right.some((option) => option >= task.options.length))
    throw new Problem(422, 'bad-request', t`task.right names an answer that is not among the options.`, {
      field: 'task.right',
    });
}

/**
 * The next thing all do, or the next step of the one that is on. One that is over stays as it was: another device of
 * the teacher was quicker.
 */
export async function setRound(
  resources: RoomResources,
  teacherId: string,
  classId: string,
  roomId: string,
  round: RoundEdit,
): Promise<void> {
  checkTask(round.task);
  await readEach(textsIn(round.task));
  await ownRoom(resources, teacherId, classId, roomId);
  await transacted(resources.db, async (inside) => {
    const room = await holdRoom(inside, roomId);
    if (!room) throw notFound('room');
    if (round.number < room.round || round.number > room.round + 1)
      throw new Problem(409, 'other-round', t`Another device has gone on in this room. Look at what it does now.`);
    await putRound(inside, roomId, round);
    await touchRoom(inside, roomId, { round: round.number });
  });
  resources.news.look();
}

/** What was clapped in a round. */
export async function roundResults(
  resources: RoomResources,
  teacherId: string,
  classId: string,
  roomId: string,
  number: number,
): Promise<RoundResults> {
  await ownRoom(resources, teacherId, classId, roomId);
  if (!(await findRound(resources.db, roomId, number))) throw notFound('round');
  return resultsIn(resources.db, roomId, number);
}

/** Lets a name be taken by another device. */
export async function freeName(
  resources: RoomResources,
  teacherId: string,
  classId: string,
  roomId: string,
  childId: string,
): Promise<void> {
  await ownRoom(resources, teacherId, classId, roomId);
  if (!(await freeSeat(resources.db, roomId, childId))) throw notFound('child in this room');
  await touchRoom(resources.db, roomId);
  resources.news.look();
}

/** The codes by which the children of a class sit down; those that are missing are drawn. */
export async function codesOf({ db }: RoomResources, teacherId: string, classId: string): Promise<RoomCodes> {
  return transacted(db, async (inside) => {
    await classOf(inside, teacherId, classId, 'hear');
    const known = await listCodes(inside, classId);
    const used = new Set(known.map(({ code }) => code));
    const codes: RoomCodes = [];
    for (const { childId, name, code } of known) {
      const own = code ?? drawnCode(used);
      if (code === null) await setCode(inside, childId, own);
      codes.push({ childId, name, code: own });
    }
    return codes;
  });
}

function drawnCode(used: Set<string | null>): string {
  for (;;) {
    const code = String(randomInt(10 ** CODE_LENGTH)).padStart(CODE_LENGTH, '0');
    if (used.has(code)) continue;
    used.add(code);
    return code;
  }
}
