import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { School } from './browser.test-helper.ts';
import { BPM, RIGHT, readyForLineUp } from './lineUp.test-helper.ts';

let school: School;

// By the sound clock as it is: a microphone hears by it.
beforeAll(async () => {
  school = await School.open({ heard: true });
});
afterEach(() => school.tidy());
afterAll(() => school.close());

const NAMES = ['Al', 'Bea', 'Cy'];

/** The microphone of the page is a node into which the test claps. */
function clappingMicrophone(): void {
  const context = new AudioContext();
  const into = context.createMediaStreamDestination();
  navigator.mediaDevices.getUserMedia = () => Promise.resolve(into.stream.clone());
  const samples = Math.round(context.sampleRate * 0.03);
  const burst = context.createBuffer(1, samples, context.sampleRate);
  burst.getChannelData(0).forEach((_, i, data) => (data[i] = (Math.random() * 2 - 1) * 0.7 * Math.exp(-i / 300)));
  (window as unknown as { clap: (atMs: number) => void }).clap = (atMs) => {
    const source = context.createBufferSource();
    source.buffer = burst;
    source.connect(into);
    source.start(context.currentTime + (atMs - performance.now()) / 1000);
  };
}

describe('a line-up by microphone', () => {
  it('needs no key at all: each child is counted in when the room is quiet', async () => {
    const { page } = await school.visitor({}, false);
    await page.addInitScript(clappingMicrophone);
    await readyForLineUp(page, NAMES);
    await page.getByLabel('Heard by').selectOption({ label: 'microphone' });
    await page.getByLabel('Start by itself').check();
    await page.getByRole('button', { name: /^Start/ }).click();
    for (const name of NAMES) {
      await page.locator('.stage h1').filter({ hasText: name }).waitFor();
      await page.locator('.pad[data-beat-one]').waitFor();
      await page.evaluate(
        ([beats, bpm]) => {
          const one = Number(document.querySelector<HTMLElement>('.pad[data-beat-one]')!.dataset['beatOne']);
          const { clap } = window as unknown as { clap: (atMs: number) => void };
          for (const beat of beats) clap(one + ((beat - 1) * 60_000) / bpm);
        },
        [RIGHT, BPM] as const,
      );
      await page.locator('.take-result').waitFor();
    }
    await page.getByRole('heading', { name: 'Short one: all heard' }).waitFor();
    await page.getByText('3 children heard').waitFor();
    const marks = (await page.locator('.in-line-heard span').allTextContents()).map(Number);
    expect(marks).toHaveLength(NAMES.length);
    // 0 is when nothing was heard; how right it was hangs on the sound clock of a busy machine.
    expect(Math.min(...marks)).toBeGreaterThan(0);
  });
});
