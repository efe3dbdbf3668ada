import { DEADLINE_CODES } from './deadlines.ts';

/** What errors of the database's driver say, however deep they are wrapped. */
interface Told {
  readonly code?: string;
  readonly message?: string;
  readonly sqlState?: string;
  readonly sql?: string;
  readonly status?: number;
  readonly cause?: unknown;
}

/** The driver's word for what went wrong; undefined when it is no error of the database. */
export function codeOf(error: unknown): string | undefined {
  if (typeof error !== 'object' || error === null) return undefined;
  const { code, cause } = error as Told;
  return typeof code === 'string' ? code : codeOf(cause);
}

const GONE = new Set<string>([
  'ECONNREFUSED',
  'ECONNRESET',
  'PROTOCOL_CONNECTION_LOST',
  'ETIMEDOUT',
  'EPIPE',
  'ER_SERVER_SHUTDOWN',
  'ER_CON_COUNT_ERROR',
  'ER_CONNECTION_KILLED',
  // A node of a cluster that is not, or not yet, part of it.
  'ER_UNKNOWN_COM_ERROR',
  ...DEADLINE_CODES,
]);
const GONE_WORDS = ['Pool is closed.', 'in closed state', 'Connection lost'];

/** Does the database not answer? */
export function isDatabaseGone(error: unknown): boolean {
  if (typeof error !== 'object' || error === null) return false;
  const { code, message = '', status, cause } = error as Told;
  // A file that is not there, and a request that broke off, have a status of their own.
  if (status !== undefined) return false;
  return (
    (code !== undefined && GONE.has(code)) || GONE_WORDS.some((word) => message.includes(word)) || isDatabaseGone(cause)
  );
}

const MOST_FRAMES = 12;

/**
 * An error as it may be logged: what kind it is and where it came from. The words of an error of the database hold what
 * was to be stored, children's names and sound among it, and those of its wrappers too: they are left out.
 */
export function loggable(error: unknown): object {
  if (!(error instanceof Error)) return { type: typeof error };
  const { code, sqlState, sql, cause, message, name, stack = '' } = error as Error & Told;
  const ofDatabase =
    sqlState !== undefined || sql !== undefined || name.startsWith('Drizzle') || message.includes('Failed query');
  return {
    type: error.constructor.name,
    ...(code === undefined ? {} : { code }),
    ...(sqlState === undefined ? {} : { sqlState }),
    ...(ofDatabase ? {} : { message: message.slice(0, 300) }),
    at: stack
      .split('\n')
      .filter((line) => /^\s+at /.test(line))
      .slice(0, MOST_FRAMES)
      .map((line) => line.trim()),
    ...(cause === undefined ? {} : { cause: loggable(cause) }),
  };
}
