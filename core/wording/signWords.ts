import { MIDDLE_LINE, hasPairs, type Sign, type StaffHeight, type StaffPlace, type Stem } from '../exercises/signs.ts';
import type { NoteValue } from '../rhythm/value.ts';
import { type NamingId, inNaming, noteName, restName, valueName, withArticle } from './valueNames.ts';

const CLEFS = { treble: 'treble clef', bass: 'bass clef' } as const;

/** "half note", "quarter rest", "two eighths under a beam", "treble clef". */
export function signName(sign: Sign, naming: NamingId): string {
  if (sign.sign === 'note') return noteName(sign.value, naming);
  if (sign.sign === 'rest') return restName(sign.value, naming);
  if (sign.sign !== 'pair') return CLEFS[sign.sign];
  return `two ${valueName({ base: sign.base, dots: 0 }, naming, true)} under a beam`;
}

const ORDINALS = ['first', 'second', 'third', 'fourth', 'fifth'] as const;

/** "the second line". */
export function staffPlaceName({ on, number }: StaffPlace): string {
  return `the ${ORDINALS[number - 1]} ${on}`;
}

export function stemName({ way, side }: Stem): string {
  return `${way}, on the ${side}`;
}

export function stemRule(at: StaffHeight): string {
  if (at === MIDDLE_LINE) return 'on the middle line: up on the right or down on the left, both are right';
  return at < MIDDLE_LINE
    ? 'below the middle line: the stem goes up, on the right'
    : 'above the middle line: the stem goes down, on the left';
}

const NOTE_LOOKS: Readonly<Record<NoteValue['base'], string>> = {
  w: 'an open head without a stem',
  h: 'an open head with a stem',
  q: 'a filled head with a stem',
  e: 'a filled head, a stem and one flag, always right of the stem',
  s: 'a filled head, a stem and two flags, always right of the stem',
  t: 'a filled head, a stem and three flags, always right of the stem',
};
const REST_LOOKS: Readonly<Record<NoteValue['base'], string>> = {
  w: 'a block that hangs below the fourth line',
  h: 'a block that sits on the third line',
  q: 'a zigzag that ends in a hook',
  e: 'a slanting stem with one dot on a hook',
  s: 'a slanting stem with two dots on hooks',
  t: 'a slanting stem with three dots on hooks',
};

const CLEF_LOOKS = {
  treble: 'curls around the second line',
  bass: 'begins on the fourth line, with two dots either side of it',
} as const;
const PAIR_LOOKS = { e: 'one beam is as good as one flag each', s: 'two beams are as good as two flags each' } as const;

function looksOf(sign: Sign): string {
  if (sign.sign === 'pair') return PAIR_LOOKS[sign.base];
  if (!('value' in sign)) return CLEF_LOOKS[sign.sign];
  const looks = (sign.sign === 'note' ? NOTE_LOOKS : REST_LOOKS)[sign.value.base];
  return sign.value.dots === 0 ? looks : `${looks}, and a dot right of it: longer by half`;
}

/** "half rest: a block that sits on the third line". */
export function signStep(sign: Sign, naming: NamingId): string {
  return `${signName(sign, naming)}: ${looksOf(sign)}`;
}

/** "Find every quarter rest". */
export function spotText(sign: Sign, single: boolean, naming: NamingId): string {
  return `Find every ${spotName(sign, single, naming)}.`;
}

/** "eighth note, also under a beam"; "single eighth note". */
export function spotName(sign: Sign, single: boolean, naming: NamingId): string {
  const name = signName(sign, naming);
  if (!hasPairs(sign)) return name;
  return single ? `single ${name}` : `${name}, also under a beam`;
}

/** "Which rest lasts as long as this note?" */
export function sameLengthText(to: 'note' | 'rest'): string {
  return `Which ${to} lasts as long as this ${to === 'note' ? 'rest' : 'note'}?`;
}

export function matchText(to: 'name' | 'beats' | 'syllable', beat: NoteValue['base'], naming: NamingId): string {
  if (to === 'name') return 'Which name belongs to which sign?';
  if (to === 'syllable') return 'What is said for which sign?';
  const beats = valueName({ base: beat, dots: 0 }, naming);
  return inNaming(
    `How many beats has each, when ${withArticle(beats).replace(/^an? /, 'the ')} gets the beat?`,
    naming,
  );
}
