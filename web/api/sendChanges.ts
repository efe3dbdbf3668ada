import { perLanguage, t } from '../../core/words/say.ts';
import { ApiProblem, changeNow, getNow } from './client.ts';
import { type Body, type Change, changeArrived, dropChange, pendingOf, refuseChange } from '../store/changes.ts';
import type { Waiting } from '../store/keptTakes.ts';
import { thingAt } from '../store/places.ts';

/** All arrived or were refused; some have to wait; or there is nobody who would take any. */
export type Sent = 'all' | 'later' | 'nobody';

const same = (a: unknown, b: unknown) => JSON.stringify(sorted(a)) === JSON.stringify(sorted(b));

/** The database gives the parts of a thing in an order of its own. */
function sorted(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sorted);
  if (typeof value !== 'object' || value === null) return value;
  const entries = Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1));
  return Object.fromEntries(entries.map(([key, one]) => [key, sorted(one)]));
}

/** What takes build on goes before them; what is about takes, and what is removed, after. */
const comesAfter = ({ path, body, afterTakes }: Change) =>
  afterTakes === true || body === undefined || thingAt(path)?.afterTakes === true;

/**
 * Sends what was changed without a network, in the order in which it was changed.
 * @param left  takes that have not arrived: what is about them waits
 */
export async function sendChanges(
  teacherId: string,
  which: 'before takes' | 'after takes',
  left: readonly Waiting[] = [],
): Promise<Sent> {
  let all: Sent = 'all';
  for (const change of pendingOf(teacherId)) {
    if (comesAfter(change) !== (which === 'after takes')) continue;
    const isHeardIn = thingAt(change.path)?.isHeardIn;
    if (isHeardIn && left.some(isHeardIn)) {
      all = 'later';
      continue;
    }
    const outcome = await sendOne(change);
    if (outcome === 'nobody') return 'nobody';
    if (outcome === 'later') all = 'later';
  }
  return all;
}

async function sendOne(change: Change): Promise<'arrived' | 'refused' | 'later' | 'nobody'> {
  const { path, body, was } = change;
  try {
    if (!body) return await sendRemoval(change);
    await changeNow(path, was ? { ...body, was } : body);
    changeArrived(change);
    return 'arrived';
  } catch (error) {
    return afterFailure(change, error);
  }
}

const MAKES_NO_SENSE = perLanguage(() => t`This does not fit what the server has any more. Make the change again.`);

function afterFailure(change: Change, error: unknown): 'refused' | 'later' | 'nobody' {
  if (!(error instanceof ApiProblem)) {
    // Takes and other changes do not wait for one that makes no sense any more.
    refuseChange(change, { message: MAKES_NO_SENSE() });
    return 'refused';
  }
  if (error.status === 0 || error.status === 401 || error.code === 'other-teacher') return 'nobody';
  if (error.worthRetrying) return 'later';
  const { clash, message } = error;
  refuseChange(change, clash ? { message, ...clash, theirs: asSent(change, clash.theirs) } : { message });
  return 'refused';
}

/** The server tells of marks on paper by child, beside the rest. */
function asSent({ body }: Change, theirs: Body): Body {
  if (!body || !('points' in body) || 'points' in theirs) return theirs;
  const heads = Object.keys(body).filter((part) => part !== 'points' && part in theirs);
  const isHead = ([part]: [string, unknown]) => heads.includes(part);
  const parts = Object.entries(theirs);
  return {
    ...Object.fromEntries(parts.filter(isHead)),
    points: Object.fromEntries(parts.filter((one) => !isHead(one))),
  };
}

const CHANGED_ELSEWHERE = perLanguage(() => t`It was changed elsewhere after it was removed here.`);

/** What was removed here and changed elsewhere meanwhile is not removed unseen. */
async function sendRemoval(change: Change): Promise<'arrived' | 'refused'> {
  const [place] = thingAt(change.path)?.places ?? [];
  const answer = place && (await getNow<unknown>(place.get, () => true).catch(gone));
  const theirs = place?.read?.(answer);
  if (theirs && change.was && !same(theirs, change.was)) {
    refuseChange(change, { message: CHANGED_ELSEWHERE(), theirs });
    return 'refused';
  }
  await changeNow(change.path, undefined).catch(gone);
  dropChange(change.id);
  return 'arrived';
}

/** What is not there any more is removed. */
function gone(error: unknown): undefined {
  if (!(error instanceof ApiProblem) || error.status !== 404) throw error;
}
