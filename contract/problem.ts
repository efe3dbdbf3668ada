import { Type } from '@sinclair/typebox';

/** The one shape of every error that leaves the server or the command line's batches. */
export const ErrorBody = Type.Object({
  error: Type.Object({
    code: Type.String(),
    /** One sentence that says what to do. */
    message: Type.String(),
    /** The field it is about. */
    field: Type.Optional(Type.String()),
    /** Place in a rhythm text, from 1. */
    at: Type.Optional(
      Type.Object({ line: Type.Integer(), column: Type.Integer(), expected: Type.String(), found: Type.String() }),
    ),
    /** Where somebody else changed the same meanwhile: what is there now, and which parts of it. */
    theirs: Type.Optional(Type.Unknown()),
    parts: Type.Optional(Type.Array(Type.String())),
  }),
});
