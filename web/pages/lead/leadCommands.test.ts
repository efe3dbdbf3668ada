import { beforeEach, describe, expect, it, vi } from 'vitest';
import { READY_PLANS } from '../../../core/leading/plan.ts';
import { timetable } from '../../../core/leading/timetable.ts';
import { patternOf } from '../../../core/rhythm/arbitrary.test-helper.ts';
import { leadCommands } from './leadCommands.ts';
import { countedIn } from './useLeadRun.ts';

const made = timetable(
  patternOf('4/4 q q h | w | h h'),
  { ...READY_PLANS()[0]!, chunks: { kind: 'whole' }, ladder: [{ bpm: 60, passes: 3 }], twoLines: false },
  { school: 'numbers' },
);
if (!made.ok) throw new Error(made.trouble.code);
const table = made.timetable;

const run = {
  rate: 1,
  moment: { measure: 1 },
  setRate: vi.fn(),
  go: vi.fn(),
  goToMeasure: vi.fn(),
  stay: vi.fn(),
  goOn: vi.fn(),
  toggle: vi.fn(),
  loop: vi.fn(),
};
const setCovered = vi.fn();
const onEnd = vi.fn();
const fullScreen = vi.fn();
const secondWindow = vi.fn();
const changeOver = vi.fn();
const hear = vi.fn();
const onceMore = vi.fn();

function press(key: string, { pass = 2, covered = 0, rate = 1, measure = 1 } = {}) {
  Object.assign(run, { rate, moment: { measure } });
  const section = table.sections.find((one) => one.pass === pass)!;
  const commands = leadCommands({
    run: run as never,
    table,
    section,
    covered,
    setCovered,
    changeOver: pass === 3 ? undefined : changeOver,
    fullScreen,
    secondWindow,
    hear,
    onceMore: pass === 3 ? undefined : onceMore,
    onEnd,
  });
  commands.keys[key]!(new Event('keydown') as KeyboardEvent);
  return { section, commands };
}

beforeEach(() => void vi.clearAllMocks());

describe('keys of a run', () => {
  it.each([
    ['ArrowUp', 1, 1.05],
    ['ArrowDown', 1, 0.95],
    ['ArrowUp', 1.1, 1.15],
    ['h', 1, 0.5],
    ['h', 0.5, 1],
  ])('%s at %f of the tempo: %f', (key, rate, then) => {
    press(key, { rate });
    expect(run.setRate).toHaveBeenCalledExactlyOnceWith(then);
  });
  it.each([
    ['ArrowRight', 2, 3],
    ['PageDown', 2, 3],
    ['ArrowRight', 3, 3],
    ['ArrowLeft', 2, 1],
    ['PageUp', 2, 1],
    ['a', 2, 2],
  ])('%s in pass %i goes to pass %i', (key, pass, then) => {
    press(key, { pass });
    expect(run.go).toHaveBeenCalledExactlyOnceWith(table.sections.find((one) => one.pass === then)!.from);
  });
  it.each([
    ['PageUp', 1],
    ['PageDown', 3],
  ])('%s in pass %i is left to the lesson', (key, pass) => {
    expect(press('f', { pass }).commands.keys).not.toHaveProperty(key);
  });
  it.each([
    [']', 1, 2],
    [']', 2, 2],
    ['[', 1, 0],
    ['[', -1, 0],
  ])('%s in measure %i goes to measure %i', (key, measure, then) => {
    press(key, { measure });
    expect(run.goToMeasure).toHaveBeenCalledExactlyOnceWith(then);
  });
  it('cover one more measure, never more than there are, and uncover all', () => {
    press('c', { covered: 1 });
    expect(setCovered).toHaveBeenLastCalledWith(2);
    const { commands } = press('c', { covered: 3 });
    expect(setCovered).toHaveBeenLastCalledWith(3);
    expect(commands.allCovered).toBe(true);
    press('u', { covered: 3 });
    expect(setCovered).toHaveBeenLastCalledWith(0);
  });
  it.each([
    [' ', run.toggle],
    ['l', run.loop],
    ['f', fullScreen],
    ['o', secondWindow],
    ['e', hear],
    ['m', onceMore],
    ['Escape', onEnd],
  ])('“%s” does its own', (key, done) => {
    press(key);
    expect(done).toHaveBeenCalledOnce();
    expect(run.go).not.toHaveBeenCalled();
  });
});

it('nothing is led once more where the class was together', () => {
  expect(press('f', { pass: 3 }).commands.keys).not.toHaveProperty('m');
});

describe('groups with parts of their own', () => {
  it('change over at G; with one part there is no such key', () => {
    press('g');
    expect(changeOver).toHaveBeenCalledOnce();
    expect(() => press('g', { pass: 3 })).toThrow();
  });
});

describe('a page of lines', () => {
  const page = timetable(
    patternOf('4/4 "1" q q h | w | "2" h h'),
    { ...READY_PLANS()[0]!, chunks: { kind: 'whole' }, passes: [{ activity: 'clap', who: 'together' }] },
    { school: 'numbers' },
  );
  if (!page.ok) throw new Error(page.trouble.code);
  const [section] = page.timetable.sections;
  const commands = () =>
    leadCommands({
      run: run as never,
      table: page.timetable,
      section: section!,
      covered: 0,
      setCovered,
      changeOver: undefined,
      fullScreen,
      secondWindow,
      hear,
      onceMore: undefined,
      onEnd,
    });
  it('has each line alone at its number, and all again at 0', () => {
    const { keys, lines } = commands();
    expect(lines.map(({ number }) => number)).toEqual([1, 2]);
    keys['1']!(new Event('keydown') as KeyboardEvent);
    expect(run.stay).toHaveBeenLastCalledWith(0, 1);
    lines[1]!.press();
    expect(run.stay).toHaveBeenLastCalledWith(2, 2);
    keys['0']!(new Event('keydown') as KeyboardEvent);
    expect(run.goOn).toHaveBeenCalledOnce();
  });
  it('is nothing of what has no lines', () =>
    expect(Object.keys(press('f').commands.keys).filter((key) => /\d/.test(key))).toEqual([]));
});

it('a place that is counted in again asks nothing of mouth, hands and feet', () => {
  const moment = { section: 1, measure: 2, leadIn: undefined, mouth: 'ta', hands: 'clap', foot: 'R' } as const;
  expect(countedIn(moment, 'ready')).toEqual({
    section: 1,
    measure: 2,
    leadIn: 'ready',
    mouth: '',
    hands: undefined,
    foot: '',
  });
});
