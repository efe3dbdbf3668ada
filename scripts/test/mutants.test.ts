import { readFileSync, readdirSync } from 'node:fs';
import { basename, dirname } from 'node:path';
import { describe, expect, it } from 'vitest';
import { MUTANTS, SURVIVORS } from './mutants/list.ts';

const all = MUTANTS.flatMap(({ mutants }) => mutants);

describe('the list of breakages', () => {
  it('has at least 250 over all rooms, a quarter of them in the pages, no two alike', () => {
    expect(all.length).toBeGreaterThanOrEqual(250);
    expect(all.filter(([file]) => file.startsWith('web/')).length).toBeGreaterThanOrEqual(all.length / 4);
    expect(new Set(all.map((mutant) => mutant.join('\0'))).size).toBe(all.length);
  });
  it('excuses five at most, each with its reason', () => {
    const known = new Set(all.map(([file, find, replace]) => `${file}: ${find} → ${replace}`));
    expect(Object.keys(SURVIVORS).filter((one) => !known.has(one))).toEqual([]);
    expect(Object.keys(SURVIVORS).length).toBeLessThanOrEqual(5);
    for (const reason of Object.values(SURVIVORS)) expect(reason.length).toBeGreaterThan(10);
  });
  it('asks tests that are there, by their file, their folder or how their names begin', () => {
    const asked = new Set(MUTANTS.flatMap(({ tests }) => tests));
    const there = (path: string) => readdirSync(dirname(path)).some((name) => name.startsWith(basename(path)));
    expect([...asked].filter((path) => !there(path))).toEqual([]);
  });
  it.each(all)('%s still has “%s”, once', (file, find, replace) => {
    expect(readFileSync(file, 'utf8').split(find)).toHaveLength(2);
    expect(replace).not.toBe(find);
  });
});
