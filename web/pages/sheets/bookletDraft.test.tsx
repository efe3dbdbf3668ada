// @vitest-environment happy-dom
import { act, renderHook } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { SavedLesson } from '../../../contract/lesson.ts';
import type { TermPlanEdit } from '../../../contract/termPlan.ts';
import { voiceOf } from '../../../core/wording/voice.ts';
import { tidyAfterEach } from '../../page.test-helper.tsx';
import { bookletAbout, bookletLessons, useBookletChoice } from './bookletDraft.ts';
import { newSheet } from './sheetDraft.ts';

tidyAfterEach();

const TERM: TermPlanEdit = {
  from: '2026-11-24',
  until: '2026-12-15',
  slots: [{ weekday: 1, starts: '09:40', minutes: 40 }],
  holidays: [],
  order: ['half', 'tie'],
  contents: [[{ element: 'half', step: 'meet' }], [{ element: 'half', step: 'read' }], [], []],
  left: [],
};
const LESSON: SavedLesson = {
  id: 'lesson',
  title: 'Rests at last',
  minutes: 40,
  day: '2026-12-01',
  starts: null,
  held: null,
  blocks: [
    {
      key: 1,
      kind: 'read',
      minutes: 10,
      note: '',
      steps: [],
      patterns: [{ patternId: 'tide' }, { patternId: 'tide' }, { patternId: 'gone' }],
    },
  ],
} as unknown as SavedLesson;
const KEPT = { ...newSheet(voiceOf(undefined), null), id: 'kept', title: 'Week 7', paper: 'letter' as const, seed: 9 };

const planned = {
  schoolClass: { name: 'Harbour 2' },
  naming: 'quarters' as const,
  term: TERM,
  lessons: [LESSON],
  sheets: [KEPT],
  texts: new Map([['tide', '4/4 h q q']]),
  today: '2026-12-01',
};

function usual() {
  return renderHook(() => useBookletChoice('room')).result.current[0];
}

describe('the lessons of a booklet', () => {
  it('stand in the order of the plan, those that are over left out, each about what is its own', () => {
    const lessons = bookletLessons(planned, usual());
    expect(lessons.map(({ when, title, choice }) => [when, title, choice])).toEqual([
      ['Tue 24 Nov', 'Half', 'none'],
      ['Tue 1 Dec', 'Half', 'made'],
      ['Tue 8 Dec', 'Practice', 'made'],
      ['Tue 15 Dec', 'Practice', 'made'],
    ]);
    expect(lessons[0]!.sheet).toBeUndefined();
    expect(lessons[1]!.sheet!.parts[0]).toMatchObject({ elements: ['quarter', 'half'], patterns: ['4/4 h q q'] });
    expect(lessons[2]!.sheet!.parts[0]).not.toHaveProperty('patterns');
    expect(new Set(lessons.slice(1).map(({ sheet }) => sheet!.seed)).size).toBe(3);
    expect(bookletAbout(planned)).toBe('Harbour 2 · 24 Nov to 15 Dec 2026');
  });
  it('have a kept sheet where one is chosen, on the paper of the booklet; one that is gone is made', () => {
    const chosen = { ...usual(), lessons: { '2026-11-24 09:40': 'kept', '2026-12-01 09:40': 'gone' } };
    const [first, second] = bookletLessons(planned, chosen);
    expect(first).toMatchObject({ choice: 'kept', sheet: { title: 'Week 7', seed: 9, paper: 'a4' } });
    expect(second).toMatchObject({ choice: 'made', sheet: { title: 'Half' } });
  });
  it('are others by the options', () => {
    const options = { kinds: ['circle'] as const, level: 4 as const, paper: 'letter' as const, large: true };
    const sheet = bookletLessons(planned, { ...usual(), ...options })[1]!.sheet!;
    expect(sheet).toMatchObject({ paper: 'letter', large: true, parts: [{ kind: 'circle', level: 4 }] });
    const other = bookletLessons(planned, { ...usual(), variant: 1 })[1]!.sheet!;
    expect(other.seed).not.toBe(sheet.seed);
  });
});

describe('what is chosen for a booklet', () => {
  it('is there again after a reload, for its class', () => {
    const { result, unmount } = renderHook(() => useBookletChoice('room'));
    act(() => result.current[1]({ level: 3, lessons: { '2026-12-01 09:40': 'none' } }));
    act(() => result.current[1]({ kinds: ['sums'] }));
    unmount();
    const now = renderHook(() => useBookletChoice('room')).result.current[0];
    expect(now).toMatchObject({ level: 3, kinds: ['sums'], lessons: { '2026-12-01 09:40': 'none' } });
    expect(renderHook(() => useBookletChoice('other')).result.current[0]).toMatchObject({ level: 2, lessons: {} });
  });
  it('is what is usual where the device remembers nonsense', () => {
    const { result } = renderHook(() => useBookletChoice('room'));
    const usualOne = renderHook(() => useBookletChoice('other')).result.current[0];
    const broken = { kinds: ['none'], level: 9, paper: 'a0', large: 1, variant: 0.5, lessons: null };
    act(() => result.current[1](broken as unknown as typeof usualOne));
    expect(result.current[0]).toEqual(usualOne);
  });
});
