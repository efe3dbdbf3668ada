import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { KIT } from '../../cli/drawing.ts';
import { type Sheet, makeSheet, versionsOf } from '../../core/sheets/sheet.ts';
import { sheetPages } from '../../drawing/sheets/sheetPages.ts';
import { sheetPdf } from '../../drawing/sheets/sheetPdf.ts';
import { report, timed } from './benchReport.ts';

const SHEET: Sheet = {
  title: 'Week 7',
  seed: 4821,
  paper: 'a4',
  large: false,
  versions: true,
  bpm: 72,
  parts: [
    { key: 0, kind: 'counts', count: 5, level: 4 },
    { key: 1, kind: 'complete', count: 3, level: 3 },
    { key: 2, kind: 'true-false', count: 2, level: 3 },
    { key: 3, kind: 'choose', count: 2, level: 2 },
  ],
};
const NAMES = Array.from({ length: 26 }, (_, i) => `Child ${i + 1}`);
const VOICE = { counts: { school: 'numbers' }, naming: 'quarters' } as const;

/** A sheet of 12 questions from the command line, and one with 26 names; the baseline is Node that starts and ends. */
export async function benchSheets(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'clapboard-bench-'));
  const file = join(folder, 'sheet.pdf');
  const args = ['sheet', 'counts', '--count', '12', '--seed', '3', '--out', file];
  spawnSync('bin/clapboard', args);
  const start = timed(() => spawnSync(process.execPath, ['-e', ''])).seconds;
  const one = timed(() => spawnSync('bin/clapboard', args)).seconds;
  report('sheet counts, 12 questions, to a file', `${one.toFixed(2)} s`, `${(one / start).toFixed(1)} × Node alone`);
  report('  its size', `${Math.round(statSync(file).size / 1000)} kB`, 'under 60 kB a page are asked for');
  rmSync(folder, { recursive: true });
  const from = performance.now();
  const made = versionsOf(SHEET).map((version) => makeSheet(SHEET, VOICE.counts, version));
  const job = { sheet: SHEET, made, voice: VOICE, names: NAMES, className: 'Lighthouse 4' };
  const bytes = await sheetPdf(job, KIT);
  const seconds = (performance.now() - from) / 1000;
  const pages = sheetPages(job, await KIT.fonts()).length;
  report('26 named sheets in one file', `${seconds.toFixed(2)} s`, `${(seconds / start).toFixed(1)} × Node alone`);
  report('  its pages', String(pages), `${Math.round(bytes.length / pages / 1000)} kB each`);
}
