import 'fake-indexeddb/auto';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { NewLineUp } from '../../contract/lineUp.ts';
import { readStored, writeStored } from '../ui/stored.ts';
import type { Waiting } from './keptTakes.ts';
import { dropLineUp, sendLineUps, startLineUp } from './newLineUps.ts';
import { dropTake, keepTake, sendTakes, waitingTakes } from './outbox.ts';

const LINE = { title: 'Gulls', turns: [{ childId: 'a', patternId: 'p' }] } as unknown as NewLineUp;
const ONE = { teacherId: 'ann', classId: 'c', id: 'l', lineUp: LINE };
const KEY = 'line-ups.new';
const kept = () => (JSON.parse(readStored(KEY) ?? '[]') as { id: string }[]).map(({ id }) => id);

function server(answer: (path: string) => Response | undefined): string[] {
  const sent: string[] = [];
  vi.stubGlobal('fetch', (path: string) => {
    sent.push(path);
    const response = answer(path);
    return response ? Promise.resolve(response) : Promise.reject(new TypeError('no network'));
  });
  return sent;
}
const taken = () => Response.json({ id: 'x' });
const refusal = (status: number) => () => Response.json({ error: { code: 'no', message: 'Not so.' } }, { status });

beforeEach(() => writeStored(KEY, undefined));
afterEach(() => vi.unstubAllGlobals());

describe('a line-up without a network', () => {
  it('is on this device until the server has it, and until its list has it', async () => {
    server(() => undefined);
    await startLineUp(ONE);
    expect(kept()).toEqual(['l']);
    expect(await sendLineUps('ann')).toBe(false);
    expect(await sendLineUps('ben')).toBe(true);
    const sent = server(taken);
    expect(await sendLineUps('ann')).toBe(true);
    expect(await sendLineUps('ann')).toBe(true);
    expect(sent).toEqual(['/api/classes/c/line-ups/l']);
    expect(kept()).toEqual(['l']);
    dropLineUp('l');
    expect(kept()).toEqual([]);
  });

  it('that the server refuses is said at once, and later holds up nothing', async () => {
    server(refusal(422));
    await expect(startLineUp(ONE)).rejects.toThrow('Not so.');
    expect(kept()).toEqual([]);
    server(() => undefined);
    await startLineUp(ONE);
    server(refusal(404));
    expect(await sendLineUps('ann')).toBe(true);
    expect(kept()).toEqual([]);
    server(() => undefined);
    await startLineUp(ONE);
    server(refusal(401));
    expect(await sendLineUps('ann')).toBe(false);
    expect(kept()).toEqual(['l']);
  });

  it('goes before its takes: else they would find nobody in line', async () => {
    server(() => undefined);
    await startLineUp(ONE);
    const upload = { takenAt: 1, onsets: [], lineUpId: 'l' } as unknown as Waiting['upload'];
    await keepTake({ id: 't', teacherId: 'ann', childName: 'Ada', upload });
    expect(await sendTakes('ann')).toBe(false);
    const sent = server(taken);
    expect(await sendTakes('ann')).toBe(true);
    expect(sent).toEqual(['/api/classes/c/line-ups/l', '/api/takes/t']);
    for (const { id } of await waitingTakes()) await dropTake(id);
  });
});
