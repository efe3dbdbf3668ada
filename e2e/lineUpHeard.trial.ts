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

/** How loud the app's click is at the microphone, beside what leaves the page: headphones, a room, a loud one. */
const CLICK_HEARD = [0, 0.1, 1.2];

/**
 * The microphone of the page hears what the test claps, and the app's own clicks as loud as they are in the room. Claps
 * are given to the sound clock by the clicks: however busy the machine, they come with them.
 */
function roomWithClaps(): void {
  const room = { gain: 0, clicks: [] as number[] };
  let heard: { context: BaseAudioContext; into: MediaStreamAudioDestinationNode; leak: GainNode } | undefined;
  window.AudioContext = class extends AudioContext {
    constructor(options?: AudioContextOptions) {
      super(options);
      const [into, leak] = [this.createMediaStreamDestination(), this.createGain()];
      leak.connect(into);
      heard = { context: this, into, leak };
    }
  };
  // oxlint-disable-next-line typescript/unbound-method -- they are called on their own nodes below
  const [connect, start] = [AudioNode.prototype.connect, AudioBufferSourceNode.prototype.start];
  AudioNode.prototype.connect = function (this: AudioNode, to: AudioNode, ...more: number[]) {
    if (to === heard?.context.destination) (connect as (to: AudioNode) => AudioNode).call(this, heard.leak);
    return (connect as (to: AudioNode, ...more: number[]) => AudioNode).call(this, to, ...more);
  } as typeof connect;
  AudioBufferSourceNode.prototype.start = function (when = 0, ...more: number[]) {
    room.clicks.push(when);
    start.call(this, when, ...more);
  };
  navigator.mediaDevices.getUserMedia = () => Promise.resolve(heard!.into.stream.clone());
  Object.assign(window, {
    /** @param after  seconds after the click that is the first of those that are still to come, but for the count-in */
    clapWith: (gain: number, countIn: number, after: readonly number[]) => {
      const { context, into, leak } = heard!;
      leak.gain.value = gain;
      const coming = room.clicks.filter((time) => time > context.currentTime - 1);
      const one = coming[countIn]!;
      room.clicks.length = 0;
      const burst = context.createBuffer(1, Math.round(context.sampleRate * 0.03), context.sampleRate);
      burst.getChannelData(0).forEach((_, i, data) => (data[i] = (Math.random() * 2 - 1) * 0.7 * Math.exp(-i / 300)));
      for (const seconds of after) {
        const source = context.createBufferSource();
        source.buffer = burst;
        source.connect(into);
        start.call(source, one + seconds);
      }
    },
  });
}

describe('a line-up by microphone', () => {
  it('needs no key at all: each child is counted in when the room is quiet, however loud the click is', async () => {
    const { page } = await school.visitor({}, false);
    await page.addInitScript(roomWithClaps);
    await readyForLineUp(page, NAMES);
    await page.getByLabel('Heard by').selectOption({ label: 'microphone' });
    await page.getByLabel('Start by itself').check();
    await page.getByRole('button', { name: /^Start/ }).click();
    for (const [i, name] of NAMES.entries()) {
      await page.locator('.stage h1').filter({ hasText: name }).waitFor();
      await page.locator('.pad[data-beat-one]').waitFor();
      await page.evaluate(
        ([gain, beats, bpm]) => {
          const { clapWith } = window as unknown as {
            clapWith: (gain: number, countIn: number, after: readonly number[]) => void;
          };
          clapWith(
            gain,
            4,
            beats.map((beat) => ((beat - 1) * 60) / bpm),
          );
        },
        [CLICK_HEARD[i]!, RIGHT, BPM] as const,
      );
      await page.locator('.take-result').waitFor();
    }
    await page.getByRole('heading', { name: 'Short one: all heard' }).waitFor();
    await page.getByText('3 children heard').waitFor();
    expect((await page.locator('.in-line-heard span').allTextContents()).map(Number)).toEqual([4, 4, 4]);
  });
});
