import { existsSync, mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join, relative, resolve } from 'node:path';
import { TraceMap, eachMapping } from '@jridgewell/trace-mapping';
import type { BrowserContext, CDPSession, Page } from 'playwright-core';

/** Of all lines with a statement on them, how many percent some test must have run. */
export const FLOORS = { core: 97, drawing: 92, server: 92, web: 85 } as const;

/** Names the folder in which what ran in the browser is kept; without it nothing is. */
export const KEPT_IN = 'BROWSER_COVERAGE';

/** For each file, by its path from the root, the lines with a statement and whether each was run. */
export type Lines = Map<string, Map<number, boolean>>;

interface StatementMap {
  readonly statementMap: Readonly<Record<string, { readonly start: { readonly line: number } }>>;
  readonly s: Readonly<Record<string, number>>;
}

function mark(lines: Lines, file: string, line: number, run: boolean): void {
  const known = lines.get(file) ?? new Map<number, boolean>();
  lines.set(file, known.set(line, run || known.get(line) === true));
}

/**
 * Lines run in Node.
 * @param report  what one run of the tests leaves, as JSON
 */
export function addStatements(lines: Lines, report: string): void {
  const files = JSON.parse(report) as Readonly<Record<string, StatementMap>>;
  for (const [path, { statementMap, s }] of Object.entries(files))
    for (const [id, { start }] of Object.entries(statementMap))
      mark(lines, relative('.', path), start.line, s[id]! > 0);
}

interface Range {
  readonly startOffset: number;
  readonly endOffset: number;
  readonly count: number;
}

/** What the engine tells of one file of the pages. */
interface Script {
  readonly name: string;
  readonly functions: readonly { readonly ranges: readonly Range[] }[];
}

/**
 * The engine's ranges, written out: 1 for each character of a file that was run. A smaller range tells of its part
 * better than the larger one around it.
 */
export function charactersRun(length: number, functions: Script['functions']): Uint8Array {
  const run = new Uint8Array(length);
  const ranges = functions.flatMap((one) => one.ranges);
  ranges.sort((a, b) => b.endOffset - b.startOffset - (a.endOffset - a.startOffset));
  for (const { startOffset, endOffset, count } of ranges) run.fill(count > 0 ? 1 : 0, startOffset, endOffset);
  return run;
}

/**
 * Lines run in the browser. Only lines known from the sources are touched: the map also names brackets and types.
 * @param code  of the pages, as it was run
 * @param map  from the code to its sources, as text
 * @param folder  of the code, from which the map names its sources
 * @param run  which characters were run
 */
export function addCode(lines: Lines, code: string, map: string, folder: string, run: Uint8Array): void {
  const starts = [0];
  for (let at = code.indexOf('\n'); at >= 0; at = code.indexOf('\n', at + 1)) starts.push(at + 1);
  eachMapping(new TraceMap(map), ({ source, originalLine, generatedLine, generatedColumn }) => {
    if (source === null || !run[starts[generatedLine - 1]! + generatedColumn]) return;
    const path = relative('.', resolve(folder, source));
    if (lines.get(path)?.has(originalLine)) mark(lines, path, originalLine, true);
  });
}

/**
 * Lines run in the browser, of all visits together.
 * @param kept  the folder of what was kept of each visit
 * @param built  the folder of the pages' code
 * @param maps  the folder of their maps
 */
export function addVisits(lines: Lines, kept: string, built: string, maps: string): void {
  const runs = new Map<string, { code: string; run: Uint8Array }>();
  for (const visit of readdirSync(kept))
    for (const { name, functions } of JSON.parse(readFileSync(join(kept, visit), 'utf8')) as Script[]) {
      const known = runs.get(name);
      const code = known?.code ?? readFileSync(join(built, name), 'utf8');
      const run = charactersRun(code.length, functions);
      known?.run.forEach((was, i) => was && (run[i] = 1));
      runs.set(name, { code, run });
    }
  // A file that only hands on what others hold has no map.
  for (const [name, { code, run }] of runs) {
    const map = join(maps, `${name}.map`);
    if (existsSync(map)) addCode(lines, code, readFileSync(map, 'utf8'), built, run);
  }
}

/** How many percent of the lines of a room were run. */
export function percentRun(lines: Lines, room: string): number {
  const all = [...lines].filter(([file]) => file.startsWith(`${room}/`)).flatMap(([, known]) => [...known.values()]);
  return (100 * all.filter(Boolean).length) / all.length;
}

/** Keeps what a watched page has run, function by function: to count each branch would slow it down by half. */
async function keep(wire: CDPSession, folder: string): Promise<void> {
  const { result } = await wire.send('Profiler.takePreciseCoverage');
  const ours: Script[] = result
    .filter(({ url }) => /\/assets\/[^/]+\.js$/.test(url))
    .map(({ url, functions }) => ({ name: url.slice(url.lastIndexOf('/') + 1), functions }));
  mkdirSync(folder, { recursive: true });
  writeFileSync(join(folder, `${process.pid}-${Date.now()}-${Math.random()}.json`), JSON.stringify(ours));
}

/** From here on, if it is wanted, what a page runs is kept when it is left, loaded again or closed. */
export async function watchPage(page: Page, context: BrowserContext): Promise<void> {
  const folder = process.env[KEPT_IN];
  if (!folder) return;
  const wire = await context.newCDPSession(page);
  await wire.send('Profiler.enable');
  await wire.send('Profiler.startPreciseCoverage', { callCount: false, detailed: false });
  const [goto, reload, close] = [page.goto.bind(page), page.reload.bind(page), context.close.bind(context)];
  page.goto = async (...given) => keep(wire, folder).then(() => goto(...given));
  page.reload = async (...given) => keep(wire, folder).then(() => reload(...given));
  context.close = async () => {
    if (!page.isClosed()) await keep(wire, folder);
    await close();
  };
}
