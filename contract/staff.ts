import { type Static, Type } from '@sinclair/typebox';
import { Id, Name, strict } from './parts.ts';

/** A teacher's account, as the administrator sees it: nothing of what is in it. */
const StaffMember = Type.Object({
  id: Id,
  name: Type.String(),
  administrator: Type.Boolean(),
  closed: Type.Boolean(),
  /** Milliseconds since 1970. */
  createdAt: Type.Integer(),
});
export const Staff = Type.Array(StaffMember);
export type StaffMember = Static<typeof StaffMember>;

export const NewTeacher = Type.Object({ name: Name }, strict);
export type NewTeacher = Static<typeof NewTeacher>;

export const StaffEdit = Type.Object({ closed: Type.Boolean() }, strict);
export type StaffEdit = Static<typeof StaffEdit>;

/** With it a teacher chooses a password once, until tomorrow. */
export const OneTimeCode = Type.Object({ code: Type.String() });
export type OneTimeCode = Static<typeof OneTimeCode>;
