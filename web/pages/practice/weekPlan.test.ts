import { describe, expect, it } from 'vitest';
import type { PracticeWeek } from '../../../contract/practice.ts';
import { calendarOf, daysOf, sameWeekdays, timesText } from './calendar.ts';
import { doneOn, minutesOf, practising } from './weekPlan.ts';

const item = (title: string, times: number, days: number[], text = '4/4 q q q q') => ({
  patternId: title,
  title,
  text,
  bpm: 60,
  times,
  days,
});
const WEEK: PracticeWeek = {
  id: 'w',
  starts: '2026-12-30',
  plan: { title: 'Over, the year; end', items: [item('Steps', 2, [0, 3]), item('Gate', 1, [0])], children: ['a', 'c'] },
  practised: [
    { childId: 'a', item: 0, day: 0, times: 5 },
    { childId: 'a', item: 1, day: 0, times: 1 },
    { childId: 'c', item: 0, day: 0, times: 1 },
    { childId: 'c', item: 1, day: 3, times: 4 },
  ],
};

describe('a practice week', () => {
  it.each([
    // Tuesday and Friday of a week that began on Monday, then on Wednesday, Sunday, the next Monday.
    ['2026-11-30', [1, 4], '2026-12-02', [2, 6]],
    ['2026-11-30', [1, 4], '2026-11-29', [2, 5]],
    ['2026-11-30', [1, 4], '2026-12-07', [1, 4]],
    ['2026-11-30', [], '2026-12-02', []],
  ])('that began on %s with days %j keeps its weekdays when it begins on %s', (from, days, starts, kept) => {
    expect(sameWeekdays(days, starts, from)).toEqual(kept);
    const titles = (start: string, some: readonly number[]) => some.map((day) => daysOf(start)[day]!.title.slice(0, 3));
    expect(new Set(titles(starts, kept))).toEqual(new Set(titles(from, days)));
  });

  it('counts what was done up to what there was to do', () => {
    expect(doneOn(WEEK, 'a', 0)).toEqual({ done: 3, due: 3 });
    expect(doneOn(WEEK, 'c', 0)).toEqual({ done: 1, due: 3 });
    expect(doneOn(WEEK, 'c', 3)).toEqual({ done: 0, due: 2 });
    expect(doneOn(WEEK, 'a', 1)).toBeUndefined();
  });
  it('is for those it names, or for all', () => {
    const children = ['a', 'b', 'c'].map((id) => ({ id, name: id, adaptations: null }));
    expect(practising(WEEK, children).map(({ id }) => id)).toEqual(['a', 'c']);
    expect(practising({ ...WEEK, plan: { ...WEEK.plan, children: null } }, children)).toHaveLength(3);
  });
  it('goes on over the end of the year, and into a calendar', async () => {
    expect(daysOf(WEEK.starts).map(({ title }) => title)[3]).toBe('Sat 2 Jan');
    const minutes = minutesOf(WEEK.plan.items);
    expect(minutes).toEqual([1, 0, 0, 1, 0, 0, 0]);
    expect(minutesOf([item('Broken', 2, [0], 'x')])).toEqual([0, 0, 0, 0, 0, 0, 0]);
    const text = await calendarOf(WEEK, minutes);
    expect(text.match(/BEGIN:VEVENT/g)).toHaveLength(2);
    expect(text).toContain('DTSTART;VALUE=DATE:20261230');
    expect(text).toContain('DTSTART;VALUE=DATE:20270102');
    expect(text).toContain('SUMMARY:Clap: Steps\\, Gate (1 min)');
    expect(text.replace(/\r\n /g, '')).toContain('DESCRIPTION:Steps: twice at 60\\nGate: once at 60');
    expect(text.split('\r\n').every((line) => new TextEncoder().encode(line).length <= 75)).toBe(true);
    expect([timesText(1), timesText(3)]).toEqual(['once', '3 times']);
  });
});
