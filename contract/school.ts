import { type Static, Type } from '@sinclair/typebox';
import { Id, LanguageOf, Name, oneOf, orNull, strict } from './parts.ts';

/** The school that an installation has from the beginning. */
export const FIRST_SCHOOL = '00000000-0000-4000-8000-000000000001';

export const SchoolName = Type.String({ minLength: 1, maxLength: 80, pattern: '\\S' });

/** A school as everybody at the door sees it. */
export const SchoolSign = Type.Object({ id: Id, name: Type.String() });
export type SchoolSign = Static<typeof SchoolSign>;

/** A school of a teacher's. */
export const OwnSchool = Type.Object({
  id: Id,
  name: Type.String(),
  /** Under which the teacher is known there. */
  as: Type.String(),
  administrator: Type.Boolean(),
});
export type OwnSchool = Static<typeof OwnSchool>;

const days = (minimum: number) => orNull(Type.Integer({ minimum, maximum: 3_650 }));

/**
 * How long a school keeps what it has of children, in days; null is until somebody removes it. A mark goes with its
 * take, but for those of terms that were closed.
 */
export const Retention = Type.Object(
  {
    /** Takes, from when they were clapped: no shorter than a term. */
    takes: days(90),
    /** Sounds, however long a class keeps them. */
    recordings: days(1),
    /** Terms that were closed, from when they were. */
    terms: days(90),
    /** Children who have left, and classes that are no more: in the bin. */
    left: days(1),
  },
  strict,
);
export type Retention = Static<typeof Retention>;

export const KEPT_FOR_EVER: Retention = { takes: null, recordings: null, terms: null, left: null };

/** A new time holds so many days later: who needs something for longer can say so until then. */
export const GRACE_DAYS = 7;

/** What the administrators of a school set. */
export const SchoolEdit = Type.Object(
  {
    name: SchoolName,
    /** An IANA name of a time zone. */
    zone: Type.String({ minLength: 1, maxLength: 60 }),
    /** Of what the school prints; null is that of whoever prints it. */
    language: orNull(LanguageOf),
    retention: Retention,
  },
  strict,
);
export type SchoolEdit = Static<typeof SchoolEdit>;

export const School = Type.Object({
  id: Id,
  ...SchoolEdit.properties,
  /** From then on, in milliseconds since 1970, its times hold. */
  retentionFrom: Type.Integer(),
});
export type School = Static<typeof School>;

export const CLEARED_KINDS = ['takes', 'recordings', 'terms', 'children', 'classes'] as const;

/** What was removed in a night because it had had its time. */
const Cleared = Type.Object({
  /** As in 2026-12-01. */
  night: Type.String(),
  kind: oneOf(CLEARED_KINDS),
  removed: Type.Integer(),
});
export type Cleared = Static<typeof Cleared>;
export const ClearedNights = Type.Array(Cleared);

/** How much a school would remove now if it kept things so long, and how much is held by teachers. */
export const RetentionTrial = Type.Object({
  takes: Type.Integer(),
  recordings: Type.Integer(),
  terms: Type.Integer(),
  held: Type.Integer(),
});
export type RetentionTrial = Static<typeof RetentionTrial>;

/** Why a teacher keeps a child or a class beyond the school's time; null lets it go. */
export const HoldEdit = Type.Object(
  { why: orNull(Type.String({ minLength: 1, maxLength: 120, pattern: '\\S' })) },
  strict,
);
export type HoldEdit = Static<typeof HoldEdit>;

/** Days in which an invitation can be used. */
export const INVITED_DAYS = 14;

export const NewInvitation = Type.Object(
  { administrator: Type.Boolean(), uses: Type.Integer({ minimum: 1, maximum: 60 }) },
  strict,
);
export type NewInvitation = Static<typeof NewInvitation>;

/** An invitation, without its code, which is shown once. */
export const Invitation = Type.Object({
  id: Id,
  administrator: Type.Boolean(),
  left: Type.Integer(),
  /** Milliseconds since 1970. */
  expiresAt: Type.Integer(),
});
export type Invitation = Static<typeof Invitation>;
export const Invitations = Type.Array(Invitation);

const InvitationCode = Type.String({ minLength: 1, maxLength: 200 });

/** A teacher who is in already becomes one of another school too, under a name there. */
export const JoinSchool = Type.Object({ code: InvitationCode, name: Name }, strict);
export type JoinSchool = Static<typeof JoinSchool>;
