import { perLanguage, t } from '../../words/say.ts';
import { type HeldBeat, PLACE_MEANINGS, beatWord, beatsHeld, beatsInside, placeWord, smallHold } from '../beatPlace.ts';
import { numberWords } from '../numberWords.ts';
import { type CountedEvent, type CountingSystem, speechRules, type Words } from '../countingSystem.ts';

/** The beat words 1 to 12, so that a teacher may say them in another language. */
const BEATS: readonly number[] = Array.from({ length: 12 }, (_, i) => i + 1);
export const BEAT_WORDS: Words = Object.fromEntries(BEATS.map((n) => [`beat${n}`, String(n)]));
export const BEAT_MEANINGS = perLanguage((): Words => Object.fromEntries(BEATS.map((n) => [`beat${n}`, t`beat ${n}`])));

function holds(beats: readonly HeldBeat[], words: Words): string {
  let said = '';
  for (const { beat, full } of beats) said += full ? `-${beatWord(beat, words)}` : smallHold(beat);
  return said;
}

/** What stands first: the place, or in a run of measure rests the measure's number. */
export function firstWord(event: CountedEvent, words: Words): string {
  return event.restNumber === undefined ? placeWord(event, words) : beatWord(event.restNumber, words);
}

/**
 * The written count of one note: its place, then every further beat it sounds through.
 * @example onset 0, length 3/2 → "1-₂"; onset 1/2, length 1/2 → "&"
 */
function note(event: CountedEvent, words: Words): string {
  return firstWord(event, words) + holds(beatsInside(event), words);
}

function tied(event: CountedEvent, words: Words): string {
  return holds(beatsHeld(event), words) || '-';
}

const COMPOUND_SIXTEENTHS: Words = { sixth1: 'ta', sixth3: 'ta', sixth5: 'ta' };
const THIRDS: Words = { third1: 'la', third2: 'li' };

/** The beats as words: one to twelve. */
export const BEAT_ALIASES = perLanguage((): Words =>
  Object.fromEntries(
    numberWords()
      .slice(0, BEATS.length)
      .map((word, i) => [word, `beat${i + 1}`]),
  ),
);
const THIRD_ALIASES: Words = { lah: 'third1', lee: 'third2', lie: 'third2', trip: 'third1', let: 'third2' };
const AND_ALIASES: Words = { an: 'half', 'n’': 'half', ee: 'quarter1', ah: 'quarter3', uh: 'quarter3', da: 'quarter3' };
const TE_ALIASES: Words = { teh: 'half', tay: 'half', tee: 'half', ti: 'half', tah: 'quarter1' };

export const numbers = perLanguage((): CountingSystem => ({
  title: t`Numbers (1 e & a)`,
  words: { ...BEAT_WORDS, quarter1: t`e`, half: t`&`, quarter3: t`a`, ...THIRDS, ...COMPOUND_SIXTEENTHS },
  meanings: { ...BEAT_MEANINGS(), ...PLACE_MEANINGS() },
  rests: 'parens',
  note,
  tied,
  speech: speechRules({ order: 1, numbered: true, aliases: { ...BEAT_ALIASES(), ...THIRD_ALIASES, ...AND_ALIASES } }),
}));

export const numbersTe = perLanguage((): CountingSystem => ({
  ...numbers(),
  title: t`Numbers (1 ta te ta)`,
  words: { ...BEAT_WORDS, quarter1: 'ta', half: 'te', quarter3: 'ta', ...THIRDS, ...COMPOUND_SIXTEENTHS },
  speech: speechRules({ order: 2, numbered: true, aliases: { ...BEAT_ALIASES(), ...THIRD_ALIASES, ...TE_ALIASES } }),
}));
