import { describe, expect, it } from 'vitest';
import type { ClassElement } from '../records/classStanding.ts';
import type { ElementId } from '../rhythm/elements.ts';
import { nextSentence } from '../wording/makingWords.ts';
import { type MisreadBy, whatNext, withUsual } from './whatNext.ts';

/** Of twenty children so many were heard, and so many are firm. */
function standing(element: ElementId, heard: number, firm: number): ClassElement {
  const states = { new: 0, growing: heard - firm, shaky: 0, firm, due: 0 };
  return { element, heard, firm, states, met: heard >= 10, has: firm >= heard * 0.75 };
}

const MET = [standing('quarter', 20, 20), standing('eighth-pair', 20, 18), standing('quarter-rest', 20, 16)];
const HALVES = [standing('half', 20, 17), standing('half-rest', 16, 13)];

describe('what comes next for a class', () => {
  it.each<[string, readonly ClassElement[], readonly MisreadBy[], object, string]>([
    [
      'nothing heard: quarters',
      [standing('quarter', 3, 3)],
      [],
      { elements: ['quarter'], level: 1 },
      'Nothing was heard of this class yet: start with what everybody can read.',
    ],
    [
      'what it is least sure of',
      [...MET, standing('half', 18, 4), standing('half-rest', 20, 9)],
      [],
      { focus: { kind: 'element', element: 'half' }, level: 1 },
      'Half, at level 1: 14 of the 18 children heard in it are not firm in it yet.',
    ],
    [
      'what a quarter of it misread goes first',
      [...MET, standing('half', 18, 4)],
      [
        { code: 'hold-pulsed', children: 5 },
        { code: 'rest-skipped', children: 9 },
        { code: 'rushing', children: 20 },
        { code: 'stopped-early', children: 19 },
      ],
      { focus: { kind: 'misreading', code: 'rest-skipped' } },
      'A rest given no time, at level 1: 9 of 20 children did so lately.',
    ],
    [
      'a few who misread are not the class',
      [...MET, standing('half', 18, 4)],
      [{ code: 'rest-skipped', children: 4 }],
      { focus: { kind: 'element', element: 'half' } },
      'Half, at level 1: 14 of the 18 children heard in it are not firm in it yet.',
    ],
    [
      'what was heard twice and right is hardly heard, not unsure',
      [...MET, { ...standing('half', 20, 0), states: { new: 18, growing: 1, shaky: 0, firm: 1, due: 0 }, has: false }],
      [],
      { focus: { kind: 'element', element: 'half' } },
      'Half, at level 1: 1 of the 2 children heard in it is not firm in it yet.',
    ],
    [
      'and where nobody is unsure that is said',
      [...MET, { ...standing('half', 20, 0), states: { new: 18, growing: 0, shaky: 0, firm: 2, due: 0 }, has: false }],
      [],
      { focus: { kind: 'element', element: 'half' } },
      'Half, at level 1: 18 of the 20 children heard in it were hardly heard yet.',
    ],
    [
      'shaky counts more than not firm yet',
      [
        ...MET,
        { ...standing('half', 10, 0), states: { new: 0, growing: 9, shaky: 0, firm: 1, due: 0 } },
        { ...standing('tie', 10, 0), states: { new: 0, growing: 0, shaky: 6, firm: 4, due: 0 } },
      ],
      [],
      { focus: { kind: 'element', element: 'tie' } },
      'Tie, at level 1: 6 of the 10 children heard in it are not firm in it yet, 6 of them unsure.',
    ],
    [
      'what it has met it has: the next one, a level below what it has',
      [...MET, ...HALVES],
      [],
      {
        focus: { kind: 'element', element: 'dotted-half' },
        level: 1,
        elements: ['quarter', 'eighth-pair', 'quarter-rest', 'half', 'half-rest', 'dotted-half'],
      },
      'Dotted half, at level 1: what the class has met it has, and this comes next.',
    ],
  ])('%s', (_name, elements, misread, expected, sentence) => {
    const next = whatNext(elements, misread, 20);
    expect(next).toMatchObject(expected);
    expect(nextSentence(next, 'quarters')).toBe(sentence);
  });

  it('goes by the teacher’s order, and a step below what the class has', () => {
    const order: readonly ElementId[] = ['quarter', 'half', 'eighth-pair', 'syncopation', 'quarter-rest', 'half-rest'];
    expect(whatNext([...MET, ...HALVES], [], 20, order)).toMatchObject({ focus: { element: 'syncopation' } });
    const many = (['dotted-half', 'whole', 'tie', 'eighth-rest'] as const).map((id) => standing(id, 20, 20));
    expect(whatNext([...MET, ...HALVES, ...many], [], 20).level).toBe(2);
  });
});

describe('the order of a teacher', () => {
  it('comes first, and what it leaves out as usual', () => {
    const order = withUsual(['tie', 'half']);
    expect(order.slice(0, 5)).toEqual(['quarter', 'tie', 'half', 'eighth-pair', 'quarter-rest']);
    expect(new Set(order).size).toBe(order.length);
    expect(order).toHaveLength(15);
    const { focus } = whatNext(MET, [], 20, order);
    expect(focus).toEqual({ kind: 'element', element: 'tie' });
    expect(whatNext(MET, [], 20).focus).toEqual({ kind: 'element', element: 'half' });
  });
});
