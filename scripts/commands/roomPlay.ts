import { setTimeout as wait } from 'node:timers/promises';
import { v4 as uuid } from 'uuid';
import type { ChildRoom, Room, RoomDoor, RoundEdit, TakeTask } from '../../contract/room.ts';
import type { Picture } from '../../contract/roomPictures.ts';
import { judgeTake } from '../../core/judging/judgeTake.ts';
import { simulateTake } from '../../core/judging/simulatedChild.ts';
import type { Random } from '../../core/random.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { parseRhythm } from '../../core/rhythm/text.ts';
import { DeviceClock, FEWEST_EXCHANGES } from '../../core/timing/deviceClock.ts';

/** How long each way to the server takes, milliseconds, from and to. */
export type Delay = readonly [from: number, to: number];

/** Talks to a server over real HTTP, as one browser would: with its cookies. */
export class Client {
  private readonly cookies = new Map<string, string>();

  constructor(readonly url: string) {}

  async ask<T>(method: string, path: string, body?: unknown): Promise<T> {
    const response = await this.send(method, path, body);
    const text = await response.text();
    if (!response.ok) throw new Error(`${method} ${path}: ${response.status} ${text.slice(0, 200)}`);
    return (text === '' ? undefined : JSON.parse(text)) as T;
  }

  /** A stream of events, read until `signal`. @param onEvent  told each event's name and data */
  async listen(path: string, signal: AbortSignal, onEvent: (event: string, data: unknown) => void): Promise<void> {
    const response = await this.send('GET', path, undefined, signal);
    const decoder = new TextDecoder();
    let left = '';
    for await (const piece of response.body!) {
      left += decoder.decode(piece, { stream: true });
      const events = left.split('\n\n');
      left = events.pop()!;
      for (const one of events) {
        const [event, data] = [/^event: ?(.*)$/m.exec(one)?.[1], /^data: ?(.*)$/m.exec(one)?.[1]];
        if (event && data) onEvent(event, JSON.parse(data));
      }
    }
  }

  private async send(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<Response> {
    const cookie = [...this.cookies].map(([name, value]) => `${name}=${value}`).join('; ');
    const response = await fetch(this.url + path, {
      method,
      headers: { cookie, ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      ...(signal ? { signal } : {}),
    });
    for (const set of response.headers.getSetCookie()) {
      const [name, value] = set.split(';')[0]!.split('=') as [string, string];
      this.cookies.set(name, value);
    }
    return response;
  }
}

/** What became of one round at one device. */
export interface Played {
  /** Beat 1 as this device had it beside what it was, milliseconds. */
  readonly startError: number;
  /** How long the server took to store the take, milliseconds. */
  readonly storedMs: number;
  /** The mark on the device, and the server's. */
  readonly own: () => number;
  readonly mark: number | null;
}

interface DeviceSettings {
  readonly url: string;
  readonly delay: Delay;
  readonly random: Random;
  /** Sends its take so long after the end, milliseconds; by chance within it. */
  readonly spread: number;
}

const AGAIN_MS = 500;
const CHILD = { spread: 0.025, leavesOut: 0.05, habits: { 'rest-clapped': 0.1 } } as const;

/** A child with a device of its own: it sits down, finds the clock, and claps when it is counted in. */
export class SimulatedDevice {
  readonly client: Client;
  private readonly clock = new DeviceClock();
  /** Its own clock: off by some days and some millionths. */
  private readonly off: number;
  private readonly drift: number;
  private readonly way: number;
  room: ChildRoom | undefined;
  private listening: Promise<void> | undefined;
  private heard: (() => void)[] = [];
  private readonly ending = new AbortController();

  constructor(private readonly settings: DeviceSettings) {
    const { url, random, delay } = settings;
    this.client = new Client(url);
    this.off = (random.next() - 0.5) * 1e8;
    this.drift = (random.next() - 0.5) * 1e-4;
    this.way = delay[0] + random.next() * (delay[1] - delay[0]);
  }

  private here(): number {
    return performance.now() * (1 + this.drift) + this.off;
  }

  async enter(pictures: readonly Picture[]): Promise<RoomDoor> {
    return this.client.ask<RoomDoor>('POST', '/api/room/enter', { pictures });
  }

  async sit(childId: string): Promise<void> {
    this.room = await this.client.ask<ChildRoom>('POST', '/api/room/seat', { childId });
    this.listening = this.listen();
  }

  /** What breaks off is taken up again. */
  private async listen(): Promise<void> {
    while (!this.ending.signal.aborted) {
      await this.client
        .listen('/api/room/events', this.ending.signal, (event, data) => {
          if (event === 'room') this.room = data as ChildRoom;
          for (const hear of this.heard.splice(0)) hear();
        })
        .catch(() => undefined);
      if (!this.ending.signal.aborted) await wait(AGAIN_MS);
    }
  }

  /** Half of it is the device's own network, the rest by chance. */
  private async leg(): Promise<void> {
    const { delay, random } = this.settings;
    if (delay[1] > 0) await wait(this.way / 2 + (random.next() * this.way) / 2);
  }

  async findClock(times = 2 * FEWEST_EXCHANGES): Promise<void> {
    for (let asked = 0; asked < times; asked++) {
      const sent = this.here();
      await this.leg();
      const { now } = await this.client.ask<{ now: number }>('GET', '/api/room/clock');
      await this.leg();
      this.clock.add({ sent, there: now, back: this.here() });
    }
  }

  /** Waits until the room is as wanted. */
  async until(fits: (room: ChildRoom) => boolean): Promise<ChildRoom> {
    while (!this.room || !fits(this.room)) await new Promise<void>((resolve) => this.heard.push(resolve));
    return this.room;
  }

  /** A moment of the room as `performance.now()`, as far as this device knows it. */
  timeOf(room: number): number {
    return (this.clock.here(room)! - this.off) / (1 + this.drift);
  }

  async ready(number: number): Promise<void> {
    await this.client.ask('PUT', `/api/room/rounds/${number}/ready`, {});
  }

  /**
   * Claps a round that has been counted in, and sends it.
   * @param truly  the machine's time, as `performance.now()`, of a moment of the room
   * @param inTime  waits until it is over, as a child does
   */
  async clap(number: number, seed: number, truly: (room: number) => number, inTime = true): Promise<Played> {
    const { round, voice, wider } = await this.until(
      (room) => room.round?.number === number && room.round.startsAt !== null,
    );
    const { task, startsAt } = round!;
    if (task.kind !== 'take') throw new Error('nothing is clapped in this round');
    const beatOne = this.timeOf(startsAt!);
    const startError = beatOne - truly(startsAt!);
    const onsets = simulateTake(patternIn(task.text), task.bpm, CHILD, seed).map((time) => time + startError / 1000);
    if (inTime) await wait(Math.max(0, beatOne + 1000 * (onsets.at(-1) ?? 0) + 500 - performance.now()));
    await wait(this.settings.random.next() * this.settings.spread);
    const from = performance.now();
    const { mark } = await this.client.ask<{ mark: number | null }>('PUT', `/api/room/takes/${uuid()}`, {
      round: number,
      onsets,
    });
    const storedMs = performance.now() - from;
    /** Worked out when all is over, for it is this machine that both are on. */
    const own = () => {
      const judged = judgeTake({ patternText: task.text, bpm: task.bpm, onsets }, { ...voice, wider });
      return judged.ok ? judged.result.mark : -1;
    };
    return { startError, storedMs, own, mark };
  }

  async answer(number: number, option: number): Promise<void> {
    await this.client.ask('PUT', `/api/room/rounds/${number}/answer`, { option });
  }

  async leave(): Promise<void> {
    this.ending.abort();
    await this.listening;
  }
}

export function patternIn(text: string): Pattern {
  const read = parseRhythm(text);
  if (!read.ok) throw new Error(`cannot be read: ${text}`);
  return read.pattern;
}

/** A class of its own with a room that is open, and its teacher. */
export class SimulatedTeacher {
  readonly client: Client;
  readonly classId = uuid();
  readonly roomId = uuid();
  children: { id: string; name: string }[] = [];
  pictures: readonly Picture[] = [];

  constructor(url: string) {
    this.client = new Client(url);
  }

  get at(): string {
    return `/api/classes/${this.classId}/rooms/${this.roomId}`;
  }

  /** Signs in as a visitor of the demo, and makes a class of so many. */
  async begin(size: number, name: string): Promise<void> {
    await this.client.ask('POST', '/api/session/visit', {});
    const words = { name, ages: '9-10', school: 'numbers', rests: null };
    await this.client.ask('PUT', `/api/classes/${this.classId}`, words);
    this.children = Array.from({ length: size }, (_, i) => ({ id: uuid(), name: `Child ${i + 1}` }));
    for (const child of this.children)
      await this.client.ask('PUT', `/api/classes/${this.classId}/children/${child.id}`, { name: child.name });
    await this.client.ask('PUT', this.at, { codes: false, marksShown: true, namesShown: false });
    this.pictures = (await this.room()).pictures;
  }

  room(): Promise<Room> {
    return this.client.ask<Room>('GET', this.at);
  }

  async round(edit: Omit<RoundEdit, 'task'> & { readonly task: TakeTask }): Promise<void> {
    await this.client.ask('PUT', `${this.at}/round`, edit);
  }

  /** Nothing of it is left. */
  async end(): Promise<void> {
    await this.client.ask('DELETE', this.at).catch(() => undefined);
    await this.client.ask('DELETE', `/api/classes/${this.classId}`);
  }
}
