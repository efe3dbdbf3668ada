import { perLanguage, t } from '../../core/words/say.ts';
import type { Readable } from 'node:stream';
import { v4 as uuid } from 'uuid';
import { type Database, transacted } from '../database.ts';
import { Problem, notFound } from '../problem.ts';
import { findClass } from '../repository/classes.ts';
import {
  addChunk,
  findChunk,
  findRecording,
  putRecording,
  removeChunks,
  removeRecording,
} from '../repository/recordings.ts';
import { keyOfTake } from './takes.ts';

const DAY_MS = 24 * 3600 * 1000;

/** Five minutes of plain sound of 48,000 samples a second. */
const LARGEST = 30 * 1024 * 1024;

/** A piece of sound in one statement: far below the packets every database takes (16 MB, and twice as much in hex). */
const CHUNK = 256 * 1024;

const TOO_LARGE = perLanguage(
  () =>
    new Problem(
      413,
      'too-large',
      t`A recording may have ${LARGEST / 1024 / 1024} MB. The take itself is stored; this sound is not.`,
    ),
);

/**
 * Keeps the sound of a take, where the class allows it, until its date. It goes into the database piece by piece as it
 * arrives, and counts from the moment all of it is there: a recording that breaks off is none.
 * @param announced  how long it says it is, in bytes; undefined when it does not
 * @param until  its date, where it has one from elsewhere: it is kept no longer
 */
export async function keepRecording(
  db: Database,
  teacherId: string,
  takeId: string,
  mime: string,
  announced: number | undefined,
  sound: Readable,
  until = Infinity,
): Promise<void> {
  const schoolClass = await findClass(db, teacherId, (await keyOfTake(db, teacherId, takeId)).classId);
  const days = schoolClass?.recordingDays ?? null;
  if (days === null)
    throw new Problem(
      403,
      'not-kept',
      t`This class keeps no recordings. The teacher can allow it in the settings of the class.`,
    );
  if (!/^(audio|video)\/[\w.+-]{1,50}(;|$)/.test(mime)) throw notSound();
  if (announced !== undefined && announced > LARGEST) throw TOO_LARGE();
  const uploadId = uuid();
  try {
    const bytes = await keepChunks(db, takeId, uploadId, sound);
    if (bytes === 0) throw notSound();
    const expiresAt = Math.min(Date.now() + days * DAY_MS, until);
    const recording = { takeId, mime: mime.split(';')[0]!, uploadId, bytes, expiresAt };
    await transacted(db, (inside) => putRecording(inside, recording));
  } catch (error) {
    await removeChunks(db, uploadId).catch(() => undefined);
    throw error;
  }
}

function notSound(): Problem {
  return new Problem(422, 'bad-request', t`Send the recording as audio.`, { field: 'content-type' });
}

/** @returns how many bytes there were */
async function keepChunks(db: Database, takeId: string, uploadId: string, sound: Readable): Promise<number> {
  let [bytes, number] = [0, 0];
  let pieces: Buffer[] = [];
  let size = 0;
  const keep = async () => {
    if (size === 0) return;
    await addChunk(db, { uploadId, takeId, number: number++, sound: Buffer.concat(pieces), arrivedAt: Date.now() });
    [pieces, size] = [[], 0];
  };
  // Without this a sound that is refused would end the connection before the answer is sent.
  for await (const piece of sound.iterator({ destroyOnReturn: false }) as AsyncIterable<Buffer>) {
    bytes += piece.length;
    if (bytes > LARGEST) throw TOO_LARGE();
    pieces.push(piece);
    size += piece.length;
    if (size >= CHUNK) await keep();
  }
  await keep();
  return bytes;
}

/** A recording, to be sent piece by piece. */
export interface KeptSound {
  readonly mime: string;
  /** Milliseconds since 1970. */
  readonly until: number;
  readonly bytes: number;
  readonly pieces: () => AsyncGenerator<Buffer>;
}

/** A recording that is still to be kept; one beyond its date is gone, whether it was deleted already or not. */
export async function recordingOf(db: Database, teacherId: string, takeId: string): Promise<KeptSound> {
  await keyOfTake(db, teacherId, takeId);
  const found = await findRecording(db, takeId);
  if (!found || found.expiresAt <= Date.now()) throw notFound('recording');
  const { mime, bytes, uploadId, expiresAt } = found;
  return {
    mime,
    until: expiresAt,
    bytes,
    pieces: async function* () {
      for (let number = 0; ; number++) {
        const piece = await findChunk(db, uploadId, number);
        if (!piece) return;
        yield piece;
      }
    },
  };
}

export async function dropRecording(db: Database, teacherId: string, takeId: string): Promise<void> {
  await transacted(db, async (inside) => {
    await keyOfTake(inside, teacherId, takeId);
    await removeRecording(inside, takeId);
  });
}
