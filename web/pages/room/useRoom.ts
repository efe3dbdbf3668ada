import { useEffect, useMemo, useState } from 'react';
import fitsRoom from 'virtual:fits/room';
import fitsRooms from 'virtual:fits/rooms';
import fitsResults from 'virtual:fits/round-results';
import fitsCodes from 'virtual:fits/room-codes';
import type { OpenRooms, Room, RoomCodes, RoomEdit, RoundEdit, RoundResults } from '../../../contract/room.ts';
import { ApiProblem, changeNow, getNow } from '../../api/client.ts';
import { useGet } from '../../api/useGet.ts';
import { watchStream } from '../../room/watchStream.ts';

export const roomPath = (classId: string, roomId: string) => `/classes/${classId}/rooms/${roomId}`;

export const useOpenRooms = (classId: string) =>
  useGet<OpenRooms>(`/classes/${classId}/rooms`, fitsRooms, { revalidateOnFocus: false });

export const useRoomCodes = (classId: string, wanted: boolean) =>
  useGet<RoomCodes>(wanted ? `/classes/${classId}/room-codes` : null, fitsCodes);

/** What was clapped in a round; asked anew whenever another take is there. */
export function useResults(room: Room): RoundResults | undefined {
  const taken = room.seats.filter(({ done }) => done.takeId !== null).length;
  const path = `${roomPath(room.classId, room.id)}/rounds/${room.round?.number ?? 0}`;
  const { data } = useGet<RoundResults>(taken === 0 || !room.round ? null : `${path}?${taken}`, fitsResults, {
    keepPreviousData: true,
  });
  return taken === 0 ? undefined : data;
}

interface Watched {
  readonly room: Room | undefined;
  readonly problem: ApiProblem | undefined;
  /** Whether the stream is there. */
  readonly isThere: boolean;
}

/** A room as it is now, told by the server whenever anything in it has changed. */
export function useRoom(classId: string, roomId: string | undefined): Watched {
  const [state, setState] = useState<Watched>({ room: undefined, problem: undefined, isThere: true });
  useEffect(() => {
    if (roomId === undefined) return undefined;
    const path = roomPath(classId, roomId);
    return watchStream<ApiProblem>({
      path: `/api${path}/events`,
      ask: () => getNow(path, fitsRoom),
      passes: (problem) => problem.worthRetrying,
      onRoom: (room) => {
        if (fitsRoom(room)) setState({ room: room as Room, problem: undefined, isThere: true });
      },
      onOver: ({ status, code, message }) =>
        setState((before) => ({ ...before, problem: new ApiProblem(status, code, message) })),
      onThere: (isThere) => setState((before) => ({ ...before, isThere })),
    });
  }, [classId, roomId]);
  return state;
}

/** What a teacher does with a room; each comes to pass at once or throws an ApiProblem. */
export function useRoomActs(classId: string, roomId: string) {
  return useMemo(() => {
    const at = roomPath(classId, roomId);
    return {
      set: (edit: RoomEdit) => changeNow(at, edit),
      round: (round: RoundEdit) => changeNow(`${at}/round`, round),
      free: (childId: string) => changeNow(`${at}/seats/${childId}`, undefined),
      end: () => changeNow(at, undefined),
    };
  }, [classId, roomId]);
}
