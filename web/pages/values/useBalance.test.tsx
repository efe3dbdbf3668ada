// @vitest-environment happy-dom
import { act, renderHook } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { mixed } from '../../../core/rhythm/fraction.ts';
import type { ValueLetter } from '../../../core/rhythm/value.ts';
import { tidyAfterEach } from '../../page.test-helper.tsx';
import { useBalance } from './useBalance.ts';

tidyAfterEach();

const begin = (beat: ValueLetter = 'q') => renderHook(({ beat: one }) => useBalance(one), { initialProps: { beat } });
const note = (base: ValueLetter, dots: 0 | 1 = 0) => ({ kind: 'note', value: { base, dots } }) as const;

describe('the balance', () => {
  it('tips to the longer side, says by how much, and is completed on the lighter one', () => {
    const { result } = begin();
    expect([result.current.tilt > 0, result.current.lighter, mixed(result.current.difference)]).toEqual([
      true,
      'right',
      '1/2',
    ]);
    act(() => result.current.complete());
    expect(result.current.sides.right.at(-1)).toEqual(note('e'));
    expect([result.current.tilt, result.current.missing]).toEqual([0, undefined]);
    act(() => result.current.complete());
    expect(result.current.sides.right).toHaveLength(3);
  });
  it('counts beats of whatever gets the beat', () => {
    const { result, rerender } = begin();
    rerender({ beat: 'e' });
    expect(mixed(result.current.totals.left)).toBe('4');
    act(() => result.current.change('left', [note('q', 1)]));
    expect([mixed(result.current.totals.left), result.current.tilt]).toEqual(['3', 0]);
  });
  it('completes nothing where no one value would do', () => {
    const { result } = begin();
    act(() => result.current.change('left', [note('h'), note('e')]));
    act(() => result.current.change('right', [note('s')]));
    const before = result.current.sides;
    expect(result.current.missing).toBeUndefined();
    act(() => result.current.complete());
    expect(result.current.sides).toBe(before);
  });
  it('asks with the sums hidden; the first answer shows them, and the next question is another', () => {
    const { result, rerender } = begin();
    act(() => result.current.ask());
    const first = result.current.asked!.question;
    expect([result.current.shown, result.current.sides]).toEqual([
      false,
      { left: first.sides![0], right: first.sides![1] },
    ]);
    act(() => result.current.choose(99));
    expect(result.current.asked!.chosen).toBeUndefined();
    act(() => result.current.choose(0));
    act(() => result.current.choose(1));
    expect([result.current.asked!.chosen, result.current.shown]).toEqual([0, true]);
    act(() => result.current.ask());
    expect(result.current.asked!.question).not.toEqual(first);
    expect(result.current.asked!.chosen).toBeUndefined();
    rerender({ beat: 'h' });
    expect(result.current.asked).toBeUndefined();
    act(() => result.current.stop());
    expect(result.current.shown).toBe(true);
  });
});
