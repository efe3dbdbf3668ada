import { describe, expect, it } from 'vitest';
import type { SavedLesson } from '../../../contract/lesson.ts';
import { lessonSlots } from '../../../core/planning/slots.ts';
import type { ElementId } from '../../../core/rhythm/elements.ts';
import { carried, dragged, inOrder, lessonAt, movedAlong, newTerm, notDone, onDays, planned } from './termDraft.ts';

const MONDAY = '2026-09-07';
const MET = new Set<ElementId>(['quarter', 'eighth-pair', 'quarter-rest']);
const term = newTerm(MONDAY, MET);
const at = (plan: typeof term, element: ElementId) =>
  plan.contents.flatMap((steps, i) => (steps.some((one) => one.element === element) ? [i] : []));

describe('a term', () => {
  it('begins with what the class has not met, in the usual order, a lesson a week', () => {
    expect(term.order).toEqual(['half', 'half-rest', 'dotted-half', 'whole']);
    expect(term.until).toBe('2026-12-11');
    expect(lessonSlots(term)).toHaveLength(14);
    expect(at(term, 'half')).toEqual([0, 1, 2, 3]);
    expect(term.left).toEqual([]);
  });

  it('on other days keeps what is over where it was; the rest follows, and what does not fit is left', () => {
    const today = '2026-09-21';
    const slots = [...term.slots, { weekday: 3, starts: '11:20', minutes: 30 }];
    const twice = onDays(term, { slots }, today);
    const days = lessonSlots(twice).map(({ day }) => day);
    expect(at(twice, 'half').map((i) => days[i])).toEqual(['2026-09-07', '2026-09-14', '2026-09-21', '2026-09-24']);
    const short = onDays(term, { until: '2026-10-12' }, today);
    expect(short.contents).toHaveLength(6);
    expect(short.contents.flat().length + short.left.length).toBe(16);
    // Longer again, what was left comes in again.
    const again = onDays(short, { until: '2026-12-11' }, today);
    expect(again.left).toEqual([]);
    expect(again.contents.flat()).toHaveLength(16);
    const holidays = onDays(term, { holidays: [{ from: '2026-09-21', until: '2026-09-27' }] }, today);
    expect(at(holidays, 'half').map((i) => lessonSlots(holidays)[i]!.day)).toEqual([
      '2026-09-07',
      '2026-09-14',
      '2026-09-28',
      '2026-10-05',
    ]);
  });

  it('in another order leaves what is over as it was', () => {
    const other = inOrder(term, ['whole', 'half'], '2026-09-21');
    expect(other.contents.slice(0, 2)).toEqual(term.contents.slice(0, 2));
    expect(other.order).toEqual(['whole', 'half']);
    expect(at(other, 'half')).toEqual([0, 1, 2, 3]);
    expect(at(other, 'half-rest')).toEqual([]);
  });

  it('goes on with what was not done, and with a lesson that was dragged', () => {
    const [step] = term.contents[1]!;
    const later = notDone(term, 1, [step!]);
    expect(at(later, 'half')).toEqual([0, 2, 3, 4]);
    expect(notDone(term, 1, [])).toEqual(term);
    expect(at(dragged(term, 0, 3), 'half')[0]).toBe(0);
    expect(dragged(term, 3, 0).contents[0]!.map(({ step: one }) => one)).toContain('meet');
  });

  it('goes along with a lesson to its other day, each element in its order', () => {
    const steps = (plan: typeof term, i: number) => plan.contents[i]!.map(({ element, step }) => `${element} ${step}`);
    expect(term.contents.slice(0, 4).map((_, i) => steps(term, i))).toEqual([
      ['half meet'],
      ['half read'],
      ['half write'],
      ['half hear', 'half-rest meet'],
    ]);
    const later = carried(term, 3, 2);
    expect([steps(later, 2), steps(later, 3)]).toEqual([['half write', 'half hear', 'half-rest meet'], []]);
    const behind = carried(term, 0, 2);
    expect([0, 1, 2].map((i) => steps(behind, i))).toEqual([[], ['half meet'], ['half read', 'half write']]);
  });

  it('moves the lessons that are kept for its days, but none that was held', () => {
    const slots = lessonSlots(term);
    const kept = (i: number, held: object | null = null, starts: string | null = '09:40') =>
      ({ id: String(i), day: slots[i]!.day, starts, held }) as never as SavedLesson;
    const lessons = [kept(0), kept(1, { at: 1 }), kept(2, null, null), kept(5), { ...kept(3), day: '2026-09-30' }];
    const days = (from: number, to: number) =>
      movedAlong(lessons, slots, from, to).map(({ now, was }) => [now.id, was.day, now.day, now.starts]);
    expect(days(0, 2)).toEqual([
      ['0', slots[0]!.day, slots[2]!.day, '09:40'],
      ['2', slots[2]!.day, slots[1]!.day, null],
    ]);
    expect(days(4, 6)).toEqual([['5', slots[5]!.day, slots[4]!.day, '09:40']]);
    expect(days(7, 8)).toEqual([]);
  });

  it('has old elements come back, and finds its lesson by day and time', () => {
    const known = new Map<ElementId, string>([
      ['eighth-pair', '2026-09-01'],
      ['tie', '2026-09-10'],
    ]);
    const { lessons } = planned(term, known);
    expect(lessons.some(({ again }) => again.includes('eighth-pair'))).toBe(true);
    expect(lessons.some(({ again }) => again.includes('tie'))).toBe(true);
    const slots = lessonSlots(term);
    expect(lessonAt(slots, '2026-09-14', '09:40')).toBe(1);
    expect(lessonAt(slots, '2026-09-14', null)).toBe(1);
    expect(lessonAt(slots, '2026-09-14', '08:00')).toBe(-1);
    expect(lessonAt(slots, null, null)).toBe(-1);
  });
});
