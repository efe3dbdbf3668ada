import { type DBSchema, type IDBPDatabase, openDB } from 'idb';

/** What the server said last, on this device, so that it is there without a network. */
interface Answer {
  /** Whose it is, and where it stood. */
  readonly key: string;
  readonly answer: unknown;
  /** Milliseconds since 1970. */
  readonly at: number;
}

interface Answers extends DBSchema {
  answers: { key: string; value: Answer };
}

/** A week without a network, and the holidays before it. */
const KEPT_MS = 21 * 24 * 60 * 60_000;

let opened: Promise<IDBPDatabase<Answers>> | undefined;

function open(): Promise<IDBPDatabase<Answers>> {
  opened ??= openDB<Answers>('clapboard-answers', 1, {
    upgrade: (db) => {
      db.createObjectStore('answers', { keyPath: 'key' });
    },
    terminated: () => (opened = undefined),
  }).catch((error: unknown) => {
    opened = undefined;
    throw error;
  });
  return opened;
}

/** The door is asked before anybody is known. */
const keyOf = (owner: string | undefined, path: string) => (path === '/session' ? path : `${owner ?? ''} ${path}`);

/** A browser that keeps nothing has nothing without a network, and works with one. */
export async function keepAnswer(owner: string | undefined, path: string, answer: unknown): Promise<void> {
  try {
    await (await open()).put('answers', { key: keyOf(owner, path), answer, at: Date.now() });
  } catch {
    // See above.
  }
}

/** @returns undefined where nothing is kept, or what is kept is too old to be shown */
export async function keptAnswer(owner: string | undefined, path: string): Promise<unknown> {
  try {
    const kept = await (await open()).get('answers', keyOf(owner, path));
    return kept && Date.now() - kept.at < KEPT_MS ? kept.answer : undefined;
  } catch {
    return undefined;
  }
}

/** Nothing of a teacher stays on a device on which she has signed out. */
export async function forgetAnswers(): Promise<void> {
  try {
    await (await open()).clear('answers');
  } catch {
    // There was nothing.
  }
}
