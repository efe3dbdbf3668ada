import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import type { Voice } from '../contract/voice.ts';
import { unzip } from '../core/formats/zip.ts';
import { madeWord } from '../core/listening/voice.test-helper.ts';
import { wavFile } from '../core/sound/wav.ts';
import { School, lookAround } from './browser.test-helper.ts';

const folder = mkdtempSync(join(tmpdir(), 'voice-'));
const RATE = 48_000;
const SAID = ['on', 'tom', 'ti', 'so'];
/** Seconds from the browser's start to the first word, and from one to the next. */
const [FIRST, APART] = [5, 1.4];

/** Somebody says a few words, each once. */
function microphone(): string {
  const samples = new Float32Array(Math.ceil((FIRST + SAID.length * APART) * RATE));
  SAID.forEach((letters, i) =>
    samples.set(madeWord(letters, { sampleRate: RATE, pitch: 180 }).samples, (FIRST + i * APART) * RATE),
  );
  const path = join(folder, 'said.wav');
  writeFileSync(path, wavFile(samples, RATE));
  return path;
}

let school: School;
type Page = Awaited<ReturnType<School['visitor']>>['page'];

beforeAll(async () => {
  const args = [
    '--use-fake-ui-for-media-stream',
    '--use-fake-device-for-media-stream',
    `--use-file-for-fake-audio-capture=${microphone()}%noloop`,
  ];
  school = await School.open({ args, heard: true });
});
afterEach(() => school.tidy());
afterAll(async () => {
  await school.close();
  rmSync(folder, { recursive: true, force: true });
});

const voiceOf = (page: Page) => page.evaluate(async () => (await (await fetch('/api/account/voice')).json()) as Voice);
const saidCards = (page: Page) =>
  page.locator('.voice-words li').filter({ has: page.getByText('said', { exact: true }) });

/** A sound file of what Lead would do, without its clicks. */
async function ledSound(page: Page): Promise<Buffer> {
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Make a sound file' }).click();
  return readFileSync(await (await download).path());
}

describe('a teacher’s own voice', () => {
  it('is said word by word, kept without a server too, heard, and then spoken by Lead', async () => {
    const { page, context } = await school.visitor();
    await lookAround(page);
    await page.evaluate(() => fetch('/api/account/voice', { method: 'DELETE' }));
    await page.getByRole('link', { name: 'Robin Quay' }).click();
    await page.getByRole('link', { name: 'Words of counting' }).click();
    // The server is away while they are said.
    await page.route('**/api/account/voice/words', (route) => route.abort());
    await page.getByRole('button', { name: 'Say the words' }).click();
    await page.getByText(`Word ${SAID.length + 1} of`).waitFor({ timeout: 120_000 });
    await page.keyboard.press('ArrowLeft');
    await page.getByText(`Word ${SAID.length} of`).waitFor();
    await page.keyboard.press('Escape');
    await page.getByText('4 words on this device, not on the server yet').waitFor();
    await page.unroute('**/api/account/voice/words');
    await page.reload();
    await expect.poll(async () => (await voiceOf(page)).words.map(({ word }) => word)).toEqual(['1', '2', '3', '4']);
    const { words } = await voiceOf(page);
    // Where the vowel of each begins in it: at once, after t, after t, after s.
    expect(words.map(({ vowel }) => Math.round(vowel * 20) / 20)).toEqual([0, 0.05, 0.05, 0.15]);
    await expect.poll(() => saidCards(page).count()).toBe(4);

    await page.getByRole('button', { name: 'Hear them over the click' }).click();
    await page.locator('.voice-words .sounding').filter({ hasText: '3' }).waitFor();
    await page.getByRole('button', { name: 'Stop' }).click();
    expect(await page.locator('.voice-words .sounding').count()).toBe(0);

    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save as a file' }).click();
    const file = await (await download).path();
    const names = unzip(readFileSync(file), () => true).map(({ name }) => name);
    expect(names).toEqual(['1.wav', '2.wav', '3.wav', '4.wav', 'voice.json']);
    await page.getByRole('button', { name: 'Remove “2”' }).click();
    await expect.poll(() => saidCards(page).count()).toBe(3);
    await page.getByRole('button', { name: 'Remove my voice' }).click();
    await page.getByRole('button', { name: 'Remove all 3 words' }).click();
    await expect.poll(() => saidCards(page).count()).toBe(0);
    // Back from the file as it was, and a sound from elsewhere is cut.
    const elsewhere = join(folder, 'ready.wav');
    const spoken = new Float32Array(RATE);
    spoken.set(madeWord('ne', { sampleRate: RATE }).samples, RATE / 3);
    writeFileSync(elsewhere, wavFile(spoken, RATE));
    const zip = join(folder, 'voice.zip');
    writeFileSync(zip, readFileSync(file));
    const note = join(folder, 'note.wav');
    writeFileSync(note, 'no sound');
    await page.locator('#voice-file').setInputFiles([zip, elsewhere, note]);
    await page.getByText('5 words brought in.').waitFor();
    await page.getByText('“note.wav”: not a sound this browser can read').waitFor();
    await expect.poll(async () => (await voiceOf(page)).words.length).toBe(5);
    const again = await voiceOf(page);
    expect(again.words.slice(0, 4).map(({ word, vowel }) => [word, vowel])).toEqual(
      words.map(({ word, vowel }) => [word, vowel]),
    );
    expect(again.words[4]!.vowel).toBeGreaterThan(0.09);
    expect(again.words[4]!.sound.length).toBeLessThan(28_000);

    await page.getByRole('link', { name: 'Lead', exact: true }).click();
    const own = await ledSound(page);
    await page.getByLabel('Count with my own voice').uncheck();
    await expect.poll(async () => (await voiceOf(page)).speaks).toBe(false);
    const others = await ledSound(page);
    expect(own.length).toBe(others.length);
    expect(own.equals(others)).toBe(false);
    await page.getByLabel('Count with my own voice').check();
    await expect.poll(async () => (await voiceOf(page)).speaks).toBe(true);
    expect((await ledSound(page)).equals(own)).toBe(true);
    await context.close();
  });
});
