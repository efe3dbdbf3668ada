import { NO_SYLLABLE, beatsHeld, beatsInside, pointsInside } from '../counting/beatPlace.ts';
import type { CountedEvent } from '../counting/countingSystem.ts';
import { type Fraction, add, frac, mul, sub } from '../rhythm/fraction.ts';

/** One syllable of a written count: when it is said, in counted beats from the bar line, and how long it lasts. */
export interface SpokenPart {
  readonly at: Fraction;
  readonly length: Fraction;
  readonly text: string;
  readonly whispered: boolean;
}

const SMALL = '₀₁₂₃₄₅₆₇₈₉';
const plain = (text: string) =>
  [...text].map((sign) => (SMALL.includes(sign) ? String(SMALL.indexOf(sign)) : sign)).join('');

/**
 * The times at which the parts of a count are said: at the onset and the beats inside, or the pulses inside, or evenly.
 */
function times(event: CountedEvent, count: number): Fraction[] {
  const held = event.kind === 'tied';
  const own = held ? [] : [event.onset];
  const beats = [...own, ...(held ? beatsHeld(event) : beatsInside(event)).map(({ beat }) => frac(beat - 1))];
  if (beats.length === count) return beats;
  const pulses = [...own, ...pointsInside(event, frac(1, event.beat.division), held)];
  if (pulses.length === count) return pulses;
  // A note shorter than its words ("half-note" in eighths) says them evenly.
  return Array.from({ length: count }, (_, i) => add(event.onset, mul(event.length, frac(i, count))));
}

/**
 * A written count as it is spoken: "1-2" is "1" at the note and "2" a beat later. Signs that are not spoken give
 * nothing.
 * @example a half note on beat 1, "1-2" → 1 at 0, 2 at 1; a rest "(3)" is whispered
 */
export function spokenParts(event: CountedEvent, token: string): SpokenPart[] {
  const whispered = token.startsWith('(');
  const parts = token
    .replace(/^[(-]|\)$/g, '')
    .split(/-|(?<=[^₀-₉])(?=[₀-₉])/)
    .filter((part) => part !== '');
  const at = times(event, parts.length);
  const end = add(event.onset, event.length);
  return parts.flatMap((part, i) => {
    if (part === NO_SYLLABLE || part === '_') return [];
    return [{ at: at[i]!, length: sub(at[i + 1] ?? end, at[i]!), text: plain(part), whispered }];
  });
}

/** A place in counted beats as part of a whole note. */
export function inWholes(beats: Fraction, event: CountedEvent): Fraction {
  return mul(beats, event.beat.length);
}
