import type { Database } from '../database.ts';
import { removeExpired } from '../repository/recordings.ts';
import { emptyBin } from './bin.ts';

const EVERY_MS = 60 * 60_000;

/** Deletes recordings, and what is in the bin, when their date has come: at once, and then every hour. */
export function deleteInTime(db: Database, onProblem: (error: unknown) => void): () => void {
  const expire = () => {
    void removeExpired(db, Date.now()).catch(onProblem);
    void emptyBin(db).catch(onProblem);
  };
  expire();
  const timer = setInterval(expire, EVERY_MS);
  timer.unref();
  return () => clearInterval(timer);
}
