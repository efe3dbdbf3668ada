import { currentLanguage, perLanguage, t } from '../../core/words/say.ts';
import fitsError from 'virtual:fits/error';
import type { TextError } from '../../core/rhythm/text.ts';
import { answered, isAway, isInstalled } from './network.ts';

/** Two changed the same. */
export interface Clash {
  readonly theirs: Readonly<Record<string, unknown>>;
  readonly parts: readonly string[];
}

/** A request that came to nothing: the server's own sentence, or ours when it could not be reached. */
export class ApiProblem extends Error {
  constructor(
    /** 0 when no answer came. */
    readonly status: number,
    readonly code: string,
    message: string,
    readonly field?: string,
    readonly at?: TextError,
    /** Where somebody else changed the same meanwhile: what is there now, and which parts of it. */
    readonly clash?: Clash,
  ) {
    super(message);
  }

  /** Worth sending again later just as it is. */
  get worthRetrying(): boolean {
    return this.status === 0 || this.status === 401 || this.status === 429 || this.status >= 500;
  }
}

const AWAY = perLanguage(
  () => t`The server cannot be reached. What you do is kept on this device; it is sent as soon
    as the server is back.`,
);
const NO_ANSWER = perLanguage(
  () => t`The server takes too long to answer. What you do is kept on this device; it is tried again.`,
);
const OUTDATED = perLanguage(() => t`This page is older than the server. Reload it; nothing is lost.`);

/** A request without an answer is given up after so long, milliseconds. Signing in may have to wait. */
const PATIENCE = { GET: 20_000, PUT: 30_000, POST: 75_000, DELETE: 30_000 } as const;
const PATIENCE_WITH_SOUND = 300_000;

let owner: string | undefined;

/**
 * Says whose page this is, by the teacher's id. Every request carries it: another tab may have signed in somebody else
 * meanwhile, and nothing of this page is to end up there.
 */
export function pageBelongsTo(teacherId: string | undefined): void {
  if (owner !== teacherId) fetched.clear();
  owner = teacherId;
}

type Listener = () => void;
const doors = new Set<Listener>();

/** Tells when an answer shows that this page's teacher is not signed in any more. */
export function onSignedOut(listener: Listener): () => void {
  doors.add(listener);
  return () => doors.delete(listener);
}

interface Sent {
  readonly body?: BodyInit;
  readonly type?: string;
  readonly patience?: number;
  readonly holds?: string | undefined;
}

async function send(method: keyof typeof PATIENCE, path: string, sent: Sent = {}): Promise<Response> {
  const { body, type, patience = PATIENCE[method], holds } = sent;
  const headers = {
    'Accept-Language': currentLanguage(),
    ...(owner === undefined ? {} : { 'Clapboard-Teacher': owner }),
    ...(type === undefined ? {} : { 'Content-Type': type }),
    ...(holds === undefined ? {} : { 'If-None-Match': holds }),
  };
  const signal = AbortSignal.timeout(patience);
  const init: RequestInit = { method, credentials: 'same-origin', headers, signal };
  const response = await fetch(`/api${path}`, body === undefined ? init : { ...init, body }).catch(() => {
    answered(false);
    throw signal.aborted ? new ApiProblem(0, 'no-answer', NO_ANSWER()) : new ApiProblem(0, 'away', AWAY());
  });
  const problem = response.status < 400 ? undefined : await problemIn(response);
  answered(problem?.status !== 0);
  if (!problem) return response;
  throw problem;
}

/** What is kept on the device is asked for only when it is needed: the door goes without. */
const onDevice = () => import('../store/device.ts');

/** What this device keeps; undefined where the app is not on it. */
const kept = async () => (isInstalled() ? onDevice().catch(() => undefined) : undefined);

type ErrorPart = { code: string; message: string; field?: string; at?: TextError } & Partial<Clash>;

async function problemIn(response: Response): Promise<ApiProblem> {
  const answer: unknown = await response.json().catch(() => undefined);
  // Not our server's answer, but the page of a proxy: whatever its status, nothing arrived.
  if (!fitsError(answer)) return new ApiProblem(0, 'away', AWAY());
  const { code, message, field, at, theirs, parts } = (answer as { error: ErrorPart }).error;
  if (code === 'signed-out' || code === 'other-teacher') for (const listener of doors) listener();
  // Signed out elsewhere, the device that was lost or lent keeps nothing.
  if (code === 'signed-out' && isInstalled()) void onDevice().then(({ forgetAnswers }) => forgetAnswers());
  return new ApiProblem(response.status, code, message, field, at, theirs && parts && { theirs, parts });
}

/** A network's own sign-in page answers with 200, too. */
async function answerIn(response: Response): Promise<unknown> {
  if (response.status === 204) return undefined;
  const answer: unknown = await response.json().catch(() => undefined);
  if (answer === undefined) throw new ApiProblem(0, 'away', AWAY());
  return answer;
}

async function sendJson(method: 'PUT' | 'POST', path: string, body: unknown): Promise<unknown> {
  const sent = body === undefined ? {} : { body: JSON.stringify(body), type: 'application/json' };
  return answerIn(await send(method, path, sent));
}

/** Puts it, or removes it where there is no body; now or not at all. */
export async function changeNow(path: string, body: object | undefined): Promise<unknown> {
  return body ? sendJson('PUT', path, body) : answerIn(await send('DELETE', path));
}

/**
 * Puts or removes something. Without a network, on a device that has the app, it waits there for the server, and so
 * does what comes after it.
 */
async function change(path: string, body: object | undefined): Promise<unknown> {
  const whose = owner;
  const now = () => changeNow(path, body);
  const device = await kept();
  return device && whose !== undefined ? device.changed(whose, path, body, now) : now();
}

/** What was fetched last, with the server's word for it: what is still so is not sent again. Kept in memory only. */
const fetched = new Map<string, { readonly tag: string; readonly answer: unknown }>();
const MOST_FETCHED = 20;

/** While the server is away nobody waits long for it to say so again. */
const SHORT_PATIENCE = 4_000;

/** Fetches and checks what arrives against the contract; without a network it is what this device knows. */
export async function get<T>(path: string, fits: (data: unknown) => boolean): Promise<T> {
  // Whose it was when it was asked for: somebody else may be in when it arrives.
  const whose = owner;
  const answer = getNow<T>(path, fits);
  answer.catch(() => undefined);
  const device = await kept();
  return device ? device.known(whose, path, fits, answer) : answer;
}

/** As the server has it: nothing of this device. */
export async function getNow<T>(path: string, fits: (data: unknown) => boolean): Promise<T> {
  const before = fetched.get(path);
  const patience = isAway() && isInstalled() ? SHORT_PATIENCE : PATIENCE.GET;
  const response = await send('GET', path, { holds: before?.tag, patience });
  if (before && response.status === 304) return before.answer as T;
  const answer = await answerIn(response);
  if (!fits(answer)) throw new ApiProblem(200, 'outdated', OUTDATED());
  const tag = response.headers.get('ETag');
  if (tag) {
    fetched.delete(path);
    if (fetched.size >= MOST_FETCHED) fetched.delete(fetched.keys().next().value!);
    fetched.set(path, { tag, answer });
  }
  return answer as T;
}

export async function put(path: string, body: object): Promise<unknown> {
  return change(path, body);
}

/** Sends a recording as it is. */
export async function putSound(path: string, sound: Blob): Promise<void> {
  const response = await send('PUT', path, { body: sound, type: sound.type, patience: PATIENCE_WITH_SOUND });
  if (response.status !== 204) throw new ApiProblem(0, 'away', AWAY());
}

export async function post(path: string, body?: unknown): Promise<unknown> {
  return sendJson('POST', path, body);
}

export async function remove(path: string): Promise<void> {
  await change(path, undefined);
}
