import { type Fraction, ONE, add, compare, div, frac, mixed, mul, sum } from '../rhythm/fraction.ts';
import { type NamingId, restName, valueName } from '../wording/valueNames.ts';
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

/** How many beats a value lasts when `beat` gets the beat: beatsOf(dotted quarter, 'e') = 3. */
export function beatsIn(value: NoteValue, beat: ValueLetter): Fraction {
  return div(lengthOf(value), VALUE[beat].of);
}

export function totalBeats(parts: readonly Part[], beat: ValueLetter): Fraction {
  return sum(parts.map(({ value }) => beatsIn(value, beat)));
}

/** "1 1/2 beats", "1 beat", "1/2 beat". */
export function beatsText(beats: Fraction): string {
  return `${mixed(beats)} ${compare(beats, ONE) > 0 ? 'beats' : 'beat'}`;
}

export function partName({ kind, value }: Part, naming: NamingId): string {
  return kind === 'rest' ? restName(value, naming) : valueName(value, naming);
}

/** The undotted value and each dot's half of what stands before it: dotted quarter → 1, 1/2. */
export function dotParts(value: NoteValue, beat: ValueLetter): Fraction[] {
  const parts = [beatsIn({ base: value.base, dots: 0 }, beat)];
  for (let dot = 0; dot < value.dots; dot++) parts.push(mul(parts.at(-1)!, frac(1, 2)));
  return parts;
}

/**
 * The sum in words and fractions, a line a step.
 * @example dotted quarter and eighth, the quarter gets the beat:
 *   "dotted quarter = 1 + 1/2 = 1 1/2 beats", "with the eighth 1 1/2 + 1/2 = 2 beats"
 */
export function workedSteps(parts: readonly Part[], beat: ValueLetter, naming: NamingId): string[] {
  let before: Fraction | undefined;
  return parts.flatMap((part): string[] => {
    const name = partName(part, naming);
    const pieces = dotParts(part.value, beat);
    const own = sum(pieces);
    const dotted = pieces.length > 1 ? `${pieces.map(mixed).join(' + ')} = ` : '';
    if (before === undefined) {
      before = own;
      return [`${name} = ${dotted}${beatsText(own)}`];
    }
    const total = add(before, own);
    const lines: string[] = [
      ...(dotted ? [`${name} = ${dotted}${beatsText(own)}`] : []),
      `with the ${part.tied ? 'tied ' : ''}${name} ${mixed(before)} + ${mixed(own)} = ${beatsText(total)}`,
    ];
    before = total;
    return lines;
  });
}
