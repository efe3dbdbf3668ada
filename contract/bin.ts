import { type Static, Type } from '@sinclair/typebox';
import { Id, oneOf } from './parts.ts';

/** What was removed from a class. */
export const BINNED_ROWS = ['take', 'column', 'line-up', 'lesson', 'practice', 'tally', 'hearing'] as const;
export const BIN_KINDS = ['class', 'child', ...BINNED_ROWS] as const;
/** Things in the bin are really gone after so many days. */
export const BIN_DAYS = 30;

/** What was removed, by whoever may, and can be taken out of the bin again by whose class it is. */
const Binned = Type.Object({
  kind: oneOf(BIN_KINDS),
  id: Id,
  name: Type.String(),
  /** Milliseconds since 1970. */
  binnedAt: Type.Integer(),
  /** Of all but a class: where it was. */
  className: Type.Optional(Type.String()),
  /** Of a class: how many went along. */
  children: Type.Optional(Type.Integer()),
});
export type Binned = Static<typeof Binned>;

export const Bin = Type.Array(Binned);
