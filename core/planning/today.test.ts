import { describe, expect, it } from 'vitest';
import { type ClassDays, type DayLesson, stepsOfWeek, todayOf } from './today.ts';
import { minutesOf } from './slots.ts';

const MONDAY = '2026-11-30';
const TUESDAY = '2026-12-01';
const lesson = (id: string, day: string | null, starts: string | null = null, held: unknown = null): DayLesson => ({
  id,
  day,
  starts,
  minutes: 40,
  held,
});
/** Mondays and Tuesdays at a time, with a holiday on the second Monday. */
const term = (starts: string, contents: readonly { element: string; step: string }[][] = []) =>
  ({
    from: MONDAY,
    until: '2026-12-18',
    slots: [
      { weekday: 0, starts, minutes: 40 },
      { weekday: 1, starts, minutes: 40 },
    ],
    holidays: [{ from: '2026-12-07', until: '2026-12-07' }],
    contents,
  }) as unknown as NonNullable<ClassDays<DayLesson>['term']>;
const room = (classId: string, starts: string | undefined, ...lessons: DayLesson[]): ClassDays<DayLesson> => ({
  classId,
  term: starts === undefined ? null : term(starts),
  lessons,
});
const named = ({
  classId,
  day,
  starts,
  lesson: one,
}: {
  classId: string;
  day: string;
  starts: string | null;
  lesson: DayLesson | undefined;
}) => `${classId} ${day.slice(8)} ${starts ?? '?'}${one ? ` ${one.id}` : ''}`;

describe('today', () => {
  const gulls = room('gulls', '11:00', lesson('g1', TUESDAY));
  const crabs = room('crabs', '09:00', lesson('c1', TUESDAY, '09:00'), lesson('c9', '2026-12-02', '08:00'));
  const seals = room('seals', undefined, lesson('s1', TUESDAY), lesson('s2', TUESDAY, '10:00'), lesson('s3', null));
  it('has the lessons of all classes by time, prepared or not, planned for the term or not', () =>
    expect(todayOf([gulls, crabs, seals, room('eels', '12:00')], TUESDAY, 0).lessons.map(named)).toEqual([
      'crabs 01 09:00 c1',
      'seals 01 10:00 s2',
      'gulls 01 11:00 g1',
      'eels 01 12:00',
      'seals 01 ? s1',
    ]));
  it.each([
    ['before school', '07:30', 'crabs 01 09:00 c1'],
    ['while it is on', '09:39', 'crabs 01 09:00 c1'],
    ['when it is over', '09:40', 'gulls 01 11:00 g1'],
    ['when all are over, on the next day', '12:00', 'crabs 02 08:00 c9'],
  ])('%s, at %s, the one that counts is %s', (_when, time, next) =>
    expect(named(todayOf([gulls, crabs], TUESDAY, minutesOf(time)).next!)).toBe(next),
  );
  it('what was held is not next, whenever it was', () =>
    expect(
      named(todayOf([room('crabs', '09:00', lesson('c1', TUESDAY, null, { at: 1 })), gulls], TUESDAY, 0).next!),
    ).toBe('gulls 01 11:00 g1'));
  it('leaves out holidays, and is nothing where nothing is planned', () => {
    expect(named(todayOf([room('gulls', '11:00')], '2026-12-06', 0).next!)).toBe('gulls 08 11:00');
    expect(todayOf([room('gulls', '11:00')], '2026-12-07', 0).lessons).toEqual([]);
    expect(todayOf([room('seals', undefined, lesson('s3', null))], TUESDAY, 0)).toEqual({
      lessons: [],
      next: undefined,
    });
    expect(todayOf([room('seals', undefined, lesson('s3', '2026-12-23'))], TUESDAY, 0).next).toBeUndefined();
  });
  it('a lesson without a time is the first of its day, and no second one', () => {
    const twice = term('08:00');
    const slots = [...twice.slots, { weekday: 1, starts: '13:00', minutes: 40 }];
    expect(
      todayOf(
        [{ classId: 'gulls', term: { ...twice, slots }, lessons: [lesson('a', TUESDAY)] }],
        TUESDAY,
        0,
      ).lessons.map(named),
    ).toEqual(['gulls 01 08:00 a', 'gulls 01 13:00']);
  });
  it('two lessons of a day without a time are not both in one place', () =>
    expect(
      todayOf([room('gulls', '11:00', lesson('a', TUESDAY), lesson('b', TUESDAY))], TUESDAY, 0).lessons.map(named),
    ).toEqual(['gulls 01 11:00 a', 'gulls 01 ? b']));
});

describe('what is due this week', () => {
  const step = (element: string, of = 'meet') => ({ element, step: of });
  const contents = [[step('quarter')], [step('eighths'), step('quarter', 'read')], [step('half'), step('half')]];
  it.each([
    [MONDAY, ['quarter meet', 'eighths meet', 'quarter read']],
    [TUESDAY, ['eighths meet', 'quarter read']],
    ['2026-12-02', []],
    ['2026-12-07', ['half meet']],
    ['2026-12-09', []],
  ])('from %s on it is %j', (day, due) =>
    expect(
      stepsOfWeek({ term: term('09:00', contents) }, day).map(({ element, step: of }) => `${element} ${of}`),
    ).toEqual(due),
  );
  it('is nothing without a term', () => expect(stepsOfWeek({ term: null }, MONDAY)).toEqual([]));
});
