// @vitest-environment happy-dom
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { v4 as uuid } from 'uuid';
import { RUNNING } from '../../lesson/running.ts';
import { readStored } from '../../store/stored.ts';
import { FakeServer, click, mount, press, tidyAfterEach, where } from '../../page.test-helper.tsx';
import { whenText } from './NextLesson.tsx';
import TodayPage from './TodayPage.tsx';
import { awayIn } from './useDay.ts';

tidyAfterEach();
beforeEach(() => {
  vi.useFakeTimers({ toFake: ['Date'] });
  // A Tuesday.
  vi.setSystemTime(new Date('2026-12-01T09:50:00'));
});
afterEach(() => {
  vi.useRealTimers();
  RUNNING.write(undefined);
});

const ROBIN = { id: 'robin', name: 'Robin' } as never;
const [GULLS, CRABS, LESSON, ROPE, LINE, ADA, BO] = [uuid(), uuid(), uuid(), uuid(), uuid(), uuid(), uuid()];
const room = (id: string, name: string, role = 'owner') => ({
  id,
  name,
  ages: '9-10',
  school: 'numbers',
  rests: null,
  children: 2,
  role,
  owner: 'Robin',
});
const term = (starts: string) => ({
  from: '2026-11-30',
  until: '2026-12-18',
  slots: [{ weekday: 1, starts, minutes: 40 }],
  holidays: [],
  order: [],
  contents: [[{ element: 'half', step: 'meet' }]],
  left: [],
});
const LEAD = { key: 1, kind: 'lead', patterns: [{ patternId: ROPE, title: 'Rope', text: '4/4 w' }], steps: [] };
const lesson = (more: object = {}) => ({
  id: LESSON,
  title: 'Half notes',
  minutes: 40,
  day: '2026-12-01',
  starts: '10:00',
  blocks: [LEAD],
  held: null,
  ...more,
});
const turn = (childId: string, state: string, clash: unknown = null) => ({
  childId,
  patternId: ROPE,
  state,
  mark: null,
  takeId: null,
  slower: null,
  clash,
});
const lineUp = (turns: readonly object[], startedAt = Date.UTC(2026, 10, 3, 12)) => ({
  id: LINE,
  title: 'Rope for all',
  settings: { patternIds: [ROPE], seed: 1, bpm: 60, heardBy: 'tap', tries: 1, order: 'list', startsItself: false },
  startedAt,
  turns,
  patterns: [],
});

interface Facts {
  readonly lessons?: readonly object[];
  readonly plan?: object | null;
  readonly lineUps?: readonly object[];
}
function open(classes: readonly ReturnType<typeof room>[], facts: Readonly<Record<string, Facts>> = {}) {
  const answers: Record<string, unknown> = {
    '/classes': classes,
    '/patterns': [{ id: ROPE, title: 'Rope', text: '4/4 w' }],
  };
  for (const one of classes) {
    const { lessons = [], plan = null, lineUps = [] } = facts[one.id] ?? {};
    const at = `/classes/${one.id}`;
    Object.assign(answers, {
      [at]: { ...one, children: [ADA, BO].map((id, i) => ({ id, name: ['Ada', 'Bo'][i], adaptations: null })) },
      [`${at}/lessons`]: lessons,
      [`${at}/term-plan`]: plan,
      [`${at}/line-ups`]: lineUps,
    });
  }
  new FakeServer(answers);
  return mount(<TodayPage teacher={ROBIN} />);
}
const next = () => screen.findByRole('region', { name: 'Next lesson' });

it('shows the lesson that comes next, and the space bar starts it', async () => {
  open([room(GULLS, 'Gulls'), room(CRABS, 'Crabs')], {
    [CRABS]: { plan: term('10:00'), lessons: [lesson()] },
    [GULLS]: { plan: term('11:30') },
  });
  const card = within(await next());
  expect(card.getByText('In 10 minutes, 10:00')).toBeTruthy();
  expect(card.getByText('Crabs')).toBeTruthy();
  expect(card.getByText('Half notes')).toBeTruthy();
  expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('Tuesday 1 December');
  // Its own patterns are asked for once more before they are led.
  await waitFor(() => {
    press(' ');
    expect(RUNNING.read()).toMatchObject({ teacherId: 'robin', classId: CRABS, lessonId: LESSON, stop: 0 });
  });
  await waitFor(() => expect(where()).toBe(`/lead?pattern=${ROPE}`));
  expect(readStored('take.class')).toBe(CRABS);
});

it('has every class in the order of the day, with what is due, at one press', async () => {
  open([room(GULLS, 'Gulls'), room(CRABS, 'Crabs')], {
    [CRABS]: { plan: term('10:00'), lessons: [lesson({ held: { at: 5, seconds: 5, leftOut: [] } })] },
  });
  await next();
  const links = within(screen.getByRole('region', { name: 'Classes' })).getAllByRole('link');
  expect(links.map(({ textContent }) => textContent)).toEqual([
    'Crabs\u00a010:00 heldDue this week: half: new',
    'Gulls\u00a0no lesson today',
  ]);
  fireEvent.click(links[1]!);
  await waitFor(() => expect(where()).toBe(`/classes/${GULLS}`));
  expect(readStored('take.class')).toBe(GULLS);
});

it.each([
  [
    'what is not prepared is prepared',
    [room(CRABS, 'Crabs')],
    { [CRABS]: { plan: term('10:00') } },
    'Prepare it',
    '/plan',
  ],
  [
    'who may only look goes to the plan',
    [room(CRABS, 'Crabs', 'look')],
    { [CRABS]: { plan: term('10:00') } },
    'To its plan',
    '/plan',
  ],
  ['where nothing is planned it is planned', [room(CRABS, 'Crabs')], {}, 'Plan a lesson', '/plan'],
  [
    'a lesson without blocks is opened',
    [room(CRABS, 'Crabs')],
    { [CRABS]: { lessons: [lesson({ blocks: [] })] } },
    'Open it',
    `/plan/${CRABS}/${LESSON}`,
  ],
] as [string, ReturnType<typeof room>[], Record<string, Facts>, string, string][])(
  '%s',
  async (_what, classes, facts, says, to) => {
    open(classes, facts);
    await next();
    click(new RegExp(`^${says}`));
    await waitFor(() => expect(where()).toBe(to));
    if (facts[CRABS]?.plan) expect(readStored('take.class')).toBe(CRABS);
  },
);

it('goes back to the lesson that is on', async () => {
  RUNNING.write({ teacherId: 'robin', classId: CRABS, lessonId: LESSON, startedAt: 5, stop: 0, leftOut: [] });
  open([room(CRABS, 'Crabs')], { [CRABS]: { plan: term('10:00'), lessons: [lesson()] } });
  await next();
  expect(screen.queryByText('Look at it first')).toBeNull();
  click(/^To the lesson that is on/);
  await waitFor(() => expect(where()).toBe(`/plan/${CRABS}/${LESSON}`));
});

it('says what was left over: who still waits, what two teachers said, who was away', async () => {
  open([room(CRABS, 'Crabs')], {
    [CRABS]: { lineUps: [lineUp([turn(ADA, 'absent'), turn(BO, 'waiting', { state: 'absent', mark: null })])] },
  });
  await next();
  const left = within(await screen.findByRole('region', { name: 'Left over' }));
  expect(left.getAllByRole('listitem').map(({ textContent }) => textContent)).toEqual([
    'Crabs: Rope for all, 3 Nov: 0 of 2 heardGo on',
    'Crabs: Rope for all: two different things are said of a childLook',
    'Crabs: away last time: Ada',
  ]);
});

it('without a class begins with one, and with nothing at all on the first day', async () => {
  new FakeServer({ '/classes': [], '/patterns': [{ id: ROPE, title: 'Rope', text: '4/4 w' }] });
  const first = mount(<TodayPage teacher={ROBIN} />);
  await screen.findByRole('link', { name: 'Set up a class' });
  first.unmount();
  new FakeServer({ '/classes': [], '/patterns': [] });
  mount(<TodayPage teacher={ROBIN} />);
  await waitFor(() => expect(where()).toBe('/first-day'));
});

it('what cannot be asked for is said, and the rest is there', async () => {
  new FakeServer({ '/classes': [room(CRABS, 'Crabs')], '/patterns': [] });
  mount(<TodayPage teacher={ROBIN} />);
  await screen.findByText(/not on this device/);
  expect(screen.getByRole('link', { name: /^Crabs/ })).toBeTruthy();
});

it.each([
  ['2026-12-01', '10:00', '09:00', 'Next, 10:00'],
  ['2026-12-01', '10:00', '09:01', 'In 59 minutes, 10:00'],
  ['2026-12-01', '10:00', '09:59', 'In 1 minute, 10:00'],
  ['2026-12-01', '10:00', '10:00', 'Now, 10:00 to 10:40'],
  ['2026-12-01', null, '10:00', 'Today'],
  ['2026-12-08', '10:00', '10:00', 'Tuesday 8 December, 10:00'],
  ['2026-12-08', null, '10:00', 'Tuesday 8 December'],
])('a lesson of %s at %s, at %s: %s', (day, starts, now, says) => {
  const [hours, minutes] = now.split(':').map(Number);
  const due = { classId: CRABS, day, starts, minutes: 40, lesson: undefined };
  expect(whenText(due, '2026-12-01', hours! * 60 + minutes!)).toBe(says);
});

it('who was away is told by the newest line-up', () => {
  expect(awayIn([lineUp([turn(ADA, 'absent')], 5), lineUp([turn(BO, 'absent')], 9)] as never)).toEqual([BO]);
  expect(awayIn([])).toEqual([]);
});
