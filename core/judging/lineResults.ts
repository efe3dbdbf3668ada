import { linesOf } from '../rhythm/lines.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { playPattern, unfold } from '../rhythm/place.ts';
import type { TakeResult } from './takeResult.ts';

/** What a take of a page of lines was in one of them. */
export interface LineResult {
  readonly line: number;
  /** Numbers on paper of its measures. */
  readonly from: number;
  readonly to: number;
  /** Notes that were on time, of so many; and claps that belong to no note. */
  readonly right: number;
  readonly notes: number;
  readonly extras: number;
}

/** A result line by line; none where the pattern is no page of lines. */
export function lineResults(pattern: Pattern, { notes, extras }: Pick<TakeResult, 'notes' | 'extras'>): LineResult[] {
  const played = playPattern(pattern);
  return linesOf(unfold(pattern)).map(({ number, first, last }) => {
    const isHere = (one: { readonly played: number }) => one.played >= first && one.played <= last;
    const own = notes.filter(isHere);
    const numbers = played.slice(first, last + 1).map(({ measure }) => measure.number);
    return {
      line: number,
      from: Math.min(...numbers),
      to: Math.max(...numbers),
      right: own.filter(({ verdict }) => verdict === 'on-time').length,
      notes: own.length,
      extras: extras.filter(isHere).length,
    };
  });
}
