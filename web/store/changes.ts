import { allSame, flat, settled, unflat } from './settled.ts';
import { readStored, storedThing, writeStored } from './stored.ts';

export type Body = Readonly<Record<string, unknown>>;

/** Why the server did not take a change: its sentence, and where somebody else changed the same what is there now. */
export interface Refusal {
  readonly message: string;
  readonly theirs?: Body;
  readonly parts?: readonly string[];
}

/** Something that was changed without a network, on this device until the server has it. */
export interface Change {
  readonly id: string;
  /** Only this teacher's session sends it. */
  readonly teacherId: string;
  readonly path: string;
  /** What is to be there; undefined where it was removed. */
  readonly body: Body | undefined;
  /** What it was made from; undefined where it is new, or the last hand wins. */
  readonly was: Body | undefined;
  /** When it was changed first, milliseconds since 1970. */
  readonly at: number;
  /** It was made when takes that it is about had not arrived: it is sent after them. */
  readonly afterTakes?: boolean;
  /** It is not sent any more by itself; it stays until the teacher has seen that. */
  readonly refused?: Refusal;
}

const KEY = 'changes';
const BOX = storedThing<readonly Change[]>(KEY, (kept) => (Array.isArray(kept) ? (kept as Change[]) : []));

/** All of a teacher in the order in which they were made. */
export function useChanges(teacherId: string): readonly Change[] {
  const [all] = BOX.use();
  return all.filter((change) => change.teacherId === teacherId);
}

/** Those of a teacher that are still to be sent, in the order in which they were made. */
export function pendingOf(teacherId: string | undefined): readonly Change[] {
  return BOX.read().filter((change) => change.teacherId === teacherId && !change.refused);
}

/** @returns false where this browser keeps nothing; then nothing is changed */
function write(changes: readonly Change[]): boolean {
  const before = readStored(KEY);
  const text = changes.length > 0 ? JSON.stringify(changes) : undefined;
  writeStored(KEY, text);
  if (onDevice() === text) return true;
  writeStored(KEY, before);
  return false;
}

function onDevice(): string | undefined {
  try {
    return localStorage.getItem(KEY) ?? undefined;
  } catch {
    return undefined;
  }
}

/** Whatever changes this, or what it stands in, goes first. */
export function waitsFor(teacherId: string | undefined, path: string): boolean {
  return pendingOf(teacherId).some((change) => change.path === path || path.startsWith(`${change.path}/`));
}

type Wanted = Pick<Change, 'teacherId' | 'path' | 'body' | 'was' | 'afterTakes'>;
/** Two bodies as one. */
type Together = (first: Body, second: Body) => Body;
/** Mostly the second says all again. */
const secondSaysAll: Together = (first, second) => ({ ...first, ...second });

/**
 * Keeps a change until the server has it. Changed again it is one change still, made from what the first was made from;
 * what is removed needs nothing that was changed in it.
 * @returns false where this browser keeps nothing
 */
export function keepChange(wanted: Wanted, together: Together = secondSaysAll): boolean {
  const { teacherId, path, body, was, afterTakes = false } = wanted;
  const own = pendingOf(teacherId);
  const same = own.find((change) => change.path === path);
  const gone = (change: Change) => body === undefined && change.path.startsWith(`${path}/`);
  const others = BOX.read().filter((change) => change.refused || !(change.teacherId === teacherId && gone(change)));
  const at = Date.now();
  const late = afterTakes && { afterTakes };
  if (!same) return write([...others, { id: `${at} ${path}`, teacherId, path, body, was, at, ...late }]);
  const one = { ...same, body: body && together(same.body ?? {}, body), ...late };
  return write(others.map((change) => (change.id === same.id ? one : change)));
}

/** The server has it: as it was sent, for it may have been changed again meanwhile. */
export function changeArrived(sent: Change): void {
  const now = BOX.read().find(({ id }) => id === sent.id);
  if (!now) return;
  if (JSON.stringify(now.body) === JSON.stringify(sent.body)) return dropChange(sent.id);
  put({ ...now, was: sent.body });
}

export function dropChange(id: string): void {
  write(BOX.read().filter((change) => change.id !== id));
}

function put(changed: Change): void {
  write(BOX.read().map((change) => (change.id === changed.id ? changed : change)));
}

/** The server does not take it: it waits for the teacher. */
export function refuseChange(change: Change, refused: Refusal): void {
  put({ ...change, refused });
}

/**
 * Sends it once more; where somebody else changed the same it takes the place of that.
 * @param theirsStays  but for these parts
 */
export function insist({ refused, ...change }: Change, theirsStays: ReadonlySet<string> = new Set()): void {
  const { theirs } = refused ?? {};
  const { body, was } = change;
  if (!theirs || !body) return put({ ...change, was: theirs ?? was });
  const wanted = settled(was && flat(was), flat(theirs), flat(body), theirsStays);
  if (allSame(wanted, flat(theirs))) return dropChange(change.id);
  put({ ...change, body: unflat(wanted, body), was: unflat(flat(theirs), body) });
}
