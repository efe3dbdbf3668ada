import { type Static, Type } from '@sinclair/typebox';
import { Adaptations, ChildEdit } from './child.ts';
import { TURN_STATES } from '../core/records/turns.ts';
import { Mark } from './judging.ts';
import { LineUpSettings, Said, Slower } from './lineUp.ts';
import { Bpm, Id, Name, Onsets, Releases, RhythmText, oneOf, orNull, strict } from './parts.ts';
import { SavedPattern } from './pattern.ts';
import { PracticePlan } from './practice.ts';
import { PaperColumnEdit } from './records.ts';
import { ClassSettings } from './schoolClass.ts';
import { GivenMark, TAKE_SOURCES } from './take.ts';
import { EarTally } from './ear.ts';
import { Hearing } from './together.ts';
import { SavedLesson } from './lesson.ts';
import { TermDetail } from './term.ts';
import { TermPlan } from './termPlan.ts';

/** What a file is that holds a class, and how it is written. */
export const COPY_KIND = 'clapboard-class';
export const COPY_VERSION = 1;

const Moment = Type.Integer({ minimum: 0, maximum: 8_640_000_000_000 });

/** A take as it was played, with the teacher's own mark; what judging made of it is made again. */
const CopiedTake = Type.Object(
  {
    id: Id,
    childId: Id,
    patternId: orNull(Id),
    patternKey: Type.String({ minLength: 1, maxLength: 36 }),
    title: Type.String({ maxLength: 120 }),
    patternText: RhythmText,
    bpm: Bpm,
    onsets: Onsets,
    feet: orNull(Onsets),
    releases: orNull(Releases),
    part: Type.Optional(orNull(Type.String({ minLength: 1, maxLength: 40 }))),
    besideId: Type.Optional(orNull(Id)),
    free: Type.Boolean(),
    source: oneOf(TAKE_SOURCES),
    takenAt: Moment,
    override: orNull(Mark),
    given: Type.Optional(orNull(GivenMark)),
    overrideReason: Type.String({ maxLength: 200 }),
    corrected: Type.Boolean(),
  },
  strict,
);
export type CopiedTake = Static<typeof CopiedTake>;

/** A recording that is still kept, in base64. */
const CopiedSound = Type.Object({ takeId: Id, mime: Type.String(), until: Moment, base64: Type.String() }, strict);
export type CopiedSound = Static<typeof CopiedSound>;

const CopiedLineUp = Type.Object(
  {
    id: Id,
    title: Name,
    settings: LineUpSettings,
    startedAt: Moment,
    turns: Type.Array(
      Type.Object(
        {
          childId: Id,
          patternId: Id,
          state: oneOf(TURN_STATES),
          mark: orNull(Mark),
          takeId: orNull(Id),
          /** Absent in files of before they were kept. */
          slower: Type.Optional(orNull(Slower)),
          clash: Type.Optional(orNull(Said)),
        },
        strict,
      ),
      { maxItems: 400 },
    ),
  },
  strict,
);

/** Some of what a class has, to be put into a class that was made for it. */
export const ClassPieces = Type.Object(
  {
    /** The grid shows marks from here on. */
    termFrom: Type.Optional(Moment),
    terms: Type.Optional(Type.Array(TermDetail)),
    takes: Type.Optional(Type.Array(CopiedTake, { maxItems: 500 })),
    paper: Type.Optional(Type.Array(Type.Composite([Type.Object({ id: Id }), PaperColumnEdit], strict))),
    lineUps: Type.Optional(Type.Array(CopiedLineUp)),
    practice: Type.Optional(Type.Array(Type.Object({ id: Id, starts: Type.String(), plan: PracticePlan }, strict))),
    ear: Type.Optional(Type.Array(EarTally)),
    together: Type.Optional(Type.Array(Hearing)),
    lessons: Type.Optional(Type.Array(SavedLesson)),
    termPlan: Type.Optional(TermPlan),
  },
  strict,
);
export type ClassPieces = Static<typeof ClassPieces>;

/** All of a class in one file. */
export const ClassCopy = Type.Object({
  kind: Type.Literal(COPY_KIND),
  version: Type.Literal(COPY_VERSION),
  savedAt: Moment,
  settings: ClassSettings,
  termFrom: Moment,
  children: Type.Array(
    Type.Composite(
      [Type.Object({ id: Id, adaptations: orNull(Adaptations) }), Type.Omit(ChildEdit, ['adaptations'])],
      strict,
    ),
  ),
  patterns: Type.Array(SavedPattern),
  terms: Type.Array(TermDetail),
  paper: Type.Array(Type.Composite([Type.Object({ id: Id }), PaperColumnEdit], strict)),
  practice: Type.Array(Type.Object({ id: Id, starts: Type.String(), plan: PracticePlan }, strict)),
  /** Absent in files of before it was kept. */
  ear: Type.Optional(Type.Array(EarTally)),
  together: Type.Optional(Type.Array(Hearing)),
  lessons: Type.Optional(Type.Array(SavedLesson)),
  termPlan: Type.Optional(TermPlan),
  takes: Type.Array(CopiedTake),
  lineUps: Type.Array(CopiedLineUp),
  sounds: Type.Array(CopiedSound),
});
export type ClassCopy = Static<typeof ClassCopy>;
