import type { RoundEdit } from '../../contract/room.ts';
import { onceForAll } from '../batches.ts';
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

/** Reads rooms, each once for all devices that ask while it is being read. */
export function roomSnapshots(db: Database): RoomSnapshots {
  const once = onceForAll<RoomSnapshot | undefined>();
  return { of: (roomId) => once(roomId, () => read(db, roomId)) };
}
