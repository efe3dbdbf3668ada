import { perLanguage, t } from '../../core/words/say.ts';
import fitsError from 'virtual:fits/error';
import fitsWeek from 'virtual:fits/home-week';
import type { HomeTake, HomeWeek } from '../../contract/home.ts';

/** The secret of a slip stands behind the `#` of its address, and in no other place of the device. */
export const secretIn = (hash: string): string => hash.replace(/^#/, '');

/** Why the week is not there. */
export class HomeProblem extends Error {
  constructor(
    message: string,
    /** Asked again later it may be there. */
    readonly passes: boolean,
  ) {
    super(message);
  }
}

const AWAY = perLanguage(() => t`The network does not answer. What you clap is kept here, and sent when it is back.`);

async function ask(secret: string, method: 'GET' | 'PUT' | 'POST', path: string, body?: object): Promise<unknown> {
  const headers = { 'Clapboard-Home': secret, ...(body ? { 'Content-Type': 'application/json' } : {}) };
  const init: RequestInit = { method, credentials: 'omit', headers, ...(body ? { body: JSON.stringify(body) } : {}) };
  const response = await fetch(`/api/home${path}`, init).catch(() => {
    throw new HomeProblem(AWAY(), true);
  });
  if (response.status === 204) return undefined;
  const answer: unknown = await response.json().catch(() => undefined);
  if (response.ok && answer !== undefined) return answer;
  if (!fitsError(answer)) throw new HomeProblem(AWAY(), true);
  throw new HomeProblem((answer as { error: { message: string } }).error.message, response.status >= 429);
}

export async function homeWeek(secret: string): Promise<HomeWeek> {
  const week = await ask(secret, 'GET', '/week');
  if (!fitsWeek(week)) throw new HomeProblem(t`This page is older than the server. Open it again.`, false);
  return week as HomeWeek;
}

export const sendHomeTake = (secret: string, id: string, take: HomeTake) => ask(secret, 'PUT', `/takes/${id}`, take);
export const sayDone = (secret: string, item: number, day: number) => ask(secret, 'POST', '/done', { item, day });
