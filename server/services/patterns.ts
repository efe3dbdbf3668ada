import { t } from '../../core/words/say.ts';
import type { PatternEdit, SavedPattern, ShelfEdit } from '../../contract/pattern.ts';
import { type Database, transacted } from '../database.ts';
import { Problem, notFound } from '../problem.ts';
import {
  addPattern,
  findPattern,
  listPatterns,
  patternIdTaken,
  removePattern,
  shelvePatterns,
  updatePattern,
} from '../repository/patterns.ts';
import { ownerOf } from '../repository/classes.ts';
import { classOf } from './classes.ts';
import { merged } from './merge.ts';
import { readPatternText } from './patternText.ts';
import { mergedOrder } from './shelfOrder.ts';

export async function patternsOf(db: Database, teacherId: string): Promise<SavedPattern[]> {
  return listPatterns(db, teacherId);
}

/** What a class is heard on: the patterns of whose class it is, for a colleague who hears it. */
export async function patternsOfClass(db: Database, teacherId: string, classId: string): Promise<SavedPattern[]> {
  await classOf(db, teacherId, classId, 'hear');
  return listPatterns(db, await ownerOf(db, classId));
}

/** Makes or changes a pattern; one that cannot be read or does not add up is refused. */
export async function savePattern(
  db: Database,
  teacherId: string,
  id: string,
  wanted: PatternEdit,
  was?: PatternEdit,
): Promise<{ readonly done: 'made' | 'changed'; readonly values: PatternEdit }> {
  readPatternText(wanted.text, 'text');
  return transacted(db, async (inside) => {
    const known = await findPattern(inside, teacherId, id);
    if (!known && (await patternIdTaken(inside, id))) throw notFound('pattern');
    const values = known ? merged(was && partsOf(was), partsOf(known), { ...keptOf(known), ...wanted }) : wanted;
    if (known) await updatePattern(inside, teacherId, id, values);
    else await addPattern(inside, teacherId, { id, ...values }, Date.now());
    return { done: known ? 'changed' : 'made', values };
  });
}

/** No brackets and an empty list of them are the same. */
const keptOf = ({ brackets, folder, from }: PatternEdit) => ({
  ...(brackets && brackets.length > 0 ? { brackets } : {}),
  ...(folder === undefined ? {} : { folder }),
  ...(from === undefined ? {} : { from }),
});

function partsOf(pattern: PatternEdit): PatternEdit {
  return { title: pattern.title, text: pattern.text, ...keptOf(pattern) };
}

type Places = ShelfEdit['patterns'];

/**
 * Puts patterns into order, into folders and away; a folder’s name has no blanks around it. What was put elsewhere on
 * another device meanwhile stays there; what both moved is left as it lies, and told.
 * @param was  the places from which these were made; undefined: they take the place of whatever there is
 */
export async function setShelf(db: Database, teacherId: string, places: Places, was?: Places): Promise<void> {
  const wanted = places.map(({ folder, ...rest }) =>
    folder === undefined ? rest : { ...rest, folder: folder.trim() },
  );
  const both = await transacted(db, async (inside) => {
    if (!was) {
      await shelvePatterns(inside, teacherId, wanted);
      return [];
    }
    const now = await listPatterns(inside, teacherId);
    const shelf = mergedShelf(was, now, wanted);
    await shelvePatterns(inside, teacherId, shelf.places);
    return now.filter(({ id }) => shelf.both.has(id));
  });
  if (both.length === 0) return;
  const titles = both.map(({ title }) => `“${title}”`).join(', ');
  throw new Problem(
    409,
    'changed-meanwhile',
    t`${titles}: put elsewhere on another device meanwhile, and left as it lies there.
      Look at it, and move it again.`,
  );
}

function mergedShelf(
  was: Places,
  now: Places,
  wanted: Places,
): { readonly places: Places; readonly both: Set<string> } {
  const ids = (places: Places) => places.map(({ id }) => id);
  const { order, both } = mergedOrder(ids(was), ids(now), ids(wanted));
  const told = new Set(both);
  const byId = (places: Places) => new Map(places.map((place) => [place.id, place]));
  const [placesBefore, placesHere, placesMine] = [byId(was), byId(now), byId(wanted)];
  const places = order.map((id) => {
    const [before, here, mine] = [placesBefore.get(id), placesHere.get(id)!, placesMine.get(id)];
    const part = <T>(old: T, theirs: T, own: T): T => {
      if (own === old) return theirs;
      if (theirs !== old && theirs !== own) told.add(id);
      return theirs === old ? own : theirs;
    };
    const folder = part(before?.folder, here.folder, (mine ?? before)?.folder);
    const archived = part(before?.archived, here.archived, (mine ?? before)?.archived);
    return { id, ...(folder === undefined ? {} : { folder }), ...(archived ? { archived } : {}) };
  });
  return { places, both: told };
}

export async function dropPattern(db: Database, teacherId: string, id: string): Promise<void> {
  await transacted(db, async (inside) => {
    if (!(await findPattern(inside, teacherId, id))) throw notFound('pattern');
    await removePattern(inside, teacherId, id);
  });
}
