import { setTimeout as wait } from 'node:timers/promises';
import type { OpenRooms, Room } from '../../contract/room.ts';
import { randomFrom } from '../../core/random.ts';
import { Client, SimulatedDevice } from './roomPlay.ts';

const LOOK_MS = 1_500;
/** One child after the other finds its name. */
const APART_MS = 400;
/** Names that stay free, for whoever joins with a device of their own. */
const LEFT_FREE = 4;

/**
 * Children of the demo who join every room that is opened in it, by themselves: so that whoever looks around alone sees
 * a class. They answer by chance, and clap like children.
 */
export async function practiceChildren(url: string, signal: AbortSignal): Promise<void> {
  const teacher = new Client(url);
  const known = new Set<string>();
  await teacher.ask('POST', '/api/session/visit', {});
  while (!signal.aborted) {
    const classes = await teacher.ask<{ id: string }[]>('GET', '/api/classes').catch(() => []);
    for (const { id } of classes) {
      const rooms = await teacher.ask<OpenRooms>('GET', `/api/classes/${id}/rooms`).catch(() => []);
      for (const room of rooms) {
        if (known.has(room.id)) continue;
        known.add(room.id);
        void join(url, await teacher.ask<Room>('GET', `/api/classes/${id}/rooms/${room.id}`)).catch(() => undefined);
      }
    }
    await wait(LOOK_MS);
  }
}

async function join(url: string, { pictures, codes }: Room): Promise<void> {
  // By codes nobody comes in without being told one.
  if (codes) return;
  const random = randomFrom(Date.now());
  const settings = { url, delay: [0, 0] as const, random, spread: 300 };
  const { names } = await new SimulatedDevice(settings).enter(pictures);
  for (const [i, { id }] of names.slice(0, -LEFT_FREE).entries()) {
    const device = new SimulatedDevice(settings);
    await device.enter(pictures);
    await device.sit(id);
    void takePart(device, i).catch(() => undefined);
    await wait(APART_MS);
  }
}

/** Does whatever is asked, round after round. */
async function takePart(device: SimulatedDevice, seed: number): Promise<void> {
  await device.findClock();
  const random = randomFrom(seed);
  for (let done = 0; ;) {
    const { round } = await device.until((room) => room.round !== null && room.round.number > done);
    const { number, task } = round!;
    done = number;
    await device.ready(number);
    if (task.kind === 'take') await device.clap(number, seed * 100 + number, (room) => device.timeOf(room));
    if (task.kind === 'question') {
      await wait(1_000 + 5_000 * random.next());
      await device.answer(number, random.below(task.options.length)).catch(() => undefined);
    }
  }
}
