import { describe, expect, it } from 'vitest';
import { patternOf } from '../../core/rhythm/arbitrary.test-helper.ts';
import type { RunningClock } from '../audio/clickClock.ts';
import { type RunPlan, TakeRunner, MICROPHONE_GONE } from './takeRunner.ts';
import type { PlayedSound } from './takePart.ts';
import type { Taken } from './taken.ts';

const PLAN: RunPlan = {
  pattern: patternOf('4/4 q q q q'),
  bpm: 60,
  method: 'tap',
  task: 'claps',
  free: false,
  keepSound: false,
};
const DELAY = 0.02;

/** A run whose clock goes as the test says: `at` seconds from beat 1 is `at` × 1000 ms on the clock of events. */
function run(
  change: Partial<RunPlan> = {},
  ear: { onsets?: number[]; fails?: Error; gone?: boolean; level?: number } = {},
) {
  const plan = { ...PLAN, ...change };
  const state = {
    now: -Infinity,
    tremble: 0,
    stopped: 0,
    earStopped: 0,
    kept: false,
    openedBefore: -1,
    played: { times: [] as readonly number[], countIn: 0 },
  };
  const clicks: { time: number; accent: boolean }[] = [];
  const played: PlayedSound[] = [];
  const waiting: (() => void)[] = [];
  const taken: Taken[] = [];
  const soFar: Taken[] = [];
  const clock: RunningClock = {
    now: () => state.now,
    at: (timeStamp) => timeStamp / 1000,
    // The audio clock stands a hundred seconds away.
    atContext: (time) => time - 100,
    contextTime: (moment) => moment + 100,
    stop: () => void state.stopped++,
  };
  const runner = new TakeRunner(
    plan,
    {
      startClicks: (beats, others) => {
        clicks.push(...beats);
        played.push(...others);
        state.now = beats[0]!.time - 0.2;
        return Promise.resolve(clock);
      },
      readyToListen: () => {
        state.openedBefore = clicks.length;
        return Promise.resolve();
      },
      listenLive: (played, keep) => {
        state.played = played;
        state.kept = keep;
        if (ear.fails) return Promise.reject(ear.fails);
        const onsets = () => ear.onsets ?? [];
        const finish = () =>
          Promise.resolve({ onsets: onsets(), outline: { from: 99, step: 0.01, peaks: [] } } as never);
        const [level, gone] = [() => ear.level ?? 0, () => ear.gone ?? false];
        return Promise.resolve({ onsets, level, gone, finish, stop: () => void state.earStopped++ } as never);
      },
      delay: () => DELAY,
      pageTime: () => state.now * 1000 + 5000 + state.tremble,
      later: (action) => void waiting.push(action),
    },
    (done) => taken.push(done),
    (progress) => soFar.push(progress),
  );
  const settle = () => new Promise((resolve) => setTimeout(resolve));
  const goTo = async (now: number) => {
    state.now = now;
    for (const action of waiting.splice(0)) action();
    await settle();
  };
  const start = async () => {
    runner.start();
    await settle();
  };
  return { runner, state, clicks, played, taken, soFar, goTo, start, settle };
}

describe('a take', () => {
  it('tells what there is so far after every clap, should the page be closed now', async () => {
    const { runner, goTo, start, soFar } = run();
    await start();
    await goTo(-3);
    runner.tap(-2_900, 'hands', 'f');
    expect(soFar).toEqual([]);
    await goTo(1.2);
    runner.tap(DELAY * 1000, 'hands', 'f');
    runner.tap(1000 + DELAY * 1000, 'hands', 'j');
    expect(soFar.map(({ onsets }) => onsets)).toEqual([[0], [0, 1]]);
  });

  it('is counted in, then clicked, then over a beat after the end', async () => {
    const { runner, clicks, goTo, start, taken, state } = run();
    expect(runner.moment().state).toBe('ready');
    await start();
    expect(clicks.map(({ time }) => time)).toEqual([-4, -3, -2, -1, 0, 1, 2, 3]);
    expect(clicks.map(({ accent }) => accent)).toEqual([true, false, false, false, true, false, false, false]);
    const words: unknown[] = [];
    for (const now of [-3.9, -2.9, -1.9, -0.9]) {
      await goTo(now);
      words.push(runner.moment().word);
      expect(runner.moment().state).toBe('count-in');
    }
    expect(words).toEqual(['1', '2', 'ready', 'go']);
    await goTo(0.1);
    expect(runner.moment()).toMatchObject({ state: 'playing', word: undefined });
    await goTo(4.9);
    expect(taken).toHaveLength(0);
    await goTo(5.01);
    expect(runner.moment().state).toBe('done');
    expect(taken).toEqual([{ onsets: [] }]);
    expect(state.stopped).toBe(1);
  });

  it('clicks every other beat where that is asked for, from the first of each measure', async () => {
    const pattern = patternOf('3/4 q q q | q q q');
    const { clicks, start } = run({ ...PLAN, pattern, halfClick: true });
    await start();
    expect(clicks.filter(({ time }) => time >= 0).map(({ time }) => time)).toEqual([0, 2, 3, 5]);
  });
  it('opens the microphone before the first click, and says which clicks are the count-in', async () => {
    const { clicks, start, state } = run({ ...PLAN, method: 'microphone' }, {});
    await start();
    expect(state.openedBefore).toBe(0);
    expect(state.played.times).toEqual(clicks.map(({ time }) => time + 100));
    expect(state.played.countIn).toBe(4);
  });

  it('takes the lateness of the device off, and what was tapped before the last beat of the count-in', async () => {
    const { runner, goTo, start, taken } = run();
    await start();
    await goTo(-3);
    runner.tap(-2500, 'hands', 'a');
    runner.tap(-30, 'hands', 'a');
    runner.tap(1020, 'hands', 'b');
    expect(runner.moment().taps).toBe(2);
    await goTo(6);
    expect(taken).toEqual([{ onsets: [-0.05, 1] }]);
  });

  it('tells the page where beat 1 stands, and keeps it while the clock only trembles', async () => {
    const { runner, goTo, start, state } = run();
    await start();
    await goTo(-3);
    expect(runner.moment().beatOne).toBe(5000);
    expect(runner.now()).toBe(-3);
    state.tremble = 3;
    await goTo(-2.9);
    expect(runner.moment().beatOne).toBe(5000);
    state.tremble = 12;
    await goTo(-2.8);
    expect(runner.moment().beatOne).toBe(5012);
  });

  it('holds to the end what is not lifted, and lifts what is', async () => {
    const { runner, goTo, start, taken } = run({ task: 'held' });
    await start();
    await goTo(0);
    runner.tap(20, 'hands', 'a');
    runner.lift(1520, 'a');
    runner.tap(2020, 'hands', 'b');
    await goTo(3);
    runner.finish();
    expect(taken).toEqual([{ onsets: [0, 2], releases: [1.5, 2.98] }]);
  });

  it('keeps feet and hands apart', async () => {
    const { runner, goTo, start, taken } = run({ task: 'feet' });
    await start();
    await goTo(0);
    runner.tap(1020, 'feet', 'f');
    runner.tap(20, 'feet', 'f');
    runner.tap(520, 'hands', 'j');
    expect(runner.moment().taps).toBe(1);
    runner.finish();
    expect(taken).toEqual([{ onsets: [0.5], feet: [0, 1] }]);
  });

  it('two parts are two keys, each counted; what others have is played with the clicks', async () => {
    const others = [{ time: 0.5, struck: 'stamp' as const }];
    const { runner, goTo, start, taken, soFar, played } = run({ task: 'parts', others });
    await start();
    expect(played).toEqual(others);
    await goTo(1.6);
    runner.tap(520, 'hands', 'f');
    runner.tap(1020, 'feet', 'j');
    runner.tap(1520, 'feet', 'j');
    expect(runner.moment()).toMatchObject({ taps: 1, second: 2 });
    expect(soFar.at(-1)).toEqual({ onsets: [0.5], feet: [1, 1.5] });
    runner.finish();
    expect(taken).toEqual([{ onsets: [0.5], feet: [1, 1.5] }]);
  });

  it('without a click only the count-in sounds, and a slower child has its time', async () => {
    const { clicks, goTo, start, taken } = run({ free: true });
    await start();
    expect(clicks.map(({ time }) => time)).toEqual([-4, -3, -2, -1]);
    await goTo(7.6);
    expect(taken).toHaveLength(0);
    await goTo(7.8);
    expect(taken).toHaveLength(1);
  });

  it('cancelled leaves nothing behind, and may be begun again', async () => {
    const { runner, goTo, start, taken, state } = run();
    await start();
    await goTo(0.5);
    runner.tap(20, 'hands', 'a');
    runner.cancel();
    expect(runner.moment()).toMatchObject({ state: 'ready', word: undefined });
    expect([state.stopped, runner.now()]).toEqual([1, undefined]);
    await goTo(9);
    expect(taken).toHaveLength(0);
    await start();
    await goTo(6);
    expect(taken).toEqual([{ onsets: [] }]);
  });

  it('cancelled while the sound is being got ready does not run on', async () => {
    const { runner, taken, settle, state, goTo } = run();
    runner.start();
    runner.cancel();
    await settle();
    expect(state.stopped).toBe(1);
    await goTo(9);
    expect([runner.moment().state, taken]).toEqual(['ready', []]);
  });

  it('cannot be started twice, and goes to a result from elsewhere', async () => {
    const { runner, clicks, start } = run();
    await start();
    await start();
    expect(clicks).toHaveLength(8);
    runner.showResult();
    expect(runner.moment().state).toBe('done');
  });
});

describe('a take through the microphone', () => {
  it('hands over what was heard, on the clock of the take', async () => {
    const ear = { onsets: [97, 100.03, 101.02] };
    const { runner, goTo, start, taken, settle, state } = run({ method: 'microphone', keepSound: true }, ear);
    await start();
    await goTo(1.5);
    runner.tap(1000, 'hands', 'a');
    // What came before the last beat of the count-in is no clap of the take.
    expect(runner.moment().taps).toBe(2);
    expect(state.kept).toBe(true);
    await goTo(5.05);
    expect(taken).toHaveLength(0);
    await goTo(5.2);
    await settle();
    expect(taken[0]!.onsets).toEqual([0.01, 1]);
    expect(taken[0]!.outline!.from).toBeCloseTo(-1.02, 9);
  });

  it('says why nothing can be heard, and is ready again', async () => {
    const { runner, start, state } = run({ method: 'microphone' }, { fails: new Error('no microphone') });
    await start();
    expect(runner.moment()).toMatchObject({ state: 'ready', problem: { message: 'no microphone' } });
    expect(state.stopped).toBe(1);
  });

  it('that goes away in the middle hands over nothing, and says so', async () => {
    const ear = { onsets: [100, 101], gone: false, level: 0.42 };
    const { runner, start, goTo, taken, state } = run({ method: 'microphone' }, ear);
    await start();
    await goTo(1.5);
    expect(runner.moment()).toMatchObject({ taps: 2, level: 0.4 });
    ear.gone = true;
    await goTo(1.6);
    expect(runner.moment()).toMatchObject({
      state: 'ready',
      problem: { message: MICROPHONE_GONE() },
      level: undefined,
    });
    expect([state.stopped, state.earStopped]).toEqual([1, 1]);
    await goTo(9);
    expect(taken).toEqual([]);
  });

  it('lets go of the microphone when cancelled', async () => {
    const { runner, start, goTo, state } = run({ method: 'microphone' });
    await start();
    await goTo(0);
    runner.cancel();
    expect(state.earStopped).toBe(1);
  });
});
