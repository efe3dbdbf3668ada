import type { HomeTake } from '../../contract/home.ts';
import { type HomeProblem, sendHomeTake } from './homeApi.ts';
import { keptList } from './keptList.ts';

const KEY = 'home.takes';

interface Kept {
  readonly secret: string;
  readonly id: string;
  readonly take: HomeTake;
}

const { read, write } = keptList<Kept>(KEY);

/**
 * Sends what waits; what the server will not have any more, for its week is over, is left behind.
 * @returns how many wait
 */
export async function sendFromHome(): Promise<number> {
  for (const { secret, id, take } of read()) {
    try {
      await sendHomeTake(secret, id, take);
    } catch (error) {
      if ((error as HomeProblem).passes) return read().length;
    }
    write(read().filter((one) => one.id !== id));
  }
  return 0;
}

/** Keeps a take until the server has it, and sends it. @returns how many wait */
export function keepFromHome(kept: Kept): Promise<number> {
  write([...read(), kept]);
  return sendFromHome();
}
