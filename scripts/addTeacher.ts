import { v4 as uuid } from 'uuid';
import { migrateDatabase, openDatabase } from '../server/database.ts';
import { hashPassword } from '../server/password.ts';
import { addTeacher, findTeacherByName } from '../server/repository/teachers.ts';
import { projectDatabase } from './mariadb.ts';

const SHORTEST_PASSWORD = 8;

// usage: npm run teacher -- "Name"   with the password in CLAPBOARD_PASSWORD, so that it stands in no shell history
const name = process.argv[2]?.trim() ?? '';
const password = process.env['CLAPBOARD_PASSWORD'] ?? '';
if (name === '' || password.length < SHORTEST_PASSWORD) {
  console.error(
    `usage: CLAPBOARD_PASSWORD=… npm run teacher -- "Name"   (a password of at least ${SHORTEST_PASSWORD} letters)`,
  );
  process.exit(2);
}
const database = await projectDatabase('.data/school');
const { db, pool } = openDatabase(database.url, 1);
await migrateDatabase({ pool });
if (await findTeacherByName(db, name)) {
  console.error(`There is a teacher called ${name} already.`);
  process.exitCode = 2;
} else {
  await addTeacher(db, { id: uuid(), name, passwordHash: await hashPassword(password) });
  console.log(`${name} can sign in now.`);
}
await pool.end();
await database.stop();
