import type { Database } from '../database.ts';
import { revisionsOf } from '../repository/classes.ts';

/** So often it is looked; everybody is to see a change within two seconds. */
const LOOK_MS = 700;

type Listener = (revision: string | undefined) => void;

/** Tells those who watch a class when anything in it has changed. */
export interface ClassNews {
  /** @param listener  called with the revision; undefined when the class is gone. @returns stops watching */
  readonly watch: (classId: string, revision: string, listener: Listener) => () => void;
  /** How many classes are watched. */
  readonly watched: () => number;
  /** Ends all watching: every listener is told that its class is gone. */
  readonly close: () => void;
}

/**
 * Looks at the revisions of all classes that are watched here, in one question. The database is what all servers have
 * in common, so that it does not matter through which of them a change came.
 */
export function classNews(db: Database, onProblem: (error: unknown) => void): ClassNews {
  const watched = new Map<string, { revision: string; readonly listeners: Set<Listener> }>();
  let timer: NodeJS.Timeout | undefined;
  const look = async () => {
    const revisions = await revisionsOf(db, [...watched.keys()]);
    for (const [classId, one] of watched) {
      const revision = revisions.get(classId);
      if (revision === one.revision) continue;
      if (revision !== undefined) one.revision = revision;
      for (const listener of [...one.listeners]) listener(revision);
    }
  };
  const again = () => {
    timer = setTimeout(() => {
      void look()
        .catch(onProblem)
        .finally(() => (watched.size > 0 ? again() : (timer = undefined)));
    }, LOOK_MS);
    timer.unref();
  };
  return {
    watch: (classId, revision, listener) => {
      const one = watched.get(classId) ?? { revision, listeners: new Set() };
      watched.set(classId, one);
      one.listeners.add(listener);
      if (!timer) again();
      return () => {
        one.listeners.delete(listener);
        if (one.listeners.size === 0) watched.delete(classId);
      };
    },
    watched: () => watched.size,
    close: () => {
      clearTimeout(timer);
      for (const { listeners } of [...watched.values()]) for (const listener of [...listeners]) listener(undefined);
      watched.clear();
    },
  };
}
