import { cpSync, mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { SOURCES, fingerprint } from './buildPages.ts';

const filesIn = (room: string) =>
  readdirSync(room, { recursive: true, encoding: 'utf8' }).filter((name) => /\.tsx?$/.test(name));

/** The rooms whose files import one another from `web` down, read from the imports themselves. */
function roomsBelow(room: string, known = new Set<string>()): Set<string> {
  if (known.has(room)) return known;
  known.add(room);
  for (const name of filesIn(room).filter((file) => !/\.test(-helper)?\./.test(file)))
    for (const [, path] of readFileSync(join(room, name), 'utf8').matchAll(/from '((?:\.\.\/)+[^']+)'/g)) {
      const target = join(room, name, '..', path!).split('/')[0]!;
      if (target !== room) roomsBelow(target, known);
    }
  return known;
}

describe('whether the pages are built anew', () => {
  const rooms = [...roomsBelow('web')].sort();
  let copy: string;
  beforeAll(() => {
    copy = mkdtempSync(join(tmpdir(), 'clapboard-sources-'));
    for (const source of SOURCES)
      if (source.includes('.')) cpSync(source, join(copy, source));
      else {
        mkdirSync(join(copy, source, 'deeper'), { recursive: true });
        writeFileSync(join(copy, source, 'deeper', 'a.ts'), 'export const one = 1;');
      }
  });
  afterAll(() => rmSync(copy, { recursive: true, force: true }));

  it('goes by every room their code comes from', () => {
    expect(rooms).toContain('drawing');
    expect(rooms.filter((room) => !SOURCES.includes(room))).toEqual([]);
  });

  it.each([...SOURCES])('a change in %s asks for another build, and taken back it does not', (source) => {
    const before = fingerprint(copy);
    const file = source.includes('.') ? join(copy, source) : join(copy, source, 'deeper', 'a.ts');
    const was = readFileSync(file);
    writeFileSync(file, 'export const one = 2;');
    expect(fingerprint(copy)).not.toBe(before);
    writeFileSync(file, was);
    expect(fingerprint(copy)).toBe(before);
  });

  it('a new file and another name ask for another build, too', () => {
    const before = fingerprint(copy);
    const file = join(copy, 'web', 'deeper', 'b.ts');
    writeFileSync(file, '');
    expect(fingerprint(copy)).not.toBe(before);
    rmSync(file);
  });
});
