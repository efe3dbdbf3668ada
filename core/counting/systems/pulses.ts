import { perLanguage, t } from '../../words/say.ts';
import { type Fraction, frac } from '../../rhythm/fraction.ts';
import { placeWord, pointsInside } from '../beatPlace.ts';
import { firstWord, numbers, BEAT_ALIASES } from './numbers.ts';
import { type CountedEvent, type CountingSystem, speechRules, type Words } from '../countingSystem.ts';

/** Half a beat; a third where the beat divides in three. */
function pulse(event: CountedEvent): Fraction {
  return frac(1, event.beat.division);
}

/**
 * Every half beat (third in compound) a note sounds through is spoken; inside a tuplet only the place.
 * @example a half note on beat 1 → "1-&-2-&"
 */
function note(event: CountedEvent, words: Words): string {
  const first = firstWord(event, words);
  return event.tuplet ? first : first + spoken(event, words, pointsInside(event, pulse(event)));
}

function tied(event: CountedEvent, words: Words): string {
  const step = event.tuplet ? frac(1) : pulse(event);
  return spoken(event, words, pointsInside(event, step, true)) || '-';
}

function spoken(event: CountedEvent, words: Words, points: readonly Fraction[]): string {
  let said = '';
  for (const point of points) said += `-${placeWord(event, words, point)}`;
  return said;
}

export const pulses = perLanguage((): CountingSystem => ({
  ...numbers(),
  title: t`Pulses (every half beat spoken)`,
  note,
  tied,
  speech: speechRules({ order: 5, numbered: true, heldByParts: true, aliases: BEAT_ALIASES() }),
}));
