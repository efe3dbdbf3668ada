import { existsSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { licencesOf, packageOf, packagesOfServer } from './licences.ts';

/** A folder with one map of code made from these files. */
function mapsOf(...sources: string[]): string {
  const folder = mkdtempSync(join(tmpdir(), 'clapboard-maps-'));
  writeFileSync(join(folder, 'a.js.map'), JSON.stringify({ sources }));
  return folder;
}

describe('the licences of what ships', () => {
  it.each([
    ['../../node_modules/react/index.js', 'react'],
    ['../node_modules/@dnd-kit/core/dist/x.js', '@dnd-kit/core'],
    ['node_modules/a/node_modules/b/x.js', 'b'],
    ['../../core/rhythm/text.ts', undefined],
  ])('%s belongs to %s', (file, name) => expect(packageOf(file)).toBe(name));

  it('are those of the code in the pages, of the fonts and of the packages of the server, each once', () => {
    const all = licencesOf(mapsOf('../../node_modules/vexflow/a.js', '../../node_modules/vexflow/b.js', '../a.ts'));
    const names = all.map(({ name }) => name);
    expect(names).toEqual([...new Set(names)].sort());
    for (const name of ['vexflow', 'bootstrap', '@vexflow-fonts/bravura', 'express', 'accepts'])
      expect(names).toContain(name);
    for (const name of ['vitest', 'typescript', 'react']) expect(names).not.toContain(name);
  });

  it('say their kind, and nearly all what stands in them', () => {
    const all = licencesOf(mapsOf('../../node_modules/png-js/png.js'));
    expect(all.find(({ name }) => name === 'png-js')?.kind).toBe('MIT License');
    expect(all.filter(({ kind }) => kind === '')).toEqual([]);
    const font = all.find(({ name }) => name === '@fontsource/atkinson-hyperlegible-next');
    expect(font).toMatchObject({ kind: 'OFL-1.1', text: expect.stringContaining('Open Font License') as unknown });
    expect(all.filter(({ text }) => text === '').length).toBeLessThan(all.length / 10);
  });

  it('the server alone installs no package of the pages or the tests', () => {
    const names = packagesOfServer().filter((name) => existsSync(join('node_modules', name)));
    expect(names).toContain('mysql2');
    expect(names.filter((name) => ['react', 'recharts', 'vexflow', 'vite', 'date-fns'].includes(name))).toEqual([]);
  });
});
