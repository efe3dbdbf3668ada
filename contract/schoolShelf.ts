import { type Static, Type } from '@sinclair/typebox';
import { Id, MadeBy, Name, oneOf, strict } from './parts.ts';
import { LessonEdit } from './lesson.ts';
import { PatternEdit } from './pattern.ts';
import { PlanEdit } from './plan.ts';
import { SheetEdit } from './sheet.ts';
import { TermPlanEdit } from './termPlan.ts';

/** What can lie on a school's shelf. */
export const SHELF_KINDS = ['pattern', 'lines', 'plan', 'sheet', 'lesson', 'term'] as const;
export type ShelfKind = (typeof SHELF_KINDS)[number];

/** As many patterns as a page of lines has room for. */
const MOST_LINES = 40;

const ShelfPattern = Type.Omit(PatternEdit, ['folder', 'from'], strict);

/**
 * A thing on the shelf, without anything that is of one class or a child: a sheet has no class and no names, a lesson
 * no day and no word of how it went, a term plan no times of its lessons.
 */
export const ShelfThing = Type.Union([
  Type.Object({ kind: Type.Literal('pattern'), pattern: ShelfPattern }, strict),
  Type.Object(
    { kind: Type.Literal('lines'), patterns: Type.Array(ShelfPattern, { minItems: 1, maxItems: MOST_LINES }) },
    strict,
  ),
  Type.Object({ kind: Type.Literal('plan'), plan: Type.Omit(PlanEdit, ['from'], strict) }, strict),
  Type.Object(
    { kind: Type.Literal('sheet'), sheet: Type.Omit(SheetEdit, ['classId', 'names', 'from'], strict) },
    strict,
  ),
  Type.Object(
    { kind: Type.Literal('lesson'), lesson: Type.Omit(LessonEdit, ['day', 'starts', 'held', 'again', 'from'], strict) },
    strict,
  ),
  Type.Object({ kind: Type.Literal('term'), term: Type.Pick(TermPlanEdit, ['order', 'contents'], strict) }, strict),
]);
export type ShelfThing = Static<typeof ShelfThing>;

const Title = Name;
const About = Type.String({ maxLength: 200 });

/** What a teacher lays on the shelf. */
export const ShelfItemEdit = Type.Object(
  {
    title: Title,
    about: About,
    thing: ShelfThing,
    /** Of a thing that came from elsewhere; left out it is the teacher. */
    from: Type.Optional(MadeBy),
  },
  strict,
);
export type ShelfItemEdit = Static<typeof ShelfItemEdit>;

/** A thing on the shelf as it is listed. */
export const ShelfItem = Type.Object({
  id: Id,
  title: Type.String(),
  about: Type.String(),
  kind: oneOf(SHELF_KINDS),
  /** Who made it and where, as a copy says it. */
  from: Type.String(),
  /** The teacher who asks has laid it there, or may take it away. */
  mine: Type.Boolean(),
  /** Milliseconds since 1970. */
  putAt: Type.Integer(),
});
export type ShelfItem = Static<typeof ShelfItem>;
export const Shelf = Type.Array(ShelfItem);

export const ShelfItemWhole = Type.Composite([ShelfItem, Type.Object({ thing: ShelfThing })]);
export type ShelfItemWhole = Static<typeof ShelfItemWhole>;

/** What a file is that holds things of a shelf, and how it is written. */
export const SHELF_FILE = 'clapboard-shelf';
export const MOST_IN_FILE = 500;

const FiledItem = Type.Object({ title: Title, about: About, from: MadeBy, thing: ShelfThing }, strict);

/** Things of a shelf in one file, for the shelf of another school. */
export const ShelfFile = Type.Object(
  {
    kind: Type.Literal(SHELF_FILE),
    version: Type.Literal(1),
    items: Type.Array(FiledItem, { minItems: 1, maxItems: MOST_IN_FILE }),
  },
  strict,
);
export type ShelfFile = Static<typeof ShelfFile>;
