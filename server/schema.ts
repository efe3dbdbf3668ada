import {
  bigint,
  boolean,
  customType,
  double,
  index,
  int,
  mediumtext,
  mysqlTable,
  primaryKey,
  text,
  timestamp,
  uniqueIndex,
  varchar,
} from 'drizzle-orm/mysql-core';
import type { Language } from '../core/words/say.ts';
import type { BINNED_ROWS } from '../contract/bin.ts';
import type { Adaptations } from '../contract/child.ts';
import type { EarKind } from '../contract/ear.ts';
import type { HearingEdit } from '../contract/together.ts';
import type { Phase, RoomTask } from '../contract/room.ts';
import type { MarkScale } from '../contract/judging.ts';
import type { LineUpSettings } from '../contract/lineUp.ts';
import type { LessonEdit } from '../contract/lesson.ts';
import type { Bracket } from '../contract/pattern.ts';
import type { PlanEdit } from '../contract/plan.ts';
import type { SheetEdit } from '../contract/sheet.ts';
import type { CountedTake } from '../contract/schoolClass.ts';
import type { PracticePlan } from '../contract/practice.ts';
import type { ClassRecords } from '../contract/records.ts';
import { type Cleared, FIRST_SCHOOL, type Retention } from '../contract/school.ts';
import type { ShelfThing } from '../contract/schoolShelf.ts';
import type { ShareEdit } from '../contract/sharing.ts';
import type { TermPlanEdit } from '../contract/termPlan.ts';
import type { GivenMark, TAKE_SOURCES } from '../contract/take.ts';
import type { RestStyle } from '../core/counting/countingSystem.ts';
import type { CountingSystemId } from '../core/counting/countingSystems.ts';
import type { NamingId } from '../core/wording/valueNames.ts';
import type { Said, TurnState } from '../core/records/turns.ts';
import type { MarkBorder } from '../core/judging/scale.ts';
import type { Ages, Windows } from '../core/judging/windows.ts';
import type { ElementId } from '../core/rhythm/elements.ts';
import type { TakeResult } from '../contract/takeResult.ts';

/** JSON in a long text column: MariaDB's own JSON type is one, and hands back a string. */
function json<T>(name: string) {
  return customType<{ data: T; driverData: string }>({
    dataType: () => 'longtext',
    toDriver: (value) => JSON.stringify(value),
    fromDriver: (value) => JSON.parse(value) as T,
  })(name);
}

/** Up to 16 MB of bytes. */
function blob(name: string) {
  return customType<{ data: Buffer; driverData: Buffer }>({ dataType: () => 'mediumblob' })(name);
}

/** Letters without signs of other scripts: short enough to stand in an index. */
function shortWord(name: string, length: number) {
  return customType<{ data: string; driverData: string }>({
    dataType: () => `varchar(${length}) character set ascii`,
  })(name);
}

/** Words that are another when one letter is: with another accent, or a sign beside it. */
function exactly(name: string, length: number) {
  return customType<{ data: string; driverData: string }>({
    dataType: () => `varchar(${length}) character set utf8mb4 collate utf8mb4_nopad_bin`,
  })(name);
}

/** What of a class decides how it judges. */
export interface JudgingBefore {
  readonly ages: Ages;
  readonly onTimeMs: number | null;
  readonly borders: readonly MarkBorder[] | null;
  /** Absent in what was asked for before there were scales. */
  readonly scale?: MarkScale | null;
  readonly clickCounts: boolean;
}

/** A row, and those that go with it: the marks of a column, the turns of a line-up, the sound of a take. */
export interface BinnedRows {
  readonly row: Readonly<Record<string, unknown>>;
  readonly with: readonly Readonly<Record<string, unknown>>[];
}

/** Milliseconds since 1970. */
const moment = (name: string) => bigint(name, { mode: 'number' });

const id = (name: string) => varchar(name, { length: 36 });

export const teachers = mysqlTable(
  'teachers',
  {
    id: id('id').primaryKey(),
    name: varchar('name', { length: 60 }).notNull(),
    passwordHash: varchar('password_hash', { length: 200 }).notNull(),
    createdAt: timestamp('created_at').notNull().defaultNow(),
    /** The language of the pages; null is that of the browser. */
    language: varchar('language', { length: 5 }).$type<Language>(),
    /** Whether the app counts with this teacher's own voice, where there is one. */
    ownVoice: boolean('own_voice').notNull().default(true),
  },
  (t) => [index('teachers_named').on(t.name)],
);

/** What a teacher said, word by word, to be counted with. */
export const voiceWords = mysqlTable(
  'voice_words',
  {
    teacherId: id('teacher_id')
      .notNull()
      .references(() => teachers.id, { onDelete: 'cascade' }),
    word: exactly('word', 40).notNull(),
    /** Seconds from its start to what falls on the beat. */
    vowel: double('vowel').notNull(),
    /** Samples of two bytes, the lower one first. */
    sound: blob('sound').notNull(),
  },
  (t) => [primaryKey({ columns: [t.teacherId, t.word] })],
);

/** The schools of an installation. Nothing of one is seen in another. */
export const schools = mysqlTable(
  'schools',
  {
    id: id('id').primaryKey(),
    name: varchar('name', { length: 80 }).notNull(),
    /** An IANA name: at night is at night there. */
    zone: varchar('zone', { length: 60 }).notNull().default('UTC'),
    /** Of what the school prints; null is that of whoever prints it. */
    language: varchar('language', { length: 5 }).$type<Language>(),
    /** How long things are kept, in days; what has none is kept until somebody removes it. */
    retention: json<Retention>('retention').notNull(),
    /** Since when they hold. */
    retentionFrom: moment('retention_from').notNull().default(0),
    createdAt: moment('created_at').notNull(),
    /** The last night, as in 2026-12-01, in which what had its time was removed. */
    clearedNight: varchar('cleared_night', { length: 10 }).notNull().default(''),
  },
  (t) => [uniqueIndex('schools_name').on(t.name)],
);

/** What was removed of a school at night. */
export const cleared = mysqlTable(
  'cleared',
  {
    schoolId: id('school_id')
      .notNull()
      .references(() => schools.id, { onDelete: 'cascade' }),
    night: varchar('night', { length: 10 }).notNull(),
    kind: varchar('kind', { length: 12 }).$type<Cleared['kind']>().notNull(),
    removed: int('removed').notNull(),
  },
  (t) => [primaryKey({ columns: [t.schoolId, t.night, t.kind] })],
);

/** Who teaches at a school, and under which name; a teacher may be at several. */
export const members = mysqlTable(
  'members',
  {
    schoolId: id('school_id')
      .notNull()
      .references(() => schools.id, { onDelete: 'cascade' }),
    teacherId: id('teacher_id')
      .notNull()
      .references(() => teachers.id, { onDelete: 'cascade' }),
    name: varchar('name', { length: 60 }).notNull(),
    /** Looks after the school and its accounts; sees no more of classes than anybody. */
    administrator: boolean('administrator').notNull().default(false),
    /** Is at this school no more; what was made there stays. */
    closed: boolean('closed').notNull().default(false),
    since: moment('since').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.schoolId, t.teacherId] }),
    uniqueIndex('members_name').on(t.schoolId, t.name),
    index('members_teacher').on(t.teacherId),
    index('members_named').on(t.name),
  ],
);

/** With its code somebody becomes a teacher of a school. */
export const invitations = mysqlTable(
  'invitations',
  {
    id: id('id').primaryKey(),
    schoolId: id('school_id')
      .notNull()
      .references(() => schools.id, { onDelete: 'cascade' }),
    /** SHA-256: the code itself is long and random. */
    codeHash: varchar('code_hash', { length: 64 }).notNull(),
    administrator: boolean('administrator').notNull(),
    /** So many may still come in with it. */
    left: int('uses_left').notNull(),
    madeAt: moment('made_at').notNull(),
    expiresAt: moment('expires_at').notNull(),
  },
  (t) => [uniqueIndex('invitations_code').on(t.codeHash), index('invitations_school').on(t.schoolId)],
);

export const sessions = mysqlTable(
  'sessions',
  {
    /** SHA-256 of the token in the cookie: who reads the table cannot sign in with it. */
    tokenHash: varchar('token_hash', { length: 64 }).primaryKey(),
    teacherId: id('teacher_id')
      .notNull()
      .references(() => teachers.id, { onDelete: 'cascade' }),
    expiresAt: moment('expires_at').notNull(),
    startedAt: moment('started_at').notNull().default(0),
    /** The browser, in a few words, so that a teacher knows which one to sign out. */
    device: varchar('device', { length: 60 }).notNull().default(''),
  },
  (t) => [index('sessions_expiry').on(t.expiresAt), index('sessions_teacher').on(t.teacherId)],
);

/**
 * How often somebody tried to sign in, by account and by address, for every server of this database. The names of the
 * columns are the limiter's.
 */
export const signInTries = mysqlTable('sign_in_tries', {
  key: varchar('key', { length: 255 }).primaryKey(),
  points: int('points').notNull().default(0),
  expire: bigint('expire', { mode: 'number', unsigned: true }),
});

/** A browser in which a teacher has been in: its tries to sign in are counted apart from those of everybody else. */
export const knownDevices = mysqlTable(
  'known_devices',
  {
    /** SHA-256 of the token in its cookie. */
    tokenHash: varchar('token_hash', { length: 64 }).primaryKey(),
    teacherId: id('teacher_id')
      .notNull()
      .references(() => teachers.id, { onDelete: 'cascade' }),
    usedAt: moment('used_at').notNull(),
  },
  (t) => [index('known_devices_teacher').on(t.teacherId)],
);

/** A code the administrator gave out, with which a teacher chooses a new password once. */
export const passwordResets = mysqlTable('password_resets', {
  teacherId: id('teacher_id')
    .primaryKey()
    .references(() => teachers.id, { onDelete: 'cascade' }),
  /** SHA-256: the code itself is long and random. */
  codeHash: varchar('code_hash', { length: 64 }).notNull(),
  expiresAt: moment('expires_at').notNull(),
});

/** A key on a teacher's own device: a second way in. */
export const passkeys = mysqlTable(
  'passkeys',
  {
    /** SHA-256 of the credential's own id, which may have 1,023 bytes. */
    id: varchar('id', { length: 64 }).primaryKey(),
    teacherId: id('teacher_id')
      .notNull()
      .references(() => teachers.id, { onDelete: 'cascade' }),
    /** Base64url, as the browser names it. */
    credentialId: text('credential_id').notNull(),
    /** COSE, in base64url. */
    publicKey: text('public_key').notNull(),
    counter: moment('counter').notNull(),
    transports: json<readonly string[]>('transports'),
    name: varchar('name', { length: 60 }).notNull(),
    createdAt: moment('created_at').notNull(),
  },
  (t) => [index('passkeys_teacher').on(t.teacherId)],
);

/** What a passkey is to sign; each is used once. */
export const passkeyChallenges = mysqlTable('passkey_challenges', {
  id: id('id').primaryKey(),
  /** Who adds a passkey; nobody yet, where somebody signs in. */
  teacherId: id('teacher_id').references(() => teachers.id, { onDelete: 'cascade' }),
  challenge: varchar('challenge', { length: 200 }).notNull(),
  expiresAt: moment('expires_at').notNull(),
});

export const classes = mysqlTable('classes', {
  id: id('id').primaryKey(),
  teacherId: id('teacher_id')
    .notNull()
    .references(() => teachers.id, { onDelete: 'cascade' }),
  /** Where it is; it stays there. */
  schoolId: id('school_id')
    .notNull()
    .default(FIRST_SCHOOL)
    .references(() => schools.id),
  name: varchar('name', { length: 60 }).notNull(),
  ages: varchar('ages', { length: 10 }).$type<Ages>().notNull(),
  school: varchar('school', { length: 20 }).$type<CountingSystemId>().notNull(),
  rests: varchar('rests', { length: 10 }).$type<RestStyle>(),
  naming: varchar('naming', { length: 20 }).$type<NamingId>().notNull().default('quarters'),
  /** What children see and hear; null is the language of the teacher. */
  language: varchar('language', { length: 5 }).$type<Language>(),
  houseWords: json<Readonly<Record<string, Record<string, string>>>>('house_words'),
  wordSet: json<{ title: string; cells: Record<string, string> }>('word_set'),
  onTimeMs: int('on_time_ms'),
  borders: json<readonly MarkBorder[]>('borders'),
  /** What marks look like; null is 0 to 4. */
  scale: json<MarkScale>('scale'),
  clickCounts: boolean('click_counts').notNull().default(false),
  recordingDays: int('recording_days'),
  /** Why it is kept beyond the school's time; null where it is not. */
  held: varchar('held', { length: 120 }),
  /** Which of several takes of a pattern counts. */
  counts: varchar('counts', { length: 10 }).$type<CountedTake>().notNull().default('best'),
  /** The grid shows marks from here on: what is older is in the terms that were closed. */
  termFrom: moment('term_from').notNull().default(0),
  /** In the bin since then, in milliseconds since 1970; null where it is not. */
  binnedAt: moment('binned_at'),
  /**
   * Another random word with every change to the class, its children or takes: what was read of it can be kept until
   * then. A number that goes up would come again after a backup was restored, with something else under it.
   */
  revision: varchar('revision', { length: 32 }).notNull().default(''),
  /** Goes up whenever the class judges otherwise than before. */
  judgingRevision: int('judging_revision').notNull().default(0),
});

/** Other teachers who may see a class. */
export const classShares = mysqlTable(
  'class_shares',
  {
    classId: id('class_id')
      .notNull()
      .references(() => classes.id, { onDelete: 'cascade' }),
    teacherId: id('teacher_id')
      .notNull()
      .references(() => teachers.id, { onDelete: 'cascade' }),
    role: varchar('role', { length: 10 }).$type<ShareEdit['role']>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.classId, t.teacherId] })],
);

/** A term that is over: the grid as it was when it was closed. */
export const terms = mysqlTable(
  'terms',
  {
    id: id('id').primaryKey(),
    classId: id('class_id')
      .notNull()
      .references(() => classes.id, { onDelete: 'cascade' }),
    title: varchar('title', { length: 60 }).notNull(),
    fromAt: moment('from_at').notNull(),
    untilAt: moment('until_at').notNull(),
    /** Their names then, in the order of the records. */
    names: json<readonly string[]>('names').notNull(),
    records: json<ClassRecords>('records').notNull(),
    /** What marks looked like then; null is 0 to 4. */
    scale: json<MarkScale>('scale'),
  },
  (t) => [index('terms_class').on(t.classId, t.untilAt)],
);

/** A week of practice at home, for some children of a class. */
export const practiceWeeks = mysqlTable(
  'practice_weeks',
  {
    id: id('id').primaryKey(),
    classId: id('class_id')
      .notNull()
      .references(() => classes.id, { onDelete: 'cascade' }),
    /** Its first day, as in 2026-09-28. */
    starts: varchar('starts', { length: 10 }).notNull(),
    plan: json<PracticePlan>('plan').notNull(),
  },
  (t) => [index('practice_weeks_class').on(t.classId, t.starts)],
);

/** Lessons of a class, each kept whole. */
export const lessons = mysqlTable(
  'lessons',
  {
    id: id('id').primaryKey(),
    classId: id('class_id')
      .notNull()
      .references(() => classes.id, { onDelete: 'cascade' }),
    lesson: json<LessonEdit>('lesson').notNull(),
    /** Its day, by which they are listed; empty where it has none. */
    day: varchar('day', { length: 10 }).notNull().default(''),
    changedAt: moment('changed_at').notNull(),
  },
  (t) => [index('lessons_class').on(t.classId, t.day)],
);

/** What a class does in its term. */
export const termPlans = mysqlTable('term_plans', {
  classId: id('class_id')
    .primaryKey()
    .references(() => classes.id, { onDelete: 'cascade' }),
  plan: json<TermPlanEdit>('plan').notNull(),
});

/** How a class did when it was asked by ear: no child is named. */
export const earTallies = mysqlTable(
  'ear_tallies',
  {
    id: id('id').primaryKey(),
    classId: id('class_id')
      .notNull()
      .references(() => classes.id, { onDelete: 'cascade' }),
    kind: varchar('kind', { length: 10 }).$type<EarKind>().notNull(),
    takenAt: moment('taken_at').notNull(),
    right: int('right_answers').notNull(),
    asked: int('asked').notNull(),
    mistakes: json<Record<string, number>>('mistakes').notNull(),
  },
  (t) => [index('ear_tallies_class').on(t.classId, t.takenAt)],
);

/** How a class clapped a pattern together, pass by pass: no child is named. */
export const hearings = mysqlTable(
  'hearings',
  {
    id: id('id').primaryKey(),
    classId: id('class_id')
      .notNull()
      .references(() => classes.id, { onDelete: 'cascade' }),
    takenAt: moment('taken_at').notNull(),
    title: varchar('title', { length: 200 }).notNull(),
    patternText: text('pattern_text').notNull(),
    bpm: double('bpm').notNull(),
    from: varchar('heard_from', { length: 10 }).$type<HearingEdit['from']>().notNull(),
    heard: json<HearingEdit['heard']>('heard').notNull(),
  },
  (t) => [index('hearings_class').on(t.classId, t.takenAt)],
);

/** The takes of a class that are still to be judged anew, newest first: written with the settings that ask for it. */
export const rejudgings = mysqlTable('rejudgings', {
  classId: id('class_id')
    .primaryKey()
    .references(() => classes.id, { onDelete: 'cascade' }),
  /** The judging revision of the class that is being applied. */
  revision: int('revision').notNull(),
  /** The take that was judged last. */
  takenAt: moment('taken_at').notNull(),
  takeId: id('take_id').notNull(),
  done: int('done').notNull(),
  total: int('total').notNull(),
  /** The server that works on it, and until when the others leave it alone. */
  owner: id('owner').notNull(),
  /** How the class judged before, for whoever breaks it off; null where nothing of the class was changed. */
  before: json<JudgingBefore>('judged_before'),
  leasedUntil: moment('leased_until').notNull(),
});

export const children = mysqlTable('children', {
  id: id('id').primaryKey(),
  classId: id('class_id')
    .notNull()
    .references(() => classes.id, { onDelete: 'cascade' }),
  /** First name or a code; nothing else is kept. */
  name: varchar('name', { length: 60 }).notNull(),
  /** In the class list; who has the same are in the order of their names. */
  position: moment('position').notNull().default(0),
  /** What is made easier for this child. */
  adaptations: json<Adaptations>('adaptations'),
  /** The teacher's own in its report. */
  reportLine: varchar('report_line', { length: 400 }).notNull().default(''),
  /** By which it sits down in a room where names are not shown: figures, drawn when they are first asked for. */
  roomCode: varchar('room_code', { length: 4 }),
  /** Why it is kept beyond the school's time; null where it is not. */
  held: varchar('held', { length: 120 }),
  binnedAt: moment('binned_at'),
});

/** How each child stands with each element: goes on with every take, so that no page reads all of them. */
export const childElements = mysqlTable(
  'child_elements',
  {
    childId: id('child_id')
      .notNull()
      .references(() => children.id, { onDelete: 'cascade' }),
    element: varchar('element', { length: 30 }).$type<ElementId>().notNull(),
    measures: int('measures').notNull(),
    /** Places: how many were read right, misread, and not told of. */
    right: int('right_places').notNull().default(0),
    misread: int('misread').notNull().default(0),
    notTold: int('not_told').notNull().default(0),
    /** How probable it is that the child can read it. */
    known: double('known').notNull().default(0.5),
    /** Of told places, a newer one counting more: how many were right, and how many there were. */
    part: double('right_part').notNull(),
    weight: double('weight').notNull(),
    days: int('days').notNull(),
    lastSeen: moment('last_seen').notNull(),
  },
  (t) => [primaryKey({ columns: [t.childId, t.element] })],
);

/** The marks of each child in each pattern, in the same way. */
export const childPatterns = mysqlTable(
  'child_patterns',
  {
    childId: id('child_id')
      .notNull()
      .references(() => children.id, { onDelete: 'cascade' }),
    patternKey: id('pattern_key').notNull(),
    title: varchar('title', { length: 120 }).notNull(),
    takes: int('takes').notNull(),
    best: int('best').notNull(),
    last: int('last_mark').notNull(),
    markSum: int('mark_sum').notNull(),
    lastAt: moment('last_at').notNull(),
  },
  (t) => [primaryKey({ columns: [t.childId, t.patternKey] })],
);

/** A column of marks that were made by hand or on paper. */
export const paperColumns = mysqlTable(
  'paper_columns',
  {
    id: id('id').primaryKey(),
    classId: id('class_id')
      .notNull()
      .references(() => classes.id, { onDelete: 'cascade' }),
    title: varchar('title', { length: 60 }).notNull(),
    /** Full marks there; a line-up has those of its scale. */
    outOf: int('out_of').notNull(),
    /** Where they are marks of this scale and no points. */
    scale: json<MarkScale>('scale'),
    takenAt: moment('taken_at').notNull(),
  },
  (t) => [index('paper_columns_class').on(t.classId, t.takenAt)],
);

export const paperMarks = mysqlTable(
  'paper_marks',
  {
    columnId: id('column_id')
      .notNull()
      .references(() => paperColumns.id, { onDelete: 'cascade' }),
    childId: id('child_id')
      .notNull()
      .references(() => children.id, { onDelete: 'cascade' }),
    points: double('points').notNull(),
  },
  (t) => [primaryKey({ columns: [t.columnId, t.childId] })],
);

/** A class heard child after child. */
export const lineUps = mysqlTable(
  'line_ups',
  {
    id: id('id').primaryKey(),
    classId: id('class_id')
      .notNull()
      .references(() => classes.id, { onDelete: 'cascade' }),
    title: varchar('title', { length: 60 }).notNull(),
    settings: json<LineUpSettings>('settings').notNull(),
    startedAt: moment('started_at').notNull(),
  },
  (t) => [index('line_ups_class').on(t.classId, t.startedAt)],
);

export const lineUpTurns = mysqlTable(
  'line_up_turns',
  {
    lineUpId: id('line_up_id')
      .notNull()
      .references(() => lineUps.id, { onDelete: 'cascade' }),
    childId: id('child_id')
      .notNull()
      .references(() => children.id, { onDelete: 'cascade' }),
    position: int('position').notNull(),
    patternId: id('pattern_id').notNull(),
    state: varchar('state', { length: 10 }).$type<TurnState>().notNull().default('waiting'),
    /** By hand, or of the take. */
    mark: int('mark'),
    takeId: id('take_id'),
    slower: double('slower'),
    clash: json<Said>('clash'),
  },
  (t) => [primaryKey({ columns: [t.lineUpId, t.childId] }), index('line_up_turns_take').on(t.takeId)],
);

export const patterns = mysqlTable('patterns', {
  id: id('id').primaryKey(),
  teacherId: id('teacher_id')
    .notNull()
    .references(() => teachers.id, { onDelete: 'cascade' }),
  title: varchar('title', { length: 60 }).notNull(),
  text: mediumtext('text').notNull(),
  /** Words over stretches of it; null where there are none. */
  brackets: json<readonly Bracket[] | null>('brackets'),
  /** Order in the list: when it was made, in milliseconds since 1970; where the teacher has put it, from 0. */
  position: moment('position').notNull(),
  /** Where the teacher has put it; null: in no folder. */
  folder: varchar('folder', { length: 60 }),
  /** Of a copy: who made it. */
  from: varchar('made_by', { length: 160 }),
  archived: boolean('archived').notNull().default(false),
});

/** What a teacher lays out for the colleagues of a school: nothing of a child. */
export const shelfItems = mysqlTable(
  'shelf_items',
  {
    id: id('id').primaryKey(),
    schoolId: id('school_id')
      .notNull()
      .references(() => schools.id, { onDelete: 'cascade' }),
    /** Who may take it back; null where that teacher's account is gone. */
    teacherId: id('teacher_id').references(() => teachers.id, { onDelete: 'set null' }),
    title: varchar('title', { length: 60 }).notNull(),
    /** What it says of itself. */
    about: varchar('about', { length: 200 }).notNull().default(''),
    /** Who made it, and where, as it was when it was laid out. */
    from: varchar('made_by', { length: 160 }).notNull(),
    thing: json<ShelfThing>('thing').notNull(),
    putAt: moment('put_at').notNull(),
  },
  (t) => [index('shelf_items_school').on(t.schoolId, t.putAt)],
);

/** Who somebody is elsewhere: whom another place vouches for comes in without a password. */
export const identities = mysqlTable(
  'identities',
  {
    /** SHA-256 of the issuer and its name for the person: neither is kept. */
    key: varchar('identity_key', { length: 64 }).primaryKey(),
    teacherId: id('teacher_id')
      .notNull()
      .references(() => teachers.id, { onDelete: 'cascade' }),
    since: moment('since').notNull(),
  },
  (t) => [index('identities_teacher').on(t.teacherId)],
);

/** Somebody who was sent to the other place and is to come back. */
export const signOns = mysqlTable('sign_ons', {
  /** SHA-256 of the state that goes there and comes back. */
  stateHash: varchar('state_hash', { length: 64 }).primaryKey(),
  /** SHA-256 of the token in the cookie of the browser that was sent. */
  browserHash: varchar('browser_hash', { length: 64 }).notNull(),
  nonce: varchar('nonce', { length: 100 }).notNull(),
  verifier: varchar('verifier', { length: 200 }).notNull(),
  /** Who was in already, and only says who she is there. */
  teacherId: id('teacher_id').references(() => teachers.id, { onDelete: 'cascade' }),
  /** Whom the other place vouched for and nobody knows here yet: an invitation makes an account of it. */
  identity: varchar('identity_key', { length: 64 }),
  expiresAt: moment('expires_at').notNull(),
});

/** How a teacher leads patterns; the plan is of no use in parts, so it is kept whole. */
export const plans = mysqlTable('plans', {
  id: id('id').primaryKey(),
  teacherId: id('teacher_id')
    .notNull()
    .references(() => teachers.id, { onDelete: 'cascade' }),
  title: varchar('title', { length: 60 }).notNull(),
  plan: json<PlanEdit>('plan').notNull(),
});

/** Sheets for paper; each is printed again from its seed. */
export const sheets = mysqlTable(
  'sheets',
  {
    id: id('id').primaryKey(),
    teacherId: id('teacher_id')
      .notNull()
      .references(() => teachers.id, { onDelete: 'cascade' }),
    sheet: json<SheetEdit>('sheet').notNull(),
    changedAt: moment('changed_at').notNull(),
  },
  (t) => [index('sheets_teacher').on(t.teacherId, t.changedAt)],
);

export const takes = mysqlTable(
  'takes',
  {
    id: id('id').primaryKey(),
    childId: id('child_id')
      .notNull()
      .references(() => children.id, { onDelete: 'cascade' }),
    /** The child's class, so that its takes are found in order without asking for each child. */
    classId: id('class_id').notNull(),
    patternId: id('pattern_id').references(() => patterns.id, { onDelete: 'set null' }),
    /** Of its pattern, also when that is gone: takes with the same key stand in one column. */
    patternKey: id('pattern_key').notNull().default(''),
    title: varchar('title', { length: 120 }).notNull(),
    /** The pattern as it was when the take was played. */
    patternText: mediumtext('pattern_text').notNull(),
    bpm: double('bpm').notNull(),
    ages: varchar('ages', { length: 10 }).$type<Ages>().notNull(),
    windows: json<Windows>('windows').notNull(),
    onsets: json<readonly number[]>('onsets').notNull(),
    /** Steps, and when each onset was let go; only of takes in which they were heard. */
    feet: json<readonly number[]>('feet'),
    releases: json<readonly (number | null)[]>('releases'),
    /** Of a pattern in several parts which one; and the take of another part that was played at the same time. */
    part: varchar('part', { length: 40 }),
    besideId: id('beside_id'),
    takenAt: moment('taken_at').notNull(),
    accuracy: double('accuracy').notNull(),
    mark: int('mark').notNull(),
    override: int('override_mark'),
    /** As it was given, where that was in another scale than the class has now. */
    given: json<GivenMark>('given_mark'),
    overrideReason: varchar('override_reason', { length: 200 }).notNull().default(''),
    result: json<TakeResult>('result').notNull(),
    /** Of the judging that made the result; results of an older one are judged again. */
    resultVersion: int('result_version').notNull().default(0),
    /** What the take says about each element, packed. */
    elements: shortWord('elements', 400).notNull().default(''),
    /** The measure that cost most, where one stands out. */
    hardest: int('hardest'),
    /** Codes of what was misread, a comma between them. */
    misread: shortWord('misread', 120).notNull().default(''),
    free: boolean('free').notNull().default(false),
    source: varchar('source', { length: 12 }).$type<(typeof TAKE_SOURCES)[number]>().notNull().default('tap'),
    corrected: boolean('corrected').notNull().default(false),
  },
  (t) => [
    // All that the records of a child are made of: they are read from the index alone.
    index('takes_records').on(
      t.childId,
      t.takenAt,
      t.id,
      t.patternKey,
      t.mark,
      t.override,
      t.bpm,
      t.hardest,
      t.accuracy,
      t.elements,
    ),
    index('takes_class').on(t.classId, t.takenAt),
    // Whether any is to be judged again is asked at every start.
    index('takes_version').on(t.resultVersion),
  ],
);

/** Sound of a take, kept only where the class says so, and gone after its date. */
export const recordings = mysqlTable(
  'recordings',
  {
    takeId: id('take_id')
      .primaryKey()
      .references(() => takes.id, { onDelete: 'cascade' }),
    mime: varchar('mime', { length: 60 }).notNull(),
    /** The upload that holds its sound: it stands here only when all of it has arrived. */
    uploadId: id('upload_id').notNull(),
    bytes: int('bytes').notNull(),
    expiresAt: moment('expires_at').notNull(),
  },
  (t) => [index('recordings_expiry').on(t.expiresAt), index('recordings_upload').on(t.uploadId)],
);

/**
 * What was removed from a class: its rows as they were, until it is put back or its time is over. A table of its own,
 * so that nobody who reads a class has to leave out what is not in it any more.
 */
export const binnedRows = mysqlTable(
  'binned_rows',
  {
    id: id('id').primaryKey(),
    classId: id('class_id')
      .notNull()
      .references(() => classes.id, { onDelete: 'cascade' }),
    /** Of a take: it goes with its child. */
    childId: id('child_id').references(() => children.id, { onDelete: 'cascade' }),
    kind: varchar('kind', { length: 12 }).$type<(typeof BINNED_ROWS)[number]>().notNull(),
    name: varchar('name', { length: 200 }).notNull(),
    rows: json<BinnedRows>('rows').notNull(),
    /** Of a take that has a sound: where it is, and until when it is kept, in the bin too. */
    uploadId: id('upload_id'),
    soundUntil: moment('sound_until'),
    binnedAt: moment('binned_at').notNull(),
  },
  (t) => [
    index('binned_rows_class').on(t.classId, t.binnedAt),
    index('binned_rows_time').on(t.binnedAt),
    index('binned_rows_upload').on(t.uploadId),
  ],
);

/** The sound of a recording in pieces, each small enough for one packet to the database. */
export const recordingChunks = mysqlTable(
  'recording_chunks',
  {
    uploadId: id('upload_id').notNull(),
    /** No foreign key: the sound of a take in the bin is still there. */
    takeId: id('take_id').notNull(),
    number: int('number').notNull(),
    sound: blob('sound').notNull(),
    arrivedAt: moment('arrived_at').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.uploadId, t.number] }),
    index('recording_chunks_arrival').on(t.arrivedAt),
    index('recording_chunks_take').on(t.takeId),
  ],
);

/** A class at its own devices, for a lesson. */
export const rooms = mysqlTable(
  'rooms',
  {
    id: id('id').primaryKey(),
    classId: id('class_id')
      .notNull()
      .references(() => classes.id, { onDelete: 'cascade' }),
    /** Who opened it, and hears what is clapped in it. */
    teacherId: id('teacher_id')
      .notNull()
      .references(() => teachers.id, { onDelete: 'cascade' }),
    /** Their words in their order, a space between them. */
    pictures: varchar('pictures', { length: 60 }).notNull(),
    /** The same while it is open: no two open rooms have the same. */
    door: varchar('door', { length: 60 }),
    codes: boolean('codes').notNull(),
    marksShown: boolean('marks_shown').notNull(),
    namesShown: boolean('names_shown').notNull(),
    openedAt: moment('opened_at').notNull(),
    /** By itself, or when it was ended. */
    endsAt: moment('ends_at').notNull(),
    /** The round that is on, from 1; 0 before the first. */
    round: int('round').notNull().default(0),
    /** Goes up with everything that changes in it. */
    revision: int('revision').notNull().default(0),
  },
  (t) => [
    uniqueIndex('rooms_door').on(t.door),
    index('rooms_class').on(t.classId, t.endsAt),
    index('rooms_pictures').on(t.pictures),
  ],
);

/** A device in a room: of a child once it has taken its name. */
export const roomSeats = mysqlTable(
  'room_seats',
  {
    /** SHA-256 of the token in its cookie. */
    tokenHash: varchar('token_hash', { length: 64 }).primaryKey(),
    roomId: id('room_id')
      .notNull()
      .references(() => rooms.id, { onDelete: 'cascade' }),
    childId: id('child_id').references(() => children.id, { onDelete: 'cascade' }),
    /** Counts those who sat down, from 0. */
    place: int('place').notNull().default(0),
    seenAt: moment('seen_at').notNull(),
  },
  (t) => [uniqueIndex('room_seats_child').on(t.roomId, t.childId)],
);

/** One thing that all in a room do. */
export const roomRounds = mysqlTable(
  'room_rounds',
  {
    roomId: id('room_id')
      .notNull()
      .references(() => rooms.id, { onDelete: 'cascade' }),
    number: int('number').notNull(),
    task: json<RoomTask>('task').notNull(),
    phase: varchar('phase', { length: 10 }).$type<Phase>().notNull(),
    startsAt: moment('starts_at'),
  },
  (t) => [primaryKey({ columns: [t.roomId, t.number] })],
);

/** What became of a round at one device. */
export const roomAnswers = mysqlTable(
  'room_answers',
  {
    roomId: id('room_id')
      .notNull()
      .references(() => rooms.id, { onDelete: 'cascade' }),
    number: int('number').notNull(),
    childId: id('child_id')
      .notNull()
      .references(() => children.id, { onDelete: 'cascade' }),
    ready: boolean('ready').notNull().default(false),
    option: int('option_chosen'),
    text: varchar('text', { length: 400 }),
    takeId: id('take_id'),
  },
  (t) => [primaryKey({ columns: [t.roomId, t.number, t.childId] })],
);

/** The way of one child to one practice week, from home. Whoever reads this table could read all it leads to. */
export const homeLinks = mysqlTable(
  'home_links',
  {
    token: varchar('token', { length: 22 }).primaryKey(),
    weekId: id('week_id')
      .notNull()
      .references(() => practiceWeeks.id, { onDelete: 'cascade' }),
    childId: id('child_id')
      .notNull()
      .references(() => children.id, { onDelete: 'cascade' }),
    untilAt: moment('until_at').notNull(),
  },
  (t) => [uniqueIndex('home_links_child').on(t.weekId, t.childId), index('home_links_until').on(t.untilAt)],
);

/** What came from home and waits until a teacher takes it in. */
export const homeTakes = mysqlTable(
  'home_takes',
  {
    id: id('id').primaryKey(),
    weekId: id('week_id')
      .notNull()
      .references(() => practiceWeeks.id, { onDelete: 'cascade' }),
    childId: id('child_id')
      .notNull()
      .references(() => children.id, { onDelete: 'cascade' }),
    /** Which pattern of the week, from 0. */
    item: int('item').notNull(),
    bpm: double('bpm').notNull(),
    onsets: json<readonly number[]>('onsets').notNull(),
    source: varchar('source', { length: 12 }).$type<(typeof TAKE_SOURCES)[number]>().notNull(),
    takenAt: moment('taken_at').notNull(),
    accuracy: double('accuracy').notNull(),
  },
  (t) => [index('home_takes_child').on(t.weekId, t.childId, t.item)],
);

/** How often a child did at home what it was to do, day by day. */
export const homeDays = mysqlTable(
  'home_days',
  {
    weekId: id('week_id')
      .notNull()
      .references(() => practiceWeeks.id, { onDelete: 'cascade' }),
    childId: id('child_id')
      .notNull()
      .references(() => children.id, { onDelete: 'cascade' }),
    item: int('item').notNull(),
    /** From the first of the week, 0. */
    day: int('day').notNull(),
    times: int('times').notNull(),
  },
  (t) => [primaryKey({ columns: [t.weekId, t.childId, t.item, t.day] })],
);
