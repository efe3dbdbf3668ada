import { perLanguage, t } from '../../words/say.ts';
import { type Fraction, ONE, frac, isWhole } from '../../rhythm/fraction.ts';
import { meterText } from '../../rhythm/meter.ts';
import { NO_SYLLABLE, pointsInside } from '../beatPlace.ts';
import type { CountedEvent, CountingSystem, Words } from '../countingSystem.ts';

const HALF = frac(1, 2);

function step(event: CountedEvent): Fraction {
  return event.tuplet ? ONE : HALF;
}

function sign(event: CountedEvent, point: Fraction, words: Words): string {
  if (isWhole(point)) return words['down']!;
  return point.d === 2 && !event.tuplet ? words['up']! : NO_SYLLABLE;
}

/**
 * The foot is down on the beat, up on the half: a dotted quarter → "↓-↑-↓"; inside a tuplet only the beat is marked.
 */
function note(event: CountedEvent, words: Words): string {
  return sign(event, event.onset, words) + signs(event, words, pointsInside(event, step(event)));
}

function tied(event: CountedEvent, words: Words): string {
  return signs(event, words, pointsInside(event, step(event), true)) || '-';
}

function signs(event: CountedEvent, words: Words, points: readonly Fraction[]): string {
  let said = '';
  for (const point of points) said += `-${sign(event, point, words)}`;
  return said;
}

export const feet = perLanguage((): CountingSystem => ({
  title: t`Feet (↓ on the beat, ↑ on the half)`,
  words: { down: '↓', up: '↑' },
  meanings: { down: t`foot down, on the beat`, up: t`foot up, on the half beat` },
  rests: 'parens',
  refuses: (meter, beat) =>
    beat.division === 3
      ? t`the feet go down and up in simple meters; a beat of ${meterText(meter)} divides in
        three (count a value that divides in two)`
      : undefined,
  note,
  tied,
}));
