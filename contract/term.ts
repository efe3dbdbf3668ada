import { type Static, Type } from '@sinclair/typebox';
import { MarkScale } from './judging.ts';
import { Id, Name, orNull, strict } from './parts.ts';
import { ClassRecords } from './records.ts';

/** Closes what there is of a class until now under a name. */
export const TermEdit = Type.Object({ title: Name }, strict);
export type TermEdit = Static<typeof TermEdit>;

/** A term that is over; milliseconds since 1970, `fromAt` 0 where it was the first. */
const Term = Type.Object({ id: Id, title: Type.String(), fromAt: Type.Integer(), untilAt: Type.Integer() });
export const Terms = Type.Array(Term);
export type Term = Static<typeof Term>;

/** The grid as it was when the term was closed, with the names of the children in its order. */
export const TermDetail = Type.Composite([
  Term,
  Type.Object({
    names: Type.Array(Type.String()),
    records: ClassRecords,
    /** What marks looked like then; null, as in files of before it was kept, is 0 to 4. */
    scale: Type.Optional(orNull(MarkScale)),
  }),
]);
export type TermDetail = Static<typeof TermDetail>;

/** Children who go on in another class, with all their takes. */
export const ClassMove = Type.Object(
  { to: Id, children: Type.Array(Id, { minItems: 1, maxItems: 200, uniqueItems: true }) },
  strict,
);
export type ClassMove = Static<typeof ClassMove>;
