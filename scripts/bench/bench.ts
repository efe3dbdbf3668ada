import { spawnSync } from 'node:child_process';
import autocannon from 'autocannon';
import { chromium } from 'playwright-core';
import { countPattern, plainCounts } from '../../core/counting/count.ts';
import { SPOKEN_SCHOOLS, readSpeech } from '../../core/spoken/readSpeech.ts';
import { COUNTING_SYSTEM_IDS } from '../../core/counting/countingSystems.ts';
import { randomFrom } from '../../core/random.ts';
import { chooseQuestions } from '../../core/exercises/kinds/chooseRhythm.ts';
import { READY_PLANS } from '../../core/leading/plan.ts';
import { timetable } from '../../core/leading/timetable.ts';
import { simulateTake } from '../../core/judging/simulatedChild.ts';
import { parseRhythm, printRhythm } from '../../core/rhythm/text.ts';
import { CLASSES } from '../../demo/school.ts';
import { benchJudging } from './benchJudging.ts';
import { benchFiles } from './benchFiles.ts';
import { benchPlanning } from './benchPlanning.ts';
import { benchRecords } from './benchRecords.ts';
import { benchSheets } from './benchSheets.ts';
import { benchTakes } from './benchTakes.ts';
import { benchListening } from './benchListening.ts';
import { benchStoring } from './benchStoring.ts';
import { report, timed } from './benchReport.ts';
import { launchOptions } from '../test/browser.ts';
import { withDemoServer } from '../commands/demoServer.ts';

// Every figure stands beside a baseline of the same run, so that machines can be compared.

const random = randomFrom(7);
const CELLS = ['q', 'e e', 's s s s', 'e s s', '(q)', 'e. s', '3{e e e}', 'e (e)'];
const measure = () => Array.from({ length: 4 }, () => random.pick(CELLS)).join(' ');
const patternText = (measures: number) => `4/4 ${Array.from({ length: measures }, measure).join(' | ')}`;

/** A pattern of four measures with just 32 notes. */
const NOTES_32 = '4/4 q e e s s s s q | e e e e e e e e | q s s s s e e q | e e e e e e e e';

/** Lines through the command line, its start included, beside JSON.parse of the same bytes. */
function batch(verb: string, name: string, requests: readonly object[]): void {
  const input = requests.map((request) => JSON.stringify(request)).join('\n');
  const parse = timed(() => input.split('\n').map((line) => JSON.parse(line) as unknown)).seconds;
  const { seconds, result } = timed(() =>
    spawnSync('bin/clapboard', [verb, '--batch'], { input, encoding: 'utf8', maxBuffer: 2 ** 30 }),
  );
  const answered = result.stdout.trim().split('\n').length;
  if (answered !== requests.length || result.stdout.includes('"error"'))
    throw new Error(`${verb}: ${answered} answers to ${requests.length} requests`);
  report(
    name,
    `${Math.round(requests.length / seconds)} a second`,
    `${(seconds / parse).toFixed(1)} × JSON.parse of the same bytes`,
  );
}

function benchCommandLine(): void {
  const parsed = parseRhythm(NOTES_32);
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.at));
  const takes = Array.from({ length: 20_000 }, (_, i) => ({
    id: i,
    pattern: NOTES_32,
    bpm: 76,
    onsets: simulateTake(parsed.pattern, 76, { spread: 0.03, lead: 0.03, leavesOut: 0.03 }, i),
  }));
  batch('score', 'score --batch, 32 notes', takes);
  const counts = Array.from({ length: 20_000 }, (_, i) => ({
    id: i,
    text: patternText(4),
    school: COUNTING_SYSTEM_IDS[i % (COUNTING_SYSTEM_IDS.length - 2)],
  }));
  batch('count', 'count --batch, 4 measures, no two alike', counts);
}

/** Every pattern counted in every school, and led back to writing in every school that can. */
function benchSpeech(): void {
  const texts = Array.from({ length: 1000 }, () => patternText(8));
  const parse = timed(() => texts.map((text) => parseRhythm(text)));
  const patterns = parse.result.flatMap((parsed) => (parsed.ok ? [parsed.pattern] : []));
  const spoken = timed(
    () =>
      new Map(
        COUNTING_SYSTEM_IDS.map((school) => [school, patterns.map((pattern) => countPattern(pattern, { school }))]),
      ),
  );
  const said = timed(() => {
    for (const school of SPOKEN_SCHOOLS)
      for (const counted of spoken.result.get(school)!)
        if (counted.ok) readSpeech(plainCounts(counted.measures), school, { most: 1 });
  });
  report(
    '1,000 patterns of 8 measures, all schools',
    `count ${spoken.seconds.toFixed(1)} s, say ${said.seconds.toFixed(1)} s`,
    `${((spoken.seconds + said.seconds) / parse.seconds).toFixed(0)} × reading the rhythm text`,
  );
}

/** Questions for the ear, each from a seed of its own, beside reading the texts of one. */
function benchChoosing(): void {
  const wanted = {
    elements: ['quarter', 'eighth-pair', 'quarter-rest', 'half'],
    meter: { upper: 4, lower: 4 },
    beats: 4,
  } as const;
  const COUNT = 2000;
  const all = timed(() => Array.from({ length: COUNT }, (_, seed) => chooseQuestions(wanted, seed, 1)));
  const texts = all.result.flatMap(([question]) => question!.options.map((option) => JSON.stringify(option.answer)));
  const read = timed(() => texts.map((text) => parseRhythm((JSON.parse(text) as { text: string }).text)));
  report(
    'questions “which of four”',
    `${Math.round(COUNT / all.seconds)} a second`,
    `${(all.seconds / read.seconds).toFixed(0)} × reading their texts`,
  );
}

function benchTimetable(): void {
  const parsed = parseRhythm(patternText(64));
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.at));
  const plan = { ...READY_PLANS()[1]!, ladder: Array.from({ length: 15 }, (_, i) => ({ bpm: 200 + i, passes: 2 })) };
  const runs = Array.from({ length: 21 }, () =>
    timed(() => timetable(structuredClone(parsed.pattern), plan, { school: 'numbers' })),
  );
  const { result } = runs[0]!;
  if (!result.ok) throw new Error(result.trouble.code);
  const read = timed(() => parseRhythm(printRhythm(parsed.pattern))).seconds;
  const [median, first] = [runs.map(({ seconds }) => seconds).sort((a, b) => a - b)[10]!, runs[0]!.seconds];
  report(
    'timetable, 64 measures, 30 passes',
    `median ${(median * 1000).toFixed(0)} ms, first ${(first * 1000).toFixed(0)} ms`,
    `${(median / read).toFixed(0)} × reading the rhythm text (${result.timetable.cues.length} cues)`,
  );
}

/** Frames a second while a run goes, beside an idle page. */
async function benchLeading(url: string): Promise<void> {
  const browser = await chromium.launch(launchOptions());
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript('globalThis.__name = (named) => named');
  await page.goto(url);
  await page.getByRole('button', { name: /Look around/ }).click();
  const frames = () =>
    page.evaluate(async () => {
      let count = 0;
      const from = performance.now();
      while (performance.now() < from + 4000) {
        await new Promise((done) => requestAnimationFrame(done));
        count++;
      }
      return (count * 1000) / (performance.now() - from);
    });
  await page.goto(`${url}/lead`);
  await page.getByRole('button', { name: /Start/ }).waitFor();
  const idle = await frames();
  await page.getByRole('button', { name: /Start/ }).click();
  await page.locator('.lane-notes svg').first().waitFor();
  await page.waitForTimeout(3000);
  const running = await frames();
  report(
    'frames a second while leading',
    running.toFixed(0),
    `${(running / idle).toFixed(2)} × an idle page (${idle.toFixed(0)})`,
  );
  await browser.close();
}

async function visit(url: string): Promise<string> {
  const response = await fetch(`${url}/api/session/visit`, { method: 'POST' });
  return response.headers.get('set-cookie')!.split(';')[0]!;
}

async function benchServer(url: string): Promise<void> {
  const cookie = await visit(url);
  const rooms = (await (await fetch(`${url}/api/classes`, { headers: { cookie } })).json()) as {
    id: string;
    name: string;
  }[];
  const room = rooms.find(({ name }) => name === CLASSES[0]!.name)!;
  const load = (path: string) => autocannon({ url: url + path, connections: 20, duration: 5, headers: { cookie } });
  await load('/healthz');
  const health = await load('/healthz');
  const list = await load(`/api/classes/${room.id}`);
  if (list.non2xx > 0) throw new Error(`${list.non2xx} requests failed`);
  const ratio = list.latency.average / health.latency.average;
  report(
    'class of 24 with six weeks of takes, 20 at once',
    `p50 ${list.latency.p50} ms, p97.5 ${list.latency.p97_5} ms`,
    `${ratio.toFixed(2)} × /healthz (${health.latency.average.toFixed(1)} ms)`,
  );
  await benchStoring(url, [{ cookie, classId: room.id }]);
}

/** Four parts of as many measures, in which the last one is typed. */
function partsText(count: number): string {
  const rhythm = patternText(count).replace(/^4\/4 /, '');
  return `4/4 [clap] ${rhythm} [pat] ${rhythm} [stamp] ${rhythm} [snap] ${rhythm}`;
}

/** @param parts  1, or 4 of the same measures */
async function benchTyping(url: string, count: number, parts: 1 | 4 = 1): Promise<void> {
  const browser = await chromium.launch(launchOptions());
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  // The tool that runs this file gives functions their names by a helper that the page does not have.
  await page.addInitScript('globalThis.__name = (named) => named');
  await page.goto(url);
  await page.getByRole('button', { name: /Look around/ }).click();
  await page.getByRole('link', { name: 'Patterns', exact: true }).click();
  await page.getByRole('button', { name: /New pattern/ }).click();
  await page.getByLabel('Rhythm', { exact: true }).fill(parts === 1 ? patternText(count) : partsText(count));
  await page
    .locator('.lane-notes svg')
    .nth((count / 4) * parts - 1)
    .waitFor();
  await page.waitForTimeout(1500);
  // From the keystroke to the end of the frame that shows it: two animation frames and what is queued behind them.
  const { typed, idle } = await page.evaluate(async (inParts) => {
    const field = document.querySelector('textarea')!;
    const value = Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value')!;
    const frame = () => new Promise((done) => requestAnimationFrame(() => setTimeout(done)));
    const one = async (change: () => void) => {
      await frame();
      const from = performance.now();
      change();
      const busy = performance.now() - from;
      await frame();
      return { busy, shown: performance.now() - from };
    };
    const typedTimes: { busy: number; shown: number }[] = [];
    const idleTimes: { busy: number; shown: number }[] = [];
    const text = field.value;
    for (let i = 0; i < 40; i++) {
      // A measure more; in parts, where all have as many, another note.
      const more = inParts ? text.replace(/\S+ \S+$/, 'h') : `${text.replace(/\S+$/, 'h')} | q q e e q`;
      const next = i % 2 === 0 ? more : text;
      typedTimes.push(
        await one(() => {
          value.set!.call(field, next);
          field.dispatchEvent(new Event('input', { bubbles: true }));
        }),
      );
      idleTimes.push(await one(() => undefined));
    }
    return { typed: typedTimes, idle: idleTimes };
  }, parts > 1);
  const median = (values: number[]) => values.sort((a, b) => a - b)[values.length >> 1]!;
  const worst = (values: number[]) => values.sort((a, b) => a - b)[Math.floor(values.length * 0.95)]!;
  const shown = typed.map((time) => time.shown);
  report(
    `keystroke to redrawn ruler, ${count} measures${parts > 1 ? ` of ${parts} parts` : ''}`,
    `median ${median(shown).toFixed(0)} ms, p95 ${worst(shown).toFixed(0)} ms`,
    `${(median(shown) / median(idle.map((time) => time.shown))).toFixed(1)} × an empty frame`,
  );
  await browser.close();
}

const HERE: Readonly<Record<string, () => void | Promise<void>>> = {
  'command-line': benchCommandLine,
  speech: benchSpeech,
  choosing: benchChoosing,
  files: benchFiles,
  sheets: benchSheets,
  planning: benchPlanning,
  timetable: benchTimetable,
  judging: benchJudging,
  records: () => {
    for (const seed of [1001, 1002, 1003]) benchRecords(seed);
  },
  takes: () => benchTakes(),
  listening: benchListening,
};
const SERVED: Readonly<Record<string, (url: string) => Promise<void>>> = {
  server: benchServer,
  typing: async (url) => {
    for (const count of [16, 64]) await benchTyping(url, count);
    await benchTyping(url, 16, 4);
  },
  leading: benchLeading,
};

// All of them, or those that are named: `npm run bench -- judging typing`.
const named = process.argv.slice(2);
const wanted = <T>(all: Readonly<Record<string, T>>) =>
  Object.entries(all).flatMap(([name, run]) => (named.length === 0 || named.includes(name) ? [run] : []));
for (const run of wanted(HERE)) await run();
const served = wanted(SERVED);
if (served.length > 0)
  await withDemoServer(async (url) => {
    for (const run of served) await run(url);
  });
