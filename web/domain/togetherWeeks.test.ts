import { v4 as uuid } from 'uuid';
import { expect, it } from 'vitest';
import type { Hearing } from '../../contract/together.ts';
import { mondayOf, narrower, weeksOf } from './togetherWeeks.ts';

/** A pass on a day of November 2026, in the middle of the day. */
function heard(day: number, widthMs: number | undefined, patternText = '4/4 q q q q', title = 'Steps'): Hearing {
  const takenAt = new Date(2026, 10, day, 12).getTime();
  const all = { notes: [], rests: [], holds: [], driftPct: 0, widthMs, aheadMs: 0, tooFew: false, confidence: 1 };
  return { id: uuid(), takenAt, title, patternText, bpm: 80, from: 'microphone', heard: all };
}

it('a week begins on Monday', () => {
  expect([22, 23, 29, 30].map((day) => mondayOf(new Date(2026, 10, day, 23, 59).getTime()))).toEqual([
    '2026-11-16',
    '2026-11-23',
    '2026-11-23',
    '2026-11-30',
  ]);
});

it('what was heard is a row a pattern, a column a week, passes in their order', () => {
  const all = [heard(25, 60), heard(24, 90), heard(18, 120), heard(17, 70, '4/4 w', 'Long'), heard(16, undefined)];
  const { mondays, rows } = weeksOf(all);
  expect(mondays).toEqual(['2026-11-16', '2026-11-23']);
  expect(
    rows.map(({ title, weeks }) => [title, [...weeks].map(([monday, passes]) => [monday, passes.length])]),
  ).toEqual([
    [
      'Steps',
      [
        ['2026-11-16', 1],
        ['2026-11-23', 2],
      ],
    ],
    ['Long', [['2026-11-16', 1]]],
  ]);
  expect(rows[0]!.weeks.get('2026-11-23')!.map(({ id }) => id)).toEqual([all[1]!.id, all[0]!.id]);
  // From what it came to that week, not from its best.
  expect(rows.map((row) => narrower(row, mondays))).toEqual([60, undefined]);
});

it('goes back a term, and no pattern is a row of nothing', () => {
  const long = Array.from({ length: 15 }, (_, week) => heard(30 - 7 * week, 80));
  const old = heard(30 - 7 * 20, 50, '4/4 w', 'Old');
  const { mondays, rows } = weeksOf([...long, old]);
  expect([mondays.length, mondays.at(-1)]).toEqual([12, '2026-11-30']);
  expect(rows.map(({ title, weeks }) => [title, weeks.size])).toEqual([['Steps', 12]]);
  expect(weeksOf([])).toEqual({ mondays: [], rows: [] });
});
