import { describe, expect, it } from 'vitest';
import { loadAgain } from './lazyAgain.ts';

describe('a part that comes after its view', () => {
  it('is asked for again until it is there', async () => {
    let asked = 0;
    const load = () => {
      asked++;
      if (asked < 3) return Promise.reject(new TypeError('Failed to fetch dynamically imported module'));
      return Promise.resolve({ default: () => null });
    };
    expect(await loadAgain(load, 1)).toHaveProperty('default');
    expect(asked).toBe(3);
  });
});
