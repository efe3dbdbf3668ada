import { expect, it } from 'vitest';
import { deadAir } from './deadAir.ts';

/** @param blocks  how loud, and for how many hundredths of a second */
function isDead(...blocks: readonly (readonly [number, number])[]): boolean {
  const watch = deadAir();
  let dead = false;
  for (const [loudest, count] of blocks) for (let i = 0; i < count; i++) dead = watch(loudest, 0.01);
  return dead;
}

it.each([
  ['noise that goes on', [[0.001, 500]], false],
  [
    'noise, then nothing at all',
    [
      [0.001, 300],
      [0, 71],
    ],
    true,
  ],
  [
    'noise, then nothing for a moment',
    [
      [0.001, 300],
      [0, 60],
    ],
    false,
  ],
  ['nothing from the beginning: not opened yet, or silent between sounds', [[0, 400]], false],
  [
    'silent between claps',
    [
      [0, 100],
      [0.5, 5],
      [0, 300],
      [0.5, 5],
      [0, 300],
    ],
    false,
  ],
  [
    'a block that was lost',
    [
      [0.001, 300],
      [0, 3],
      [0.001, 300],
      [0, 80],
    ],
    true,
  ],
] as const)('%s', (_, blocks, dead) => expect(isDead(...blocks)).toBe(dead));
