import fitsError from 'virtual:fits/error';
import type { TextError } from '../../core/rhythm/text.ts';

/** A request that came to nothing: the server's own sentence, or ours when it could not be reached. */
export class ApiProblem extends Error {
  constructor(
    /** 0 when no answer came. */
    readonly status: number,
    readonly code: string,
    message: string,
    readonly field?: string,
    readonly at?: TextError,
  ) {
    super(message);
  }

  /** Worth sending again later just as it is. */
  get worthRetrying(): boolean {
    return passes(this.status);
  }
}

function passes(status: number): boolean {
  return status === 0 || status === 401 || status === 429 || status >= 500;
}

const AWAY =
  'The server cannot be reached. What you do is kept on this device; it is sent as soon as the server is back.';
const OUTDATED = 'This page is older than the server. Reload it; nothing is lost.';

async function request(method: string, path: string, body?: unknown): Promise<unknown> {
  const init: RequestInit = { method, credentials: 'same-origin' };
  if (body !== undefined)
    Object.assign(init, { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } });
  const response = await fetch(`/api${path}`, init).catch(() => {
    throw new ApiProblem(0, 'away', AWAY);
  });
  if (response.status === 204) return undefined;
  // Not our server's answer, but the page of a network's sign-in, or of a proxy: whatever its status, nothing arrived.
  const answer: unknown = await response.json().catch(() => undefined);
  if (response.ok && answer !== undefined) return answer;
  if (!fitsError(answer)) throw new ApiProblem(0, 'away', AWAY);
  const { code, message, field, at } = (
    answer as { error: { code: string; message: string; field?: string; at?: TextError } }
  ).error;
  throw new ApiProblem(response.status, code, message, field, at);
}

/** Fetches and checks what arrives against the contract. */
export async function get<T>(path: string, fits: (data: unknown) => boolean): Promise<T> {
  const answer = await request('GET', path);
  if (!fits(answer)) throw new ApiProblem(200, 'outdated', OUTDATED);
  return answer as T;
}

export async function put(path: string, body: unknown): Promise<unknown> {
  return request('PUT', path, body);
}

/**
 * Sends a recording as it is. That the class keeps none (any more) is final; what did not arrive is worth another try.
 */
export async function putSound(path: string, sound: Blob): Promise<void> {
  const response = await fetch(`/api${path}`, {
    method: 'PUT',
    credentials: 'same-origin',
    body: sound,
    headers: { 'Content-Type': sound.type },
  }).catch(() => undefined);
  const refused = response !== undefined && response.status >= 400 && !passes(response.status);
  if (response?.status !== 204 && !refused) throw new ApiProblem(0, 'away', AWAY);
}

export async function post(path: string, body?: unknown): Promise<unknown> {
  return request('POST', path, body);
}

export async function remove(path: string): Promise<void> {
  await request('DELETE', path);
}
