import { type Static, Type } from '@sinclair/typebox';
import { MISREADING_CODES } from '../core/judging/misreadings/table.ts';
import { STATES } from '../core/records/mastery.ts';
import { PLACE_VERDICTS } from '../core/records/toldPlaces.ts';
import { ELEMENT_IDS } from '../core/rhythm/elements.ts';
import { Id, Name, oneOf, orNull, strict } from './parts.ts';
import { MarkScale } from './judging.ts';
import { TakeSummary } from './take.ts';
import { Fraction } from './takeResult.ts';

const Mastery = Type.Object({
  element: oneOf(ELEMENT_IDS),
  heard: Type.Integer(),
  right: Type.Number(),
  state: oneOf(STATES),
  /** Absent in terms that were closed before places were counted. */
  places: Type.Optional(Type.Object({ right: Type.Integer(), misread: Type.Integer(), notTold: Type.Integer() })),
  sure: Type.Optional(Type.Number()),
  lastSeen: Type.Integer(),
});

/** How well a child knows each element of rhythm it has met, in their usual order. */
export const ChildMastery = Type.Array(Mastery);
export type ChildMastery = Static<typeof ChildMastery>;

/** A column of marks made on paper. */
export const PaperColumnEdit = Type.Object(
  {
    title: Name,
    outOf: Type.Integer({ minimum: 1, maximum: 1000 }),
    takenAt: Type.Integer({ minimum: 0, maximum: 8_640_000_000_000 }),
    /** Where they are marks and no points: the points are steps of it. */
    scale: Type.Optional(orNull(MarkScale)),
    /** By child; null takes a mark back, who is left out keeps it. */
    points: Type.Record(Type.String(), orNull(Type.Number({ minimum: 0, maximum: 1000 }))),
  },
  strict,
);
export type PaperColumnEdit = Static<typeof PaperColumnEdit>;

/** All that the grid of a class shows. Children and patterns are named by their place in the lists here. */
export const ClassRecords = Type.Object({
  children: Type.Array(Id),
  patterns: Type.Array(Type.Object({ key: Type.String(), title: Type.String(), lastAt: Type.Integer() })),
  marks: Type.Array(
    Type.Object({
      child: Type.Integer(),
      pattern: Type.Integer(),
      takes: Type.Integer(),
      best: Type.Integer(),
      last: Type.Integer(),
      average: Type.Number(),
    }),
  ),
  elements: Type.Array(Type.Composite([Type.Object({ child: Type.Integer() }), Mastery])),
  paper: Type.Array(
    Type.Object({
      id: Id,
      title: Type.String(),
      outOf: Type.Integer(),
      takenAt: Type.Integer(),
      /** Where they are marks of this scale; absent in terms of before there were others. */
      scale: Type.Optional(orNull(MarkScale)),
      points: Type.Array(Type.Object({ child: Type.Integer(), points: Type.Number() })),
    }),
  ),
});
export type ClassRecords = Static<typeof ClassRecords>;

/** What children of a class misread lately, and how many of them did; what most did comes first. */
export const ClassMisread = Type.Array(Type.Object({ code: oneOf(MISREADING_CODES), children: Type.Integer() }));
export type ClassMisread = Static<typeof ClassMisread>;

/** A take in a child's list, with what it says of the child. */
const ListedTake = Type.Composite([
  TakeSummary,
  Type.Object({ hardest: orNull(Type.Integer()), misread: Type.Array(oneOf(MISREADING_CODES)) }),
]);
export type ListedTake = Static<typeof ListedTake>;

/** The places at which a child was heard in an element: take by take, the newest first. */
export const ElementPlaces = Type.Array(
  Type.Object({
    takeId: Id,
    title: Type.String(),
    takenAt: Type.Integer(),
    places: Type.Array(
      Type.Object({
        /** As it is counted on paper, and where in the measure. */
        measure: Type.Integer(),
        timeThrough: Type.Optional(Type.Integer()),
        played: Type.Integer(),
        beat: Fraction,
        verdict: oneOf(PLACE_VERDICTS),
        code: Type.Optional(oneOf(MISREADING_CODES)),
        /** When it stands in the take, seconds from beat 1 of measure 1. */
        from: Type.Number(),
        to: Type.Number(),
      }),
    ),
  }),
);
export type ElementPlaces = Static<typeof ElementPlaces>;

/** Some of a child's takes, newest first, and from where the next ones go on. */
export const TakesPage = Type.Object({ takes: Type.Array(ListedTake), next: orNull(Type.String()) });
export type TakesPage = Static<typeof TakesPage>;
