import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { type Plan, READY_PLANS } from '../../core/leading/plan.ts';
import { timetable } from '../../core/leading/timetable.ts';
import { patternOf } from '../../core/rhythm/arbitrary.test-helper.ts';
import { LeadPlayer } from './leadPlayer.ts';

/** Two measures of 4/4 at 60, clapped twice: count-in 0-4, 4-12; count-in 12-16, 16-24. */
const PLAN: Plan = {
  ...READY_PLANS()[0]!,
  passes: [{ activity: 'clap', who: 'together' }],
  chunks: { kind: 'whole' },
  ladder: [{ bpm: 60, passes: 2 }],
  restBeats: 0,
  countIn: 'measure',
  countInEach: true,
  divided: false,
  twoLines: false,
};

interface Sounded {
  readonly time: number;
  stopped: boolean;
}

/** A player on an audio clock that is moved by hand, and everything given to that clock. */
function playing() {
  const made = timetable(patternOf('4/4 q q q q | q q q q'), PLAN, { school: 'numbers' });
  if (!made.ok) throw new Error(made.trouble.code);
  const sounds: Sounded[] = [];
  const context = {
    currentTime: 0,
    outputLatency: 0,
    getOutputTimestamp: () => ({ contextTime: context.currentTime, performanceTime: performance.now() }),
    createBufferSource: () => {
      const sound: Sounded = { time: NaN, stopped: false };
      return {
        connect: () => undefined,
        start: (time: number) => sounds.push(Object.assign(sound, { time })),
        stop: () => (sound.stopped = true),
      };
    },
  };
  // Only the clicks sound, so that what is given can be counted.
  const bank = { get: (sound: { kind: string }) => (sound.kind === 'click' ? { buffer: {}, lead: 0 } : undefined) };
  const mixer = { into: () => ({}) };
  const player = new LeadPlayer(context as never, bank as never, mixer as never, made.timetable, 'clap');
  const goTo = (time: number) => {
    while (context.currentTime < time) {
      context.currentTime = Math.min(time, context.currentTime + 0.25);
      vi.advanceTimersByTime(250);
    }
  };
  /** Times of the clicks that were, or will be, heard; from the first. */
  const heard = () =>
    sounds
      .filter(({ stopped }) => !stopped)
      .map(({ time }) => Math.round((time - 0.15) * 1000) / 1000)
      .sort((a, b) => a - b);
  return { player, context, goTo, heard };
}

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

const every = (from: number, to: number, step = 1) =>
  Array.from({ length: Math.round((to - from) / step) }, (_, i) => from + i * step);

describe('the player of a run', () => {
  it('gives each click to the audio clock some seconds ahead, once', () => {
    const { player, goTo, heard } = playing();
    player.start();
    expect(heard()).toEqual(every(0, 6));
    goTo(30);
    expect(heard()).toEqual(every(0, 24));
    expect(player.over).toBe(true);
  });

  it('is over when everything was heard, not before', () => {
    const { player, goTo } = playing();
    expect(player.over).toBe(false);
    player.start();
    goTo(24);
    expect(player.over).toBe(false);
    goTo(24.5);
    expect(player.over).toBe(true);
  });

  it('changes its tempo with the next measure', () => {
    const { player, goTo, heard } = playing();
    player.start();
    goTo(5);
    player.setRate(2);
    expect(player.state().rate).toBe(2);
    goTo(30);
    expect(heard()).toEqual([...every(0, 8), ...every(8, 16, 0.5)]);
  });

  it('says its count-in while it sounds, from where a pass is entered inside', () => {
    const { player, context, goTo } = playing();
    player.start();
    goTo(1);
    // The run's own count-in stands in its timetable.
    expect(player.countingIn()).toBeUndefined();
    player.jump(8);
    const from = context.currentTime + 0.15;
    const words: (string | undefined)[] = [];
    for (let beat = 0; beat < 5; beat++) {
      goTo(from + beat + 0.5);
      words.push(player.countingIn());
    }
    expect(words).toEqual(['1', '2', 'ready', 'go', undefined]);
    expect(player.now()).toBeGreaterThan(8);
    player.jump(8);
    player.pause();
    expect(player.countingIn()).toBeUndefined();
  });

  it('keeps its tempo within bounds', () => {
    const { player } = playing();
    player.setRate(100);
    expect(player.state().rate).toBe(4);
    player.setRate(0.01);
    expect(player.state().rate).toBe(0.25);
  });

  it('pauses at the measure, and is counted in again where it goes on inside a pass', () => {
    const { player, goTo, heard } = playing();
    player.start();
    goTo(9.4);
    player.pause();
    expect(player.state().state).toBe('paused');
    expect(player.now()).toBe(8);
    expect(heard().every((time) => time < 10)).toBe(true);
    const before = heard().length;
    goTo(20);
    player.resume();
    goTo(28);
    // Four clicks lead in, then the second measure.
    expect(heard().slice(before, before + 8)).toEqual(every(20, 28));
  });

  it('counts in again by itself where it begins inside a pass, and only there', () => {
    const { player, goTo, heard } = playing();
    player.start(8);
    goTo(6);
    // Four clicks of its own, then measure 2 from beat 1 on.
    expect(heard().slice(0, 8)).toEqual(every(0, 8));
    expect(Math.abs(player.now() - 9.85)).toBeLessThan(0.01);
    // A pass has a count-in already.
    player.start(12);
    goTo(8);
    expect(player.now()).toBeCloseTo(13.85, 2);
  });

  it('goes round in a loop until it is let go, then to the end', () => {
    const { player, goTo, heard } = playing();
    player.start();
    goTo(5);
    player.loop({ from: 4, to: 8 });
    expect(player.state().loops).toBe(true);
    goTo(18);
    expect(player.over).toBe(false);
    expect(Math.round(player.now())).toBe(6);
    player.loop(undefined);
    expect(player.state().loops).toBe(false);
    goTo(37);
    expect(player.over).toBe(true);
    expect(heard()).toEqual(every(0, 36));
  });

  it('jumps to a place; while paused only the place changes', () => {
    const { player, goTo, heard } = playing();
    player.start();
    goTo(2);
    player.jump(12);
    expect(heard().filter((time) => time >= 2)).toEqual(every(2, 8));
    player.pause();
    player.jump(4);
    expect(player.now()).toBe(4);
    player.stop();
    expect(heard().filter((time) => time > 2.2)).toEqual([]);
  });

  it('tells who listens of every change', () => {
    const { player } = playing();
    const told: string[] = [];
    const stop = player.subscribe(() => told.push(player.state().state));
    player.start();
    player.pause();
    player.resume();
    stop();
    player.stop();
    expect(told).toEqual(['running', 'paused', 'running']);
  });
});
