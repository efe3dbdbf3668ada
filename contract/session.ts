import { type Static, Type } from '@sinclair/typebox';
import { Id, orNull, strict } from './parts.ts';

export const SignIn = Type.Object(
  { name: Type.String({ minLength: 1, maxLength: 60 }), password: Type.String({ minLength: 1, maxLength: 200 }) },
  strict,
);

export type SignIn = Static<typeof SignIn>;

export const Teacher = Type.Object({ id: Id, name: Type.String() });

export type Teacher = Static<typeof Teacher>;

/** What the page needs before it can draw anything: who is signed in, and whether this is the demo. */
export const SessionState = Type.Object({ teacher: orNull(Teacher), demo: Type.Boolean() });

export type SessionState = Static<typeof SessionState>;
