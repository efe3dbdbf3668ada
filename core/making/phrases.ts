import type { Random } from '../random.ts';

/** One measure of a plan: the same letter is the same measure; a turn begins like another one and ends differently. */
export interface Role {
  readonly letter: number;
  readonly turnOf?: number;
}

/** How many measures a phrase has (rules §11). */
export const PHRASE = 4;

/** a b a c; a a b a; question and answer, whose second half begins like the first. */
const SHAPES: readonly (readonly Role[])[] = [
  [{ letter: 0 }, { letter: 1 }, { letter: 0 }, { letter: 2 }],
  [{ letter: 0 }, { letter: 0 }, { letter: 1 }, { letter: 0 }],
  [{ letter: 0 }, { letter: 1 }, { letter: 2, turnOf: 0 }, { letter: 3 }],
];

/**
 * Which measures of a pattern are alike: phrases of four have a shape, what is left over is free. A second phrase
 * begins with the first measure of all, or with one of its own.
 */
export function rolesFor(measures: number, random: Random): Role[] {
  const roles: Role[] = [];
  while (roles.length + PHRASE <= measures) {
    const from = roles.length === 0 ? 0 : Math.max(...roles.map(({ letter }) => letter)) + 1;
    const back = from > 0 && random.next() < 0.5;
    const letterOf = (letter: number) => (back && letter === 0 ? 0 : from + letter);
    for (const { letter, turnOf } of random.pick(SHAPES))
      roles.push({ letter: letterOf(letter), ...(turnOf === undefined ? {} : { turnOf: letterOf(turnOf) }) });
  }
  let letter = Math.max(-1, ...roles.map((role) => role.letter)) + 1;
  while (roles.length < measures) roles.push({ letter: letter++ });
  return roles;
}
