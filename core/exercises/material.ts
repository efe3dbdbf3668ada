import type { Random } from '../random.ts';
import { type Fraction, equal, sub } from '../rhythm/fraction.ts';
import { COMMON_TIME, type Meter, beatOf, meterLength } from '../rhythm/meter.ts';
import { type Dots, type NoteValue, VALUES, type ValueLetter, lengthOf, valueText } from '../rhythm/value.ts';
import type { QuestionSettings } from './question.ts';
import type { Part } from './valueSums.ts';

/** What questions are made of: values, sums and measures of the chosen kinds. */

const MOST_PARTS = 8;

/**
 * The measures that questions are about have four of the chosen beats (two halves); where hardly anything fits, 4/4.
 */
const METERS: Readonly<Record<ValueLetter, Meter>> = {
  w: COMMON_TIME,
  h: { upper: 2, lower: 2 },
  q: COMMON_TIME,
  e: { upper: 4, lower: 8 },
  s: { upper: 4, lower: 16 },
  t: COMMON_TIME,
};

/** The chosen values, longest first; quarters where nothing is chosen. */
export function plainValues({ values }: QuestionSettings): ValueLetter[] {
  const known = VALUES.map(({ letter }) => letter).filter((letter) => values.includes(letter));
  return known.length > 0 ? known : ['q'];
}

export function anyPart(settings: QuestionSettings, random: Random): Part {
  const base = random.pick(plainValues(settings));
  const dots: Dots = settings.dots && base !== 's' && base !== 't' && random.next() < 0.4 ? 1 : 0;
  return { kind: settings.rests && random.next() < 0.3 ? 'rest' : 'note', value: { base, dots } };
}

/** One part or more; a tie only from a note to a note. */
export function anySum(settings: QuestionSettings, random: Random, most: number): Part[] {
  const parts = Array.from({ length: 1 + random.below(most) }, () => anyPart(settings, random));
  return parts.map((part, i) => {
    const canTie = settings.ties && i > 0 && part.kind === 'note' && parts[i - 1]!.kind === 'note';
    return canTie && random.next() < 0.5 ? { ...part, tied: true as const } : part;
  });
}

/** Some notes get a dot above or below the head; on a tied one it would say nothing. */
export function someStaccato(parts: readonly Part[], random: Random): Part[] {
  return parts.map((part, i) => {
    const can = part.kind === 'note' && part.value.dots === 0 && !part.tied && !parts[i + 1]?.tied;
    return can && random.next() < 0.3 ? { ...part, staccato: true } : part;
  });
}

/** Rhythm text of parts, as they are shown under a question. */
export function partsText(parts: readonly Part[]): string {
  return parts
    .map(({ kind, value }, i) =>
      kind === 'rest' ? `(${valueText(value)})` : `${valueText(value)}${parts[i + 1]?.tied ? '~' : ''}`,
    )
    .join(' ');
}

/** The measures that fit the chosen beat, and which value their beat is. */
export function measureOf({ beat }: QuestionSettings): { meter: Meter; beat: ValueLetter; full: Fraction } {
  const meter = METERS[beat];
  const { length } = beatOf(meter);
  return { meter, beat: VALUES.find(({ of }) => equal(of, length))!.letter, full: meterLength(meter) };
}

/** Parts of the chosen values that last just so long; undefined when none were found, or they are longer. */
export function filled(length: Fraction, settings: QuestionSettings, random: Random): Part[] | undefined {
  const parts: Part[] = [];
  let left = length;
  for (let tries = 0; left.n > 0 && tries < MOST_PARTS * 3; tries++) {
    const part = anyPart(settings, random);
    const rest = sub(left, lengthOf(part.value));
    if (rest.n < 0 || parts.length === MOST_PARTS) continue;
    parts.push(part);
    left = rest;
  }
  return left.n === 0 ? parts : undefined;
}

/** Plain values as wrong answers, the chosen ones first in an order from the seed. */
export function plainNoteValues(
  settings: QuestionSettings,
  shuffle: (letters: ValueLetter[]) => ValueLetter[],
): NoteValue[] {
  const letters = VALUES.map(({ letter }) => letter);
  const chosen = letters.filter((letter) => settings.values.includes(letter));
  return [...shuffle(chosen), ...letters].map((base) => ({ base, dots: 0 }));
}
