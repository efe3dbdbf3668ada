import { allIn } from './deviceBox.ts';
import { type Body, type Change, keepChange, pendingOf, waitsFor } from './changes.ts';
import type { Waiting } from './keptTakes.ts';
import { keepAnswer, keptAnswer } from './keptAnswers.ts';
import { withChanges, withTakes } from './overlay.ts';
import { thingAt } from './places.ts';

export { forgetAnswers } from './keptAnswers.ts';

/** Nobody answers, or the server cannot reach what it keeps. */
function isGone(error: unknown): boolean {
  const { status } = error as { readonly status?: number };
  return status === 0 || status === 503;
}

/**
 * What stands at a path: as the server has it, with what it does not know yet; where nobody answers what is known here.
 * @param fits  whether it can be shown
 * @param asked  the answer that is on its way
 */
export async function known<T>(
  teacherId: string | undefined,
  path: string,
  fits: (data: unknown) => boolean,
  asked: Promise<T>,
): Promise<T> {
  try {
    const answer = await asked;
    void keepAnswer(teacherId, path, answer);
    const here = await asKnownHere(teacherId, path, answer);
    return fits(here) ? (here as T) : answer;
  } catch (error) {
    if (!isGone(error)) throw error;
    const last = await lastKnown(teacherId, path);
    if (last === undefined || !fits(last)) throw error;
    return last as T;
  }
}

/**
 * Changes something now, or keeps the change for later: where nobody answers, or something waits that has to arrive
 * before it.
 * @param body  what was to be sent, with what it was made from; undefined removes
 * @returns what the server answers, or what it will
 */
export async function changed(
  teacherId: string,
  path: string,
  body: object | undefined,
  now: () => Promise<unknown>,
): Promise<unknown> {
  const thing = thingAt(path);
  if (!thing || (!body && !thing.removable)) return now();
  const { isHeardIn } = thing;
  const afterTakes = isHeardIn !== undefined && (await takesOf(teacherId)).some(isHeardIn);
  const later = () => keepForLater({ teacherId, path, afterTakes }, body as Body);
  if (afterTakes || waitsFor(teacherId, path)) return (await later()) ?? now();
  try {
    return await now();
  } catch (error) {
    const kept = isGone(error) && (await later());
    if (!kept) throw error;
    return kept;
  }
}

/** What the server said, with what it does not know yet; undefined where nothing is known. */
async function asKnownHere(teacherId: string | undefined, path: string, answer: unknown): Promise<unknown> {
  const changes = pendingOf(teacherId);
  if (!path.endsWith('/line-ups') && !path.endsWith('/records')) return withChanges(path, answer, changes);
  const takes = await takesOf(teacherId);
  const changed = withChanges(
    path,
    answer,
    changes.filter(({ afterTakes }) => !afterTakes),
  );
  return withChanges(
    path,
    withTakes(path, changed, takes),
    changes.filter(({ afterTakes }) => afterTakes),
  );
}

/** Those that are still to be sent. */
async function takesOf(teacherId: string | undefined): Promise<Waiting[]> {
  const takes = await allIn('takes').catch((): Waiting[] => []);
  return takes.filter((take) => take.teacherId === teacherId && take.refused === undefined);
}

/** What was fetched last, with what the server does not know yet. */
async function lastKnown(teacherId: string | undefined, path: string): Promise<unknown> {
  return asKnownHere(teacherId, path, await keptAnswer(teacherId, path));
}

type Kept = Pick<Change, 'teacherId' | 'path' | 'afterTakes'>;

/**
 * Keeps a change on this device until the server has it.
 * @param sent  what was to be sent, with what it was made from; undefined removes
 * @returns what the server will answer; undefined where this browser keeps nothing
 */
async function keepForLater(what: Kept, sent: Body | undefined): Promise<Body | undefined> {
  const { teacherId, path } = what;
  const { was: given, ...body } = sent ?? {};
  const was = (given as Body | undefined) ?? (await madeFrom(teacherId, path));
  if (!keepChange({ ...what, body: sent && body, was }, thingAt(path)?.together)) return undefined;
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
