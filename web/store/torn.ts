import { allIn, putInto, takeFrom } from './deviceBox.ts';
import type { TornTake } from './keptTakes.ts';

/** One after the other: what was clapped later stands. Where the browser keeps nothing there is no torn take. */
let last: Promise<unknown> = Promise.resolve();

function inOrder(work: () => Promise<unknown>): Promise<unknown> {
  last = last.then(work).catch(() => undefined);
  return last;
}

/** Keeps what was clapped so far. */
export function keepTorn(take: TornTake): Promise<unknown> {
  return inOrder(() => putInto('torn', take));
}

export function dropTorn(id: string): Promise<unknown> {
  return inOrder(() => takeFrom('torn', id));
}

/** The torn takes of a class, oldest first. */
export async function tornTakes(teacherId: string, classId: string): Promise<TornTake[]> {
  await last;
  const all = await allIn('torn').catch((): TornTake[] => []);
  return all
    .filter((take) => take.teacherId === teacherId && take.classId === classId)
    .sort((a, b) => a.startedAt - b.startedAt);
}
