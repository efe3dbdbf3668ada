import { readFileSync } from 'node:fs';
import { build } from 'esbuild';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { School, lookAround } from './browser.test-helper.ts';
import { trial } from '../scripts/test/trial.test-helper.ts';

let school: School;

beforeAll(async () => {
  school = await School.open();
});

afterEach(() => school.tidy());
afterAll(() => school.close());

type Page = Awaited<ReturnType<School['visitor']>>['page'];

async function openLead(page: Page): Promise<void> {
  await lookAround(page);
  await page.getByRole('link', { name: 'Lead', exact: true }).click();
  await page.getByRole('button', { name: /Start/ }).waitFor();
  await page.getByLabel('Pattern', { exact: true }).selectOption({ label: 'Leaning mast' });
}

/** What a page needs to lead without the app around it. */
const LEAD_MODULES = [
  'web/audio/leadPlayer.ts',
  'web/audio/mixer.ts',
  'web/audio/soundBank.ts',
  'core/leading/timetable.ts',
  'core/rhythm/text.ts',
  'core/leading/plan.ts',
];

describe('leading a class', () => {
  it('runs by keyboard alone: start, pause, passes by a clicker, cover, half speed, stop', async () => {
    const { page, context } = await school.visitor({ reducedMotion: 'reduce' });
    await openLead(page);
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await page.getByText('44 s', { exact: true }).waitFor();
    await page.keyboard.press('PageDown');
    const now = page.locator('.lead-now');
    await now.getByText('1 of 3 · say the counts · 60').waitFor();
    await page.locator('.cue-text').filter({ hasText: /^go$/ }).waitFor();
    await page
      .locator('.cue-text')
      .filter({ hasText: /^tom$|^1$/ })
      .waitFor();
    expect(
      await page
        .locator('.moving-beat')
        .first()
        .evaluate((mark) => getComputedStyle(mark).animationName),
    ).toBe('none');
    await page.keyboard.press('c');
    await page.locator('.cover').waitFor();
    await page.keyboard.press('u');
    await page.locator('.cover').waitFor({ state: 'detached' });
    await page.keyboard.press('PageDown');
    await now.getByText('2 of 3 · say and clap').waitFor();
    await page.keyboard.press('PageUp');
    await now.getByText('1 of 3').waitFor();
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press(' ');
    await now.getByText('Paused').waitFor();
    await page.keyboard.press('h');
    await now.getByText('· 30').waitFor();
    await page.keyboard.press(' ');
    await page
      .locator('.lead-role')
      .filter({ hasText: /Together|Listen/ })
      .waitFor();
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: /Start/ }).waitFor();
    await context.close();
  });

  trial('comes to its end when the audio clock does', async () => {
    const { page, context } = await school.visitor();
    // The audio clock runs thirty times as fast as it did, and the page cannot tell.
    await context.addInitScript(() => {
      const proto = BaseAudioContext.prototype;
      const time = Object.getOwnPropertyDescriptor(proto, 'currentTime')!;
      const rate = 30;
      Object.defineProperty(proto, 'currentTime', {
        get(this: BaseAudioContext) {
          return (time.get!.call(this) as number) * rate;
        },
      });
      AudioContext.prototype.getOutputTimestamp = function (this: AudioContext) {
        return { contextTime: this.currentTime, performanceTime: performance.now() };
      };
      // oxlint-disable-next-line typescript/unbound-method -- it is called on its own node below
      const start = AudioBufferSourceNode.prototype.start;
      AudioBufferSourceNode.prototype.start = function (when = 0) {
        start.call(this, when / rate);
      };
    });
    await page.reload();
    await openLead(page);
    await page.getByLabel('Plan', { exact: true }).selectOption({ label: 'Two lines: clap above, step below' });
    await page.getByRole('button', { name: /Start/ }).click();
    await page.locator('[data-lane="Steps"]').first().waitFor();
    await page.locator('.lead-role').filter({ hasText: 'Done' }).waitFor({ timeout: 120_000 });
    await page.getByText('3 of 3 · clap, think the counts, feet on the beat').waitFor();
    await context.close();
  });

  trial('hides the notes for the ear, keeps a plan, and makes a sound file of it', async () => {
    const { page, context } = await school.visitor();
    await openLead(page);
    await page.getByLabel('Pass 1: what').selectOption('echo');
    await page.getByLabel('Remove pass 3').click();
    await page.getByLabel('Remove pass 2').click();
    await page.getByLabel('Tempo 1, beats a minute').fill('0');
    await page.getByText('the tempo must be from 10 to 400').waitFor();
    expect(await page.getByRole('button', { name: /Start/ }).isDisabled()).toBe(true);
    await page.getByLabel('Tempo 1, beats a minute').fill('120');
    await page.getByLabel('Tempo 1: passes').fill('1');
    await page.getByLabel('Name of the plan').fill('Echo first');
    await page.getByRole('button', { name: 'Save as new' }).click();
    await page.getByText('Saved', { exact: true }).waitFor();
    await page.reload();
    expect(await page.getByLabel('Plan', { exact: true }).locator('option:checked').textContent()).toBe('Echo first');
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Make a sound file' }).click();
    const file = readFileSync(await (await download).path());
    expect(file.toString('latin1', 0, 4)).toBe('RIFF');
    // Count-in 2 s, three times the two measures of 4 s; a quarter second before and a second after.
    expect((file.length - 44) / 2 / 44_100).toBeCloseTo(2 + 3 * 4 + 1.25, 2);
    await page.getByRole('button', { name: /Start/ }).click();
    await page.getByText('Use your ears').waitFor();
    expect(await page.locator('.lane-notes').count()).toBe(0);
    await page.locator('.lead-role').filter({ hasText: 'Check' }).waitFor({ timeout: 120_000 });
    await page.locator('.ruler .lane-notes svg').first().waitFor();
    await context.close();
  });

  trial('puts each click within one sample of its time, also after ten minutes', async () => {
    const { outputFiles } = await build({
      stdin: {
        contents: LEAD_MODULES.map((file) => `export * from './${file}';`).join('\n'),
        resolveDir: '.',
        loader: 'ts',
      },
      bundle: true,
      write: false,
      format: 'iife',
      globalName: 'lead',
      target: 'es2022',
    });
    const { page, context } = await school.visitor({ bypassCSP: true });
    await page.addScriptTag({ content: outputFiles[0]!.text });
    const worst = await page.evaluate(async () => {
      const lead = (
        window as unknown as {
          lead: typeof import('../web/audio/leadPlayer.ts') &
            typeof import('../web/audio/mixer.ts') &
            typeof import('../web/audio/soundBank.ts') &
            typeof import('../core/leading/timetable.ts') &
            typeof import('../core/rhythm/text.ts') &
            typeof import('../core/leading/plan.ts');
        }
      ).lead;
      const parsed = lead.parseRhythm(`4/4 ${Array.from({ length: 64 }, () => 'q q q q').join(' | ')}`);
      if (!parsed.ok) throw new Error('text');
      const made = lead.timetable(
        parsed.pattern,
        { ...lead.READY_PLANS()[1]!, ladder: [{ bpm: 97, passes: 4 }] },
        { school: 'numbers' },
      );
      if (!made.ok) throw new Error(made.trouble.code);
      const { cues, seconds } = made.timetable;
      // Some of them, from the first to the last: a browser renders thousands of sounds given at once only slowly.
      const clicks = cues
        .filter(({ kind }) => kind === 'click')
        .filter((_, i, all) => i % 13 === 0 || i === all.length - 1);
      const offline = new OfflineAudioContext(1, Math.ceil((seconds + 1) * 44_100), 44_100);
      const bank = new lead.SoundBank(offline);
      await bank.prepare(clicks, 'clap');
      lead.schedule(
        offline,
        bank,
        new lead.Mixer(offline, lead.USUAL_LEVELS),
        clicks,
        'clap',
        ({ time }) => time + 0.5,
      );
      const samples = (await offline.startRendering()).getChannelData(0);
      let off = 0;
      for (const { time } of clicks) {
        const at = (time + 0.5) * 44_100;
        let first = Math.floor(at) - 200;
        while (first < at + 200 && Math.abs(samples[first]!) < 0.02) first++;
        off = Math.max(off, Math.abs(first - at));
      }
      return { off, seconds };
    });
    expect(worst.seconds).toBeGreaterThan(600);
    expect(worst.off).toBeLessThanOrEqual(1);
    await context.close();
  });
});
