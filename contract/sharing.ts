import { type Static, Type } from '@sinclair/typebox';
import { Id, Name, oneOf, strict } from './parts.ts';

/** What a class can be shared for. */
export const SHARED_ROLES = ['look', 'hear'] as const;

/** With whom, by the name they sign in with, and what for. */
export const ShareEdit = Type.Object({ name: Name, role: oneOf(SHARED_ROLES) }, strict);
export type ShareEdit = Static<typeof ShareEdit>;

export const Share = Type.Object({ teacherId: Id, name: Type.String(), role: oneOf(SHARED_ROLES) });
export type Share = Static<typeof Share>;

export const Shares = Type.Array(Share);
