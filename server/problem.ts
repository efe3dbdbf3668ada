import { perLanguage, t } from '../core/words/say.ts';
import { codeOf, isDatabaseGone } from './driverErrors.ts';
import type { TextError } from '../core/rhythm/text.ts';

/** What a request can be answered with instead of a result; the message is one sentence that says what to do. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly detail: {
      readonly field?: string;
      readonly at?: TextError;
      readonly theirs?: unknown;
      readonly parts?: readonly string[];
      /** When it is worth trying again, seconds. */
      readonly retryAfter?: number;
    } = {},
  ) {
    super(message);
  }
}

const THINGS = perLanguage((): Readonly<Record<string, string>> => ({
  child: t`child`,
  class: t`class`,
  column: t`column`,
  device: t`device`,
  element: t`element`,
  hearing: t`pass of the class`,
  lesson: t`lesson`,
  passkey: t`passkey`,
  pattern: t`pattern`,
  plan: t`plan`,
  'pattern of this week': t`pattern of this week`,
  'practice week': t`practice week`,
  'way home': t`way home`,
  'child in this room': t`child in this room`,
  recording: t`recording`,
  room: t`room`,
  round: t`round`,
  school: t`school`,
  invitation: t`invitation`,
  'thing on the shelf': t`thing on the shelf`,
  share: t`share`,
  sheet: t`sheet`,
  take: t`take`,
  tally: t`tally`,
  teacher: t`teacher`,
  term: t`term`,
}));

/** For a row that is not there, and just the same for one of another teacher. */
export function notFound(what: string): Problem {
  return new Problem(
    404,
    'not-found',
    t`This ${THINGS()[what] ?? what} is not here. It may have been removed: go back to the list and look again.`,
  );
}

/** So long what only has to wait its turn waits, before it is `busy`: less than a browser waits for an answer. */
export const PATIENCE_MS = 10_000;

/** So much of the same is asked for at once that it would wait too long: not a fault, and tried again by itself. */
export function busy(): Problem {
  const sentence = t`Too much is changed here at once. It is tried again in a moment.`;
  return new Problem(429, 'busy', sentence, { retryAfter: 1 });
}

function tooLarge(): Problem {
  return new Problem(413, 'too-large', t`This is more than can be taken at once: send fewer onsets or a shorter text.`);
}

/** What any thrown thing is to be answered with; undefined for a bug. */
export function problemOf(error: unknown): Problem | undefined {
  if (error instanceof Problem) return error;
  const { type, cause } = error as { type?: string; cause?: unknown };
  if (type === 'entity.too.large') return tooLarge();
  if (type === 'entity.parse.failed') return new Problem(400, 'not-json', t`The request is not readable JSON.`);
  if (type === 'request.aborted' || type === 'request.size.invalid')
    return new Problem(400, 'broken-off', t`The request broke off before its end. Send it again.`);
  if (type === 'charset.unsupported' || type === 'encoding.unsupported')
    return new Problem(415, 'not-json', t`Send the request as JSON in UTF-8.`);
  if (codeOf(error) === 'ER_NET_PACKET_TOO_LARGE') return tooLarge();
  if (isDatabaseGone(error))
    return new Problem(
      503,
      'database-away',
      t`The database does not answer just now. Nothing is lost: it is kept on this device
        and sent again.`,
    );
  return cause === undefined ? undefined : problemOf(cause);
}
