import { type Fraction, frac, mul, sub } from '../../rhythm/fraction.ts';
import { type Meter, beatOf } from '../../rhythm/meter.ts';
import { spell } from '../../rhythm/spell.ts';
import { valueText } from '../../rhythm/value.ts';
import type { Beats } from '../../timing/units.ts';

/** Places in the beat are quarters, sixths or thirds of it: a twelfth holds them all. */
const PARTS = 12;
const QUARTERS = 4;

/**
 * What was clapped in a beat, or in several, as rhythm text.
 * @param at     where the claps are, in beats, the first on 0
 * @param beats  how many beats it lasts
 * @example cellText({ upper: 4, lower: 4 }, [0, 0.5])  // "e e"
 */
export function cellText(meter: Meter, at: readonly Beats[], beats: Beats = 1): string {
  const beat = beatOf(meter);
  const place = (beatsIn: Beats): Fraction => mul(beat.length, frac(Math.round(beatsIn * PARTS), PARTS));
  // Thirds of a beat that divides in two are a triplet.
  if (beat.division === 2 && at.some((from) => !Number.isInteger(from * QUARTERS)))
    return `3{${at.map(() => spell(place(0), mul(beat.length, frac(1, 2)), beat, 'note').map(valueText)).join(' ')}}`;
  return at
    .flatMap((from, i) => {
      const start = place(from);
      return spell(start, sub(place(at[i + 1] ?? beats), start), beat, 'note');
    })
    .map(valueText)
    .join(' ');
}
