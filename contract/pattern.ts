import { type Static, Type } from '@sinclair/typebox';
import { Id, Name, RhythmText, strict } from './parts.ts';

export const PatternEdit = Type.Object({ title: Name, text: RhythmText }, strict);

export type PatternEdit = Static<typeof PatternEdit>;

export const SavedPattern = Type.Object({ id: Id, title: Type.String(), text: Type.String() });

export type SavedPattern = Static<typeof SavedPattern>;
