import { useCallback, useEffect, useState } from 'react';
import type { ChildRoom, RoomDoor, TakeSeat } from '../../contract/room.ts';
import { PICTURES, PICTURES_OF_A_ROOM, type Picture } from '../../contract/roomPictures.ts';
import { type RoomProblem, door, enter, leave, seat, sit, watchRoom } from './roomApi.ts';

/** Where a device is: before the pictures, choosing its name, in the room, or after it. */
export type SeatState =
  | { readonly at: 'looking' }
  | { readonly at: 'pictures'; readonly said?: string | undefined }
  | { readonly at: 'names'; readonly door: RoomDoor; readonly said?: string | undefined }
  | { readonly at: 'room'; readonly room: ChildRoom }
  | { readonly at: 'over' };

/** The pictures in the address of the picture of dots, behind the `#`: no server is told of them by the address. */
export function picturesIn(hash: string): Picture[] | undefined {
  const words = hash.replace(/^#/, '').split('-');
  const pictures = PICTURES.filter((one) => words.includes(one));
  return words.length === PICTURES_OF_A_ROOM && words.every((word) => pictures.some((one) => one === word))
    ? (words as Picture[])
    : undefined;
}

const AGAIN_MS = 2_000;

/** Where a device is that is not, or not any more, in a room. */
function outside(problem: RoomProblem): SeatState {
  if (problem.code !== 'room-ended') return { at: 'pictures', said: problem.message };
  // The answer to this takes the cookie away: the device forgets.
  void seat().catch(() => undefined);
  return { at: 'over' };
}

const atNames = async (there: Promise<RoomDoor>): Promise<SeatState> =>
  there.then((own) => ({ at: 'names' as const, door: own }), outside);

/** Where a device is that has just been opened; undefined while the server does not answer. */
async function whereNow(fromDots: readonly Picture[] | undefined): Promise<SeatState | undefined> {
  try {
    return { at: 'room', room: await seat() };
  } catch (error) {
    const problem = error as RoomProblem;
    if (problem.passes) return undefined;
    if (problem.code === 'no-name') return atNames(door());
    if (fromDots) return atNames(enter(fromDots));
    return problem.code === 'no-seat' ? { at: 'pictures' } : outside(problem);
  }
}

/** Finds out where the device is, as often as it takes. */
function useOpening(onFound: (state: SeatState) => void): void {
  const [fromDots] = useState(() => picturesIn(location.hash));
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout>;
    let gone = false;
    if (fromDots) history.replaceState(null, '', location.pathname);
    const look = async () => {
      const found = await whereNow(fromDots);
      if (gone) return;
      if (found) onFound(found);
      else timer = setTimeout(() => void look(), AGAIN_MS);
    };
    void look();
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [onFound, fromDots]);
}

/** A device from the door to its seat, and out again. */
export function useSeat() {
  const [state, setState] = useState<SeatState>({ at: 'looking' });
  const [isThere, setThere] = useState(true);
  useOpening(setState);
  const ended = useCallback((problem: RoomProblem) => setState(outside(problem)), []);
  const inRoom = state.at === 'room';
  useEffect(() => {
    if (!inRoom) return undefined;
    return watchRoom({ onRoom: (room) => setState({ at: 'room', room }), onOver: ended, onThere: setThere });
  }, [inRoom, ended]);

  const takeName = async (as: TakeSeat) => {
    try {
      setState({ at: 'room', room: await sit(as) });
    } catch (error) {
      const problem = error as RoomProblem;
      if (['no-seat', 'other-way', 'room-ended'].includes(problem.code)) return ended(problem);
      // Who was quicker stands there no more.
      const now = await door().catch(() => undefined);
      setState((before) =>
        before.at === 'names' ? { at: 'names', door: now ?? before.door, said: problem.message } : before,
      );
    }
  };
  return {
    state,
    isThere,
    tapPictures: async (pictures: readonly Picture[]) => setState(await atNames(enter(pictures))),
    takeName,
    goOut: async () => {
      await leave().catch(() => undefined);
      setState({ at: 'pictures' });
    },
    again: () => setState({ at: 'pictures' }),
  };
}
