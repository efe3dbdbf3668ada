import { describe, expect, it } from 'vitest';
import { type Lines, addCode, addStatements, charactersRun, percentRun } from './coverage.ts';

const statements = (file: string, lines: Readonly<Record<number, number>>) =>
  JSON.stringify({
    [file]: {
      statementMap: Object.fromEntries(Object.keys(lines).map((line) => [line, { start: { line: Number(line) } }])),
      s: lines,
    },
  });

const range = (startOffset: number, endOffset: number, count: number) => ({ startOffset, endOffset, count });

describe('what was run', () => {
  it('is told by the smallest range around a character', () => {
    const run = charactersRun(10, [{ ranges: [range(3, 8, 0), range(5, 6, 2)] }, { ranges: [range(0, 10, 1)] }]);
    expect([...run]).toEqual([1, 1, 1, 0, 0, 1, 0, 0, 1, 1]);
  });

  it('is added up over runs, a line being run when any of its statements was in any of them', () => {
    const lines: Lines = new Map();
    addStatements(lines, statements('core/a.ts', { 1: 1, 2: 0, 3: 0 }));
    addStatements(lines, statements('core/a.ts', { 1: 0, 2: 4, 3: 0 }));
    addStatements(lines, statements('core/b.ts', { 7: 0 }));
    addStatements(lines, statements('web/c.ts', { 7: 1 }));
    expect(percentRun(lines, 'core')).toBe(50);
    expect(percentRun(lines, 'web')).toBe(100);
  });

  it('comes from the code of a page by its map, for lines known from the sources alone', () => {
    const lines: Lines = new Map();
    addStatements(lines, statements('web/a.ts', { 1: 0, 2: 0 }));
    // Characters 0, 2 and 4 of the code come from lines 1, 2 and 3 of the source.
    const map = JSON.stringify({ version: 3, sources: ['../../../web/a.ts'], names: [], mappings: 'AAAA,EACA,EACA' });
    addCode(lines, 'a;b;c;', map, 'dist/web/assets', Uint8Array.from([0, 0, 1, 1, 1, 1]));
    expect([...lines.get('web/a.ts')!]).toEqual([
      [1, false],
      [2, true],
    ]);
  });
});
