import type { Database } from '../database.ts';
import { removeExpired } from '../repository/recordings.ts';
import { emptyBin } from './bin.ts';
import { forgetLinks } from './home.ts';
import { forgetRooms } from './rooms.ts';

const EVERY_MS = 60 * 60_000;

/**
 * Deletes recordings, what is in the bin, and rooms that are over, when their time has come: at once, and then every
 * hour.
 */
export function deleteInTime(db: Database, onProblem: (error: unknown) => void): () => void {
  const expire = () => {
    void removeExpired(db, Date.now()).catch(onProblem);
    void emptyBin(db).catch(onProblem);
    void forgetRooms(db, Date.now()).catch(onProblem);
    void forgetLinks(db).catch(onProblem);
  };
  expire();
  const timer = setInterval(expire, EVERY_MS);
  timer.unref();
  return () => clearInterval(timer);
}
