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
import type { PlanEdit } from '../contract/plan.ts';
import type { TAKE_SOURCES } from '../contract/take.ts';
import type { RestStyle } from '../core/counting/school.ts';
import type { SchoolId } from '../core/counting/schools.ts';
import type { NamingId } from '../core/wording/valueNames.ts';
import type { MarkBorder } from '../core/judging/mark.ts';
import type { Ages, Windows } from '../core/judging/windows.ts';
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
  },
  (t) => [uniqueIndex('teachers_name').on(t.name)],
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
  name: varchar('name', { length: 60 }).notNull(),
  ages: varchar('ages', { length: 10 }).$type<Ages>().notNull(),
  school: varchar('school', { length: 20 }).$type<SchoolId>().notNull(),
  rests: varchar('rests', { length: 10 }).$type<RestStyle>(),
  naming: varchar('naming', { length: 20 }).$type<NamingId>().notNull().default('quarters'),
  houseWords: json<Readonly<Record<string, Record<string, string>>>>('house_words'),
  wordSet: json<{ title: string; cells: Record<string, string> }>('word_set'),
  onTimeMs: int('on_time_ms'),
  borders: json<readonly MarkBorder[]>('borders'),
  clickCounts: boolean('click_counts').notNull().default(false),
  recordingDays: int('recording_days'),
  /**
   * Another random word with every change to the class, its children or takes: what was read of it can be kept until
   * then. A number that goes up would come again after a backup was restored, with something else under it.
   */
  revision: varchar('revision', { length: 32 }).notNull().default(''),
  /** Goes up whenever the class judges otherwise than before. */
  judgingRevision: int('judging_revision').notNull().default(0),
});

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
  leasedUntil: moment('leased_until').notNull(),
});

export const children = mysqlTable('children', {
  id: id('id').primaryKey(),
  classId: id('class_id')
    .notNull()
    .references(() => classes.id, { onDelete: 'cascade' }),
  /** First name or a code; nothing else is kept. */
  name: varchar('name', { length: 60 }).notNull(),
});

export const patterns = mysqlTable('patterns', {
  id: id('id').primaryKey(),
  teacherId: id('teacher_id')
    .notNull()
    .references(() => teachers.id, { onDelete: 'cascade' }),
  title: varchar('title', { length: 60 }).notNull(),
  text: mediumtext('text').notNull(),
  /** Order in the list: when it was made, in milliseconds since 1970. */
  position: moment('position').notNull(),
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
    takenAt: moment('taken_at').notNull(),
    accuracy: double('accuracy').notNull(),
    mark: int('mark').notNull(),
    override: int('override_mark'),
    overrideReason: varchar('override_reason', { length: 200 }).notNull().default(''),
    result: json<TakeResult>('result').notNull(),
    /** Of the judging that made the result; results of an older one are judged again. */
    resultVersion: int('result_version').notNull().default(0),
    free: boolean('free').notNull().default(false),
    source: varchar('source', { length: 12 }).$type<(typeof TAKE_SOURCES)[number]>().notNull().default('tap'),
    corrected: boolean('corrected').notNull().default(false),
  },
  (t) => [index('takes_child').on(t.childId, t.takenAt), index('takes_class').on(t.classId, t.takenAt)],
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

/** The sound of a recording in pieces, each small enough for one packet to the database. */
export const recordingChunks = mysqlTable(
  'recording_chunks',
  {
    uploadId: id('upload_id').notNull(),
    takeId: id('take_id')
      .notNull()
      .references(() => takes.id, { onDelete: 'cascade' }),
    number: int('number').notNull(),
    sound: blob('sound').notNull(),
    arrivedAt: moment('arrived_at').notNull(),
  },
  (t) => [primaryKey({ columns: [t.uploadId, t.number] }), index('recording_chunks_arrival').on(t.arrivedAt)],
);
