import { type Fraction, add, ceil, compare, div, frac, mul } from './fraction.ts';
import { beatOf } from './meter.ts';
import type { Measure, Pattern } from './pattern.ts';
import { type PlacedMeasure, placePattern } from './place.ts';
import { type SoundSpan, writeMeasure } from './spell.ts';

const KNOWN = new WeakMap<Pattern, Pattern>();

/**
 * The beat of a pattern as a rhythm of its own, measure by measure and with its repeats: a note on every counted beat,
 * a rest where a pickup begins inside one. `(M3)` becomes three measures. It is kept with the pattern: a
 * class is heard on the same one again and again.
 */
export function beatLine(pattern: Pattern): Pattern {
  const known = KNOWN.get(pattern);
  if (known) return known;
  const line = beatsOf(pattern);
  KNOWN.set(pattern, line);
  return line;
}

function beatsOf(pattern: Pattern): Pattern {
  const placed = placePattern(pattern);
  const measures = pattern.measures.flatMap((measure, written): Measure[] => {
    const { number, letter, repeatStart, repeatEnd } = measure;
    const beats = placed.filter((one) => one.written === written).map(beatsIn);
    return beats.map((one, i) => ({
      ...one,
      ...(i === 0 && number !== undefined ? { number } : {}),
      ...(i === 0 && letter !== undefined ? { letter } : {}),
      ...(i === 0 && repeatStart ? { repeatStart } : {}),
      ...(i === beats.length - 1 && repeatEnd ? { repeatEnd } : {}),
    }));
  });
  return { pickup: pattern.pickup, measures };
}

function beatsIn({ meter, onset, length }: PlacedMeasure): Measure {
  const beat = beatOf(meter).length;
  const end = add(onset, length);
  const first = mul(frac(ceil(div(onset, beat))), beat);
  const spans: SoundSpan[] = [];
  if (compare(onset, first) < 0) spans.push({ kind: 'rest', from: onset, to: least(first, end) });
  for (let from = first; compare(from, end) < 0; from = add(from, beat))
    spans.push({ kind: 'note', from, to: least(add(from, beat), end) });
  return writeMeasure(meter, spans);
}

const least = (a: Fraction, b: Fraction) => (compare(a, b) < 0 ? a : b);
