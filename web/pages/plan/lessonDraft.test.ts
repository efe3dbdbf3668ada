import { describe, expect, it } from 'vitest';
import { LessonEdit } from '../../../contract/lesson.ts';
import { validator } from '../../../contract/validate.ts';
import { PATTERNS } from '../../../demo/school.ts';
import { elementsOf } from '../../../core/rhythm/elements.ts';
import { parseRhythm } from '../../../core/rhythm/text.ts';
import { copiedFor } from './copiedLesson.ts';
import { addBlock, changeBlock, heldOnce, lessonOf, moveBlock, notHeld, removeBlock, stepsOf } from './lessonDraft.ts';
import { preparedDay } from './prepareDay.ts';

const fits = validator(LessonEdit);
const lesson = lessonOf('hear-all', 'Hear everybody');
const kinds = ({ blocks }: LessonEdit) => blocks.map(({ kind }) => kind);
const SHELF = PATTERNS.map((pattern, i) => ({
  ...pattern,
  id: `00000000-0000-4000-8000-${String(i).padStart(12, '0')}`,
}));
const used = ({ blocks }: LessonEdit) => blocks.flatMap(({ patterns }) => patterns);

describe('a lesson that is changed', () => {
  it('begins as its template, led and heard in a usual way', () => {
    expect(kinds(lesson)).toEqual(['warm-up', 'lead', 'line-up', 'close']);
    expect(lesson.blocks[1]!.plan?.title).toBe('Read it new');
    expect(lesson.blocks[2]!.lineUp).toEqual({ bpm: 76, tries: 1 });
    expect(fits(lesson)).toMatchObject({ ok: true });
  });
  it('gets blocks before its close, changed, moved and taken away', () => {
    const more = addBlock(lesson, 'ear');
    expect(kinds(more)).toEqual(['warm-up', 'lead', 'line-up', 'ear', 'close']);
    expect(addBlock(more, 'close').blocks.at(-1)).toMatchObject({ kind: 'close', key: 5 });
    const key = more.blocks[3]!.key;
    expect(key).toBe(4);
    const noted = changeBlock(more, key, { note: 'softly', minutes: 3 });
    expect(noted.blocks[3]).toMatchObject({ note: 'softly', minutes: 3 });
    expect(changeBlock(noted, key, { note: undefined }).blocks[3]).not.toHaveProperty('note');
    expect(kinds(moveBlock(more, key, 0))).toEqual(['ear', 'warm-up', 'lead', 'line-up', 'close']);
    expect(moveBlock(more, key, 9)).toBe(more);
    expect(moveBlock(more, 99, 0)).toBe(more);
    expect(kinds(removeBlock(more, key))).toEqual(kinds(lesson));
  });
  it('knows what of the term it did, and what it left out', () => {
    const read = addBlock(lesson, 'read', [{ element: 'half', step: 'read' }]);
    const both = addBlock(read, 'make', [{ element: 'tie', step: 'write' }]);
    const held = { at: 1, seconds: 60, leftOut: [both.blocks[4]!.key] };
    expect(stepsOf({ ...both, held })).toEqual({
      done: [{ element: 'half', step: 'read' }],
      left: [{ element: 'tie', step: 'write' }],
    });
    expect(stepsOf(both).left).toEqual([]);
  });
  it('held once more keeps how it went first, and what it says of the term', () => {
    const time = (at: number) => ({ at, seconds: 60, leftOut: [] });
    const once = heldOnce(lesson, time(1));
    const twice = heldOnce(once, time(2));
    expect([once.held, once.again]).toEqual([time(1), undefined]);
    expect([twice.held, twice.again]).toEqual([time(1), [time(2)]]);
    expect(heldOnce(twice, time(2))).toBe(twice);
    expect(heldOnce(once, time(1))).toBe(once);
    const often = Array.from({ length: 25 }, (_, i) => i).reduce((one, i) => heldOnce(one, time(10 + i)), twice);
    expect([often.held, often.again?.length, often.again?.at(-1)]).toEqual([time(1), 20, time(34)]);
    expect(fits(often)).toMatchObject({ ok: true });
    // What is taken back is the first; the next one counts then.
    expect(notHeld(twice)).toEqual({ ...lesson, held: time(2) });
    expect(notHeld(notHeld(twice))).toEqual(lesson);
  });
});

describe('the lesson of a day', () => {
  it('has patterns of the teacher, and where none fits made ones, each with a name of its own', () => {
    const day = {
      day: '2026-11-30',
      starts: '09:40',
      minutes: 40,
      steps: [{ element: 'half', step: 'hear' }] as const,
      again: ['quarter-rest'] as const,
    };
    const met = ['eighth-pair', 'quarter-rest', 'half'] as const;
    const shelf = [...SHELF.slice(0, 4), { ...SHELF[0]!, id: SHELF[9]!.id, title: 'Half 1' }];
    const { lesson: prepared, made } = preparedDay(day, met, shelf, 'quarters', 'Gulls, lessons');
    expect(fits(prepared)).toMatchObject({ ok: true });
    expect(prepared).toMatchObject({ title: 'Half: for a mark', day: '2026-11-30', starts: '09:40', minutes: 40 });
    const heard = prepared.blocks.find(({ kind }) => kind === 'line-up')!;
    expect(heard.patterns.map(({ title }) => title)).toEqual(['Long rope', expect.stringMatching(/^Half [2-9]$/)]);
    expect(made.every(([, { folder }]) => folder === 'Gulls, lessons')).toBe(true);
    const titles = [...shelf.map(({ title }) => title), ...made.map(([, { title }]) => title)];
    expect(new Set(titles).size).toBe(titles.length);
    // The same day is prepared the same.
    const again = preparedDay(day, met, shelf, 'quarters', 'x').made.map(([, { text }]) => text);
    expect(again).toEqual(made.map(([, { text }]) => text));
  });
  it('leaves alone what was put away', () => {
    const day = { day: '2026-11-30', starts: '09:40', minutes: 20, steps: [], again: ['half'] as const };
    const away = SHELF.map((one) => ({ ...one, archived: true as const }));
    const { lesson: prepared } = preparedDay(day, ['half'], away, 'quarters', 'x');
    expect(used(prepared).some(({ patternId }) => SHELF.some(({ id }) => id === patternId))).toBe(false);
  });
});

describe('a copy for another class', () => {
  const met = ['quarter', 'eighth-pair'] as const;
  const choose = (i: number) => ({ patternId: SHELF[i]!.id, title: SHELF[i]!.title, text: SHELF[i]!.text });
  const full = changeBlock(changeBlock(lesson, 2, { patterns: [choose(1), choose(3)] }), 1, {
    patterns: [{ ...choose(0), text: 'nothing' }, choose(12)],
  });
  const kept: [string, string][] = [];
  const other = { from: '9-10', to: '7-8', className: 'Harbour 2' } as const;
  const copy = copiedFor(
    {
      ...full,
      day: '2026-11-30',
      held: { at: 1, seconds: 1, leftOut: [] },
      again: [{ at: 2, seconds: 1, leftOut: [] }],
    },
    met,
    other,
    (title, text) => {
      kept.push([title, text]);
      return SHELF[19]!.id;
    },
  );
  it('has what was not met made of what was, under its name; what cannot be read stays', () => {
    expect([copy.changed, copy.unchanged]).toEqual([2, 0]);
    expect(used(copy.lesson).map(({ title }) => title)).toEqual([
      'Walking to the quay',
      'Leaning mast, Harbour 2',
      'Two gulls',
      'Long rope, Harbour 2',
    ]);
    expect(kept.map(([title]) => title)).toEqual(['Leaning mast, Harbour 2', 'Long rope, Harbour 2']);
    for (const [, text] of kept) {
      const read = parseRhythm(text);
      if (!read.ok) throw new Error(text);
      for (const id of elementsOf(read.pattern).keys()) expect(met).toContain(id);
    }
  });
  it('has no day, was not held, and goes at the pace of its ages', () => {
    expect(copy.lesson).toMatchObject({ day: null, held: null });
    expect(copy.lesson).not.toHaveProperty('again');
    expect(copy.lesson.blocks[2]!.lineUp!.bpm).toBe(68);
    expect(copy.lesson.blocks[1]!.plan!.ladder[0]!.bpm).toBe(54);
  });
});
