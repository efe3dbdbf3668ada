import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiProblem, get, onSignedOut, pageBelongsTo, post, put } from './client.ts';

const sent: { path: string; init: RequestInit & { headers: Record<string, string> } }[] = [];

function server(...answers: (() => Response | Promise<Response>)[]): void {
  vi.stubGlobal('fetch', (path: string, init: RequestInit & { headers: Record<string, string> }) => {
    sent.push({ path, init });
    return Promise.resolve(answers.shift()!());
  });
}
const fits = () => true;
const refused = (status: number, code: string) => () =>
  Response.json({ error: { code, message: 'So it is.' } }, { status });

beforeEach(() => {
  sent.length = 0;
  pageBelongsTo('ann');
});
afterEach(() => {
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

describe('a request', () => {
  it('says whose page it comes from', async () => {
    server(
      () => Response.json({}),
      () => Response.json({}),
    );
    await put('/x', {});
    pageBelongsTo(undefined);
    await post('/x');
    expect(sent.map(({ init }) => init.headers['Clapboard-Teacher'])).toEqual(['ann', undefined]);
  });
  it('for what is still so is not answered at length', async () => {
    const class1 = { name: 'Gulls' };
    server(
      () => Response.json(class1, { headers: { ETag: '"a"' } }),
      () => new Response(null, { status: 304 }),
      () => Response.json({ name: 'Terns' }, { headers: { ETag: '"b"' } }),
    );
    const answers = [await get('/c', fits), await get('/c', fits), await get('/c', fits)];
    expect(answers).toEqual([class1, class1, { name: 'Terns' }]);
    expect(sent.map(({ init }) => init.headers['If-None-Match'])).toEqual([undefined, '"a"', '"a"']);
  });
  it('of another teacher’s page begins from nothing', async () => {
    server(
      () => Response.json({}, { headers: { ETag: '"a"' } }),
      () => Response.json({}),
    );
    await get('/c', fits);
    pageBelongsTo('ben');
    await get('/c', fits);
    expect(sent[1]!.init.headers['If-None-Match']).toBeUndefined();
  });
  it('without an answer is given up after a while', async () => {
    const timeout = vi.spyOn(AbortSignal, 'timeout').mockReturnValue(AbortSignal.abort());
    vi.stubGlobal('fetch', (_path: string, { signal }: RequestInit) =>
      Promise.reject((signal as AbortSignal).reason as Error),
    );
    await expect(get('/c', fits)).rejects.toMatchObject({ status: 0, code: 'no-answer', worthRetrying: true });
    expect(timeout).toHaveBeenCalled();
    timeout.mockRestore();
  });
  it.each([
    [401, 'signed-out', 1],
    [401, 'other-teacher', 1],
    [401, 'wrong-password', 0],
    [404, 'not-found', 0],
  ])('answered with %i %s tells the door %i times', async (status, code, times) => {
    const heard = vi.fn();
    const off = onSignedOut(heard);
    server(refused(status, code), refused(status, code));
    await expect(put('/x', {})).rejects.toBeInstanceOf(ApiProblem);
    off();
    await put('/x', {}).catch(() => undefined);
    expect(heard).toHaveBeenCalledTimes(times);
  });
});
