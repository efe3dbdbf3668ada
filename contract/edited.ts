import { type TObject, Type } from '@sinclair/typebox';
import { strict } from './parts.ts';

/**
 * A change, with what it was made from (`was`): what somebody else changed meanwhile stays, and where both changed the
 * same the second is told. Without `was` it takes the place of whatever is there.
 */
export function edited<S extends TObject>(schema: S) {
  return Type.Composite([schema, Type.Object({ was: Type.Optional(schema) })], strict);
}
