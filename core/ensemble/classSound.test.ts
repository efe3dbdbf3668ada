import { describe, expect, it } from 'vitest';
import { randomFrom } from '../random.ts';
import { patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { type ClassSoundOptions, type Strike, synthesiseClass } from '../sound/classSynth.ts';
import { clickSamples } from '../sound/sounds.ts';
import { scheduleOf } from '../timing/schedule.ts';
import type { ClassHeard } from './classHeard.ts';
import { ClassListener, hearClass } from './classSound.ts';
import { decayOf, struckIn } from './echo.ts';
import { few, trial } from '../../scripts/test/trial.test-helper.ts';

const TEXT = '4/4 q q e e q | q (q) q q | h q q | q q h';
const PATTERN = patternOf(TEXT);
const START = 2.4;

interface Class {
  readonly seed: number;
  readonly children?: number;
  readonly bpm?: number;
  readonly spread?: number;
  readonly apart?: number;
  readonly inRest?: number;
  readonly sound?: Partial<ClassSoundOptions>;
}

/** A class in a room, and when each of its notes was struck. */
function inRoom({ seed, children = 20, bpm = 84, spread = 0.025, apart, inRest = 0, sound = {} }: Class) {
  const random = randomFrom(seed);
  const { notes, events } = scheduleOf(PATTERN, bpm);
  const struck = notes.map(({ time }, i) =>
    Array.from(
      { length: children },
      () => time + spread * (apart !== undefined && i >= apart ? 3 : 1) * random.normal(),
    ),
  );
  const rest = events.find(({ event }) => event.kind === 'rest')!.time;
  const strikes: Strike[] = [
    ...struck.flatMap((times) => times.map((time, child) => ({ child, time: START + time }))),
    ...Array.from({ length: Math.round(inRest * children) }, (_, child) => ({
      child,
      time: START + rest + spread * random.normal(),
    })),
  ];
  const samples = synthesiseClass(strikes, { seed, sampleRate: 22_050, echo: 0.6, ...sound });
  return { samples, struck, bpm, written: notes.map(({ time }) => time) };
}
const RATE = 22_050;
const hear = (made: ReturnType<typeof inRoom>) =>
  hearClass(made.samples, RATE, { pattern: PATTERN, bpm: made.bpm, start: START });

const median = (values: readonly number[]) => [...values].sort((a, b) => a - b)[values.length >> 1]!;
/** The middle 80 % of values, ms. */
function width(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const at = (part: number) => {
    const k = part * (sorted.length - 1);
    const i = Math.floor(k);
    return sorted[i]! + (k - i) * ((sorted[i + 1] ?? sorted[i]!) - sorted[i]!);
  };
  return (at(0.9) - at(0.1)) * 1000;
}
const off = (heard: ClassHeard, { struck, written }: ReturnType<typeof inRoom>) => ({
  width: heard.notes.map(({ widthMs }, i) => Math.abs((widthMs ?? 999) - width(struck[i]!))),
  middle: heard.notes.map(({ aheadMs }, i) => Math.abs((aheadMs ?? 999) + (median(struck[i]!) - written[i]!) * 1000)),
});

describe('a class in a room', () => {
  const ROOMS: readonly (readonly [string, Class])[] = [
    ['in a hall', { seed: 4, sound: { echo: 1.1 } }],
    ['in a classroom', { seed: 1 }],
    ['of five', { seed: 2, children: 5 }],
    ['of forty, far from together', { seed: 3, children: 40, spread: 0.05, bpm: 66 }],
    ['while others talk', { seed: 5, sound: { talkBelowDb: 10 } }],
    ['at shaken tables', { seed: 7, sound: { shaken: true } }],
    ['through a phone', { seed: 8, sound: { microphone: 'phone' } }],
    ['with a loud child near the microphone', { seed: 6, sound: { loudChildDb: 8 } }],
  ];
  it.each(few(ROOMS, 1))('%s is as wide as it was, and where it was', (_name, made) => {
    const sound = inRoom(made);
    const heard = hear(sound);
    const { width: wide, middle } = off(heard, sound);
    expect(median(wide)).toBeLessThan(40);
    expect(median(middle)).toBeLessThan(22);
    expect(heard.notes.every(({ loudness }) => loudness > 0.3 && loudness < 3)).toBe(true);
    expect(heard.tooFew).toBe(false);
  });

  it('falls apart where it did, and not where it did not', () => {
    for (const apart of few([4, 7, 6], 1)) {
      const { fallsApart } = hear(inRoom({ seed: 20 + apart, spread: 0.02, apart }));
      expect(Math.abs((fallsApart?.index ?? 99) - apart)).toBeLessThanOrEqual(2);
    }
    expect(hear(inRoom({ seed: 31 })).fallsApart).toBeUndefined();
  });

  it('is heard in a rest from a tenth of it on', () => {
    const [quiet, some] = [0, 0.2].map((inRest) => hear(inRoom({ seed: 40, children: 30, inRest })).rests[0]!);
    expect(quiet!.share).toBeLessThan(0.1);
    expect(some!.share).toBeGreaterThan(0.1);
    expect(some!.share).toBeLessThan(0.5);
  });

  it('of one child is too few to tell', () => {
    expect(hear(inRoom({ seed: 50, children: 1, sound: { echo: 0.3, echoDb: -8 } })).tooFew).toBe(true);
  });

  trial('is the same without the clicks of the app', () => {
    const made = inRoom({ seed: 60 });
    const beat = 60 / made.bpm;
    const times = Array.from({ length: 20 }, (_, i) => START + (i - 4) * beat).filter((time) => time > 0);
    const clicked = made.samples.slice();
    const click = clickSamples('beat', RATE);
    for (const time of times)
      for (let i = 0; i < click.length; i++) clicked[Math.round((time + 0.03) * RATE) + i]! += 0.4 * click[i]!;
    const clicks = { times, countIn: times.filter((time) => time < START - 1e-6).length };
    const heard = hearClass(clicked, RATE, { pattern: PATTERN, bpm: made.bpm, start: START, clicks });
    const without = hear(made);
    const apart = heard.notes.map(({ widthMs }, i) => Math.abs(widthMs! - without.notes[i]!.widthMs!));
    expect(median(apart)).toBeLessThan(15);
    expect(median(off(heard, made).middle)).toBeLessThan(22);
  });

  it('is found without a click, wherever it begins', () => {
    const made = inRoom({ seed: 70, spread: 0.015 });
    const heard = hearClass(made.samples, RATE, { pattern: PATTERN, bpm: made.bpm });
    expect(heard.notes.filter(({ loudness }) => loudness > 0.5).length).toBeGreaterThanOrEqual(12);
    expect(Math.abs(heard.aheadMs!)).toBeLessThan(12);
  });

  it('is heard the same however its sound is cut, and as far as it has sounded', () => {
    const made = inRoom({ seed: 80 });
    const whole = hear(made);
    const listener = new ClassListener(RATE);
    for (let from = 0; from < made.samples.length; from += 777) {
      listener.push(made.samples.subarray(from, from + 777));
      if (from === 777 * 120) expect(listener.hear(PATTERN, made.bpm, START).notes).toHaveLength(14);
    }
    listener.finish();
    expect(listener.hear(PATTERN, made.bpm, START)).toEqual(whole);
  });

  it('that is silent has no widths', () => {
    const heard = hearClass(new Float32Array(RATE * 12), RATE, { pattern: PATTERN, bpm: 84, start: START });
    expect(heard.notes).toHaveLength(14);
    expect(heard.tooFew).toBe(true);
  });
});

it('what was struck is told from its echo', () => {
  const decay = decayOf(0.003, 0.6, 3);
  const heard = new Float64Array(400);
  for (const at of [100, 130, 220])
    for (let t = at, left = 1; t < 400; t++, left *= decay.echo)
      heard[t]! += decay.level * left + (1 - decay.body) * decay.body ** (t - at);
  const { struck } = struckIn(heard, decay, 1e-4, 60);
  const near = (at: number) => struck.slice(at - 2, at + 3).reduce((sum, one) => sum + one, 0);
  for (const at of [100, 130, 220]) expect(near(at)).toBeCloseTo(1, 1);
  expect(struck.reduce((sum, one) => sum + one, 0)).toBeCloseTo(3, 1);
});
