import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { MUTANTS } from './mutants.list.ts';

const all = MUTANTS.flatMap(({ mutants }) => mutants);

describe('the list of breakages', () => {
  it('has at least eighty, no two alike', () => {
    expect(all.length).toBeGreaterThanOrEqual(80);
    expect(new Set(all.map((mutant) => mutant.join('\0'))).size).toBe(all.length);
  });
  it.each(all)('%s still has “%s”, once', (file, find, replace) => {
    expect(readFileSync(file, 'utf8').split(find)).toHaveLength(2);
    expect(replace).not.toBe(find);
  });
});
