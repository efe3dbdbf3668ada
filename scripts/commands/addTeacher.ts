import { v4 as uuid } from 'uuid';
import { SHORTEST_PASSWORD } from '../../contract/session.ts';
import { openDatabase } from '../../server/database.ts';
import { hashPassword, passwordTrouble } from '../../server/password.ts';
import { addTeacher, findTeacherByName, makeAdministrator } from '../../server/repository/teachers.ts';
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
         lets a teacher look after the accounts of the school`;

const [reset, administrator] = ['--reset', '--administrator'].map((word) => process.argv[2] === word);
const exists = reset === true || administrator === true;
const name = (process.argv[exists ? 3 : 2] ?? '').trim();
const password = process.env['CLAPBOARD_PASSWORD'] ?? '';

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
const known = await findTeacherByName(db, name);
if (exists && !known) console.error(`There is no teacher called ${name}.`);
else if (!exists && known) console.error(`There is a teacher called ${name} already.`);
else if (reset)
  console.log(`${await allowReset(db, known!.id)}   for ${known!.name}: good once, until tomorrow at this time`);
else if (administrator) {
  await makeAdministrator(db, known!.id);
  console.log(`${known!.name} looks after the accounts of the school now, under the own name in the bar above.`);
} else {
  await addTeacher(db, { id: uuid(), name, passwordHash: await hashPassword(password) });
  console.log(`${name} can sign in now.`);
}
if (exists !== (known !== undefined)) process.exitCode = 2;
await pool.end();
await database.stop();
