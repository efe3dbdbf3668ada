import { v4 as uuid } from 'uuid';
import { INVITED_DAYS } from '../../contract/school.ts';
import { openDatabase } from '../../server/database.ts';
import { addSchool, countSchools, schoolNamed } from '../../server/repository/schools.ts';
import { makeInvitation } from '../../server/services/invitations.ts';
import { madeReady, sentenceOf } from '../../server/starting.ts';
import { calledAs } from './calledAs.ts';
import { projectDatabase } from './mariadb.ts';

// For whoever runs the server: the schools on it. Nothing that is printed names a child.

const CALL = calledAs('school');
const USAGE = `usage: ${CALL}
         lists the schools with what they have
       ${CALL} "Name"
         adds a school, and prints an invitation for its first administrator
       ${CALL} --invite "Name"
         prints another one`;

const invites = process.argv[2] === '--invite';
const name = (process.argv[invites ? 3 : 2] ?? '').trim();
const asked = process.argv.length > 2;
if (asked && (name === '' || name.startsWith('-') || [...name].length > 80)) {
  console.error(USAGE);
  process.exit(2);
}

const failed = (error: unknown) => {
  console.error(sentenceOf(error));
  process.exit(1);
};
const database = await projectDatabase('.data/school').catch(failed);
await madeReady(database.url).catch(failed);
const { db, pool } = openDatabase(database.url, { connections: 1, statementMs: 60_000 });
const known = asked ? await schoolNamed(db, name) : undefined;
if (!asked)
  for (const { name: school, teachers, classes, children, takes, clearedNight } of await countSchools(db))
    console.log(
      `${school}: ${teachers} teachers, ${classes} classes, ${children} children, ${takes} takes` +
        `; cleared at night: ${clearedNight || 'never yet'}`,
    );
else if (invites !== (known !== undefined)) {
  console.error(known ? `There is a school called ${name} already.` : `There is no school called ${name}.`);
  process.exitCode = 2;
} else {
  const id = known?.id ?? uuid();
  if (!known) await addSchool(db, { id, name }, Date.now());
  const { code } = await makeInvitation(db, id, true, 1);
  console.log(`${code}   makes an administrator of ${name}: good once, for ${INVITED_DAYS} days`);
}
await pool.end();
await database.stop();
