import { type Static, Type } from '@sinclair/typebox';
import { DAYS_A_WEEK } from './practice.ts';
import { ClassVoice } from './room.ts';
import { Day, Id, Onsets, oneOf, strict } from './parts.ts';

/** So many takes of a pattern wait for the teacher: the best. */
export const KEPT_FROM_HOME = 3;

/** A secret of 128 bits, in base64url. */
export const HomeToken = Type.String({ pattern: '^[A-Za-z0-9_-]{22}$' });

/** How often something was done on a day, counted from the first of the week. */
const OnDay = Type.Object({ item: Type.Integer(), day: Type.Integer(), times: Type.Integer() });

/** One practice week as the child's device at home sees it: no name, no mark, nobody else. */
export const HomeWeek = Type.Object({
  starts: Day,
  title: Type.String(),
  items: Type.Array(
    Type.Object({
      title: Type.String(),
      text: Type.String(),
      bpm: Type.Number(),
      times: Type.Integer(),
      days: Type.Array(Type.Integer()),
    }),
  ),
  voice: ClassVoice,
  wider: Type.Number(),
  done: Type.Array(OnDay),
});
export type HomeWeek = Static<typeof HomeWeek>;

/** What was clapped at home. */
export const HomeTake = Type.Object(
  { item: Type.Integer({ minimum: 0, maximum: 11 }), onsets: Onsets, source: oneOf(['tap', 'microphone']) },
  strict,
);
export type HomeTake = Static<typeof HomeTake>;

/** A pattern was done once more, on a day of the week. */
export const HomeDone = Type.Object(
  {
    item: Type.Integer({ minimum: 0, maximum: 11 }),
    day: Type.Integer({ minimum: 0, maximum: DAYS_A_WEEK - 1 }),
  },
  strict,
);
export type HomeDone = Static<typeof HomeDone>;

/** Whose way home is made, or made anew. */
export const HomeLinksEdit = Type.Object(
  { children: Type.Array(Id, { minItems: 1, maxItems: 200, uniqueItems: true }) },
  strict,
);
export type HomeLinksEdit = Static<typeof HomeLinksEdit>;

/** Takes from home that the teacher takes in; the others of the list are left out. */
export const HomeTaken = Type.Object({ ids: Type.Array(Id, { minItems: 1, maxItems: 300 }) }, strict);
export type HomeTaken = Static<typeof HomeTaken>;

/** The ways home of a week, and what came from there. */
export const FromHome = Type.Object({
  links: Type.Array(Type.Object({ childId: Id, token: HomeToken })),
  takes: Type.Array(
    Type.Object({
      id: Id,
      childId: Id,
      item: Type.Integer(),
      accuracy: Type.Number(),
      takenAt: Type.Integer(),
      source: Type.String(),
    }),
  ),
  done: Type.Array(Type.Composite([Type.Object({ childId: Id }), OnDay])),
});
export type FromHome = Static<typeof FromHome>;
