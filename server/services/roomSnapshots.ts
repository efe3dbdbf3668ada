import type { RoundEdit } from '../../contract/room.ts';
import { type Database, atOneMoment } from '../database.ts';
import {
  type RoomRow,
  answersIn,
  countChildren,
  findRoom,
  findRound,
  seatsIn,
  voiceOfClass,
} from '../repository/rooms.ts';

type Answer = Awaited<ReturnType<typeof answersIn>>[number];
type Seated = Awaited<ReturnType<typeof seatsIn>>[number];

/** All of a room at one moment: what every device in it is told is a part of it. */
export interface RoomSnapshot {
  readonly row: RoomRow;
  readonly voice: NonNullable<Awaited<ReturnType<typeof voiceOfClass>>>;
  /** How many the class has. */
  readonly children: number;
  readonly seats: readonly Seated[];
  readonly round: RoundEdit | undefined;
  readonly answers: ReadonlyMap<string, Omit<Answer, 'childId'>>;
}

export interface RoomSnapshots {
  readonly of: (roomId: string) => Promise<RoomSnapshot | undefined>;
}

async function read(db: Database, roomId: string): Promise<RoomSnapshot | undefined> {
  return atOneMoment(db, async (inside) => {
    const row = await findRoom(inside, roomId);
    const voice = row && (await voiceOfClass(inside, row.classId));
    if (!row || !voice) return undefined;
    const children = await countChildren(inside, row.classId);
    const seats = await seatsIn(inside, roomId);
    const round = row.round === 0 ? undefined : await findRound(inside, roomId, row.round);
    const answers = await answersIn(inside, roomId, row.round);
    return {
      row,
      voice,
      children,
      seats,
      round,
      answers: new Map(answers.map(({ childId, ...answer }) => [childId, answer])),
    };
  });
}

/**
 * Reads rooms, each once for all devices that ask while it is being read: of those who ask during a reading the next
 * one is for all, so that nobody is told of what was before its question.
 */
export function roomSnapshots(db: Database): RoomSnapshots {
  const reading = new Map<string, Promise<unknown>>();
  const next = new Map<string, Promise<RoomSnapshot | undefined>>();
  return {
    of: (roomId) => {
      const waiting = next.get(roomId);
      if (waiting) return waiting;
      const before = reading.get(roomId);
      const begin = (): Promise<RoomSnapshot | undefined> => {
        next.delete(roomId);
        const now = read(db, roomId);
        const over = now.catch(() => undefined).finally(() => reading.get(roomId) === over && reading.delete(roomId));
        reading.set(roomId, over);
        return now;
      };
      if (!before) return begin();
      const own = before.then(begin);
      next.set(roomId, own);
      return own;
    },
  };
}
