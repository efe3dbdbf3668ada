import type { TextError } from '../core/rhythm/text.ts';

/** What a request can be answered with instead of a result; the message is one sentence that says what to do. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly detail: { readonly field?: string; readonly at?: TextError } = {},
  ) {
    super(message);
  }
}

/** For a row that is not there, and just the same for one of another teacher. */
export function notFound(what: string): Problem {
  return new Problem(
    404,
    'not-found',
    `This ${what} is not here. It may have been removed: go back to the list and look again.`,
  );
}

const DATABASE_GONE = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'PROTOCOL_CONNECTION_LOST',
  'ETIMEDOUT',
  'ENOENT',
  'EPIPE',
  'ER_SERVER_SHUTDOWN',
  'ER_CON_COUNT_ERROR',
]);

/** What any thrown thing is to be answered with; undefined for a bug. */
export function problemOf(error: unknown): Problem | undefined {
  if (error instanceof Problem) return error;
  const { code, status, type, cause, message } = error as Partial<Record<'code' | 'type' | 'message', string>> & {
    status?: number;
    cause?: unknown;
  };
  if (type === 'entity.too.large')
    return new Problem(
      413,
      'too-large',
      'This is more than can be taken at once: send fewer onsets or a shorter text.',
    );
  if (type === 'entity.parse.failed') return new Problem(400, 'not-json', 'The request is not readable JSON.');
  if (type === 'charset.unsupported' || type === 'encoding.unsupported')
    return new Problem(415, 'not-json', 'Send the request as JSON in UTF-8.');
  // A file that is not there has a status of its own.
  if ((status === undefined && code !== undefined && DATABASE_GONE.has(code)) || message === 'Pool is closed.') {
    return new Problem(
      503,
      'database-away',
      'The database does not answer just now. Nothing is lost: it is kept on this device and sent again.',
    );
  }
  return cause === undefined ? undefined : problemOf(cause);
}
