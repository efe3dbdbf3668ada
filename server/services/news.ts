import type { Database } from '../database.ts';
import { revisionsOf } from '../repository/classes.ts';
import { roomRevisions } from '../repository/rooms.ts';

/** So often it is looked; everybody is to see a change within two seconds. */
const LOOK_MS = 700;
/** In a room children wait for what the teacher has just pressed. */
const LOOK_IN_ROOMS_MS = 250;
/** Where many say something at once they are told of together. */
const CLOSEST_MS = 120;

type Listener<Revision> = (revision: Revision | undefined) => void;

/** Tells those who watch a thing when anything in it has changed. */
export interface News<Revision> {
  /** @param listener  called with the revision; undefined when it is gone. @returns stops watching */
  readonly watch: (id: string, revision: Revision, listener: Listener<Revision>) => () => void;
  /** How many are watched. */
  readonly watched: () => number;
  /** Looks at once: something was changed here. Changes at other servers are seen when it is time. */
  readonly look: () => void;
  /** Ends all watching: every listener is told that its thing is gone. */
  readonly close: () => void;
}

export type ClassNews = News<string>;
export type RoomNews = News<number>;

/**
 * Looks at the revisions of all that is watched here, in one question. The database is what all servers have in common,
 * so that it does not matter through which of them a change came.
 */
function newsOf<Revision>(
  revisionsNow: (ids: readonly string[]) => Promise<ReadonlyMap<string, Revision>>,
  lookMs: number,
  onProblem: (error: unknown) => void,
): News<Revision> {
  const watched = new Map<string, { revision: Revision; readonly listeners: Set<Listener<Revision>> }>();
  let timer: NodeJS.Timeout | undefined;
  let [looking, wanted, lookedAt] = [false, false, -Infinity];
  const look = async () => {
    const revisions = await revisionsNow([...watched.keys()]);
    for (const [id, one] of watched) {
      const revision = revisions.get(id);
      if (revision === one.revision) continue;
      if (revision !== undefined) one.revision = revision;
      for (const listener of [...one.listeners]) listener(revision);
    }
  };
  const run = () => {
    clearTimeout(timer);
    [looking, wanted, lookedAt] = [true, false, performance.now()];
    void look()
      .catch(onProblem)
      .finally(() => {
        looking = false;
        if (watched.size > 0) again(wanted ? CLOSEST_MS : lookMs);
        else timer = undefined;
      });
  };
  const again = (ms: number) => {
    timer = setTimeout(run, ms);
    timer.unref();
  };
  return {
    watch: (id, revision, listener) => {
      const one = watched.get(id) ?? { revision, listeners: new Set() };
      watched.set(id, one);
      one.listeners.add(listener);
      // Between the reading of what it has and this the others were told already.
      if (one.revision !== revision) setImmediate(() => one.listeners.has(listener) && listener(one.revision));
      if (!timer) again(lookMs);
      return () => {
        one.listeners.delete(listener);
        if (one.listeners.size === 0) watched.delete(id);
      };
    },
    watched: () => watched.size,
    look: () => {
      if (wanted || watched.size === 0) return;
      wanted = true;
      if (looking) return;
      clearTimeout(timer);
      again(Math.max(0, lookedAt + CLOSEST_MS - performance.now()));
    },
    close: () => {
      clearTimeout(timer);
      for (const { listeners } of [...watched.values()]) for (const listener of [...listeners]) listener(undefined);
      watched.clear();
    },
  };
}

export function classNews(db: Database, onProblem: (error: unknown) => void): ClassNews {
  return newsOf((ids) => revisionsOf(db, ids), LOOK_MS, onProblem);
}

export function roomNews(db: Database, onProblem: (error: unknown) => void): RoomNews {
  return newsOf((ids) => roomRevisions(db, ids), LOOK_IN_ROOMS_MS, onProblem);
}
