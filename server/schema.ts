import {
  bigint,
  boolean,
  customType,
  double,
  index,
  int,
  mysqlTable,
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
    expiresAt: bigint('expires_at', { mode: 'number' }).notNull(),
  },
  (t) => [index('sessions_expiry').on(t.expiresAt)],
);

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
  /** Goes up with every change to the class, its children or takes: what was read of it can be kept until then. */
  revision: int('revision').notNull().default(0),
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
  text: varchar('text', { length: 8000 }).notNull(),
  /** Order in the list: when it was made, in milliseconds since 1970. */
  position: bigint('position', { mode: 'number' }).notNull(),
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
    patternId: id('pattern_id').references(() => patterns.id, { onDelete: 'set null' }),
    title: varchar('title', { length: 120 }).notNull(),
    /** The pattern as it was when the take was played. */
    patternText: varchar('pattern_text', { length: 8000 }).notNull(),
    bpm: double('bpm').notNull(),
    ages: varchar('ages', { length: 10 }).$type<Ages>().notNull(),
    windows: json<Windows>('windows').notNull(),
    onsets: json<readonly number[]>('onsets').notNull(),
    /** Steps, and when each onset was let go; only of takes in which they were heard. */
    feet: json<readonly number[]>('feet'),
    releases: json<readonly (number | null)[]>('releases'),
    takenAt: bigint('taken_at', { mode: 'number' }).notNull(),
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
  (t) => [index('takes_child').on(t.childId, t.takenAt)],
);

/** Sound of a take, kept only where the class says so, and gone after its date. */
export const recordings = mysqlTable(
  'recordings',
  {
    takeId: id('take_id')
      .primaryKey()
      .references(() => takes.id, { onDelete: 'cascade' }),
    mime: varchar('mime', { length: 60 }).notNull(),
    sound: blob('sound').notNull(),
    /** Milliseconds since 1970. */
    expiresAt: bigint('expires_at', { mode: 'number' }).notNull(),
  },
  (t) => [index('recordings_expiry').on(t.expiresAt)],
);
