import { describe, expect, it } from 'vitest';
import { batchesOf, onceForAll } from './batches.ts';

/** Work that says what it was given, goes on when it is let, and fails where an item says so. */
function bench(most: number, patienceMs = 1_000) {
  const batches: string[][] = [];
  let letOn: (() => void)[] = [];
  let now = 0;
  const work = async (items: readonly string[]) => {
    batches.push([...items]);
    await new Promise<void>((done) => letOn.push(done));
    const bad = items.find((item) => item.startsWith('bad'));
    if (bad) throw new Error(bad);
    if (items.some((item) => item.startsWith('away'))) throw Object.assign(new Error(), { code: 'ECONNREFUSED' });
    return items.map((item) => `${item} of ${items.length}`);
  };
  const add = batchesOf(work, { most, patienceMs, now: () => now });
  const outcomes: string[] = [];
  return {
    batches,
    outcomes,
    add: (owner: string, item: string) =>
      void add(owner, item).then(
        (result) => outcomes.push(result),
        (error: { code?: string; message: string }) => outcomes.push(`${item}: ${error.code ?? error.message}`),
      ),
    /** Whatever is at work ends, after so long. */
    on: async (ms = 0) => {
      now += ms;
      const these = letOn;
      letOn = [];
      for (const go of these) go();
      for (let i = 0; i < 20; i++) await Promise.resolve();
    },
  };
}

describe('batches', () => {
  it('the first begins at once, what comes meanwhile goes together, in order and at most so many', async () => {
    const { add, on, batches, outcomes } = bench(3);
    for (const item of ['1', '2', '3', '4', '5']) add('a', item);
    for (let i = 0; i < 3; i++) await on();
    expect(batches).toEqual([['1'], ['2', '3', '4'], ['5']]);
    expect(outcomes).toEqual(['1 of 1', '2 of 3', '3 of 3', '4 of 3', '5 of 1']);
    add('a', '6');
    await on();
    expect(outcomes.at(-1)).toBe('6 of 1');
  });

  it('owners do not wait for each other', () => {
    const { add, batches } = bench(3);
    add('a', '1');
    add('b', '2');
    expect(batches).toEqual([['1'], ['2']]);
  });

  it('where one fails each has its own outcome', async () => {
    const { add, on, batches, outcomes } = bench(5);
    for (const item of ['1', '2', 'bad 3', '4']) add('a', item);
    for (let i = 0; i < 6; i++) await on();
    expect(batches).toEqual([['1'], ['2', 'bad 3', '4'], ['2'], ['bad 3'], ['4']]);
    expect(outcomes).toEqual(['1 of 1', '2 of 1', 'bad 3: bad 3', '4 of 1']);
  });

  it('where the database is away nobody waits for it anew', async () => {
    const { add, on, batches, outcomes } = bench(5);
    for (const item of ['1', 'away 2', '3']) add('a', item);
    for (let i = 0; i < 3; i++) await on();
    expect(batches).toEqual([['1'], ['away 2', '3']]);
    expect(outcomes).toEqual(['1 of 1', 'away 2: ECONNREFUSED', '3: ECONNREFUSED']);
  });

  it('whoever has waited too long is sent away, and those after it are not', async () => {
    const { add, on, batches, outcomes } = bench(5, 1_000);
    add('a', '1');
    add('a', '2');
    await on(600);
    add('a', '3');
    await on(600);
    add('a', '4');
    add('a', '5');
    await on(1_100);
    await on();
    expect(batches).toEqual([['1'], ['2'], ['3']]);
    expect(outcomes).toEqual(['1 of 1', '2 of 1', '3 of 1', '4: busy', '5: busy']);
  });
});

describe('once for all', () => {
  /** Work by a key that ends when it is let, with how many there were of its key. */
  function once() {
    const ask = onceForAll<string>();
    const begun: string[] = [];
    const ends: { key: string; go: (failure?: string) => void }[] = [];
    return {
      begun,
      ask: (key: string) =>
        ask(key, async () => {
          begun.push(key);
          const count = begun.filter((one) => one === key).length;
          await new Promise<void>((resolve, reject) =>
            ends.push({ key, go: (failure) => (failure ? reject(new Error(failure)) : resolve()) }),
          );
          return `${key}${count}`;
        }).catch((error: Error) => error.message),
      end: async (key: string, failure?: string) => {
        const at = ends.findIndex((one) => one.key === key);
        ends.splice(at, 1)[0]!.go(failure);
        for (let i = 0; i < 20; i++) await Promise.resolve();
      },
    };
  }

  it('who asks while it is done has the next, one for all of them; another key does not wait', async () => {
    const { ask, begun, end } = once();
    const first = ask('a');
    const later = [ask('a'), ask('a'), ask('a')];
    void ask('b');
    expect(begun).toEqual(['a', 'b']);
    await end('a');
    expect(await first).toBe('a1');
    const last = ask('a');
    expect(begun).toEqual(['a', 'b', 'a']);
    await end('a');
    expect(await Promise.all(later)).toEqual(['a2', 'a2', 'a2']);
    await end('a');
    expect(await last).toBe('a3');
    void ask('a');
    expect(begun.filter((key) => key === 'a')).toHaveLength(4);
  });

  it('where it fails, it fails for those who waited for it, and the next is done all the same', async () => {
    const { ask, end } = once();
    const first = ask('a');
    const second = ask('a');
    await end('a', 'gone');
    expect(await first).toBe('gone');
    await end('a');
    expect(await second).toBe('a2');
  });
});
