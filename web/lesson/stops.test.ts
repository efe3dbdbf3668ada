import { describe, expect, it } from 'vitest';
import type { BlockEdit } from '../../contract/lesson.ts';
import { READY_PLANS } from '../../core/leading/plan.ts';
import { stopsOf } from './stops.ts';
import { timesOf, withOwn } from './blocks.ts';

const CLASS = 'c1';
const LESSON = 'l1';
const ROPE = { patternId: 'p1', title: 'Long rope', text: '4/4 h q q | q q h' };
const WALTZ = { patternId: 'p2', title: 'Waltz', text: '3/4 q. e q' };
const block = (kind: BlockEdit['kind'], change: Partial<BlockEdit> = {}): BlockEdit => ({
  key: 1,
  kind,
  patterns: [],
  steps: [],
  ...change,
});
const { id: _id, ...PLAN } = READY_PLANS()[0]!;

describe('where a block leads', () => {
  it.each<[string, BlockEdit, string[]]>([
    ['a warm-up without patterns', block('warm-up'), ['/ear/echo']],
    ['a warm-up', block('warm-up', { patterns: [ROPE] }), ['/ear/echo?elements=quarter%2Chalf&meter=4%2F4']],
    [
      'a warm-up with something new',
      block('warm-up', { patterns: [ROPE], steps: [{ element: 'tie', step: 'meet' }] }),
      ['/ear/echo?elements=quarter%2Chalf%2Ctie&meter=4%2F4'],
    ],
    ['values', block('know'), ['/values/questions']],
    ['reading', block('read', { patterns: [ROPE, WALTZ] }), ['/board/p1', '/board/p2']],
    ['reading nothing', block('read'), ['/patterns']],
    ['leading', block('lead', { patterns: [ROPE, WALTZ] }), ['/lead?pattern=p1', '/lead?pattern=p2']],
    ['leading nothing', block('lead'), ['/lead']],
    ['by ear', block('ear', { patterns: [WALTZ] }), ['/ear/choose?elements=quarter%2Cdotted-quarter&meter=3%2F4']],
    [
      'making',
      block('make', { patterns: [WALTZ] }),
      ['/ear/write?elements=quarter%2Cdotted-quarter&meter=3%2F4&pattern=p2'],
    ],
    ['making nothing', block('make'), ['/values/strips']],
    [
      'a line-up',
      block('line-up', { patterns: [ROPE, WALTZ], lineUp: { bpm: 72, tries: 2 } }),
      ['/take/line-up?class=c1&patterns=p1%2Cp2&bpm=72&tries=2'],
    ],
    ['a line-up of nothing', block('line-up'), ['/take/line-up?class=c1']],
    ['the close', block('close'), ['/plan/c1/l1']],
  ])('%s', (_name, one, addresses) => expect(stopsOf([one], CLASS, LESSON).map(({ to }) => to)).toEqual(addresses));

  it('says which block and which part of it, and how it is led', () => {
    const stops = stopsOf(
      [block('close'), block('lead', { patterns: [ROPE, WALTZ], plan: PLAN as never })],
      CLASS,
      LESSON,
    );
    expect(stops.map(({ block: at, title, part }) => [at, title, part])).toEqual([
      [0, 'Close', undefined],
      [1, 'Lead', '1 of 2'],
      [1, 'Lead', '2 of 2'],
    ]);
    expect(stops[1]!.state).toEqual({ stop: '1 p1', plan: PLAN });
  });
});

describe('how long blocks take', () => {
  it('is typed, computed of what can be read, or usual', () => {
    const times = timesOf(
      [
        block('read', { minutes: 2.5 }),
        block('line-up', { patterns: [{ ...ROPE, text: 'what' }, ROPE], lineUp: { bpm: 60, tries: 1 } }),
        block('close'),
      ],
      10,
      { school: 'numbers' },
    );
    expect(times.map(({ from }) => from)).toEqual(['typed', 'computed', 'usual']);
    expect(times[0]!.seconds).toBe(150);
  });
});

describe('patterns of a lesson', () => {
  it('are the teacher’s own by id, else by name and notes; others are left out', () => {
    const own = [
      { id: 'mine', title: 'Waltz', text: WALTZ.text },
      { id: 'p1', title: 'Renamed since', text: ROPE.text },
    ];
    const [one] = withOwn(
      [block('read', { patterns: [ROPE, WALTZ, { ...WALTZ, patternId: 'x', title: 'Gone' }] })],
      own,
    );
    expect(one!.patterns.map(({ patternId, title }) => [patternId, title])).toEqual([
      ['p1', 'Long rope'],
      ['mine', 'Waltz'],
    ]);
  });
});

describe('the same on children’s own devices', () => {
  it('is set up for what the block is, with its patterns one by one', () => {
    const lineUp = { bpm: 84, tries: 2 };
    const stops = stopsOf(
      [block('lead', { patterns: [ROPE, WALTZ] }), block('line-up', { patterns: [ROPE], lineUp }), block('read')],
      CLASS,
      LESSON,
    );
    expect(stops.map(({ devices }) => devices)).toEqual([
      '/room/c1?do=take&pattern=p1',
      '/room/c1?do=take&pattern=p2',
      '/room/c1?do=take&pattern=p1&bpm=84',
      undefined,
    ]);
  });
});
