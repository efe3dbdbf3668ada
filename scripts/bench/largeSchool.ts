import { createPool, type Pool } from 'mysql2/promise';
import { judgeTake } from '../../core/judging/judgeTake.ts';
import { simulateTake } from '../../core/judging/simulatedChild.ts';
import { randomFrom } from '../../core/random.ts';
import { parseRhythm } from '../../core/rhythm/text.ts';
import { PATTERNS, TEMPOS } from '../../demo/school.ts';
import { FIRST_SCHOOL, KEPT_FOR_EVER } from '../../contract/school.ts';
import { openDatabase } from '../../server/database.ts';
import { judgedColumns } from '../../server/judging/judgedColumns.ts';
import { migrateDatabase } from '../../server/migrate.ts';
import { hashPassword } from '../../server/password.ts';
import { rebuildRecords } from '../../server/repository/childRecords.ts';

/** How large a town is made. */
export interface LargeSize {
  /** Its teachers are spread over them. */
  readonly schools: number;
  readonly teachers: number;
  /** In the class of each teacher. */
  readonly children: number;
  /** Of each child. */
  readonly takes: number;
  /** Of the children of the first class instead, so that there is a whole term to judge anew. */
  readonly takesOfFirst: number;
}

export const LARGE: LargeSize = { schools: 40, teachers: 1_200, children: 30, takes: 83, takesOfFirst: 200 };
export const LARGE_PASSWORD = 'herring and rope';
export const teacherName = (number: number) => `Teacher ${number}`;

const AGES = '9-10';
/** Different takes: children repeat them, in an order of their own. */
const TEMPLATES = 1_200;
const DAY_MS = 86_400_000;
const YEAR_DAYS = 280;
const SEED = 300_9000;

const hex = (value: number, length: number) => value.toString(16).padStart(length, '0');
/** Ids that rise in the order in which things are made: the database only appends. */
const idOf = (kind: number, number: number) => `${hex(number, 8)}-0000-4000-8000-${hex(kind, 12)}`;
export const schoolId = (n: number) => (n === 0 ? FIRST_SCHOOL : idOf(6, n));
export const [teacherId, classId] = [(n: number) => idOf(1, n), (n: number) => idOf(2, n)];
export const childId = (size: LargeSize, room: number, child: number) => idOf(3, room * size.children + child);

/** Takes as children clap them, judged by the core: everybody has some of these. */
function templates() {
  const random = randomFrom(SEED);
  return Array.from({ length: TEMPLATES }, (_, n) => {
    const which = n % PATTERNS.length;
    const { title, text } = PATTERNS[which]!;
    const parsed = parseRhythm(text);
    if (!parsed.ok) throw new Error(text);
    const bpm = random.pick(TEMPOS);
    const child = { spread: 0.02 + 0.03 * random.next(), lead: 0.03, leavesOut: random.next() < 0.3 ? 0.1 : 0.01 };
    const onsets = simulateTake(parsed.pattern, bpm, child, n).map((time) => Math.round(time * 1e4) / 1e4);
    const judged = judgeTake({ patternText: text, bpm, onsets }, { ages: AGES });
    if (!judged.ok) throw new Error(judged.trouble.code);
    return { n, key: idOf(4, which), title, text, bpm, onsets, ...judgedColumns(judged, AGES) };
  });
}

async function writeTemplates(pool: Pool): Promise<void> {
  await pool.query('drop table if exists large_templates');
  await pool.query(
    `create table large_templates (n int primary key, pattern_key varchar(36), title varchar(120), pattern_text text,
     bpm double, onsets text, windows text, result mediumtext, result_version int, accuracy double, mark int,
     elements varchar(400) character set ascii, hardest int, misread varchar(120) character set ascii)`,
  );
  const rows = templates().map((t) => [
    ...[t.n, t.key, t.title, t.text, t.bpm, JSON.stringify(t.onsets), JSON.stringify(t.windows)],
    ...[JSON.stringify(t.result), t.resultVersion, t.accuracy, t.mark, t.elements, t.hardest, t.misread],
  ]);
  for (let from = 0; from < rows.length; from += 100)
    await pool.query('insert into large_templates values ?', [rows.slice(from, from + 100)]);
}

/** The takes of one class, child after child, each in the order of the year: the tables only grow at their end. */
async function writeTakes(pool: Pool, size: LargeSize, room: number, until: number): Promise<void> {
  const takes = room === 0 ? size.takesOfFirst : size.takes;
  const first = room * size.children;
  await pool.query(
    `insert into takes (id, child_id, class_id, pattern_id, pattern_key, title, pattern_text, bpm, ages, windows,
       onsets, taken_at, accuracy, mark, result, result_version, elements, hardest, misread)
     select concat(lower(lpad(hex(? + c.seq), 8, '0')), '-', lower(lpad(hex(s.seq), 4, '0')),
         '-4000-8000-000000000005'),
       concat(lower(lpad(hex(? + c.seq), 8, '0')), '-0000-4000-8000-000000000003'), ?, null, t.pattern_key, t.title,
       t.pattern_text, t.bpm, '${AGES}', t.windows, t.onsets,
       ? - (${takes} - s.seq) * ? + c.seq * 61000, t.accuracy, t.mark, t.result, t.result_version, t.elements,
       t.hardest, t.misread
     from seq_0_to_${size.children - 1} c join seq_0_to_${takes - 1} s
     join large_templates t on t.n = mod((? + c.seq) * 31 + s.seq * 37, ${TEMPLATES})
     order by c.seq, s.seq`,
    [first, first, classId(room), until, Math.floor((YEAR_DAYS * DAY_MS) / takes), first],
  );
}

async function writePeople(pool: Pool, size: LargeSize): Promise<void> {
  const hash = await hashPassword(LARGE_PASSWORD);
  for (let school = 1; school < size.schools; school++)
    await pool.query('insert into schools (id, name, retention, created_at) values (?, ?, ?, 1)', [
      schoolId(school),
      `School ${school}`,
      JSON.stringify(KEPT_FOR_EVER),
    ]);
  for (let room = 0; room < size.teachers; room++) {
    const school = schoolId(room % size.schools);
    const teacher = [teacherId(room), teacherName(room), hash];
    await pool.query('insert into teachers (id, name, password_hash) values (?, ?, ?)', teacher);
    await pool.query('insert into members (school_id, teacher_id, name, since) values (?, ?, ?, 1)', [
      school,
      teacherId(room),
      teacherName(room),
    ]);
    await pool.query(
      `insert into classes (id, teacher_id, school_id, name, ages, school, revision)
       values (?, ?, ?, ?, '${AGES}', 'numbers', 'large')`,
      [classId(room), teacherId(room), school, `Class ${room}`],
    );
    const kids = Array.from({ length: size.children }, (_, child) => [
      childId(size, room, child),
      classId(room),
      `Child ${child + 1}`,
      child,
    ]);
    await pool.query('insert into children (id, class_id, name, position) values ?', [kids]);
  }
}

/**
 * Fills an empty database with a town of schools, the same each time. @param until  milliseconds since 1970: the newest
 * takes are of then. @returns how many takes there are
 */
export async function makeLargeSchool(
  url: string,
  size: LargeSize,
  until: number,
  onProgress: (words: string) => void = () => undefined,
): Promise<number> {
  await migrateDatabase(url);
  const pool = createPool({ uri: url, connectionLimit: 2 });
  await writeTemplates(pool);
  await writePeople(pool, size);
  onProgress('people');
  const rooms = Array.from({ length: size.teachers }, (_, room) => room);
  for (const room of rooms) {
    await writeTakes(pool, size, room, until);
    if (room % 30 === 29) onProgress(`takes of ${room + 1} classes`);
  }
  await pool.query('drop table large_templates');
  await pool.end();
  const { db, pool: open } = openDatabase(url, { connections: 4, statementMs: 60_000 });
  // By the same code as when a take is stored.
  const lanes = [0, 1, 2, 3].map(async (lane) => {
    for (let child = lane; child < size.teachers * size.children; child += 4)
      await rebuildRecords(db, childId(size, 0, child));
  });
  await Promise.all(lanes);
  onProgress('records');
  await open.end();
  return size.children * (size.takesOfFirst + (size.teachers - 1) * size.takes);
}
