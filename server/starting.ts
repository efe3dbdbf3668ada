import { pino } from 'pino';
import { LOG_LEVELS, USUAL_LOG_LEVEL, databaseUrlIn } from './config.ts';
import { codeOf, loggable } from './driverErrors.ts';
import { migrateDatabase } from './migrate.ts';

/**
 * Starts something; where that fails, says why in one sentence on standard error and in one line of the log, and ends
 * this process with 1.
 */
export async function startedOrSaid<T>(start: () => Promise<T>): Promise<T> {
  try {
    return await start();
  } catch (error) {
    const sentence = sentenceOf(error);
    const asked = process.env['LOG_LEVEL'] ?? '';
    const level = LOG_LEVELS.includes(asked) ? asked : USUAL_LOG_LEVEL;
    pino({ level }).fatal({ err: loggable(error) }, `not started: ${sentence}`);
    console.error(sentence);
    process.exit(1);
  }
}

/** What is said of it to whoever runs the server. */
export const sentenceOf = (error: unknown) =>
  (error instanceof Error ? error.message : String(error)).split('\n')[0]!.trim();

/** A setting that turns out to be wrong when it is used. */
function told(sentence: string, cause: unknown): Error {
  return new Error(sentence, { cause });
}

/** Why it cannot listen where it is to. */
export function listenTrouble({ host, port }: { readonly host: string; readonly port: number }, error: unknown): Error {
  const code = codeOf(error);
  const sentence =
    code === 'EADDRINUSE'
      ? `PORT ${port} of ${host} is in use already: stop what runs there, or choose another PORT`
      : code === 'EACCES'
        ? `This user may not listen on PORT ${port}: choose one from 1024 on, with a proxy before it`
        : `HOST “${host}” is no address of this machine (${code})`;
  return told(sentence, error);
}

const NOT_THERE = new Set(['ECONNREFUSED', 'ENOTFOUND', 'EAI_AGAIN', 'ETIMEDOUT', 'EHOSTUNREACH', 'ENETUNREACH']);
const NO_RIGHTS = new Set([
  'ER_DBACCESS_DENIED_ERROR',
  'ER_TABLEACCESS_DENIED_ERROR',
  'ER_COLUMNACCESS_DENIED_ERROR',
  'ER_SPECIFIC_ACCESS_DENIED_ERROR',
]);
const FULL = new Set(['ER_DISK_FULL', 'ER_RECORD_FILE_FULL', 'ENOSPC']);
/** Errors of writing name the number of the system's error: no space left. */
const FULL_WORDS = /no space left|errno: 28\b|error 28\b/i;

/** Brings the database of a URL up to date; throws an Error of one sentence where it cannot be done. */
export async function madeReady(given: string | undefined): Promise<string> {
  const databaseUrl = databaseUrlIn(given);
  await migrateDatabase(databaseUrl).catch((error: unknown) => {
    throw databaseTrouble(databaseUrl, error);
  });
  return databaseUrl;
}

/** Why nothing can be done with the database of a URL. Errors that are sentences of our own stay as they are. */
export function databaseTrouble(databaseUrl: string, error: unknown): unknown {
  const { host, username, pathname } = new URL(databaseUrl);
  const [user, name] = [decodeURIComponent(username), decodeURIComponent(pathname.slice(1))];
  const code = codeOf(error);
  const words = error instanceof Error ? error.message : '';
  if (code === undefined || (!/^(ER|PROTOCOL)_/.test(code) && !NOT_THERE.has(code) && !FULL.has(code))) return error;
  const sentence = () => {
    if (NOT_THERE.has(code)) return `No database answers at ${host}: start it, or put DATABASE_URL right`;
    if (code.startsWith('ER_ACCESS_DENIED'))
      return `The database at ${host} does not let ${user} in: put user and password in DATABASE_URL right`;
    if (code === 'ER_BAD_DB_ERROR')
      return `There is no database “${name}” at ${host}: create database \`${name}\` character set utf8mb4`;
    if (NO_RIGHTS.has(code))
      return `${user} lacks rights on the database “${name}”: grant all on \`${name}\`.* to ${user}`;
    if (FULL.has(code) || FULL_WORDS.test(words))
      return `The disk of the database at ${host} is full: make room there, then start again`;
    return `The database at ${host} could not be made ready (${code})`;
  };
  return told(sentence(), error);
}
