import { type Static, Type } from '@sinclair/typebox';
import { Id, Name, strict } from './parts.ts';

/** First name or a code, nothing else is kept of a child. */
export const ChildEdit = Type.Object({ name: Name }, strict);

export type ChildEdit = Static<typeof ChildEdit>;

export const Child = Type.Object({ id: Id, name: Type.String() });

export type Child = Static<typeof Child>;
