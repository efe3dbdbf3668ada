import { describe, expect, it } from 'vitest';
import { patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { scheduleOf } from '../timing/schedule.ts';
import { MISREADINGS } from './misreadings/table.ts';
import { offStretch } from './offStretch.ts';
import { scoreOf } from './scoreEvents.ts';
import type { Misreading, Verdict } from './takeResult.ts';

const VERDICT: Readonly<Record<string, Verdict>> = { '.': 'on-time', e: 'early', l: 'late', x: 'missed' };
const schedule = scheduleOf(patternOf('4/4 q q q q | q q q q | q q q q'), 60);

/** Where a take of twelve quarters with these verdicts was lost, and from where right again. */
function lost(verdicts: string, misreadings: readonly Misreading[] = []): string | undefined {
  const notes = [...verdicts].map((verdict, index) => ({
    index,
    ...schedule.notes[index]!.place,
    verdict: VERDICT[verdict]!,
  }));
  const found = offStretch(notes, scoreOf(schedule), misreadings);
  return found && `${found.code} ${found.measure}.${found.beat.n} to ${found.until!.measure}.${found.until!.beat.n}`;
}

const said = (code: Misreading['code'], more: Partial<Misreading> = {}): Misreading => ({
  code,
  event: 0,
  ...schedule.notes[0]!.place,
  ...more,
});

describe('a stretch that went early and late', () => {
  it.each([
    ['....elle....', 'lost-and-recovered 2.1 to 3.1'],
    ['.exle.......', 'lost-and-recovered 1.2 to 2.2'],
    ['..l.xlele...', 'lost-and-recovered 1.3 to 3.2'],
    ['....elle..l.', 'lost-and-recovered 2.1 to 3.1'],
    ['....ele.....', 'lost-and-recovered 2.1 to 2.4'],
    ['....el......', undefined],
    ['....e.xl....', 'lost-and-recovered 2.1 to 3.1'],
    ['....e..xl...', undefined],
    ['....el.....e', undefined],
    ['....llll....', undefined],
    ['....eeee....', undefined],
    ['....xxxx....', undefined],
    ['l...elle..l.', undefined],
    ['ellee.......', undefined],
    ['.......elle.', undefined],
    ['......elle..', 'lost-and-recovered 2.3 to 3.3'],
  ])('%s: %s', (verdicts, expected) => expect(lost(verdicts)).toBe(expected));

  it('is nothing beside what explains it, and something beside a tempo or what it may have been', () => {
    expect(lost('....elle....', [said('hesitated')])).toBeUndefined();
    expect(lost('....elle....', [said('another-rhythm')])).toBeUndefined();
    expect(lost('....elle....', [said('rushing')])).toBeDefined();
    expect(lost('....ele.....', [said('rushing')])).toBeUndefined();
    expect(lost('....elle....', [said('hesitated', { instead: true })])).toBeDefined();
  });
});

it('tries the measure before only where no more than three measures are wrong', () => {
  const kind = MISREADINGS['measure-repeated'];
  const score = scoreOf(scheduleOf(patternOf('4/4 q q h | q e e h | e e e e h | q q q q | e e q h'), 60));
  const claps = score.notes.map((index, note) => {
    const { time } = score.events[index]!;
    return { note, written: time, time };
  });
  const tried = (wrong: readonly number[]) =>
    kind.inTake!(score, {
      onsets: new Float64Array(),
      claps,
      hits: new Int32Array(claps.length),
      curve: { from: 0, length: 1, lag: 0, tempo: 0, bend: 0 },
      first: 0,
      strange: claps.map((_, i) => wrong.includes(i)),
      free: false,
    }).map(({ event }) => score.events[event]!.played);
  expect(tried([4, 5])).toEqual([1]);
  expect(tried([7])).toEqual([2]);
  expect(tried([4, 8, 12])).toEqual([1, 2, 3]);
  expect(tried([4, 8, 12, 16])).toEqual([]);
  expect(tried([1])).toEqual([]);
  expect(tried([])).toEqual([]);
});
