import { allIn } from '../take/deviceBox.ts';
import { type Body, keepChange, pendingOf, waitsFor } from './changes.ts';
import { keptAnswer } from './keptAnswers.ts';
import { withChanges, withTakes } from './overlay.ts';
import { thingAt } from './places.ts';

export { forgetAnswers, keepAnswer } from './keptAnswers.ts';

/** May it wait on this device for the server? @param removes  it is to be removed */
export function mayWait(path: string, removes: boolean): boolean {
  const thing = thingAt(path);
  return thing !== undefined && (!removes || thing.removable === true);
}

/** Is something waiting that has to arrive before this? */
export const isWaitedFor = waitsFor;

/** What the server said, with what it does not know yet; undefined where nothing is known. */
export async function asKnownHere(teacherId: string | undefined, path: string, answer: unknown): Promise<unknown> {
  const changed = withChanges(path, answer, pendingOf(teacherId));
  if (!path.endsWith('/line-ups') && !path.endsWith('/records')) return changed;
  const takes = await allIn('takes').catch(() => []);
  return withTakes(
    path,
    changed,
    takes.filter((take) => take.teacherId === teacherId && take.refused === undefined),
  );
}

/** What was fetched last, with what the server does not know yet. */
export async function lastKnown(teacherId: string | undefined, path: string): Promise<unknown> {
  return asKnownHere(teacherId, path, await keptAnswer(teacherId, path));
}

/**
 * Keeps a change on this device until the server has it.
 * @param sent  what was to be sent, with what it was made from; undefined removes
 * @returns what the server will answer; undefined where this browser keeps nothing
 */
export async function keepForLater(teacherId: string, path: string, sent: Body | undefined): Promise<Body | undefined> {
  const { was: given, ...body } = sent ?? {};
  const was = (given as Body | undefined) ?? (await madeFrom(teacherId, path));
  if (!keepChange({ teacherId, path, body: sent && body, was })) return undefined;
  const id = path.split('/').at(-1)!;
  // A term has no id of its own.
  return path.endsWith('/term-plan') ? body : { id, ...body };
}

/** Where the server can put two changes together: what this one is made from. */
async function madeFrom(teacherId: string, path: string): Promise<Body | undefined> {
  const thing = thingAt(path);
  const [place] = thing?.places ?? [];
  if (!place?.read || !thing?.merges) return undefined;
  return place.read(await lastKnown(teacherId, place.get));
}
