// @vitest-environment happy-dom
import { act, screen } from '@testing-library/react';
import { v4 as uuid } from 'uuid';
import { beforeEach, expect, it, vi } from 'vitest';
import { FakeServer, click, mount, press, tidyAfterEach, where } from '../page.test-helper.tsx';
import LessonBar from './LessonBar.tsx';
import { RUNNING, type RunningLesson } from './running.ts';

tidyAfterEach();

const [ROOM, LESSON, PATTERN] = [uuid(), uuid(), uuid()];
const chosen = { patternId: PATTERN, title: 'Steps', text: '4/4 q q h' };
const block = (key: number, kind: string, patterns: readonly object[] = []) => ({ key, kind, patterns, steps: [] });
const BLOCKS = [block(3, 'warm-up'), block(5, 'read', [chosen]), block(8, 'lead', [chosen]), block(9, 'close')];
const START = new Date(2026, 8, 7, 9, 40).getTime();

function Running() {
  const [running] = RUNNING.use();
  return running && running.endedAfter === undefined ? <LessonBar running={running} /> : <p>no lesson</p>;
}

async function hold(more: Partial<RunningLesson> = {}, at = '/ear/echo') {
  RUNNING.write({ teacherId: 't', classId: ROOM, lessonId: LESSON, startedAt: START, stop: 0, leftOut: [], ...more });
  mount(<Running />, at);
  await screen.findByRole('region', { name: 'Lesson: Sailors' });
}

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['Date', 'setInterval', 'clearInterval'], now: START });
  const access = { role: 'owner', owner: 'Robin' };
  new FakeServer({
    [`/classes/${ROOM}`]: {
      id: ROOM,
      name: 'Gulls',
      ages: '9-10',
      school: 'numbers',
      rests: null,
      children: [],
      ...access,
    },
    [`/classes/${ROOM}/lessons`]: [
      { id: LESSON, title: 'Sailors', minutes: 40, day: null, starts: null, blocks: BLOCKS, held: null },
    ],
    '/patterns': [{ id: PATTERN, title: 'Steps', text: '4/4 q q h' }],
  });
});

const now = () => document.querySelector('.lesson-now strong')!.textContent;

it('goes from block to block and back by its keys, each view set up', async () => {
  await hold();
  expect(now()).toBe('1. Warm-up');
  press('<');
  expect(now()).toBe('1. Warm-up');
  press('>');
  expect([now(), where()]).toEqual([expect.stringContaining('2. '), `/board/${PATTERN}`]);
  press('>');
  expect(where()).toBe(`/lead?pattern=${PATTERN}`);
  press('<');
  expect(where()).toBe(`/board/${PATTERN}`);
  expect(RUNNING.read()!.leftOut).toEqual([]);
});

it('what is left out is written down, once, and the rest goes on', async () => {
  await hold({ stop: 1 }, `/board/${PATTERN}`);
  click('Leave out');
  expect(RUNNING.read()).toMatchObject({ stop: 2, leftOut: [5] });
  expect(where()).toBe(`/lead?pattern=${PATTERN}`);
  press('<');
  click('Leave out');
  expect(RUNNING.read()!.leftOut).toEqual([5]);
});

it('ended early, what was still to come counts as left out, and how long it took is known', async () => {
  await hold({ stop: 1, leftOut: [3] }, `/board/${PATTERN}`);
  vi.setSystemTime(START + 61_400);
  click('End');
  expect(RUNNING.read()).toMatchObject({ leftOut: [3, 8, 9], endedAfter: 61 });
  expect(where()).toBe(`/plan/${ROOM}/${LESSON}`);
});

it('ended at its last block nothing is left out; left out itself it is', async () => {
  await hold({ stop: 3 }, '/');
  press('>');
  expect(RUNNING.read()).toMatchObject({ leftOut: [], endedAfter: 0 });
  RUNNING.write(undefined);
});

it('leaving out the last block ends the lesson, with it', async () => {
  await hold({ stop: 3 }, '/');
  click('Leave out');
  expect(RUNNING.read()).toMatchObject({ leftOut: [9], endedAfter: 0 });
});

it('elsewhere it offers the way back to its block', async () => {
  await hold({ stop: 2 }, '/classes');
  click('To this block');
  expect(where()).toBe(`/lead?pattern=${PATTERN}`);
  expect(screen.queryByRole('button', { name: 'To this block' })).toBeNull();
});

it('says how the time stands, second by second', async () => {
  await hold();
  const left = () => document.querySelector('.lesson-now span')!.textContent;
  const before = left();
  act(() => void vi.advanceTimersByTime(90_000));
  expect(left()).not.toBe(before);
});

const clicked = async (key: string) => {
  const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true });
  act(() => void document.body.dispatchEvent(event));
  await act(async () => new Promise((later) => setTimeout(later)));
  return event;
};
const darkness = () => screen.queryByRole('button', { name: 'Show the screen again' });

it('goes on and back by a presenter in the hand, but not past what the view does with its keys', async () => {
  await hold();
  await clicked('PageDown');
  expect(where()).toBe(`/board/${PATTERN}`);
  await clicked('PageUp');
  expect(now()).toBe('1. Warm-up');
  const takes = (event: KeyboardEvent) => event.preventDefault();
  addEventListener('keydown', takes);
  await clicked('PageDown');
  await clicked('b');
  expect([now(), darkness()]).toEqual(['1. Warm-up', null]);
  removeEventListener('keydown', takes);
  // Into a field it is typed.
  document.body.append(Object.assign(document.createElement('input'), { id: 'field' }));
  const field = document.getElementById('field')!;
  act(() => void field.dispatchEvent(new KeyboardEvent('keydown', { key: 'b', bubbles: true })));
  await act(async () => new Promise((later) => setTimeout(later)));
  field.remove();
  expect(darkness()).toBeNull();
});

it('makes the screen dark and light again by B, or by a press', async () => {
  await hold();
  await clicked('b');
  expect(darkness()).not.toBeNull();
  await clicked('B');
  expect(darkness()).toBeNull();
  await clicked('b');
  click('Show the screen again');
  expect(darkness()).toBeNull();
});

it('begins where the lesson is, and is not loaded anew', async () => {
  await hold({ stop: 1 }, '/account');
  const event = await clicked('F5');
  expect([event.defaultPrevented, where()]).toEqual([true, `/board/${PATTERN}`]);
});
