import 'fake-indexeddb/auto';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiProblem, get, pageBelongsTo } from './client.ts';
import { forgetAnswers, keepAnswer, keptAnswer } from '../store/keptAnswers.ts';
import { answered, isAway, onNetwork, whenGone } from './network.ts';

const GULLS = { name: 'Gulls' };
const fits = (data: unknown) => typeof (data as { name?: unknown })?.name === 'string';

/** @param installed  the app is on this device */
function device(installed: boolean, answer: () => Response | undefined) {
  vi.stubGlobal('navigator', { serviceWorker: { controller: installed ? {} : null } });
  vi.stubGlobal('fetch', () => {
    const response = answer();
    return response ? Promise.resolve(response) : Promise.reject(new TypeError('no network'));
  });
}
const later = () => new Promise((resolve) => setTimeout(resolve, 20));

beforeEach(async () => {
  await forgetAnswers();
  pageBelongsTo('ann');
  answered(true);
});
afterEach(() => {
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

describe('without a network', () => {
  it('what was fetched last is there, to the teacher who fetched it and to nobody else', async () => {
    device(true, () => Response.json(GULLS));
    await get('/classes/1', fits);
    await later();
    device(true, () => undefined);
    expect(await get('/classes/1', fits)).toEqual(GULLS);
    expect(isAway()).toBe(true);
    await expect(get('/classes/2', fits)).rejects.toThrow('cannot be reached');
    pageBelongsTo('ben');
    await expect(get('/classes/1', fits)).rejects.toThrow(ApiProblem);
    // A proxy's page is no answer either.
    pageBelongsTo('ann');
    device(true, () => new Response('<html>Bad gateway</html>', { status: 502 }));
    expect(await get('/classes/1', fits)).toEqual(GULLS);
  });

  it('what arrives when somebody else is in is kept for who asked', async () => {
    device(true, () => Response.json(GULLS));
    const asked = get('/classes/1', fits);
    pageBelongsTo('ben');
    await asked;
    await later();
    expect(await keptAnswer('ben', '/classes/1')).toBeUndefined();
    expect(await keptAnswer('ann', '/classes/1')).toEqual(GULLS);
  });

  it('an app that is not on the device keeps nothing', async () => {
    device(false, () => Response.json(GULLS));
    await get('/classes/1', fits);
    await later();
    device(false, () => undefined);
    await expect(get('/classes/1', fits)).rejects.toThrow('cannot be reached');
    expect(await keptAnswer('ann', '/classes/1')).toBeUndefined();
  });

  it('what the server refuses is not covered up by what it said before', async () => {
    await keepAnswer('ann', '/classes/1', GULLS);
    device(true, () => Response.json({ error: { code: 'not-found', message: 'Gone.' } }, { status: 404 }));
    await expect(get('/classes/1', fits)).rejects.toThrow('Gone.');
    expect(isAway()).toBe(false);
  });

  it('what does not fit any more, or is older than three weeks, is not shown', async () => {
    device(true, () => undefined);
    await keepAnswer('ann', '/classes/1', { title: 'from an older version' });
    await expect(get('/classes/1', fits)).rejects.toThrow('cannot be reached');
    await keepAnswer('ann', '/classes/1', GULLS);
    vi.spyOn(Date, 'now').mockReturnValue(Date.now() + 22 * 24 * 3600 * 1000);
    expect(await keptAnswer('ann', '/classes/1')).toBeUndefined();
    vi.restoreAllMocks();
    expect(await keptAnswer('ann', '/classes/1')).toEqual(GULLS);
  });

  it('nothing stays on a device that was signed out from elsewhere', async () => {
    await keepAnswer('ann', '/classes/1', GULLS);
    device(true, () => Response.json({ error: { code: 'signed-out', message: 'Sign in.' } }, { status: 401 }));
    await expect(get('/classes/1', fits)).rejects.toThrow('Sign in.');
    await expect.poll(() => keptAnswer('ann', '/classes/1')).toBeUndefined();
  });

  it('who is in is known at the door, before anybody is', async () => {
    await keepAnswer(undefined, '/session', { teacher: null });
    expect(await keptAnswer('ann', '/session')).toEqual({ teacher: null });
  });
});

describe('the network', () => {
  it('tells when it goes and comes, once', () => {
    const told: (number | undefined)[] = [];
    const off = onNetwork(() => told.push(whenGone()));
    answered(true);
    answered(false);
    answered(false);
    answered(true);
    off();
    answered(false);
    expect(told.map((since) => since !== undefined)).toEqual([true, false]);
  });
});
