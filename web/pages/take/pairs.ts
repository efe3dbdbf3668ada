import type { Child } from '../../../contract/child.ts';
import type { Score } from '../../../core/rhythm/score.ts';
import type { Pair } from '../../take/PartPads.tsx';
import type { TakePart } from '../../take/takePart.ts';
import type { Second } from './useHearing.ts';

/** All parts of a pattern, those that nobody is heard in resting; nothing where there is one alone. */
export function shownParts({ parts }: Score, part: TakePart, second: Second | undefined) {
  if (parts.length === 1) return undefined;
  const taken = [part.index, second?.part.index];
  return { parts, resting: parts.flatMap((_, i) => (taken.includes(i) ? [] : [i])) };
}

/** Two parts at two keys, and who taps them. */
export function pairOf(part: TakePart, child: Child, second: Second): Pair {
  return { parts: [part, second.part], names: [child.name, second.child.name] };
}
