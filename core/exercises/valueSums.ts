import { type Fraction, add, div, frac, mul, sum } from '../rhythm/fraction.ts';
import { type NoteValue, VALUE, type ValueLetter, lengthOf } from '../rhythm/value.ts';

/** A note or rest in a sum. */
export interface Part {
  readonly kind: 'note' | 'rest';
  readonly value: NoteValue;
  /** Its time is added to the note before it. */
  readonly tied?: true;
  /** A dot above or below the head: it sounds short and is counted the same. */
  readonly staccato?: true;
}

/** How many beats a value lasts when `beat` gets the beat: beatsIn(dotted quarter, 'e') = 3. */
export function beatsIn(value: NoteValue, beat: ValueLetter): Fraction {
  return div(lengthOf(value), VALUE[beat].of);
}

export function totalBeats(parts: readonly Part[], beat: ValueLetter): Fraction {
  return sum(parts.map(({ value }) => beatsIn(value, beat)));
}

/** The undotted value and each dot's half of what stands before it: dotted quarter → 1, 1/2. */
export function dotParts(value: NoteValue, beat: ValueLetter): Fraction[] {
  const parts = [beatsIn({ base: value.base, dots: 0 }, beat)];
  for (let dot = 0; dot < value.dots; dot++) parts.push(mul(parts.at(-1)!, frac(1, 2)));
  return parts;
}

/** One step of a sum, in beats. */
export interface SumStep {
  readonly part: Part;
  /** The value and what each dot adds. */
  readonly pieces: readonly Fraction[];
  readonly own: Fraction;
  /** Of the parts before it; undefined for the first. */
  readonly before: Fraction | undefined;
}

/** The sum step by step: dotted quarter and eighth → 1 + 1/2 = 1 1/2, then 1 1/2 + 1/2. */
export function sumSteps(parts: readonly Part[], beat: ValueLetter): SumStep[] {
  let before: Fraction | undefined;
  return parts.map((part): SumStep => {
    const pieces = dotParts(part.value, beat);
    const own = sum(pieces);
    const step = { part, pieces, own, before };
    before = before ? add(before, own) : own;
    return step;
  });
}
