import { type Static, Type } from '@sinclair/typebox';
import { ELEMENT_IDS } from '../core/rhythm/elements.ts';
import { Id, Name, oneOf, orNull, strict } from './parts.ts';

/** Of a report: two lines of a page. */
export const LONGEST_LINE = 300;

export const HANDS = ['one-hand', 'tapping'] as const;

/** What is made easier for a child, set once; what is left out is as for everybody. */
export const Adaptations = Type.Object(
  {
    /** Windows so many times as wide. */
    wider: Type.Optional(Type.Number({ minimum: 1, maximum: 3 })),
    /** So much of the tempo of the others. */
    slower: Type.Optional(Type.Number({ minimum: 0.4, maximum: 1 })),
    /** Claps with one hand, or taps where the others clap. */
    hands: Type.Optional(oneOf(HANDS)),
    /** Hears the count-in only. */
    noClick: Type.Optional(Type.Boolean()),
    /** So many tries more than the others. */
    moreTries: Type.Optional(Type.Integer({ minimum: 0, maximum: 9 })),
    /** Is not heard in these. */
    exempt: Type.Optional(Type.Array(oneOf(ELEMENT_IDS), { maxItems: ELEMENT_IDS.length, uniqueItems: true })),
  },
  strict,
);
export type Adaptations = Static<typeof Adaptations>;

/**
 * First name or a code, what is made easier, and the teacher's own line in its report; nothing else is kept of a child.
 * What is left out stays.
 */
export const ChildEdit = Type.Object(
  {
    name: Name,
    adaptations: Type.Optional(orNull(Adaptations)),
    reportLine: Type.Optional(Type.String({ maxLength: LONGEST_LINE })),
  },
  strict,
);

export type ChildEdit = Static<typeof ChildEdit>;

export const Child = Type.Object({
  id: Id,
  name: Type.String(),
  adaptations: orNull(Adaptations),
  reportLine: Type.Optional(Type.String()),
});

export type Child = Static<typeof Child>;
