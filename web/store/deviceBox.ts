import { t } from '../../core/words/say.ts';
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { TornTake, Waiting } from './keptTakes.ts';
import type { VoiceWord } from '../../contract/voice.ts';

/** A word of a teacher's voice on its way to the server. */
interface WaitingWord {
  readonly id: string;
  /** Only this teacher's session sends it. */
  readonly teacherId: string;
  readonly word: VoiceWord;
}

/** What this browser keeps of takes, and of a teacher's voice, until the server has them. */
interface Boxes extends DBSchema {
  takes: { key: string; value: Waiting };
  torn: { key: string; value: TornTake };
  words: { key: string; value: WaitingWord };
}

type Box = 'takes' | 'torn' | 'words';

let opened: Promise<IDBPDatabase<Boxes>> | undefined;

function open(): Promise<IDBPDatabase<Boxes>> {
  const forget = () => (opened = undefined);
  opened ??= new Promise<IDBPDatabase<Boxes>>((resolve, reject) => {
    openDB<Boxes>('clapboard', 3, {
      upgrade: (db, from) => {
        if (from < 1) db.createObjectStore('takes', { keyPath: 'id' });
        if (from < 2) db.createObjectStore('torn', { keyPath: 'id' });
        if (from < 3) db.createObjectStore('words', { keyPath: 'id' });
      },
      // An older page in another tab holds the boxes: until it is closed there are none.
      blocked: () => reject(new Error(t`another tab holds what this browser keeps`)),
      // A newer page in another tab wants to change the boxes, or the browser has cleared them.
      blocking: (_now, _wanted, event) => {
        forget();
        (event.target as IDBDatabase).close();
      },
      terminated: forget,
    }).then(resolve, reject);
  }).catch((error: unknown) => {
    forget();
    throw error;
  });
  return opened;
}

/** Does something with the boxes; once more when they were closed under our hands. */
async function withBoxes<T>(work: (boxes: IDBPDatabase<Boxes>) => Promise<T>): Promise<T> {
  try {
    return await work(await open());
  } catch (error) {
    if ((error as DOMException).name !== 'InvalidStateError') throw error;
    opened = undefined;
    return work(await open());
  }
}

export function allIn<B extends Box>(box: B): Promise<Boxes[B]['value'][]> {
  return withBoxes((boxes) => boxes.getAll(box));
}

/**
 * When this is done, no reload loses it; a finished take no power cut either. What is still being clapped does not wait
 * for the disk.
 */
export function putInto<B extends Box>(box: B, thing: Boxes[B]['value']): Promise<void> {
  return withBoxes(async (boxes) => {
    const transaction = boxes.transaction(box, 'readwrite', {
      durability: box === 'torn' ? 'relaxed' : 'strict',
    });
    await transaction.store.put(thing);
    await transaction.done;
  });
}

export function takeFrom(box: Box, id: string): Promise<void> {
  return withBoxes((boxes) => boxes.delete(box, id));
}
