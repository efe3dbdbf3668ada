import { t } from '../../core/words/say.ts';
import type { TakeDetail } from '../../contract/take.ts';
import { ApiProblem, changeNow, putSound } from './client.ts';
import { allIn, putInto, takeFrom } from '../store/deviceBox.ts';
import type { Waiting } from '../store/keptTakes.ts';
import { pendingOf } from '../store/changes.ts';

/** The takes that this page has made or seen, also where the browser keeps nothing. */
const here = new Map<string, Waiting>();
/** Those of them that are nowhere else. */
const onlyHere = new Set<string>();

type Arrival = (take: TakeDetail) => void;
const arrivals = new Set<Arrival>();

/** Tells of every take that this page has sent, as the server has it now. */
export function onTakeArrived(listener: Arrival): () => void {
  arrivals.add(listener);
  return () => arrivals.delete(listener);
}

type Listener = () => void;
const listeners = new Set<Listener>();

export function onOutboxChange(listener: Listener): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Other tabs of the same browser look into the same box. */
const otherTabs = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('clapboard-outbox');
otherTabs?.addEventListener('message', ({ data }: MessageEvent<{ gone?: string }>) => {
  if (data.gone !== undefined) here.delete(data.gone);
  tellHere();
});

function tellHere(): void {
  for (const listener of listeners) listener();
}

function changed(gone?: string): void {
  tellHere();
  otherTabs?.postMessage({ gone });
}

/** All that wait in this browser, whoever's they are; what only this page knows among them. */
export async function waitingTakes(): Promise<Waiting[]> {
  const onDevice = await allIn('takes').catch((): Waiting[] => []);
  const onDeviceOnly = onDevice.filter(({ id }) => !onlyHere.has(id));
  const known = new Set(onDeviceOnly.map(({ id }) => id));
  // What was kept on the device and is not there now was cleared away under our hands.
  return [...onDeviceOnly, ...[...here.values()].filter(({ id }) => !known.has(id))];
}

/** Is there a take that would be lost with this page? */
export function wouldBeLost(): boolean {
  return onlyHere.size > 0;
}

/**
 * Keeps a take until the server has it: in this page at once, and on this device. False when this browser keeps nothing
 * there: the take is then sent all the same, but is lost with the page.
 */
export async function keepTake(take: Waiting): Promise<boolean> {
  here.set(take.id, take);
  onlyHere.add(take.id);
  changed();
  try {
    await putInto('takes', take);
  } catch {
    return false;
  }
  onlyHere.delete(take.id);
  changed();
  return true;
}

export async function dropTake(id: string): Promise<void> {
  here.delete(id);
  onlyHere.delete(id);
  await takeFrom('takes', id).catch(() => undefined);
  changed(id);
}

/** Sends a refused take once more. */
export async function tryAgain(take: Waiting): Promise<void> {
  const { refused: _refused, failures: _failures, notBefore: _notBefore, ...fresh } = take;
  await keepTake(fresh);
}

/** After so many failures of the server at one take it is shown, and sent again only when the teacher says so. */
const MOST_FAILURES = 8;
const FIRST_PAUSE_MS = 4_000;
const LONGEST_PAUSE_MS = 5 * 60_000;

let sending: Promise<boolean> | undefined;

/**
 * Sends what waits, oldest first, one at a time; what the server fails at does not hold up the rest. True when
 * nothing is left to be sent by itself. Calls while one runs wait for that one.
 */
export function sendTakes(teacherId: string, now = Date.now()): Promise<boolean> {
  sending ??= alone(() => send(teacherId, now)).finally(() => (sending = undefined));
  return sending;
}

/** Only one tab sends; the others find the box empty. */
function alone(work: () => Promise<boolean>): Promise<boolean> {
  if (!globalThis.navigator?.locks) return work();
  return navigator.locks.request('clapboard-outbox', { ifAvailable: true }, (lock) => (lock ? work() : false));
}

/** The door goes without what sends them: mostly there are none. */
async function sendChanges(teacherId: string, which: 'before takes' | 'after takes', left: readonly Waiting[] = []) {
  if (pendingOf(teacherId).length === 0) return 'all';
  return (await import('./sendChanges.ts')).sendChanges(teacherId, which, left);
}

async function send(teacherId: string, now: number): Promise<boolean> {
  const mine = (await waitingTakes()).filter((take) => take.teacherId === teacherId && take.refused === undefined);
  mine.sort((a, b) => a.upload.takenAt - b.upload.takenAt);
  // Who is heard, in which line-up, has to be there first.
  if ((await sendChanges(teacherId, 'before takes')) === 'nobody') return false;
  const left: Waiting[] = [];
  for (const take of mine) {
    const outcome = (take.notBefore ?? 0) > now ? 'later' : await sendOne(take, now);
    if (outcome === 'later') left.push(take);
    // Nobody is there, or nobody of ours is signed in: the others would fare no better.
    if (outcome === 'nobody') return false;
  }
  return (await sendChanges(teacherId, 'after takes', left)) === 'all' && left.length === 0;
}

/** Whoever shows the take gets it as the server has it; what this page makes no sense of, nobody gets. */
async function tellArrival(stored: unknown): Promise<void> {
  if (arrivals.size === 0) return;
  const checks = await import('virtual:fits/take').catch(() => undefined);
  if (checks?.default(stored)) for (const listener of arrivals) listener(stored as TakeDetail);
}

type Outcome = 'arrived' | 'refused' | 'later' | 'nobody';

async function sendOne(take: Waiting, now: number): Promise<Outcome> {
  let sent = take;
  try {
    if (!sent.stored) {
      const stored = await changeNow(`/takes/${sent.id}`, sent.upload);
      // What it needs may have to be loaded first: no other take waits for that.
      void tellArrival(stored);
      if (sent.sound) {
        sent = { ...withoutFailures(sent), stored: true };
        await keepTake(sent);
      }
    }
    if (sent.sound) await sendSound(sent.id, sent.sound);
    await dropTake(sent.id);
    return 'arrived';
  } catch (error) {
    return afterFailure(sent, error, now);
  }
}

/** That the class keeps no recordings any more, or not this take, is no failure: the sound is then not wanted. */
async function sendSound(id: string, sound: Blob): Promise<void> {
  try {
    await putSound(`/takes/${id}/recording`, sound);
  } catch (error) {
    if (!(error instanceof ApiProblem) || (error.code !== 'not-kept' && error.code !== 'not-found')) throw error;
  }
}

function withoutFailures({ failures: _failures, notBefore: _notBefore, ...take }: Waiting): Waiting {
  return take;
}

async function afterFailure(take: Waiting, error: unknown, now: number): Promise<Outcome> {
  if (!(error instanceof ApiProblem)) throw error;
  if (error.status === 401 || error.code === 'away') return 'nobody';
  if (!error.worthRetrying) {
    await keepTake({ ...take, refused: error.message });
    return 'refused';
  }
  // That the database is away, or too much comes at once, is not this take's fault.
  const itsOwn = error.status === 500 || error.code === 'no-answer';
  const failures = (take.failures ?? 0) + (itsOwn ? 1 : 0);
  const pause = Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** failures);
  await keepTake({
    ...take,
    failures,
    notBefore: now + pause,
    ...(failures >= MOST_FAILURES ? { refused: t`The server failed ${failures} times to store it.` } : {}),
  });
  return 'later';
}
