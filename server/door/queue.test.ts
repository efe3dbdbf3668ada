import { describe, expect, it } from 'vitest';
import { DoorQueue, type DoorQueueSettings, type Slot, type Try } from './queue.ts';

/** A door with a clock of its own. */
function door(change: Partial<DoorQueueSettings> = {}) {
  let clock = 1_000_000;
  const alarms: { at: number; action: () => void }[] = [];
  const queue = new DoorQueue({
    slots: 2,
    mostOfPlace: 40,
    mostOfAll: 200,
    patienceMs: 20_000,
    ...change,
    now: () => clock,
    later: (action, ms) => void alarms.push({ at: clock + ms, action }),
  });
  const begun: string[] = [];
  const slots = new Map<string, Slot>();
  const refused: string[] = [];
  const enter = async (name: string, one: Partial<Try> = {}, signal?: AbortSignal) => {
    try {
      const slot = await queue.enter({ known: false, place: 'p', key: `${one.place ?? 'p'} ${name}`, ...one }, signal);
      begun.push(name);
      slots.set(name, slot);
    } catch (error) {
      refused.push(`${name}: ${(error as { code: string }).code}`);
    }
  };
  const settle = () => new Promise((resolve) => setImmediate(resolve));
  return {
    queue,
    begun,
    refused,
    enter,
    settle,
    done: async (name: string, restUntil?: number) => {
      slots.get(name)!.release(restUntil);
      await settle();
    },
    now: () => clock,
    pass: async (ms: number) => {
      clock += ms;
      for (const { action } of alarms
        .splice(0)
        .filter((one) => one.at > clock || (one.action(), false))
        .slice())
        alarms.push({ at: clock, action });
      await settle();
    },
    alarms,
  };
}

describe('the queue at the door', () => {
  it('lets in so many at once, and one more from a browser that is known', async () => {
    const { enter, begun, settle, done } = door();
    for (const name of ['a', 'b', 'c', 'd']) void enter(name);
    void enter('known', { known: true });
    void enter('known too', { known: true });
    await settle();
    expect(begun).toEqual(['a', 'b', 'known']);
    await done('known');
    expect(begun).toEqual(['a', 'b', 'known', 'known too']);
    await done('a');
    expect(begun.at(-1)).toBe('c');
    // Let on twice it is let on once.
    await done('a');
    expect(begun.at(-1)).toBe('c');
  });
  it('serves the places that were served least, whoever has sent most', async () => {
    const { enter, begun, settle, done } = door({ slots: 1 });
    for (let i = 0; i < 6; i++) void enter(`crowd ${i}`, { place: 'crowd' });
    await settle();
    void enter('single', { place: 'elsewhere' });
    void enter('other', { place: 'third' });
    await done('crowd 0');
    await done('single');
    await done('other');
    expect(begun).toEqual(['crowd 0', 'single', 'other', 'crowd 1']);
  });
  it('forgets with time what a place was served', async () => {
    const { enter, begun, settle, done, pass } = door({ slots: 1 });
    for (let i = 0; i < 3; i++) {
      void enter(`old ${i}`, { place: 'old' });
      await settle();
      await done(`old ${i}`);
    }
    await pass(600_000);
    void enter('now', { place: 'new' });
    await settle();
    void enter('new 2', { place: 'new' });
    void enter('old 3', { place: 'old' });
    await done('now');
    expect(begun.at(-1)).toBe('old 3');
  });
  it('a key that rests is looked at when its time has come, and holds up no other', async () => {
    const { enter, begun, settle, done, pass, now, alarms } = door();
    void enter('first', { key: 'k' });
    await settle();
    await done('first', now() + 2_000);
    for (let i = 0; i < 20; i++) void enter(`again ${i}`, { key: 'k' });
    void enter('other', { key: 'm' });
    await settle();
    expect(begun).toEqual(['first', 'other']);
    // One alarm, however many wait for it.
    expect(alarms.filter(({ at }) => at === now() + 2_000)).toHaveLength(1);
    await pass(2_000);
    expect(begun).toEqual(['first', 'other', 'again 0']);
  });
  it('sends away what is too much, and says when to come again', async () => {
    const { enter, begun, refused, settle, queue } = door({ slots: 1, mostOfPlace: 2, mostOfAll: 3 });
    void enter('in');
    for (const name of ['a', 'b', 'c']) void enter(name);
    void enter('d', { place: 'q' });
    void enter('e', { place: 'q' });
    void enter('known', { known: true });
    await settle();
    expect(begun).toEqual(['in', 'known']);
    expect(refused).toEqual(['c: door-busy', 'e: door-busy']);
    await expect(queue.enter({ known: false, place: 'q', key: 'q' })).rejects.toMatchObject({
      status: 503,
      detail: { retryAfter: 20 },
    });
  });
  it('of a place that is full the key that most wait for gives way', async () => {
    const { enter, begun, refused, settle, done, queue } = door({ slots: 1, mostOfPlace: 3 });
    void enter('in', { place: 'elsewhere' });
    for (let i = 0; i < 3; i++) void enter(`guess ${i}`, { key: 'her' });
    await settle();
    expect([queue.hasRoom('p'), queue.hasRoom('q')]).toEqual([false, true]);
    void enter('another', { key: 'him' });
    void enter('guess 3', { key: 'her' });
    await settle();
    expect(refused).toEqual(['guess 2: door-busy', 'guess 3: door-busy']);
    for (const name of ['in', 'guess 0', 'guess 1', 'another']) await done(name);
    expect(begun).toEqual(['in', 'guess 0', 'guess 1', 'another']);
  });
  it('drops whoever has left, and whoever waits too long', async () => {
    const { enter, begun, refused, settle, done, pass } = door({ slots: 1 });
    const leaving = new AbortController();
    void enter('in');
    void enter('leaves', {}, leaving.signal);
    void enter('stays');
    void enter('left before', {}, AbortSignal.abort());
    await settle();
    leaving.abort();
    await settle();
    expect(refused).toEqual(['left before: broken-off', 'leaves: broken-off']);
    await pass(20_000);
    expect(refused.at(-1)).toBe('stays: door-busy');
    await done('in');
    expect(begun).toEqual(['in']);
  });
});
