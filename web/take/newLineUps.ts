import type { LineUp, NewLineUp } from '../../contract/lineUp.ts';
import { ApiProblem, put } from '../api/client.ts';
import { storedThing } from '../ui/stored.ts';

/** A line-up that was started without a network, on this device until the server has it. */
interface KeptLineUp {
  readonly teacherId: string;
  readonly classId: string;
  readonly id: string;
  readonly lineUp: NewLineUp;
  /** The server has it; it goes from here when it is in the list that the server sends. */
  readonly stored?: boolean;
}

const BOX = storedThing<readonly KeptLineUp[]>('line-ups.new', (kept) =>
  Array.isArray(kept) ? (kept as KeptLineUp[]) : [],
);

function keepLineUp(one: KeptLineUp): void {
  BOX.write([...BOX.read().filter(({ id }) => id !== one.id), one]);
}

/** The server’s list has it now. */
export function dropLineUp(id: string): void {
  if (BOX.read().some((one) => one.id === id)) BOX.write(BOX.read().filter((one) => one.id !== id));
}

/** As it will be on the server: nobody was heard in it yet. */
function begun({ id, lineUp }: KeptLineUp): LineUp {
  const turns = lineUp.turns.map((turn) => ({ ...turn, state: 'waiting' as const, mark: null, takeId: null }));
  return { id, ...lineUp, turns, patterns: [] };
}

/** A line-up that only this device has; undefined where it has none with this id. */
export function useNewLineUp(id: string): LineUp | undefined {
  const [kept] = BOX.use();
  const own = kept.find((one) => one.id === id);
  return own && begun(own);
}

/** Starts a line-up: on the server, or on this device until the server can be reached. */
export async function startLineUp(one: KeptLineUp): Promise<void> {
  try {
    await put(`/classes/${one.classId}/line-ups/${one.id}`, one.lineUp);
  } catch (error) {
    if (!(error instanceof ApiProblem) || error.status !== 0) throw error;
    keepLineUp(one);
  }
}

/** @returns false while one waits for the server: takes of it would find nobody in line */
export async function sendLineUps(teacherId: string): Promise<boolean> {
  for (const one of BOX.read()) {
    if (one.teacherId !== teacherId || one.stored) continue;
    try {
      await put(`/classes/${one.classId}/line-ups/${one.id}`, one.lineUp);
      keepLineUp({ ...one, stored: true });
    } catch (error) {
      if (!(error instanceof ApiProblem) || error.worthRetrying) return false;
      // What the server will never take, a class that is gone for one, holds up nothing; the takes stay the children’s.
      dropLineUp(one.id);
    }
  }
  return true;
}
