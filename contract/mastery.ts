import { type Static, Type } from '@sinclair/typebox';
import { ELEMENT_IDS } from '../core/rhythm/elements.ts';
import { oneOf } from './parts.ts';

/** How well a child knows each element of rhythm it has met, in their usual order. */
export const ChildMastery = Type.Array(
  Type.Object({ element: oneOf(ELEMENT_IDS), heard: Type.Integer(), right: Type.Number(), lastSeen: Type.Integer() }),
);

export type ChildMastery = Static<typeof ChildMastery>;
