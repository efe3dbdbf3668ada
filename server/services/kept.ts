import { type Database, transacted } from '../database.ts';
import { notFound } from '../problem.ts';

/** Where things of one kind are kept whole, each its teacher's own: lead plans, sheets. */
export interface KeptStore<Edit, Saved> {
  /** What it is called when it is not there. */
  readonly word: string;
  readonly list: (db: Database, teacherId: string) => Promise<Saved[]>;
  readonly has: (db: Database, teacherId: string, id: string) => Promise<boolean>;
  /** Whether anybody has something with this id. */
  readonly isTaken: (db: Database, id: string) => Promise<boolean>;
  readonly add: (db: Database, teacherId: string, id: string, value: Edit) => Promise<void>;
  readonly update: (db: Database, teacherId: string, id: string, value: Edit) => Promise<void>;
  readonly remove: (db: Database, teacherId: string, id: string) => Promise<void>;
}

/** A store, with what has to hold of all that is kept there. */
export interface KeptService<Edit, Saved> {
  readonly store: KeptStore<Edit, Saved>;
  /** Throws a Problem for what fits its schema and makes no sense all the same. */
  readonly check?: (value: Edit) => void;
}

export async function saveKept<Edit, Saved>(
  db: Database,
  { store, check }: KeptService<Edit, Saved>,
  teacherId: string,
  id: string,
  value: Edit,
): Promise<'made' | 'changed'> {
  check?.(value);
  return transacted(db, async (inside) => {
    const known = await store.has(inside, teacherId, id);
    if (!known && (await store.isTaken(inside, id))) throw notFound(store.word);
    await (known ? store.update : store.add)(inside, teacherId, id, value);
    return known ? 'changed' : 'made';
  });
}

export async function dropKept<Edit, Saved>(
  db: Database,
  { store }: KeptService<Edit, Saved>,
  teacherId: string,
  id: string,
): Promise<void> {
  await transacted(db, async (inside) => {
    if (!(await store.has(inside, teacherId, id))) throw notFound(store.word);
    await store.remove(inside, teacherId, id);
  });
}
