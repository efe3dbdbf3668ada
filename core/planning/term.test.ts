import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ELEMENT_IDS, type ElementId } from '../rhythm/elements.ts';
import { dayNumber, dayOf, daysBetween, weekdayOf } from './days.ts';
import { type TermDays, lessonSlots } from './slots.ts';
import { BACK_WITHIN, type Contents, STEPS, type TermStep, moveLesson, moveOn, planTerm, spread } from './term.ts';

/** Two lessons a week from September to December, a week without in October. */
const AUTUMN: TermDays = {
  from: '2026-09-07',
  until: '2026-12-18',
  slots: [
    { weekday: 3, starts: '11:20', minutes: 45 },
    { weekday: 0, starts: '09:40', minutes: 40 },
  ],
  holidays: [{ from: '2026-10-19', until: '2026-10-25' }],
};

describe('days', () => {
  it('are those of the calendar, leap years too', () => {
    fc.assert(
      fc.property(fc.integer({ min: -200_000, max: 400_000 }), (number) => {
        const day = new Date(number * 86_400_000).toISOString().slice(0, 10);
        fc.pre(/^\d{4}-/.test(day));
        expect(dayOf(number)).toBe(day);
        expect(dayNumber(day)).toBe(number);
        expect(weekdayOf(number)).toBe((new Date(number * 86_400_000).getUTCDay() + 6) % 7);
      }),
    );
    expect(['2024-02-29', '2000-02-29', '2100-03-01', '1970-01-01'].map((day) => dayOf(dayNumber(day)))).toEqual([
      '2024-02-29',
      '2000-02-29',
      '2100-03-01',
      '1970-01-01',
    ]);
    expect(daysBetween('2026-12-30', '2027-01-02')).toBe(3);
  });
});

describe('the lessons of a term', () => {
  it('stand on the days of the class, and not in the holidays', () => {
    const slots = lessonSlots(AUTUMN);
    expect(slots.slice(0, 3)).toEqual([
      { day: '2026-09-07', starts: '09:40', minutes: 40 },
      { day: '2026-09-10', starts: '11:20', minutes: 45 },
      { day: '2026-09-14', starts: '09:40', minutes: 40 },
    ]);
    expect(slots.length).toBe(28);
    expect(slots.map(({ day }) => day)).not.toContain('2026-10-19');
    expect(slots.at(-1)!.day).toBe('2026-12-17');
  });
  it('two on one day come in the order of the clock; over a summer time change days stay days', () => {
    const slots = [
      { weekday: 6, starts: '14:00', minutes: 30 },
      { weekday: 6, starts: '08:00', minutes: 30 },
    ];
    const days = lessonSlots({ from: '2026-10-24', until: '2026-11-02', slots, holidays: [] });
    expect(days.map(({ day, starts }) => `${day} ${starts}`)).toEqual([
      '2026-10-25 08:00',
      '2026-10-25 14:00',
      '2026-11-01 08:00',
      '2026-11-01 14:00',
    ]);
  });
  it('there are none where the term is over before it begins, or no day is given', () => {
    expect(lessonSlots({ ...AUTUMN, until: '2026-09-01' })).toEqual([]);
    expect(lessonSlots({ ...AUTUMN, slots: [] })).toEqual([]);
  });
});

const stepsOf = (contents: Contents, element: ElementId) =>
  contents.flatMap((lesson, i) => lesson.flatMap((one) => (one.element === element ? [[i, one.step] as const] : [])));

describe('new elements', () => {
  it('go a step a lesson, one after the other, with room between', () => {
    const { contents, left } = spread(['half', 'half-rest', 'tie'], 28);
    expect(left).toEqual([]);
    expect(stepsOf(contents, 'half')).toEqual([0, 1, 2, 3].map((i, k) => [i, STEPS[k]]));
    expect(stepsOf(contents, 'half-rest')[0]).toEqual([4, 'meet']);
    expect(stepsOf(contents, 'tie').at(-1)).toEqual([11, 'hear']);
  });
  it('come closer where there are many, and what does not fit is said', () => {
    const many = ELEMENT_IDS.slice(0, 10);
    expect(stepsOf(spread(many, 22).contents, many[1]!)[0]).toEqual([2, 'meet']);
    const { contents, left } = spread(many, 8);
    expect(contents.flat().length + left.length).toBe(40);
    expect(left.map(({ element }) => element)).toContain(many[9]);
    expect(spread(['tie'], 2).left).toEqual([
      { element: 'tie', step: 'write' },
      { element: 'tie', step: 'hear' },
    ]);
  });
});

describe('another order in the middle of a term', () => {
  it('leaves what is over, goes on with what was begun, and spreads the rest', () => {
    const { contents } = spread(['half', 'tie'], 16);
    const past = contents.slice(0, 2);
    const { contents: after, left } = spread(['syncopation', 'half', 'tie'], 16, past);
    expect(after.slice(0, 2)).toEqual(past);
    expect(stepsOf(after, 'half').map(([at]) => at)).toEqual([0, 1, 2, 3]);
    expect(stepsOf(after, 'syncopation')[0]).toEqual([6, 'meet']);
    expect(stepsOf(after, 'tie')[0]).toEqual([10, 'meet']);
    expect(left).toEqual([]);
    // What is taken out of the order is not taken out of what is over.
    expect(stepsOf(spread(['tie'], 16, past).contents, 'half').length).toBe(2);
    expect(spread(['half'], 3, contents.slice(0, 3)).left).toEqual([{ element: 'half', step: 'hear' }]);
  });
});

/** The order of steps holds for every element, and nothing is lost or twice. */
function expectInOrder(contents: Contents, left: readonly TermStep[], elements: readonly ElementId[]): void {
  for (const element of elements) {
    const all = [...contents.flat(), ...left].filter((one) => one.element === element).map(({ step }) => step);
    expect(all).toEqual(STEPS);
  }
}

describe('changes', () => {
  const ELEMENTS: readonly ElementId[] = ['half', 'half-rest', 'tie', 'syncopation'];

  it('a lesson that is dragged takes its place, and nothing is read before it was met', () => {
    const { contents } = spread(ELEMENTS, 20);
    const moved = moveLesson(contents, 4, 0);
    expect(moved[0]).toEqual([{ element: 'half-rest', step: 'meet' }]);
    expect(moved[1]).toEqual([{ element: 'half', step: 'meet' }]);
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(19), fc.nat(19)), { maxLength: 12 }), (moves) => {
        const after = moves.reduce<Contents>((now, [from, to]) => moveLesson(now, from, to), contents);
        expect(after.length).toBe(20);
        expectInOrder(after, [], ELEMENTS);
      }),
    );
  });

  it('what was not done moves to the next lesson, and what builds on it moves too', () => {
    const { contents } = spread(['half', 'tie'], 9);
    const { contents: after, left } = moveOn(contents, 1, []);
    expect(stepsOf(after, 'half')).toEqual([
      [0, 'meet'],
      [2, 'read'],
      [3, 'write'],
      [4, 'hear'],
    ]);
    expect(stepsOf(after, 'tie')).toEqual(stepsOf(contents, 'tie'));
    expect(left).toEqual([]);
    expect(moveOn(contents, 1, contents[1]!).contents).toEqual(contents);
    expect(moveOn(spread(['tie'], 4).contents, 3, []).left).toEqual([{ element: 'tie', step: 'hear' }]);
  });

  it('whatever is left out, each element keeps its steps in order', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(11), fc.nat(3)), { maxLength: 10 }), (missed) => {
        let contents: Contents = spread(ELEMENTS, 12).contents;
        const left: TermStep[] = [...spread(ELEMENTS, 12).left];
        for (const [lesson, keep] of [...missed].sort((a, b) => a[0] - b[0])) {
          const after = moveOn(contents, lesson, contents[lesson]!.slice(0, keep));
          contents = after.contents;
          left.unshift(...after.left);
        }
        const inOrder = [...left].sort((a, b) => STEPS.indexOf(a.step) - STEPS.indexOf(b.step));
        expectInOrder(contents, inOrder, ELEMENTS);
      }),
    );
  });
});

describe('what comes back', () => {
  it('before three weeks are over, not with what is new, as few at a time as will do', () => {
    const slots = lessonSlots(AUTUMN);
    const { contents } = spread(['half', 'half-rest', 'tie', 'syncopation'], slots.length);
    const known = new Map<ElementId, string>([
      ['quarter', '2026-09-01'],
      ['eighth-pair', '2026-09-02'],
      ['quarter-rest', '2026-09-03'],
    ]);
    const { lessons, late } = planTerm(slots, contents, known);
    expect(late).toEqual([]);
    expect(lessons.every(({ again }) => again.length <= 3)).toBe(true);
    expect(lessons.some(({ again }) => again.includes('quarter'))).toBe(false);
    for (const element of ['eighth-pair', 'half'] as const) {
      const days = lessons.flatMap(({ day, steps, again }) =>
        again.includes(element) || steps.some((one) => one.element === element) ? [day] : [],
      );
      for (const [i, day] of days.entries())
        if (i > 0) expect(daysBetween(days[i - 1]!, day)).toBeLessThanOrEqual(BACK_WITHIN);
      expect(days.length).toBeGreaterThan(3);
    }
  });
  it('says what comes too late, because of holidays or because there is too much', () => {
    const summer = lessonSlots({ ...AUTUMN, holidays: [{ from: '2026-09-21', until: '2026-10-18' }] });
    const { late } = planTerm(summer, [], new Map([['eighth-pair', '2026-09-16']]));
    expect(late.map(({ element }) => element)).toEqual(['eighth-pair']);
    expect(late[0]!.days).toBeGreaterThan(BACK_WITHIN);
    const everything = new Map(ELEMENT_IDS.map((id) => [id, '2026-09-06']));
    const weekly = { ...AUTUMN, slots: [AUTUMN.slots[1]!] };
    // Fourteen at three lessons in three weeks are five at a time; with one lesson in two weeks it is too much.
    const whole = planTerm(lessonSlots(weekly), [], everything);
    expect(Math.max(...whole.lessons.map(({ again }) => again.length))).toBe(5);
    const rarely = lessonSlots(weekly).filter((_, i) => i % 2 === 0);
    expect(planTerm(rarely, [], everything).late.length).toBeGreaterThan(0);
  });
  it('is never new before it was heard for a mark', () => {
    const slots = lessonSlots(AUTUMN);
    const { lessons } = planTerm(slots, spread(['tie'], slots.length).contents);
    const heard = lessons.findIndex(({ steps }) => steps.some(({ step }) => step === 'hear'));
    expect(lessons.slice(0, heard + 1).every(({ again }) => again.length === 0)).toBe(true);
    expect(lessons.slice(heard + 1).some(({ again }) => again.includes('tie'))).toBe(true);
    const slowly = slots.map((_, i) => {
      const step = STEPS[i / 6];
      return step ? [{ element: 'tie', step } as const] : [];
    });
    const { lessons: apart } = planTerm(slots, slowly);
    expect(apart.findIndex(({ again }) => again.includes('tie'))).toBeGreaterThan(18);
  });
});
