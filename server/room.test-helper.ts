import { setTimeout as wait } from 'node:timers/promises';
import { v4 as uuid } from 'uuid';
import type { ChildRoom, Room, RoomDoor, RoundEdit } from '../contract/room.ts';
import type { Picture } from '../contract/roomPictures.ts';
import { type Answer, Visitor } from './testServer.test-helper.ts';

export const CLASS = { name: 'Gulls', ages: '9-10', school: 'numbers', rests: null, recordingDays: null };

export const TAKE_TASK = {
  kind: 'take',
  patternId: null,
  title: 'Steps',
  text: '4/4 q q h',
  bpm: 60,
  heardBy: 'tap',
  echo: false,
  parts: [],
} as const;

export const QUESTION_TASK = {
  kind: 'question',
  view: 'choose',
  asked: 'Which one do you hear?',
  heard: { text: '4/4 q q h', bpm: 72 },
  options: [
    { words: '', rhythm: '4/4 q q h' },
    { words: '', rhythm: '4/4 h q q' },
  ],
  right: [1],
  reasons: ['On beat 2 A has a clap.'],
  facts: '{}',
} as const;

/** A class with some children and a room that is open for it. */
export async function openRoom(teacher: Visitor, names: readonly string[], settings = {}) {
  const [classId, roomId] = [uuid(), uuid()];
  const path = `/api/classes/${classId}`;
  await teacher.ask('PUT', path, CLASS);
  const children = names.map((name) => ({ id: uuid(), name }));
  for (const { id, name } of children) await teacher.ask('PUT', `${path}/children/${id}`, { name });
  const at = `${path}/rooms/${roomId}`;
  const usual = { codes: false, marksShown: true, namesShown: false };
  const opened = await teacher.ask('PUT', at, { ...usual, ...settings });
  const room = async () => (await teacher.ask('GET', at)).body as Room;
  const round = (edit: Partial<RoundEdit>): Promise<Answer> =>
    teacher.ask('PUT', `${at}/round`, { number: 1, task: TAKE_TASK, phase: 'ready', startsAt: null, ...edit });
  return { path, at, classId, roomId, children, opened, room, round, pictures: (await room()).pictures };
}

/** One child's device. */
export class Device extends Visitor {
  enter(pictures: readonly Picture[]): Promise<Answer> {
    return this.ask('POST', '/api/room/enter', { pictures });
  }

  sit(childId: string): Promise<Answer> {
    return this.ask('POST', '/api/room/seat', { childId });
  }

  async seat(): Promise<ChildRoom> {
    return (await this.ask('GET', '/api/room/seat')).body as ChildRoom;
  }
}

/** A device that has taken a name. */
export async function deviceOf(url: string, pictures: readonly Picture[], childId: string): Promise<Device> {
  const device = new Device(url);
  await device.enter(pictures);
  await device.sit(childId);
  return device;
}

export const namesIn = ({ body }: Answer): string[] => (body as RoomDoor).names.map(({ name }) => name);

/** What a stream has said so far, event by event. */
export async function streamOf<T>(visitor: Visitor, url: string, path: string) {
  const breakOff = new AbortController();
  const response = await fetch(`${url}${path}`, { headers: visitor.headers, signal: breakOff.signal });
  const told: { event: string; data: T }[] = [];
  let ended = false;
  let left = '';
  void (async () => {
    const decoder = new TextDecoder();
    for await (const piece of response.body!) {
      left += decoder.decode(piece, { stream: true });
      const events = left.split('\n\n');
      left = events.pop()!;
      for (const one of events) {
        const event = /^event: ?(.*)$/m.exec(one)?.[1];
        const data = /^data: ?(.*)$/m.exec(one)?.[1];
        if (event && data) told.push({ event, data: JSON.parse(data) as T });
      }
    }
    ended = true;
  })().catch(() => undefined);
  const until = async (fits: () => boolean) => {
    for (let i = 0; i < 400 && !fits(); i++) await wait(25);
    return fits();
  };
  return {
    status: response.status,
    told,
    last: () => told.findLast(({ event }) => event === 'room')?.data,
    until,
    ended: () => ended,
    stop: () => breakOff.abort(),
  };
}
