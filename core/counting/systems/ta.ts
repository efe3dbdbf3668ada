import { perLanguage, t } from '../../words/say.ts';
import { type Fraction, compare, div, equal, frac, mul, sub } from '../../rhythm/fraction.ts';
import { meterKind } from '../../rhythm/meter.ts';
import { NO_SYLLABLE, beatsHeld, vowelOf } from '../beatPlace.ts';
import { type CountedEvent, type CountingSystem, speechRules, type Words } from '../countingSystem.ts';

const QUARTER = frac(1, 4);
const EIGHTH = frac(1, 8);
const SIXTEENTH = frac(1, 16);
const DOTTED_QUARTER = frac(3, 8);
const DOTTED_HALF = frac(3, 4);

/** Even or odd place among the sixteenths: from the bar line, or in the beat where a beat has three of them. */
function sixteenth(event: CountedEvent, words: Words): string {
  const places = div(event.at, SIXTEENTH);
  if (places.d !== 1) return NO_SYLLABLE;
  const inBeat = meterKind(event.meter) === 'compound' && event.meter.lower === 16 ? places.n % 3 : places.n;
  return words[inBeat % 2 === 0 ? 'sixteenthEven' : 'sixteenthOdd']!;
}

function inTriplet(event: CountedEvent, words: Words): string {
  const { onset, length } = event.tuplet!;
  const place = div(mul(sub(event.onset, onset), frac(3)), length);
  return words[`triplet${place.n + 1}`] && place.d === 1 ? words[`triplet${place.n + 1}`]! : NO_SYLLABLE;
}

/**
 * The syllable of a value; a value longer than a quarter adds "-a" for each further quarter begun.
 * @example dotted quarter → "tom"; whole → "ta-a-a-a"; second quarter of a triplet → by its place, "o" or "la"
 */
function note(event: CountedEvent, words: Words): string {
  if (event.tuplet?.n === 3) return inTriplet(event, words);
  const length = event.written;
  if (equal(length, DOTTED_QUARTER)) return words['dottedQuarter']!;
  if (equal(length, DOTTED_HALF) && meterKind(event.meter) === 'compound')
    return `${words['dottedQuarter']}-${words['dottedHold']}`;
  if (compare(length, QUARTER) >= 0) return words['quarter']! + `-${words['hold']}`.repeat(quartersBegun(length) - 1);
  if (compare(length, EIGHTH) > 0) return words['dottedEighth']!;
  if (equal(length, EIGHTH)) return words['eighth']!;
  return compare(length, SIXTEENTH) >= 0 ? sixteenth(event, words) : NO_SYLLABLE;
}

function quartersBegun(length: Fraction): number {
  return Math.ceil((4 * length.n) / length.d);
}

function tied(event: CountedEvent, words: Words): string {
  const first = note(event.sounding?.event ?? event, words).split('-')[0]!;
  return `-${vowelOf(first)}`.repeat(Math.max(1, beatsHeld(event).length));
}

/**
 * "sh" for each whole quarter, "s" for what is shorter: a dotted quarter rest is "sh-s"; inside a triplet always "s".
 */
function rest(event: CountedEvent, words: Words): string {
  if (event.tuplet) return words['shortRest']!;
  const whole = Math.floor((4 * event.written.n) / event.written.d);
  const said = Array.from({ length: whole }, () => words['quarterRest']!);
  if ((4 * event.written.n) % event.written.d !== 0) said.push(words['shortRest']!);
  return said.join('-');
}

/** Other spellings of the same sounds, and words for whole figures. */
const ALIASES: Words = {
  tah: 'quarter',
  taah: 'quarter-hold',
  too: 'quarter-hold',
  tooh: 'quarter-hold',
  toe: 'quarter-hold',
  te: 'eighth',
  tee: 'eighth',
  teh: 'eighth',
  tum: 'dottedQuarter',
  tam: 'dottedQuarter',
  tai: 'dottedQuarter',
  tahm: 'dottedQuarter',
  ri: 'sixteenthOdd',
  ree: 'sixteenthOdd',
  fi: 'sixteenthOdd',
  kah: 'sixteenthOdd',
  tika: 'sixteenthEven sixteenthOdd',
  tiri: 'sixteenthEven sixteenthOdd',
  tikatika: 'sixteenthEven sixteenthOdd sixteenthEven sixteenthOdd',
  tiritiri: 'sixteenthEven sixteenthOdd sixteenthEven sixteenthOdd',
  timri: 'dottedEighth sixteenthOdd',
  syncopa: 'eighth quarter eighth',
  synkopa: 'eighth quarter eighth',
  tripola: 'triplet1 triplet2 triplet3',
  tripolet: 'triplet1 triplet2 triplet3',
  triole: 'triplet1 triplet2 triplet3',
  triplet: 'triplet1 triplet2 triplet3',
  trioleh: 'triplet1 triplet2 triplet3',
  shh: 'quarterRest',
  shush: 'quarterRest',
  ss: 'shortRest',
};

export const ta = perLanguage((): CountingSystem => ({
  title: t`Ta ti (by value)`,
  words: {
    quarter: 'ta',
    hold: 'a',
    dottedQuarter: 'tom',
    dottedHold: 'om',
    dottedEighth: 'tim',
    eighth: 'ti',
    sixteenthEven: 'ti',
    sixteenthOdd: 'ka',
    triplet1: 'tri',
    triplet2: 'o',
    triplet3: 'la',
    quarterRest: 'sh',
    shortRest: 's',
  },
  meanings: {
    quarter: '{q}',
    hold: t`each further {q} of a longer note`,
    dottedQuarter: t`dotted {q}`,
    dottedHold: t`second part of a dotted {h} in compound meter`,
    dottedEighth: t`dotted {e}`,
    eighth: '{e}',
    sixteenthEven: t`{s}, even place`,
    sixteenthOdd: t`{s}, odd place`,
    triplet1: t`triplet, first`,
    triplet2: t`triplet, second`,
    triplet3: t`triplet, third`,
    quarterRest: t`each {q} of a rest`,
    shortRest: t`a rest shorter than a {q}`,
  },
  rests: 'sh',
  note,
  tied,
  tiedByVowel: true,
  rest,
  speech: speechRules({
    order: 3,
    onlyHeld: ['hold', 'dottedHold'],
    aliases: ALIASES,
    goesOn: (first, part, words) =>
      part === words['dottedHold'] ||
      (part === words['hold'] && first === words['quarter']) ||
      (part === words['shortRest'] && first === words['quarterRest']),
  }),
}));
