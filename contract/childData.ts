import { type Static, Type } from '@sinclair/typebox';

/** What a file is that holds everything of one child. */
export const CHILD_FILE = 'clapboard-child';

/** Everything of a child, table by table as it is stored; sounds in base64. */
export const ChildFile = Type.Object({
  kind: Type.Literal(CHILD_FILE),
  version: Type.Literal(1),
  /** Milliseconds since 1970. */
  savedAt: Type.Integer(),
  school: Type.String(),
  class: Type.String(),
  name: Type.String(),
  tables: Type.Record(Type.String(), Type.Array(Type.Record(Type.String(), Type.Unknown()))),
});
export type ChildFile = Static<typeof ChildFile>;

/** In how many rows of a table a child stood, and stands after everything of it was deleted. */
const Trace = Type.Object({ table: Type.String(), before: Type.Integer(), after: Type.Integer() });

/** What was looked through for a child after all of it was deleted: every table that there is. */
export const ChildErased = Type.Object({ name: Type.String(), at: Type.Integer(), tables: Type.Array(Trace) });
export type ChildErased = Static<typeof ChildErased>;
