import { beforeEach, describe, expect, it } from 'vitest';
import { READY_PLANS } from '../../../core/leading/plan.ts';
import { measureStarts } from '../../../core/leading/moment.ts';
import { type Timetable, timetable } from '../../../core/leading/timetable.ts';
import { patternOf } from '../../../core/rhythm/arbitrary.test-helper.ts';
import { type Played, leadControls } from './leadControls.ts';

function tableOf(): Timetable {
  const made = timetable(patternOf('4/4 q q h | q e e h | h h'), READY_PLANS()[1]!, { school: 'numbers' });
  if (!made.ok) throw new Error('no timetable');
  return made.timetable;
}

const table = tableOf();
/** A player that stands somewhere, and writes down what it is asked. */
let at = 0;
let running = true;
let loops = false;
let asked: string[] = [];
const player: Played = {
  now: () => at,
  start: (from?: number) => void asked.push(`start ${from ?? 'again'}`),
  jump: (to) => void asked.push(`jump ${to}`),
  pause: () => void asked.push('pause'),
  resume: () => void asked.push('resume'),
  setRate: (rate) => void asked.push(`rate ${rate}`),
  loop: (span) => void asked.push(span ? `loop ${span.from} ${span.to}` : 'no loop'),
  state: () => ({ state: 'running', rate: 1, loops }),
  get running() {
    return running;
  },
};

beforeEach(() => {
  [at, running, loops, asked] = [0, true, false, []];
});

const begins = (section: number, measure: number) =>
  measureStarts(table).find((one) => one.section === section && one.measure === measure)!.time;
const inSection = (section: number) => table.sections[section]!.start + 0.01;

describe('what a key asks of a run', () => {
  it('begins it again when it is over, else pauses it or goes on', () => {
    leadControls(player, table, true).toggle();
    leadControls(player, table, false).toggle();
    running = false;
    leadControls(player, table, false).toggle();
    expect(asked).toEqual(['start again', 'pause', 'resume']);
  });

  it('goes to a place: with a new start where the run is over', () => {
    leadControls(player, table, false).go(7);
    leadControls(player, table, true).go(7);
    expect(asked).toEqual(['jump 7', 'start 7']);
  });

  it('goes to a measure of the section that sounds now, and nowhere for one there is not', () => {
    const last = table.sections.length - 1;
    expect(last).toBeGreaterThan(0);
    at = inSection(last);
    leadControls(player, table, false).goToMeasure(1);
    leadControls(player, table, false).goToMeasure(99);
    expect(asked).toEqual([`jump ${begins(last, 1)}`]);
    expect(begins(last, 1)).toBeGreaterThan(begins(0, 1));
  });

  it('stays in some measures, to the end of the last of them', () => {
    at = inSection(0);
    leadControls(player, table, false).stay(1, 1);
    leadControls(player, table, false).stay(1, 2);
    expect(asked).toEqual([
      `loop ${begins(0, 1)} ${begins(0, 2)}`,
      `jump ${begins(0, 1)}`,
      `loop ${begins(0, 1)} ${table.sections[0]!.end}`,
      `jump ${begins(0, 1)}`,
    ]);
  });

  it('repeats the whole pass, and no longer at the next press', () => {
    at = inSection(0);
    const { pass } = table.sections[0]!;
    const whole = table.sections.filter((section) => section.pass === pass);
    leadControls(player, table, false).loop();
    loops = true;
    leadControls(player, table, false).loop();
    leadControls(player, table, false).goOn();
    expect(asked).toEqual([`loop ${whole[0]!.from} ${whole.at(-1)!.end}`, 'no loop', 'no loop']);
    expect(whole.at(-1)!.end).toBeGreaterThan(whole[0]!.from);
  });
});
