import type { RoundEdit } from '../../contract/room.ts';
import { batchesOf, onceForAll } from '../batches.ts';
import { type Database, retried } from '../database.ts';
import { PATIENCE_MS } from '../problem.ts';
import { type Claim, claimAnswers, findRound, seatsOf, touchRoom } from '../repository/rooms.ts';

type Seat = Awaited<ReturnType<typeof seatsOf>> extends Map<string, infer Row> ? Row : never;

/** What thirty devices ask and say in the same second: each question goes to the database once for all who wait. */
export interface RoomBatches {
  readonly seatOf: (tokenHash: string) => Promise<Seat | undefined>;
  readonly roundOf: (roomId: string, number: number) => Promise<RoundEdit | undefined>;
  /** Notes the take of a round, where there is none yet. @returns the take that the child has now */
  readonly claim: (claim: Claim) => Promise<string | null>;
  /** Says that something in the room has changed. */
  readonly touch: (roomId: string) => Promise<void>;
}

/** Several rooms end together: as many seats as two of the largest have. */
const TOGETHER = { most: 60, patienceMs: PATIENCE_MS };

/** For all rooms of one server. */
export function roomBatches(db: Database): RoomBatches {
  const seats = batchesOf(async (hashes: readonly string[]) => {
    const found = await seatsOf(db, hashes);
    return hashes.map((hash) => found.get(hash));
  }, TOGETHER);
  const rounds = onceForAll<RoundEdit | undefined>();
  const claims = batchesOf((all: readonly Claim[]) => retried(() => claimAnswers(db, all)), TOGETHER);
  const touches = onceForAll<void>();
  return {
    seatOf: (tokenHash) => seats('', tokenHash),
    roundOf: (roomId, number) => rounds(`${roomId} ${number}`, () => findRound(db, roomId, number)),
    claim: (claim) => claims(`${claim.roomId} ${claim.number}`, claim),
    touch: (roomId) => touches(roomId, () => touchRoom(db, roomId)),
  };
}
