import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type Said,
  type Saying,
  type StandingTurn,
  TURN_STATES,
  afterSaying,
  afterTake,
  markByHand,
  seenSince,
  withoutTake,
} from './turns.ts';

const said = (text: string): Said => {
  const [state, mark] = text.split(' ');
  return { state: state as Said['state'], mark: mark === undefined ? null : Number(mark) };
};
/** `heard 3 take | absent`: what stands, by a take, and what else was said. */
const turn = (text: string): StandingTurn => {
  const [now, clash] = text.split(' | ');
  return {
    ...said(now!.replace(' take', '')),
    takeId: now!.endsWith(' take') ? 't' : null,
    clash: clash === undefined ? null : said(clash),
  };
};

describe('what is said of a turn', () => {
  it.each([
    // What was seen gives way.
    ['waiting', 'absent', 'waiting', 'absent'],
    ['absent', 'heard 3', 'absent', 'heard 3'],
    ['heard 2', 'heard 3', 'heard 2', 'heard 3'],
    ['heard 2', 'absent', 'heard 2', 'absent'],
    ['absent', 'waiting', 'absent', 'waiting'],
    ['absent', 'heard 1', undefined, 'heard 1'],
    // What was not seen stays, and both are kept.
    ['absent', 'heard 3', 'waiting', 'absent | heard 3'],
    ['heard 3', 'absent', 'waiting', 'heard 3 | absent'],
    ['heard 3', 'heard 1', 'waiting', 'heard 3 | heard 1'],
    // The same said twice is said once, and what is left open undoes nothing.
    ['heard 3', 'heard 3', 'waiting', 'heard 3'],
    ['heard 3', 'skipped', 'waiting', 'heard 3'],
    ['skipped', 'absent', 'waiting', 'absent'],
    // A take is not undone by a word; its mark is, by who has seen it.
    ['heard 3 take', 'absent', 'heard 3', 'heard 3 take | absent'],
    ['heard 3 take', 'absent', 'waiting', 'heard 3 take | absent'],
    ['heard 3 take', 'skipped', 'heard 3', 'heard 3 take'],
    ['heard 3 take', 'heard 4', 'heard 3', 'heard 4 take'],
    ['heard 3 take', 'heard 4', 'waiting', 'heard 3 take | heard 4'],
    // What was taken for what stands is settled by who goes on from it.
    ['heard 3 | absent', 'heard 2', 'absent', 'heard 2'],
  ])('%s, and %s said having seen %s: %s', (now, saying, seen, after) => {
    const with_ = { ...said(saying), seen: seen === undefined ? undefined : said(seen) };
    expect(afterSaying(turn(now), with_)).toEqual(turn(after));
  });

  it.each([
    ['heard 3 | absent', 'heard 3', 'heard 3'],
    ['heard 3 | absent', 'absent', 'absent'],
    ['heard 3 take | absent', 'heard 3', 'heard 3 take'],
    ['heard 3 take | heard 4', 'heard 4', 'heard 4 take'],
    ['heard 3 take | absent', 'absent', 'heard 3 take | absent'],
    // The other one has settled it otherwise meanwhile: that is a question again.
    ['heard 3', 'absent', 'heard 3 | absent'],
    ['heard 3', 'heard 3', 'heard 3'],
  ])('%s, settled as %s: %s', (now, saying, after) => {
    expect(afterSaying(turn(now), { ...said(saying), seen: said(now.split(' | ')[0]!), settles: true })).toEqual(
      turn(after),
    );
  });

  const saying = fc
    .tuple(fc.constantFrom(...TURN_STATES), fc.integer({ min: 0, max: 4 }))
    .map(([state, given]): Said => ({ state, mark: state === 'heard' ? given : null }));

  it('whatever one says again and again, whether it arrives or not, with an answer or none: the last stands', () => {
    const fate = fc.constantFrom('waits', 'arrives', 'arrives unanswered', 'arrives twice');
    fc.assert(
      fc.property(saying, fc.array(fc.tuple(saying, fate), { minLength: 1, maxLength: 6 }), (first, all) => {
        let stands: StandingTurn = { ...first, takeId: null, clash: null };
        let waits: Saying | undefined;
        let shown = first;
        const arrive = () => (stands = afterSaying(stands, waits!));
        for (const [one, what] of all) {
          waits = { ...one, seen: seenSince(waits, shown) };
          shown = one;
          if (what !== 'waits') arrive();
          if (what === 'arrives twice') arrive();
          if (what.startsWith('arrives') && what !== 'arrives unanswered') waits = undefined;
        }
        if (waits) arrive();
        expect(stands).toEqual({ ...shown, takeId: null, clash: null });
      }),
    );
  });

  it('what was said before a take and after it stands in the order in which it was said', () => {
    const seen = said('waiting');
    const absent: Saying = { ...said('absent'), seen };
    const take = { id: 't', mark: 2 };
    // The absence arrives before the take, or never: either way the child was heard.
    for (const before of [turn('waiting'), afterSaying(turn('waiting'), absent)]) {
      const heard = afterTake(before, take, 'last', seenSince(absent, said('absent')));
      expect(heard).toEqual(turn('heard 2 take'));
      const again = { ...said('heard 3'), seen: seenSince(absent, said('heard 2')) };
      expect(afterSaying(heard, again)).toEqual(turn('heard 3 take'));
    }
  });

  it.each([
    [undefined, said('absent'), said('absent')],
    [undefined, undefined, undefined],
    [{ ...said('heard 2'), seen: said('waiting') }, said('heard 2'), [said('waiting'), said('heard 2')]],
    [{ state: 'waiting' }, undefined, said('waiting')],
    [
      { ...said('heard 2'), seen: [said('absent'), said('heard 2')] },
      said('absent'),
      [said('absent'), said('heard 2')],
    ],
  ] as const)('after %j, with %j shown, it has seen %j', (before, shown, seen) => {
    expect(seenSince(before as Partial<Saying> | undefined, shown)).toEqual(seen);
  });

  it('whatever two say who have not seen each other: both say the same, or both are kept', () => {
    const final = ({ state }: Said) => state === 'heard' || state === 'absent';
    fc.assert(
      fc.property(saying, saying, (one, other) => {
        const seen = said('waiting');
        const after = afterSaying(afterSaying(turn('waiting'), { ...one, seen }), { ...other, seen });
        const kept = [after, ...(after.clash ? [after.clash] : [])].map(
          ({ state, mark: given }) => `${state} ${given}`,
        );
        for (const { state, mark: given } of [one, other].filter(final)) expect(kept).toContain(`${state} ${given}`);
      }),
    );
  });
});

describe('a take of a turn', () => {
  const take = (mark: number) => ({ id: 't', mark });
  it.each([
    ['waiting', 2, 'best', 'waiting', 'heard 2 take'],
    ['absent', 2, 'best', 'absent', 'heard 2 take'],
    ['heard 3', 2, 'best', 'heard 3', 'heard 3'],
    ['heard 3', 2, 'last', 'heard 3', 'heard 2 take'],
    ['heard 3', 2, 'average', undefined, 'heard 2 take'],
    ['heard 3', 3, 'best', 'heard 3', 'heard 3 take'],
    ['heard 3 take', 4, 'best', 'waiting', 'heard 4 take'],
    // Somebody said otherwise meanwhile.
    ['absent', 2, 'best', 'waiting', 'heard 2 take | absent'],
    ['heard 4', 2, 'best', 'waiting', 'heard 2 take | heard 4'],
    ['skipped', 2, 'best', 'waiting', 'heard 2 take'],
  ] as const)(
    '%s, and a take of %i where the %s counts, begun having seen %s: %s',
    (now, mark, counts, seen, after) => {
      expect(afterTake(turn(now), take(mark), counts, seen === undefined ? undefined : said(seen))).toEqual(
        turn(after),
      );
    },
  );
  it('removed leaves what else was said, or nothing', () => {
    expect(withoutTake(turn('heard 3 take | absent'))).toEqual(turn('absent'));
    expect(withoutTake(turn('heard 3 take'))).toEqual(turn('waiting'));
  });
  it('has its mark in the column of its pattern, not in that of marks by hand', () => {
    expect(['heard 3', 'heard 3 take', 'absent', 'heard'].map((text) => markByHand(turn(text)))).toEqual([
      3,
      null,
      null,
      null,
    ]);
  });
});
