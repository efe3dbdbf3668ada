import { type Static, Type } from '@sinclair/typebox';
import { Id, oneOf } from './parts.ts';

export const BIN_KINDS = ['class', 'child'] as const;
/** Things in the bin are really gone after so many days. */
export const BIN_DAYS = 30;

/** A class or child that was removed, and can be taken out of the bin again. */
const Binned = Type.Object({
  kind: oneOf(BIN_KINDS),
  id: Id,
  name: Type.String(),
  /** Milliseconds since 1970. */
  binnedAt: Type.Integer(),
  /** Of a child: where it was. */
  className: Type.Optional(Type.String()),
  /** Of a class: how many went along. */
  children: Type.Optional(Type.Integer()),
});
export type Binned = Static<typeof Binned>;

export const Bin = Type.Array(Binned);
