import type { Database } from '../database.ts';
import { Problem, notFound } from '../problem.ts';
import { findClass } from '../repository/classes.ts';
import { findRecording, putRecording, removeExpired, removeRecording } from '../repository/recordings.ts';
import { takeOf } from './takes.ts';

const DAY_MS = 24 * 3600 * 1000;
const EVERY_MS = 3600 * 1000;

/** Keeps the sound of a take, where the class allows it, until its date. */
export async function keepRecording(
  db: Database,
  teacherId: string,
  takeId: string,
  mime: string,
  sound: unknown,
): Promise<void> {
  const { classId } = await takeOf(db, teacherId, takeId);
  const schoolClass = await findClass(db, teacherId, classId);
  const days = schoolClass?.recordingDays ?? null;
  if (days === null)
    throw new Problem(
      403,
      'not-kept',
      'This class keeps no recordings. The teacher can allow it in the settings of the class.',
    );
  if (!Buffer.isBuffer(sound) || sound.length === 0)
    throw new Problem(422, 'bad-request', 'Send the recording as audio.', { field: 'content-type' });
  await putRecording(db, {
    takeId,
    mime: mime.split(';')[0]!.slice(0, 60),
    sound,
    expiresAt: Date.now() + days * DAY_MS,
  });
}

/** A recording that is still to be kept; one beyond its date is gone, whether it was deleted already or not. */
export async function recordingOf(
  db: Database,
  teacherId: string,
  takeId: string,
): Promise<{ mime: string; sound: Buffer }> {
  await takeOf(db, teacherId, takeId);
  const found = await findRecording(db, takeId);
  if (!found || found.expiresAt <= Date.now()) throw notFound('recording');
  return found;
}

export async function dropRecording(db: Database, teacherId: string, takeId: string): Promise<void> {
  await takeOf(db, teacherId, takeId);
  await removeRecording(db, takeId);
}

/** Deletes recordings when their date has come: at once, and then every hour. @returns what stops it */
export function expireRecordings(db: Database, onProblem: (error: unknown) => void): () => void {
  const expire = () => void removeExpired(db, Date.now()).catch(onProblem);
  expire();
  const timer = setInterval(expire, EVERY_MS);
  timer.unref();
  return () => clearInterval(timer);
}
