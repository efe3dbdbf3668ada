import type { PatternEdit, SavedPattern, ShelfEdit } from '../../contract/pattern.ts';
import { type Database, transacted } from '../database.ts';
import { notFound } from '../problem.ts';
import {
  addPattern,
  findPattern,
  listPatterns,
  patternIdTaken,
  removePattern,
  shelvePatterns,
  updatePattern,
} from '../repository/patterns.ts';
import { merged } from './merge.ts';
import { readPatternText } from './patternText.ts';

export async function patternsOf(db: Database, teacherId: string): Promise<SavedPattern[]> {
  return listPatterns(db, teacherId);
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
const keptOf = ({ brackets, folder }: PatternEdit) => ({
  ...(brackets && brackets.length > 0 ? { brackets } : {}),
  ...(folder === undefined ? {} : { folder }),
});

function partsOf(pattern: PatternEdit): PatternEdit {
  return { title: pattern.title, text: pattern.text, ...keptOf(pattern) };
}

/** Puts patterns into order, into folders and away; a folder’s name has no blanks around it. */
export async function setShelf(db: Database, teacherId: string, { patterns }: ShelfEdit): Promise<void> {
  const tidy = patterns.map(({ folder, ...rest }) =>
    folder === undefined ? rest : { ...rest, folder: folder.trim() },
  );
  await transacted(db, (inside) => shelvePatterns(inside, teacherId, tidy));
}

export async function dropPattern(db: Database, teacherId: string, id: string): Promise<void> {
  await transacted(db, async (inside) => {
    if (!(await findPattern(inside, teacherId, id))) throw notFound('pattern');
    await removePattern(inside, teacherId, id);
  });
}
