import { type Fraction, add, compare, div, floor, frac, mul, sub } from './fraction.ts';
import type { Beat } from './meter.ts';
import { spell } from './spell.ts';
import type { NoteValue } from './value.ts';

/** Rests for a stretch of a measure; where a beat has three parts, each beat has its own. */
export function restsFor(from: Fraction, length: Fraction, beat: Beat): NoteValue[] {
  if (beat.division !== 3) return spell(from, length, beat, 'rest');
  const end = add(from, length);
  const values: NoteValue[] = [];
  for (let at = from; compare(at, end) < 0;) {
    const bar = mul(frac(floor(div(at, beat.length)) + 1), beat.length);
    const next = compare(bar, end) < 0 ? bar : end;
    values.push(...spell(at, sub(next, at), beat, 'rest'));
    at = next;
  }
  return values;
}
