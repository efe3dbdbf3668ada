import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { patternOf } from '../core/rhythm/arbitrary.test-helper.ts';
import { scheduleOf } from '../core/timing/schedule.ts';
import { randomFrom } from '../core/random.ts';
import { School } from './browser.test-helper.ts';
import { trial } from '../scripts/test/trial.test-helper.ts';

let school: School;

// By the sound clock as it is: a microphone hears by it.
beforeAll(async () => {
  school = await School.open({ heard: true });
});
afterEach(() => school.tidy());
afterAll(() => school.close());

const BPM = 100;
/** Of “Slow tide”, from its first count-in on: four beats of them. */
const COUNT_IN = (4 * 60) / BPM;

/** The microphone of the page hears what the test claps, at moments from the first click of a run on. */
function classInRoom(): void {
  let room: { context: BaseAudioContext; into: MediaStreamAudioDestinationNode } | undefined;
  const starts: number[] = [];
  window.AudioContext = class extends AudioContext {
    constructor(options?: AudioContextOptions) {
      super(options);
      room = { context: this, into: this.createMediaStreamDestination() };
    }
  };
  // oxlint-disable-next-line typescript/unbound-method -- it is called on its own nodes below
  const { start } = AudioBufferSourceNode.prototype;
  AudioBufferSourceNode.prototype.start = function (when = 0, ...more: number[]) {
    starts.push(when);
    start.call(this, when, ...more);
  };
  navigator.mediaDevices.getUserMedia = () => Promise.resolve(room!.into.stream.clone());
  Object.assign(window, {
    hasBegun: () => starts.length > 0,
    clapTogether: (times: readonly number[]) => {
      const { context, into } = room!;
      const first = Math.min(...starts);
      const burst = context.createBuffer(1, Math.round(context.sampleRate * 0.05), context.sampleRate);
      burst.getChannelData(0).forEach((_, i, data) => (data[i] = (Math.random() * 2 - 1) * 0.2 * Math.exp(-i / 300)));
      for (const time of times) {
        const source = context.createBufferSource();
        source.buffer = burst;
        source.connect(into);
        if (first + time > context.currentTime) start.call(source, first + time);
      }
    },
  });
}

/** Twenty children who clap a pattern, together. */
function claps(text: string): number[] {
  const random = randomFrom(3);
  const { notes } = scheduleOf(patternOf(text), BPM);
  return Array.from({ length: 20 }, () => notes.map(({ time }) => COUNT_IN + time + 0.015 * random.normal())).flat();
}

describe('a class together', () => {
  it('is heard while it is led: a band a note, a sentence after the pass, kept with the week', async () => {
    const { page } = await school.newcomer({}, false);
    await page.addInitScript(classInRoom);
    await page.request.post(`${school.url}/api/session/visit`);
    const all = (await (await page.request.get(`${school.url}/api/patterns`)).json()) as Record<string, string>[];
    const { id, text } = all.find(({ title }) => title === 'Slow tide')!;
    await page.goto(`${school.url}/lead?pattern=${id}&from=1&to=2&bpm=${BPM}`);
    await page.getByRole('button', { name: /^Start/ }).click();
    await page.waitForFunction(() => (window as unknown as { hasBegun(): boolean }).hasBegun());
    await page.keyboard.press('e');
    await page.getByText('The class is heard').waitFor();
    await page.evaluate(
      (times) => (window as unknown as { clapTogether(times: readonly number[]): void }).clapTogether(times),
      claps(text!),
    );
    // Three notes at once stand there before the sentence: after it the next pass begins with an empty band.
    await page.locator('.band-note').nth(2).waitFor();
    const said = page.locator('.lead-heard-said');
    await said.waitFor();
    const sentence = (await said.textContent())!;
    expect(sentence).not.toContain('Too few');
    await page.keyboard.press('Escape');

    const classes = (await (await page.request.get(`${school.url}/api/classes`)).json()) as Record<string, string>[];
    await page.goto(`${school.url}/classes/${classes[0]!['id']}/together`);
    await page.getByRole('button', { name: /: Slow tide, week of/ }).click();
    await page.getByText(sentence).waitFor();
    await page.getByRole('button', { name: 'Remove this pass' }).click();
    await page.getByRole('rowheader', { name: 'Slow tide' }).waitFor({ state: 'detached' });
  });

  trial('is made of single takes, kept, and heard as a concert', async () => {
    const { page } = await school.guest({}, '/classes');
    await page.getByRole('link', { name: /Lighthouse 4/ }).click();
    await page.getByRole('link', { name: 'Together', exact: true }).click();
    await page.getByText('From single takes').click();
    await page.getByLabel('Pattern').selectOption({ label: 'Long rope (22 children)' });
    await page.getByText('22 children together. No take of Suri, Yara.').waitFor();
    expect(await page.locator('.band-note').count()).toBe(6);
    await page.getByRole('button', { name: 'Keep it with the class' }).click();
    await page.getByText('Kept with Lighthouse 4').waitFor();
    await page.getByRole('button', { name: 'Make the concert' }).click();
    const player = page.getByLabel('Long rope, everybody together');
    await player.waitFor();
    // It can be played: as long as a count-in and the pattern.
    await expect.poll(() => player.evaluate((audio: HTMLAudioElement) => audio.duration)).toBeGreaterThan(8);
    const saved = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save as a file' }).click();
    expect((await saved).suggestedFilename()).toBe('Long rope, concert.wav');
    await page.getByText('Week by week').click();
    await page.getByRole('button', { name: /: Long rope, week of/ }).waitFor();
  });
});
