import { t } from '../../core/words/say.ts';
import type { ShelfItem, ShelfItemEdit, ShelfItemWhole, ShelfThing } from '../../contract/schoolShelf.ts';
import type { Teacher } from '../../contract/session.ts';
import { type Database, transacted } from '../database.ts';
import { Problem, notFound } from '../problem.ts';
import {
  countOnShelf,
  findOnShelf,
  listShelf,
  namesInClassesOf,
  putOnShelf,
  shelfIdTaken,
  takeFromShelf,
} from '../repository/schoolShelf.ts';
import { readPatternText } from './patternText.ts';
import { teacherAt } from './schools.ts';

const WHAT = 'thing on the shelf';

/** So many things lie on a shelf. */
const MOST = 2_000;

/** What colleagues have laid out for each other at a school. */
export async function shelfOf(db: Database, teacher: Teacher, schoolId: string): Promise<ShelfItem[]> {
  const { administrator } = teacherAt(teacher, schoolId);
  return listShelf(db, schoolId, teacher.id, administrator);
}

export async function onShelf(db: Database, teacher: Teacher, schoolId: string, id: string): Promise<ShelfItemWhole> {
  const { administrator } = teacherAt(teacher, schoolId);
  const found = await findOnShelf(db, schoolId, id);
  if (!found) throw notFound(WHAT);
  const { teacherId, ...item } = found;
  return { ...item, mine: administrator || teacherId === teacher.id };
}

/** Lays something on the shelf of a school, or lays it out anew. */
export async function layOut(
  db: Database,
  teacher: Teacher,
  schoolId: string,
  id: string,
  { title, about, thing, from }: ShelfItemEdit,
): Promise<'made' | 'changed'> {
  const own = teacherAt(teacher, schoolId);
  for (const text of patternTextsIn(thing)) readPatternText(text, 'thing');
  await refuseNames(db, teacher.id, { title, about, thing });
  const item = { title: title.trim(), about: about.trim(), from: from?.trim() ?? `${own.as}, ${own.name}`, thing };
  return transacted(db, async (inside) => {
    const known = await findOnShelf(inside, schoolId, id);
    if (!known && (await shelfIdTaken(inside, id))) throw notFound(WHAT);
    if (known && known.teacherId !== teacher.id) throw notYours();
    if (!known && (await countOnShelf(inside, schoolId)) >= MOST)
      throw new Problem(409, 'too-many', t`${MOST} things lie on the shelf. Take something away first.`);
    await putOnShelf(inside, { ...item, id, schoolId, teacherId: teacher.id, putAt: Date.now() });
    return known ? 'changed' : 'made';
  });
}

/** Takes something away again: who has laid it there, or an administrator. Copies stay where they are. */
export async function takeAway(db: Database, teacher: Teacher, schoolId: string, id: string): Promise<void> {
  const { administrator } = teacherAt(teacher, schoolId);
  await transacted(db, async (inside) => {
    const known = await findOnShelf(inside, schoolId, id);
    if (!known) throw notFound(WHAT);
    if (!administrator && known.teacherId !== teacher.id) throw notYours();
    await takeFromShelf(inside, id);
  });
}

const notYours = () =>
  new Problem(403, 'not-yours', t`Only who has laid this on the shelf, or an administrator, can do that. Ask them.`);

function patternTextsIn(thing: ShelfThing): string[] {
  switch (thing.kind) {
    case 'pattern':
      return [thing.pattern.text];
    case 'lines':
      return thing.patterns.map(({ text }) => text);
    case 'lesson':
      return thing.lesson.blocks.flatMap(({ patterns }) => patterns.map(({ text }) => text));
    case 'sheet':
      return thing.sheet.parts.flatMap(({ patterns = [] }) => patterns);
    default:
      return [];
  }
}

/**
 * No word of a child lies on a shelf: neither what a thing is called nor a note in it has the name of one of the
 * teacher's children as a word of its own.
 */
async function refuseNames(db: Database, teacherId: string, item: object): Promise<void> {
  const words = new Set(textsIn(item).flatMap((text) => text.match(/[\p{L}\p{M}\p{N}’'-]+/gu) ?? []));
  const bare = new Set([...words].map((word) => word.replace(/[’']s?$/u, '')));
  for (const { name, className } of await namesInClassesOf(db, teacherId)) {
    const parts = name.split(/\s+/u);
    if (parts.every((part) => bare.has(part) || words.has(part)))
      throw new Problem(
        422,
        'names-a-child',
        t`“${name}” is a child of ${className}. No child is named on the shelf: take the name out, then lay it out.`,
        { field: 'thing' },
      );
  }
}

/** What people have typed, wherever it stands; rhythms are written in letters of their own. */
function textsIn(value: unknown, name = ''): string[] {
  if (typeof value === 'string') return name === 'text' || name === 'kind' ? [] : [value];
  if (Array.isArray(value))
    return name === 'patterns' && value.every(isText) ? [] : value.flatMap((one) => textsIn(one, name));
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([key, inner]) => textsIn(inner, key));
}
const isText = (one: unknown) => typeof one === 'string';
