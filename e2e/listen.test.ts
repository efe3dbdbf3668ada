import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { simulate } from '../core/judging/simulatedChild.ts';
import { synthesiseClaps } from '../core/sound/clapSynth.ts';
import { wavFile } from '../core/sound/wav.ts';
import { parseRhythm } from '../core/rhythm/text.ts';
import { School, lookAround } from './browser.test-helper.ts';
import { trial } from '../scripts/test/trial.test-helper.ts';

const folder = mkdtempSync(join(tmpdir(), 'claps-'));
const RATE = 48_000;

/** A recording of a simulated child with “Leaning mast”: the dotted quarter of measure 2 is held too long. */
function recording(name: string, from: number, misread: boolean): string {
  const parsed = parseRhythm('4/4 q. e q q | q. e h');
  if (!parsed.ok) throw new Error('text');
  const { onsets } = simulate(
    parsed.pattern,
    72,
    { spread: 0.012, ...(misread ? { misreads: [{ code: 'dot-too-long', event: 4 }] } : {}) },
    4,
  );
  const path = join(folder, name);
  writeFileSync(
    path,
    wavFile(
      synthesiseClaps(
        onsets.map((time) => time + from),
        { sampleRate: RATE, reverberation: 'classroom', noiseDb: -50, seconds: 14 },
      ),
      RATE,
    ),
  );
  return path;
}

let school: School;
type Page = Awaited<ReturnType<School['visitor']>>['page'];

beforeAll(async () => {
  const microphone = recording('microphone.wav', 4.4, true);
  const args = [
    '--use-fake-ui-for-media-stream',
    '--use-fake-device-for-media-stream',
    `--use-file-for-fake-audio-capture=${microphone}%noloop`,
  ];
  school = await School.open({ args, heard: true });
});

afterEach(() => school.tidy());
afterAll(async () => {
  await school.close();
  rmSync(folder, { recursive: true, force: true });
});

async function openTake(page: Page): Promise<void> {
  await lookAround(page);
  await page.getByRole('link', { name: 'Take', exact: true }).click();
  await page.getByLabel('Class').selectOption({ label: 'Lighthouse 4' });
  await page.getByLabel('Pattern', { exact: true }).selectOption({ label: 'Leaning mast' });
}

describe('claps that are heard', () => {
  it('go from the microphone to the right mark in the class list, and can be corrected', async () => {
    const { page, context } = await school.visitor();
    await openTake(page);
    await page.getByRole('radio', { name: /Celia/ }).check();
    await page.getByLabel('Heard by').selectOption('microphone');
    await page.getByText('goes nowhere').waitFor();
    await page.getByText('No sound is kept').waitFor();
    await page.getByLabel('Click', { exact: true }).selectOption('count-in');
    await page.getByRole('button', { name: /Start: Celia/ }).click();
    await page.getByText('Clap: the microphone listens').waitFor();
    await page.locator('.take-result').waitFor({ timeout: 120_000 });
    await page.getByText('Measure 2, beat 1: you held the dotted quarter note too long').waitFor();
    // All seven notes are right in rhythm, and the slip costs one.
    expect(await page.locator('.mark-number').textContent()).toBe('3');
    await page.locator('.lane-sound').first().waitFor();
    await page.getByText('waiting to be stored').waitFor({ state: 'detached' });
    await page.getByRole('link', { name: /Correct the claps/ }).click();
    await page.getByRole('button', { name: 'Correct the claps' }).click();
    await page.locator('.lane-sound').first().waitFor();
    expect(await page.locator('.clap-lane .clap').count()).toBe(7);
    await page
      .getByRole('button', { name: /^Clap at/ })
      .nth(3)
      .click();
    // The verdicts move at once, before anything is kept; keys take the clap back and move it.
    await page
      .getByText('no clap was heard here')
      .or(page.locator('.mark-number', { hasText: '2' }))
      .first()
      .waitFor();
    const fourth = page.getByRole('button', { name: /^Clap at/ }).nth(3);
    await fourth.press('Enter');
    expect(await page.locator('.mark-number').textContent()).toBe('3');
    const before = await fourth.getAttribute('aria-label');
    await fourth.press('Shift+ArrowRight');
    expect(await fourth.getAttribute('aria-label')).not.toBe(before);
    await page.getByRole('button', { name: 'As it was heard' }).click();
    await page
      .getByRole('button', { name: /^Clap at/ })
      .nth(3)
      .press('Delete');
    await page.getByRole('button', { name: 'Keep these claps' }).click();
    await page.getByText('claps corrected by hand').waitFor();
    expect(await page.locator('.mark-number').textContent()).toBe('2');
    await page.getByLabel('Your mark').selectOption('4');
    await page.getByLabel('Reason').fill('the microphone missed one');
    await page.getByRole('button', { name: 'Keep' }).click();
    await page.getByText('set to 4: the microphone missed one').waitFor();
    await page.getByRole('link', { name: 'Back to the class' }).click();
    await page.getByRole('link', { name: 'Celia', exact: true }).click();
    const row = page.locator('.takes-cell tbody tr').first();
    expect(await row.getByRole('cell').nth(4).textContent()).toBe('2');
    expect(await row.getByLabel('Teacher’s mark for Leaning mast').inputValue()).toBe('4');
    await context.close();
  });

  trial('hears one clap before the take, and offers tapping where there is no microphone', async () => {
    const { page, context } = await school.visitor();
    await openTake(page);
    await page.getByLabel('Heard by').selectOption('microphone');
    await page.getByRole('button', { name: 'Use the microphone' }).click();
    await page.getByText('Clap once.').waitFor();
    await page.getByText('Good.', { exact: true }).waitFor({ timeout: 120_000 });
    await context.close();
    const refused = await school.visitor();
    await refused.context.addInitScript(() => {
      navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('no', 'NotAllowedError'));
    });
    await refused.page.reload();
    await openTake(refused.page);
    await refused.page.getByLabel('Heard by').selectOption('microphone');
    await refused.page.getByRole('button', { name: 'Use the microphone' }).click();
    await refused.page.getByText('Allow it at the left of the address').waitFor();
    await refused.page.getByRole('button', { name: 'Tap instead' }).click();
    expect(await refused.page.getByLabel('Heard by').inputValue()).toBe('claps');
    await refused.context.close();
  });

  trial('takes recordings, finds the names in theirs, and does not stop at a bad one', async () => {
    const { page, context } = await school.visitor();
    await openTake(page);
    const bad = join(folder, 'notes.txt');
    writeFileSync(bad, 'no sound at all');
    await page
      .getByLabel('Sound files')
      .setInputFiles([recording('Wren at home.wav', 1, false), bad, recording('take7.wav', 1, true)]);
    await page.getByText('not a sound file this browser can read').waitFor();
    await page.getByText('7 claps').nth(1).waitFor();
    expect(await page.getByLabel('Who claps in Wren at home.wav').locator('option:checked').textContent()).toBe('Wren');
    await page.getByLabel('Who claps in take7.wav').selectOption({ label: 'Yara' });
    await page.getByLabel('Beat 1 of measure 1').fill('1');
    await page.getByRole('button', { name: 'Judge these 2' }).click();
    await page.locator('.recordings tbody tr').nth(2).getByRole('cell', { name: '3' }).waitFor();
    await page.getByText('waiting to be stored').waitFor({ state: 'detached' });
    await page.goto(`${school.url}/classes`);
    await page.getByRole('link', { name: /Lighthouse 4/ }).click();
    await page.getByRole('link', { name: 'Wren', exact: true }).click();
    await page.locator('.takes-cell tbody tr').first().getByRole('link', { name: 'Leaning mast' }).click();
    await page.getByText('Well done: it was right.').waitFor();
    await context.close();
  });
});

describe('judging as the teacher sets it', () => {
  trial('shows what would change before it is saved', async () => {
    const { page, context } = await school.guest();
    await page.getByRole('link', { name: 'Class', exact: true }).click();
    await page.getByRole('link', { name: /Harbour 2/ }).click();
    await page.getByRole('button', { name: 'Marks', exact: true }).click();
    await page.getByText(/None of \d+ marks would change/).waitFor();
    await page.getByLabel('On time within').fill('45');
    await page.getByText(/\d+ of \d+ marks would change: 0 up/).waitFor();
    await page.getByLabel('Mark 3: at least, per cent').fill('97');
    await page.getByText('each lower mark needs a lower border').waitFor();
    await page.getByLabel('Mark 3: at least, per cent').fill('80');
    await page.getByLabel('Keep recordings of children').check();
    await page.getByRole('button', { name: 'Save' }).click();
    await page.getByLabel('On time within').waitFor({ state: 'detached' });
    await page.getByRole('button', { name: 'Marks', exact: true }).click();
    expect(await page.getByLabel('On time within').inputValue()).toBe('45');
    await page.getByText(/None of \d+ marks would change/).waitFor();
    await context.close();
  });

  trial('lets the practice child show what a misreading looks like, for teacher and child', async () => {
    const { page, context } = await school.visitor();
    await openTake(page);
    await page.getByLabel('No child here').selectOption('dot-too-short');
    await page.getByRole('button', { name: 'Hear the practice child' }).click();
    await page.getByText('you left out the dot').first().waitFor();
    await page.getByText('nothing of it is kept').waitFor();
    await page.getByText('How the mark came about').click();
    await page.getByText('followed from there').waitFor();
    await page.locator('.tempo-chart svg').first().waitFor();
    await page.getByLabel('Show').selectOption('1');
    await page.locator('.ruler-board').waitFor();
    await page.getByRole('button', { name: 'For the child' }).click();
    const forChild = page.getByRole('region', { name: 'For the child' });
    await forChild.locator('.child-words p').nth(1).waitFor();
    // What is below is neither seen nor reached.
    const reached = new Set<string>();
    for (let i = 0; i < 8; i++) {
      await page.keyboard.press('Tab');
      reached.add(await page.evaluate(() => document.activeElement!.textContent));
    }
    expect([...reached].filter((one) => one.length < 30)).toEqual([' Hear it again', 'For the teacher Esc']);
    await page.keyboard.press('Escape');
    await forChild.waitFor({ state: 'detached' });
    await page.getByRole('link', { name: /Practise measure \d at 60/ }).click();
    await page.getByRole('button', { name: /Start/ }).waitFor();
    expect(await page.getByLabel('Plan', { exact: true }).locator('option:checked').textContent()).toBe(
      'Practise a measure',
    );
    expect(await page.getByLabel('Tempo 1, beats a minute').inputValue()).toBe('60');
    await context.close();
  });

  trial('offers to calibrate the device where all of a take was behind the click', async () => {
    const { page, context } = await school.visitor();
    await openTake(page);
    await page.getByLabel('No child here').selectOption('behind-the-click');
    await page.getByRole('button', { name: 'Hear the practice child' }).click();
    await page.getByRole('link', { name: 'Calibrate this device' }).click();
    await page.getByRole('heading', { name: 'Tap along with sixteen clicks' }).waitFor();
    await page.keyboard.press('Escape');
    await page.getByRole('heading', { name: 'Tap along with sixteen clicks' }).waitFor({ state: 'detached' });
    expect(new URL(page.url()).searchParams.has('calibrate')).toBe(false);
    await context.close();
  });
});
