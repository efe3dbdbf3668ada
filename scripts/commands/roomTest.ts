import { setTimeout as wait } from 'node:timers/promises';
import { Command, InvalidArgumentError } from 'commander';
import { randomFrom } from '../../core/random.ts';
import { DeviceClock } from '../../core/timing/deviceClock.ts';
import { withDemoServer } from './demoServer.ts';
import { type Delay, type Played, SimulatedDevice, SimulatedTeacher } from './roomPlay.ts';

const TASK = {
  kind: 'take' as const,
  patternId: null,
  title: 'Room test',
  text: '4/4 q e e q (q) | h q q',
  bpm: 120,
  heardBy: 'tap' as const,
  echo: false,
  parts: [],
};
/** Devices are told so long before beat 1, milliseconds. */
const AHEAD_MS = 4_000;
const NUMBER = 1;

interface Options {
  readonly devices: number;
  readonly rooms: number;
  readonly delay: Delay;
  readonly spread: number;
  readonly seed: number;
  readonly url?: string;
}

const whole = (least: number, most: number) => (text: string) => {
  const value = Number(text);
  if (!Number.isInteger(value) || value < least || value > most)
    throw new InvalidArgumentError(`A whole number from ${least} to ${most}.`);
  return value;
};

function delayIn(text: string): Delay {
  const [from, to = from] = text.split('-').map(Number);
  if (from === undefined || to === undefined || !(from >= 0 && to >= from && to <= 5000))
    throw new InvalidArgumentError('Milliseconds one way, as in 5-80.');
  return [from, to];
}

const options = new Command('room-test')
  .description('Plays rooms with simulated children over real HTTP, and says how it went.')
  .option('--devices <n>', 'children in a room', whole(1, 200), 26)
  .option('--rooms <n>', 'rooms at once', whole(1, 200), 1)
  .option('--delay <from-to>', 'of each way to the server, milliseconds', delayIn, [5, 80] as Delay)
  .option('--spread <ms>', 'takes come within so long after the end', whole(0, 60_000), 1_500)
  .option('--seed <n>', 'of the children and the network', whole(0, 1_000_000), 1)
  .option('--url <address>', 'a demo that runs; without it one is started, and gone afterwards')
  .parse()
  .opts<Options>();

const at = (sorted: readonly number[], part: number) =>
  sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * part))] ?? NaN;

/** "median 3.1, p95 6.0, most 7.2". */
function spreadText(values: readonly number[]): string {
  const sorted = [...values].sort((a, b) => a - b);
  const [middle, high, most] = [at(sorted, 0.5), at(sorted, 0.95), sorted.at(-1) ?? NaN];
  return `median ${middle.toFixed(1)}, p95 ${high.toFixed(1)}, most ${most.toFixed(1)}`;
}

/** The room's clock beside this machine's own, asked without any delay: what is true. */
async function trueClock(teacher: SimulatedTeacher): Promise<(room: number) => number> {
  const clock = new DeviceClock();
  for (let i = 0; i < 60; i++) {
    const sent = performance.now();
    const { now } = await teacher.client.ask<{ now: number }>('GET', '/api/room/clock');
    clock.add({ sent, there: now, back: performance.now() });
  }
  return (room) => clock.here(room)!;
}

interface Outcome {
  readonly played: readonly Played[];
  /** The teacher had all of them so long after the last was sent. */
  readonly completeMs: number;
  readonly failed: readonly string[];
}

async function playRoom(
  url: string,
  index: number,
  truth: (room: number) => number,
  startsAt: Promise<number>,
): Promise<Outcome> {
  const random = randomFrom(options.seed * 1000 + index);
  const teacher = new SimulatedTeacher(url);
  await teacher.begin(options.devices, `Room ${index + 1}`);
  const settings = { url, delay: options.delay, random, spread: options.spread };
  const devices = teacher.children.map(() => new SimulatedDevice(settings));
  await Promise.all(
    devices.map(async (device, i) => {
      await device.enter(teacher.pictures);
      await device.sit(teacher.children[i]!.id);
      await device.findClock();
    }),
  );
  await teacher.round({ number: NUMBER, task: TASK, phase: 'ready', startsAt: null });
  await Promise.all(devices.map((device) => device.ready(NUMBER)));
  joined.push(index);
  await teacher.round({ number: NUMBER, task: TASK, phase: 'going', startsAt: Math.round(await startsAt) });
  const settled = await Promise.allSettled(
    devices.map((device, i) => device.clap(NUMBER, options.seed * 100_000 + index * 1000 + i, truth)),
  );
  const last = performance.now();
  let stored = 0;
  while (stored < devices.length && performance.now() - last < 20_000) {
    const { seats } = await teacher.room();
    stored = seats.filter(({ mark }) => mark !== null).length;
    if (stored < devices.length) await wait(50);
  }
  const completeMs = performance.now() - last;
  await Promise.all(devices.map((device) => device.leave()));
  await teacher.end();
  return {
    played: settled.flatMap((one) => (one.status === 'fulfilled' ? [one.value] : [])),
    failed: settled.flatMap((one) => (one.status === 'rejected' ? [String(one.reason)] : [])),
    completeMs,
  };
}

const joined: number[] = [];

async function play(url: string): Promise<boolean> {
  const first = new SimulatedTeacher(url);
  await first.begin(1, 'Clock');
  const truth = await trueClock(first);
  const now = async () => (await first.client.ask<{ now: number }>('GET', '/api/room/clock')).now;
  /** All rooms begin together, when the last device is in. */
  const startsAt = (async () => {
    while (joined.length < options.rooms) await wait(20);
    return (await now()) + AHEAD_MS;
  })();
  const outcomes = await Promise.all(
    Array.from({ length: options.rooms }, (_, index) => playRoom(url, index, truth, startsAt)),
  );
  await first.end();
  const played = outcomes.flatMap((one) => one.played);
  const failed = outcomes.flatMap((one) => one.failed);
  const all = options.rooms * options.devices;
  const alike = played.filter(({ own, mark }) => own() === mark).length;
  console.log(`${options.rooms} × ${options.devices} devices, each way ${options.delay.join(' to ')} ms`);
  console.log(`start beside the true moment, ms:  ${spreadText(played.map((one) => Math.abs(one.startError)))}`);
  console.log(`stored:  ${played.length} of ${all}`);
  console.log(`judged as on the device:  ${alike} of ${played.length}`);
  console.log(`until the server had a take, ms:  ${spreadText(played.map((one) => one.storedMs))}`);
  console.log(`grid complete after the last, ms:  ${spreadText(outcomes.map((one) => one.completeMs))}`);
  for (const one of [...new Set(failed)].slice(0, 5)) console.error(one);
  return played.length === all && alike === all;
}

let fine = false;
const once = async (url: string) => {
  fine = await play(url);
};
if (options.url) await once(options.url);
else await withDemoServer(once);
process.exit(fine ? 0 : 1);
