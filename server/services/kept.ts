import { type Database, transacted } from '../database.ts';
import { notFound } from '../problem.ts';
import { merged } from './merge.ts';

/** Where things of one kind are kept whole, each its teacher's own: lead plans, sheets. */
export interface KeptStore<Edit, Saved> {
  /** What it is called when it is not there. */
  readonly word: string;
  readonly list: (db: Database, teacherId: string) => Promise<Saved[]>;
  readonly has: (db: Database, teacherId: string, id: string) => Promise<boolean>;
  readonly find: (db: Database, teacherId: string, id: string) => Promise<Edit | undefined>;
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
  readonly check?: (value: Edit) => void | Promise<void>;
}

/** Makes or changes one. @param was  what the change was made from; see merge.ts */
export async function saveKept<Edit extends object, Saved>(
  db: Database,
  { store, check }: KeptService<Edit, Saved>,
  teacherId: string,
  id: string,
  wanted: Edit,
  was?: Edit,
): Promise<{ readonly done: 'made' | 'changed'; readonly value: Edit }> {
  await check?.(wanted);
  return transacted(db, async (inside) => {
    const known = await store.find(inside, teacherId, id);
    if (!known && (await store.isTaken(inside, id))) throw notFound(store.word);
    const value = known ? merged(was, known, wanted) : wanted;
    await (known ? store.update : store.add)(inside, teacherId, id, value);
    return { done: known ? 'changed' : 'made', value };
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
