import type { Database } from '../database.ts';
import { removeExpired } from '../repository/recordings.ts';
import { forgetLinks } from './home.ts';
import { clearSchools } from './retention.ts';
import { forgetRooms } from './rooms.ts';

const EVERY_MS = 60 * 60_000;

/**
 * Deletes recordings and rooms that are over when their time has come: at once, and then every hour. What a school
 * keeps for a time of its own goes at its night.
 */
export function deleteInTime(db: Database, onProblem: (error: unknown) => void): () => void {
  const expire = () => {
    void removeExpired(db, Date.now()).catch(onProblem);
    void clearSchools(db).catch(onProblem);
    void forgetRooms(db, Date.now()).catch(onProblem);
    void forgetLinks(db).catch(onProblem);
  };
  expire();
  const timer = setInterval(expire, EVERY_MS);
  timer.unref();
  return () => clearInterval(timer);
}
