import type { Pool } from 'mysql2';
import type { PoolConnection } from 'mysql2/promise';

/** The parts of the driver's own pool and connections that are bent here; its types do not show all of them. */
type Callback = (error: (Error & { code?: string }) | null, ...rest: unknown[]) => void;
interface Command {
  timeout?: number;
  onResult?: Callback;
}
interface CoreConnection {
  query: (command: string | object, values?: unknown, callback?: Callback) => unknown;
  release: () => void;
  destroy: () => void;
}

export interface Deadlines {
  /** So long a statement may take. */
  readonly statementMs: number;
  /** So long a request waits for a connection while none comes free; while some do, it has only to wait its turn. */
  readonly connectionMs: number;
}

/** Whoever asked has given up by then, however many were before it, milliseconds. */
const LONGEST_TURN_MS = 15_000;

/** What the driver says when a statement took too long. */
const TOO_LONG = 'PROTOCOL_SEQUENCE_TIMEOUT';
/** What we say when no connection came free. */
const NO_CONNECTION = 'POOL_TIMEOUT';

export const DEADLINE_CODES = [TOO_LONG, NO_CONNECTION] as const;

/**
 * Gives up on a database that does not answer, whether it is gone or only frozen: a statement that takes too long fails
 * and takes its connection along (its answer might still come), and nobody waits for a connection without end. One
 * that is only busy is waited for: as long as others before it get theirs, a request is not refused.
 */
export function withDeadlines(pool: Pool, { statementMs, connectionMs }: Deadlines): void {
  pool.on('connection', (connection) => limitStatements(connection as unknown as CoreConnection, statementMs));
  const get = pool.getConnection.bind(pool) as unknown as (done: Callback) => void;
  let lastCameFree = 0;
  const limited = (done: Callback) => {
    const from = performance.now();
    let waiting = true;
    const giveUp = () => {
      waiting = false;
      done(Object.assign(new Error('no connection came free in time'), { code: NO_CONNECTION }));
    };
    const look = () => {
      const until = Math.min(Math.max(from, lastCameFree) + connectionMs, from + LONGEST_TURN_MS);
      const left = until - performance.now();
      if (left > 0) timer = setTimeout(look, left);
      else giveUp();
    };
    let timer = setTimeout(look, connectionMs);
    get((error, connection) => {
      clearTimeout(timer);
      if (!error) lastCameFree = performance.now();
      if (waiting) done(error, connection);
      else (connection as PoolConnection | undefined)?.release();
    });
  };
  pool.getConnection = limited as unknown as Pool['getConnection'];
}

function limitStatements(connection: CoreConnection, statementMs: number): void {
  const query = connection.query.bind(connection);
  const ending =
    (done: Callback | undefined): Callback =>
    (error, ...rest) => {
      if (error?.code === TOO_LONG) connection.destroy();
      done?.(error, ...rest);
    };
  connection.query = (command, values, callback) => {
    // The pool's own `query` hands over a command that is made already.
    if (typeof command === 'object' && 'onResult' in command) {
      const made = command as Command;
      made.timeout ??= statementMs;
      made.onResult = ending(made.onResult);
      return query(command);
    }
    const options = typeof command === 'string' ? { sql: command } : command;
    const [given, done] = typeof values === 'function' ? [undefined, values as Callback] : [values, callback];
    return query({ timeout: statementMs, ...options }, given, ending(done));
  };
}
