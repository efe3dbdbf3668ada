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
    done: async (name: string) => {
      slots.get(name)!.release();
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
  it('looks at the places first that asked least of late, also where they were sent away', async () => {
    const { enter, begun, settle, done, queue, pass } = door({ slots: 1, mostOfPlace: 4 });
    const arrive = (place: string) => {
      try {
        queue.arrive(place)();
      } catch {
        // Sent away: it has asked all the same.
      }
    };
    for (let i = 0; i < 6; i++) {
      arrive('crowd');
      void enter(`crowd ${i}`, { place: 'crowd' });
    }
    await settle();
    arrive('elsewhere');
    void enter('single', { place: 'elsewhere' });
    await done('crowd 0');
    expect(begun.at(-1)).toBe('single');
    // With time it is forgotten.
    await pass(15_000);
    for (let i = 0; i < 2; i++) arrive('elsewhere');
    void enter('again', { place: 'elsewhere' });
    await done('single');
    expect(begun.at(-1)).toBe('again');
    for (let i = 0; i < 9; i++) arrive('elsewhere');
    void enter('once more', { place: 'elsewhere' });
    await done('again');
    expect(begun.at(-1)).toBe('crowd 1');
  });
  it('a key that rests is looked at when its time has come, and holds up no other', async () => {
    const { enter, begun, settle, done, pass, now, alarms, queue } = door();
    void enter('first', { key: 'k' });
    await settle();
    queue.rest('k', 2_000);
    await done('first');
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
    expect(refused).toEqual(['c: door-busy', 'b: door-busy']);
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
    expect(() => queue.arrive('p')).toThrow(/Try again in 20 seconds/);
    const leave = [1, 2, 3].map(() => queue.arrive('q'));
    expect(() => queue.arrive('q')).toThrow();
    for (const one of [...leave, ...leave]) one();
    queue.arrive('q')();
    void enter('another', { key: 'him' });
    void enter('guess 3', { key: 'her' });
    await settle();
    expect(refused).toEqual(['guess 2: door-busy', 'guess 3: door-busy']);
    for (const name of ['in', 'guess 0', 'guess 1', 'another']) await done(name);
    expect(begun).toEqual(['in', 'guess 0', 'guess 1', 'another']);
  });
  it('where all is full the place of which most wait gives way', async () => {
    const { enter, begun, refused, settle, done, queue } = door({ slots: 1, mostOfAll: 4 });
    void enter('in', { place: 'x' });
    for (const [i, place] of ['p', 'p', 'p', 'q'].entries()) void enter(`${place} ${i}`, { place });
    await settle();
    expect([queue.isFull('p'), queue.isFull('q'), queue.isFull('r')]).toEqual([true, false, false]);
    void enter('r', { place: 'r' });
    await settle();
    expect(refused).toEqual(['p 2: door-busy']);
    for (const name of ['in', 'p 0', 'p 1', 'q 3']) await done(name);
    expect(begun).toEqual(['in', 'p 0', 'p 1', 'q 3', 'r']);
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
