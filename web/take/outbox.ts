import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import fitsTake from 'virtual:fits/take';
import type { TakeDetail, TakeUpload } from '../../contract/take.ts';
import { ApiProblem, put, putSound } from '../api/client.ts';

/** A finished take on its way to the server. */
export interface Waiting {
  readonly id: string;
  /** Only this teacher's session sends it. */
  readonly teacherId: string;
  readonly childName: string;
  readonly upload: TakeUpload;
  /** The recording, where the class keeps them. */
  readonly sound?: Blob;
  /** Why the server will never take it as it is; it stays until the teacher has seen that. */
  readonly refused?: string;
}

interface Boxes extends DBSchema {
  takes: { key: string; value: Waiting };
}

let opened: Promise<IDBPDatabase<Boxes>> | undefined;

function box(): Promise<IDBPDatabase<Boxes>> {
  opened ??= openDB<Boxes>('clapboard', 1, { upgrade: (db) => void db.createObjectStore('takes', { keyPath: 'id' }) });
  return opened;
}

type Arrival = (take: TakeDetail) => void;
const arrivals = new Set<Arrival>();

/** Tells of every take that this page has sent, as the server has it now. */
export function onTakeArrived(listener: Arrival): () => void {
  arrivals.add(listener);
  return () => arrivals.delete(listener);
}

type Listener = () => void;
const listeners = new Set<Listener>();

export function onOutboxChange(listener: Listener): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

function changed(): void {
  for (const listener of listeners) listener();
}

export async function waitingTakes(): Promise<Waiting[]> {
  return (await box()).getAll('takes');
}

/** Keeps a take on this device; when this is done, a reload does not lose it. */
export async function keepTake(take: Waiting): Promise<void> {
  await (await box()).put('takes', take);
  changed();
}

export async function dropTake(id: string): Promise<void> {
  await (await box()).delete('takes', id);
  changed();
}

let sending: Promise<boolean> | undefined;

/**
 * Sends what waits, oldest first, one at a time. True when all of it arrived. Calls while one runs wait for that one.
 */
export function sendTakes(teacherId: string): Promise<boolean> {
  sending ??= send(teacherId).finally(() => (sending = undefined));
  return sending;
}

async function send(teacherId: string): Promise<boolean> {
  const waiting = (await waitingTakes()).filter((take) => take.teacherId === teacherId && take.refused === undefined);
  waiting.sort((a, b) => a.upload.takenAt - b.upload.takenAt);
  for (const take of waiting) {
    try {
      const stored = await put(`/takes/${take.id}`, take.upload);
      // A recording that is not taken any more (the class keeps none now) does not hold up the take.
      if (take.sound) await putSound(`/takes/${take.id}/recording`, take.sound);
      await dropTake(take.id);
      if (fitsTake(stored)) for (const listener of arrivals) listener(stored as TakeDetail);
    } catch (error) {
      if (!(error instanceof ApiProblem) || error.worthRetrying) return false;
      await keepTake({ ...take, refused: error.message });
    }
  }
  return true;
}
