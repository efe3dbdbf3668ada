import { readFileSync } from 'node:fs';
import type { Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { readBack } from '../core/formats/read.test-helper.ts';
import { readFile } from '../core/formats/readFile.ts';
import { writeMusicXml } from '../core/formats/writeMusicXml.ts';
import { unzip } from '../core/formats/zip.ts';
import { parseRhythm } from '../core/rhythm/text.ts';
import { School } from './browser.test-helper.ts';
import { trial } from '../scripts/test/trial.test-helper.ts';

let school: School;
beforeAll(async () => {
  school = await School.open();
});
afterEach(() => school.tidy());
afterAll(() => school.close());

const at = async (path: string) => school.guest({ acceptDownloads: true }, path);

function patternOf(text: string) {
  const parsed = parseRhythm(text);
  if (!parsed.ok) throw new Error(text);
  return parsed.pattern;
}

const file = (name: string, content: string | Uint8Array) => ({
  name,
  mimeType: 'application/octet-stream',
  buffer: Buffer.from(content),
});

const TUNES = `X:1
T:Low tide reel
M:4/4
L:1/8
K:D
|:d2|A2BA F2A2|B4 A2:|

X:2
T:Gulls
M:6/8
L:1/8
K:G
G2A B2A|G6|]
`;
/** Another program's score: two parts, the second of another rhythm. */
const SCORE = [
  writeMusicXml(patternOf('4/4 q q h | w'), { title: 'Harbour march' }),
  writeMusicXml(patternOf('4/4 e e q h | h h')),
]
  .map((xml) => xml.replace('Clapboard', 'Quill'))
  .reduce((first, second) => {
    const part = /<part id="P1">[\s\S]*<\/part>/.exec(second)![0].replace('P1', 'P2');
    const named = '<score-part id="P2"><part-name>Drum</part-name></score-part></part-list>';
    return first.replace('</part-list>', named).replace('</score-partwise>', `${part}</score-partwise>`);
  });

/** Titles and texts of the patterns that the server has. */
async function saved(page: Page): Promise<Record<string, string>> {
  const all = (await (await page.request.get(new URL('/api/patterns', page.url()).href)).json()) as {
    title: string;
    text: string;
  }[];
  return Object.fromEntries(all.map(({ title, text }) => [title, text]));
}

const card = (page: Page, title: string) => page.getByRole('region', { name: title });

describe('files that are brought in', () => {
  it('show as notes, what is left out is said, and only what is taken is saved', async () => {
    const { page } = await at('/patterns');
    await page.getByRole('link', { name: /Two gulls/ }).waitFor();
    const choosing = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: /Bring in/ }).press('b');
    const chooser = await choosing;
    await chooser.setFiles([
      file('tunes.abc', TUNES),
      file('march.musicxml', SCORE),
      file('broken.xml', '<score-partwise>'),
    ]);
    await page.getByText('broken.xml cannot be read: the XML is broken at line 1').waitFor();
    await card(page, 'Low tide reel').locator('.lane-notes svg').first().waitFor();
    expect(await card(page, 'Low tide reel').locator('.left-out').textContent()).toBe(
      'Left out: the pitches of 8 notes.',
    );
    expect(await saved(page)).not.toHaveProperty('Gulls');

    const march = card(page, 'Harbour march');
    // Two parts of the same measures are one pattern, unless one of them is chosen.
    expect(await march.locator('.ruler [data-part]').count()).toBe(2);
    await march.getByLabel('Part').selectOption({ label: 'Drum' });
    await march.getByText('Left out: one other part.').waitFor();
    await march.getByLabel('How much').selectOption({ label: 'only measures …' });
    await march.getByLabel('From measure').fill('2');
    await march.getByLabel('To measure').fill('9');
    await march.getByText('It cannot be saved: there are no measures 2 to 9; they are numbered 1 to 2.').waitFor();
    await march.getByLabel('To measure').fill('2');
    await page.getByLabel('Title of march.musicxml').fill('March');
    const gulls = card(page, 'Gulls');
    await gulls.getByLabel('On the notes').selectOption({ label: 'letter names on the notes' });
    await card(page, 'Low tide reel').getByLabel('Low tide reel', { exact: true }).uncheck();
    await page.getByRole('button', { name: 'Save 2 patterns' }).waitFor();
    await page.getByRole('heading', { name: 'Bring in' }).click();
    await page.keyboard.press(' ');
    await page.getByRole('link', { name: /^March, 2–2/ }).waitFor();
    const after = await saved(page);
    expect(after['March, 2–2']).toBe('4/4 #2 h h');
    expect(after['Gulls']).toBe("6/8 q'G' e'A' q'B' e'A' | h.'G'");
    expect(after).not.toHaveProperty('Low tide reel');
  });

  trial('several parts become one rhythm, and a measure that does not add up is mended in place', async () => {
    const { page } = await at('/patterns');
    await page
      .getByLabel('Files to bring in')
      .setInputFiles([file('march.musicxml', SCORE), file('short.txt', '% Short\n4/4 q q h | q q')]);
    await card(page, 'Harbour march').getByLabel('Part').selectOption({ label: 'all parts as one rhythm' });
    const short = card(page, 'Short');
    await short.getByText('It cannot be saved: measure 2 is 2 beats short.').waitFor();
    await short.getByLabel('Rhythm of Short').fill('4/4 q q h | q q h');
    await page.getByRole('button', { name: 'Save 2 patterns' }).click();
    await page.getByRole('link', { name: /^Short/ }).waitFor();
    expect(await saved(page)).toMatchObject({ Short: '4/4 q q h | q q h', 'Harbour march': '4/4 e e q h | h h' });
  });

  trial('are dropped on the list; a dead server loses nothing and saves nothing twice', async () => {
    const { page, context } = await at('/patterns');
    await page.getByRole('heading', { name: 'Patterns' }).waitFor();
    const dropped = await page.evaluateHandle(
      (text) => {
        const transfer = new DataTransfer();
        transfer.items.add(new File([text], 'phrases.txt'));
        return transfer;
      },
      `% Phrases\n4/4 ${'q q h | '.repeat(19)}w`,
    );
    await page.dispatchEvent('.drop-target', 'drop', { dataTransfer: dropped });
    const save = page.getByRole('button', { name: 'Save 3 patterns' });
    await save.waitFor();
    await context.setOffline(true);
    await save.click();
    await page.getByText('The server cannot be reached').waitFor();
    expect(await page.locator('.offer').count()).toBe(3);
    await context.setOffline(false);
    await page.getByRole('button', { name: 'Try again' }).click();
    await page.getByRole('link', { name: /^Phrases, 17–20/ }).waitFor();
    const titles = Object.keys(await saved(page)).filter((title) => title.startsWith('Phrases'));
    expect(titles.sort()).toEqual(['Phrases, 17–20', 'Phrases, 1–8', 'Phrases, 9–16']);
  });

  trial('that were played freely are heard as a take', async () => {
    const { page } = await at('/patterns');
    await page.getByLabel('Files to bring in').setInputFiles([file('pad.mid', freely())]);
    await page.getByText('was played freely, so no notes are made of it').waitFor();
    await page.getByRole('button', { name: 'Hear it as a take' }).click();
    await page.getByText('24 claps').waitFor();
    await page.getByLabel('Who claps in pad.mid').selectOption({ index: 1 });
    await page.getByRole('button', { name: 'Judge it' }).click();
    await page
      .locator('.recordings tbody td')
      .nth(3)
      .getByText(/^[0-4]$/)
      .waitFor();
  });
});

/** Twenty-four claps that no grid explains, as MIDI. */
function freely(): Uint8Array {
  const events = Array.from({ length: 24 }, (_, i) => {
    const delta = Math.round(150 + 90 * Math.sin(i * 7.3) + 40 * Math.cos(i * 2.1));
    return [0x80 | (delta >> 7), delta & 127, 0x99, 39, 90, 60, 0x89, 39, 0];
  }).flat();
  const track = [...events, 0, 0xff, 0x2f, 0];
  const letters = (text: string) => [...text].map((sign) => sign.charCodeAt(0));
  const head = [...letters('MThd'), 0, 0, 0, 6, 0, 0, 0, 1, 1, 0xe0];
  return Uint8Array.from([...head, ...letters('MTrk'), 0, 0, track.length >> 8, track.length & 255, ...track]);
}

/** What a click saves. */
async function download(page: Page, button: RegExp): Promise<{ name: string; bytes: Uint8Array }> {
  const [saving] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: button }).click(),
  ]);
  return { name: saving.suggestedFilename(), bytes: readFileSync(await saving.path()) };
}

describe('files that are taken out', () => {
  it('are of every format, and come back as the same pattern', async () => {
    const { page } = await at('/patterns');
    await page.getByRole('link', { name: /Before the bell/ }).click();
    await page.getByRole('button', { name: 'Lead the class' }).waitFor();
    await page.getByRole('button', { name: 'Take out' }).click();
    const as = page.getByLabel('As', { exact: true });
    const begins = {
      pdf: '%PDF',
      png: '\x89PNG',
      svg: '<svg',
      musicxml: '<?xml',
      mxl: 'PK',
      midi: 'MThd',
      wav: 'RIFF',
      abc: '%abc',
      text: '4/4 ',
    };
    for (const [id, start] of Object.entries(begins)) {
      await as.selectOption(id);
      if (id === 'midi') await page.getByLabel('Sound', { exact: true }).selectOption('wood');
      const { name, bytes } = await download(page, /Save the file/);
      expect(Buffer.from(bytes).toString('latin1')).toMatch(new RegExp(`^${start.replace('?', '\\?')}`));
      expect(name).toMatch(/^Before the bell\.\w+$/);
      if (!['pdf', 'png', 'svg', 'wav'].includes(id))
        expect(readBack(await readFile(name, bytes)).text).toBe('4/4 ^ q | q q e e q | h.');
    }
  });

  trial('are all patterns, or some, in one file, and come back', async () => {
    const { page } = await at('/patterns');
    await page.getByRole('button', { name: 'Take out' }).click();
    await page.getByLabel('As', { exact: true }).selectOption('musicxml');
    const all = await page.locator('.pattern-choice').count();
    const zipped = await download(page, /Save \d+ patterns/);
    expect(zipped.name).toBe('Patterns.zip');
    expect(unzip(zipped.bytes, () => true)).toHaveLength(all);
    const read = await readFile(zipped.name, zipped.bytes);
    expect(
      read.ok && Object.fromEntries(read.pieces.map(({ title }, i) => [title, readBack(read, {}, { piece: i }).text])),
    ).toEqual(await saved(page));
    await page.getByRole('button', { name: 'Choose none' }).click();
    await page.getByLabel('Take out Two gulls').check();
    await page.getByLabel('Take out Fog horn').check();
    await page.getByLabel('As', { exact: true }).selectOption('text');
    const text = await download(page, /Save 2 patterns/);
    expect(new TextDecoder().decode(text.bytes)).toMatch(/^% Two gulls\n4\/4 .*\n\n% Fog horn\n4\/4 .*\n$/);
  });
});
