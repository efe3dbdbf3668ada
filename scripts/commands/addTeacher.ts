import { parseArgs } from 'node:util';
import { v4 as uuid } from 'uuid';
import { SHORTEST_PASSWORD } from '../../contract/session.ts';
import { openDatabase } from '../../server/database.ts';
import { hashPassword, passwordTrouble } from '../../server/password.ts';
import { listSchools, makeAdministrator, schoolNamed } from '../../server/repository/schools.ts';
import { addTeacher, findTeacherByName } from '../../server/repository/teachers.ts';
import { allowReset } from '../../server/services/session.ts';
import { madeReady, sentenceOf } from '../../server/starting.ts';
import { calledAs } from './calledAs.ts';
import { projectDatabase } from './mariadb.ts';

const CALL = calledAs('teacher');
const USAGE = `usage: CLAPBOARD_PASSWORD=… ${CALL} "Name"
         adds a teacher, with a password of ${SHORTEST_PASSWORD} letters and more; it stands in no shell history
       ${CALL} --reset "Name"
         prints a code with which a teacher chooses a new password once
       ${CALL} --administrator "Name"
         lets a teacher look after the accounts of the school
       each with --school "Name of the school" where there are several`;

const given = trimmed(() =>
  parseArgs({
    allowPositionals: true,
    options: { reset: { type: 'boolean' }, administrator: { type: 'boolean' }, school: { type: 'string' } },
  }),
);
const { reset = false, administrator = false, school = '' } = given.values;
const exists = reset || administrator;
const name = (given.positionals[0] ?? '').trim();
const password = process.env['CLAPBOARD_PASSWORD'] ?? '';

/** What stands behind the command; the usage where that makes no sense. */
function trimmed<T>(read: () => T): T {
  try {
    return read();
  } catch {
    return wrong(USAGE);
  }
}

function wrong(sentence: string): never {
  console.error(sentence);
  process.exit(2);
}

if (name === '' || name.startsWith('-') || [...name].length > 60) wrong(USAGE);
if (!exists && [...password].length < SHORTEST_PASSWORD) wrong(USAGE);
const weak = exists ? undefined : passwordTrouble(password, name);
if (weak) wrong(`Choose another password: ${weak}.`);

const failed = (error: unknown) => {
  console.error(sentenceOf(error));
  process.exit(1);
};
const database = await projectDatabase('.data/school').catch(failed);
await madeReady(database.url).catch(failed);
const { db, pool } = openDatabase(database.url, { connections: 1 });
const at = school === '' ? await listSchools(db) : [await schoolNamed(db, school.trim())];
if (at.length > 1) await ended(`Which school? --school ${at.map((one) => `"${one!.name}"`).join(' or ')}`);
if (!at[0]) await ended(`There is no school called ${school}.`);
const { id: schoolId } = at[0]!;
const known = await findTeacherByName(db, name, schoolId);
if (exists && !known) console.error(`There is no teacher called ${name}.`);
else if (!exists && known) console.error(`There is a teacher called ${name} already.`);
else if (reset)
  console.log(`${await allowReset(db, known!.id)}   for ${known!.name}: good once, until tomorrow at this time`);
else if (administrator) {
  await makeAdministrator(db, schoolId, known!.id);
  console.log(`${known!.name} looks after the accounts of the school now, under the own name in the bar above.`);
} else {
  await addTeacher(db, { id: uuid(), name, passwordHash: await hashPassword(password), school: schoolId });
  console.log(`${name} can sign in now.`);
}
if (exists !== (known !== undefined)) process.exitCode = 2;
await pool.end();
await database.stop();

/** Says what is wrong, and leaves the database as it is. */
async function ended(sentence: string): Promise<never> {
  await pool.end();
  await database.stop();
  return wrong(sentence);
}
