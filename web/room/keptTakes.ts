import type { RoomTake } from '../../contract/room.ts';
import { type RoomProblem, sendTake } from './roomApi.ts';
import { keptList } from './keptList.ts';

/** Takes that the server does not have yet; nothing else is kept here, and it goes when they have arrived. */
const KEY = 'room.takes';

interface Kept {
  readonly id: string;
  readonly take: RoomTake;
}

const { read, write } = keptList<Kept>(KEY);

const AGAIN_MS = 2_000;
let sending = false;
let waiting: Kept[] = [];

type Arrived = (id: string, mark: number | null) => void;

/** Sends what waits, one after the other, until the server has it or will not have it. */
export async function sendKept(onArrived: Arrived): Promise<void> {
  if (sending) return;
  sending = true;
  waiting = [...read(), ...waiting.filter(({ id }) => !read().some((one) => one.id === id))];
  for (let next = waiting[0]; next; next = waiting[0]) {
    const { id, take } = next;
    try {
      onArrived(id, await sendTake(id, take));
    } catch (error) {
      if ((error as RoomProblem).passes) {
        setTimeout(() => void sendKept(onArrived), AGAIN_MS);
        break;
      }
    }
    waiting = waiting.slice(1);
    write(waiting);
  }
  sending = false;
}

/** Keeps a take until the server has it. */
export function keepTake(id: string, take: RoomTake, onArrived: Arrived): void {
  waiting = [...waiting, { id, take }];
  write(waiting);
  void sendKept(onArrived);
}
