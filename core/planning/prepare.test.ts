import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PATTERNS } from '../../demo/school.ts';
import { ELEMENT_IDS, type ElementId, elementsOf } from '../rhythm/elements.ts';
import { soundKey } from '../rhythm/soundings.ts';
import { parseRhythm } from '../rhythm/text.ts';
import { type HeardWeek, mondayOf, termPicture } from './picture.ts';
import { type ShelfPattern, prepareLesson } from './prepare.ts';
import { STEPS, planTerm, spread } from './term.ts';

const SHELF: readonly ShelfPattern[] = PATTERNS.map(({ title, text }) => {
  const read = parseRhythm(text);
  if (!read.ok) throw new Error(text);
  return { id: title, pattern: read.pattern };
});

describe('the lesson of a day of the term', () => {
  it('does each step in the block for it, with patterns in which nothing else is new', () => {
    const steps = [
      { element: 'half', step: 'read' },
      { element: 'half-rest', step: 'meet' },
      { element: 'eighth-pair', step: 'hear' },
    ] as const;
    const blocks = prepareLesson(
      { steps, again: ['quarter-rest'], minutes: 36 },
      ['eighth-pair', 'quarter-rest'],
      SHELF,
      1,
    );
    expect(blocks.map(({ kind }) => kind)).toEqual(['warm-up', 'know', 'read', 'lead', 'line-up', 'close']);
    expect(blocks.map(({ steps: own }) => own.map(({ element, step }) => `${element} ${step}`).join())).toEqual([
      'half-rest meet',
      '',
      'half read',
      '',
      'eighth-pair hear',
      '',
    ]);
    const titles = blocks.map(({ patterns }) => patterns.map(({ id }) => id));
    expect(titles[0]).toEqual(['Fog horn']);
    expect(titles[2]).toEqual(['Long rope']);
    const elements = (at: number) => blocks[at]!.patterns.map(({ pattern }) => [...elementsOf(pattern).keys()]);
    expect(elements(3)).toEqual([expect.arrayContaining(['quarter-rest'])]);
    // Two for those who are heard, so that neighbours do not copy.
    expect(elements(4)).toEqual([expect.arrayContaining(['eighth-pair']), expect.arrayContaining(['eighth-pair'])]);
  });
  it('fills the time there is with practice, and no more', () => {
    const kinds = (minutes: number) =>
      prepareLesson({ steps: [], again: ['half'], minutes }, ['half'], SHELF, 1).map(({ kind }) => kind);
    expect(kinds(12)).toEqual(['warm-up', 'lead', 'close']);
    expect(kinds(20)).toEqual(['warm-up', 'lead', 'ear', 'close']);
    expect(kinds(40)).toEqual(['warm-up', 'read', 'lead', 'ear', 'make', 'close']);
    const [, lead] = prepareLesson({ steps: [], again: [], minutes: 12 }, ['half'], SHELF, 1);
    expect(lead).toMatchObject({ kind: 'lead', patterns: [{ id: 'Long rope' }] });
  });
  it('holds for any day, whatever the class has met', () => {
    const element = fc.constantFrom<ElementId>(...ELEMENT_IDS);
    const step = fc.record({ element, step: fc.constantFrom(...STEPS) });
    const day = fc.record({
      steps: fc.uniqueArray(step, { maxLength: 4, selector: ({ element: id }) => id }),
      again: fc.uniqueArray(element, { maxLength: 3 }),
      minutes: fc.integer({ min: 10, max: 90 }),
    });
    fc.assert(
      fc.property(day, fc.uniqueArray(element), fc.nat(99_999), (planned, known, seed) => {
        const blocks = prepareLesson(planned, known, SHELF, seed);
        expect(blocks.flatMap(({ steps }) => steps).length).toBe(planned.steps.length);
        expect(blocks.at(-1)!.kind).toBe('close');
        const met = new Set<ElementId>(['quarter', ...known, ...planned.again]);
        for (const { element: id } of planned.steps) met.add(id);
        // Three eighths in a beat are what compound meter is made of.
        if (met.has('compound')) met.add('eighth-pair');
        const patterns = blocks.flatMap((block) => block.patterns.map(({ pattern }) => pattern));
        for (const pattern of patterns) for (const id of elementsOf(pattern).keys()) expect(met).toContain(id);
        expect(new Set(patterns.map(soundKey)).size).toBe(patterns.length);
        for (const { steps, patterns: own } of blocks)
          for (const { element: id } of steps)
            expect(
              own.some(({ pattern }) => elementsOf(pattern).has(id)),
              `${id} ${seed}`,
            ).toBe(true);
      }),
      { numRuns: 150 },
    );
  });
});

describe('the picture of a term', () => {
  const slots = ['2026-09-10', '2026-09-14', '2026-09-17', '2026-10-01'].map((day) => ({
    day,
    starts: '09:40',
    minutes: 40,
  }));
  const { lessons } = planTerm(slots, spread(['half'], 4).contents, new Map([['eighth-pair', '2026-09-01']]));
  const heard = (week: string, element: ElementId, children: number, right: number): HeardWeek => ({
    week,
    element,
    children,
    weight: 10,
    right,
  });

  it('has a column for every week between, and the furthest of what is planned in each', () => {
    const { weeks, rows } = termPicture(lessons, [], 20);
    expect(weeks).toEqual(['2026-09-07', '2026-09-14', '2026-09-21', '2026-09-28']);
    const half = rows.find(({ element }) => element === 'half')!;
    expect(half.cells.map(({ planned }) => planned)).toEqual(['met', 'practised', undefined, 'firm']);
    expect(rows.map(({ element }) => element)).toContain('eighth-pair');
  });
  it('says what was heard beside it: firm where half of the class has nine in ten right', () => {
    const { rows } = termPicture(
      lessons,
      [
        heard('2026-09-07', 'half', 10, 9),
        heard('2026-09-14', 'half', 9, 10),
        heard('2026-09-21', 'half', 20, 8.9),
        heard('2026-09-14', 'tie', 20, 5),
      ],
      20,
    );
    const half = rows.find(({ element }) => element === 'half')!;
    expect(half.cells.map((cell) => cell.heard)).toEqual(['firm', 'met', 'practised', undefined]);
    expect(half.cells[2]!.right).toBeCloseTo(0.89, 9);
    expect(rows.at(-1)).toMatchObject({ element: 'tie', cells: [{}, { heard: 'practised', right: 0.5 }, {}, {}] });
  });
  it('is empty without lessons, and begins on Mondays', () => {
    expect(termPicture([], [], 20)).toEqual({ weeks: [], rows: [] });
    expect(['2026-11-23', '2026-11-27', '2026-11-29'].map(mondayOf)).toEqual(Array(3).fill('2026-11-23'));
  });
});
