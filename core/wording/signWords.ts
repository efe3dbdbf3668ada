import { perLanguage, t } from '../words/say.ts';
import { MIDDLE_LINE, hasPairs, type Sign, type StaffHeight, type StaffPlace, type Stem } from '../exercises/signs.ts';
import type { NoteValue } from '../rhythm/value.ts';
import { type NamingId, noteName, restName, valueName } from './valueNames.ts';

const CLEFS = perLanguage(() => ({ treble: t`treble clef`, bass: t`bass clef` }) as const);

/** "half note", "quarter rest", "two eighths under a beam", "treble clef". */
export function signName(sign: Sign, naming: NamingId): string {
  if (sign.sign === 'note') return noteName(sign.value, naming);
  if (sign.sign === 'rest') return restName(sign.value, naming);
  if (sign.sign !== 'pair') return CLEFS()[sign.sign];
  return t`two ${valueName({ base: sign.base, dots: 0 }, naming, true)} under a beam`;
}

const LINES = perLanguage(() => [
  t`the first line`,
  t`the second line`,
  t`the third line`,
  t`the fourth line`,
  t`the fifth line`,
]);
const SPACES = perLanguage(() => [t`the first space`, t`the second space`, t`the third space`, t`the fourth space`]);

/** "the second line". */
export function staffPlaceName({ on, number }: StaffPlace): string {
  return (on === 'line' ? LINES() : SPACES())[number - 1]!;
}

const STEMS = perLanguage(() => ({
  up: { left: t`up, on the left`, right: t`up, on the right` },
  down: { left: t`down, on the left`, right: t`down, on the right` },
}));

export function stemName({ way, side }: Stem): string {
  return STEMS()[way][side];
}

export function stemRule(at: StaffHeight): string {
  if (at === MIDDLE_LINE) return t`on the middle line: up on the right or down on the left, both are right`;
  return at < MIDDLE_LINE
    ? t`below the middle line: the stem goes up, on the right`
    : t`above the middle line: the stem goes down, on the left`;
}

const NOTE_LOOKS = perLanguage((): Readonly<Record<NoteValue['base'], string>> => ({
  w: t`an open head without a stem`,
  h: t`an open head with a stem`,
  q: t`a filled head with a stem`,
  e: t`a filled head, a stem and one flag, always right of the stem`,
  s: t`a filled head, a stem and two flags, always right of the stem`,
  t: t`a filled head, a stem and three flags, always right of the stem`,
}));
const REST_LOOKS = perLanguage((): Readonly<Record<NoteValue['base'], string>> => ({
  w: t`a block that hangs below the fourth line`,
  h: t`a block that sits on the third line`,
  q: t`a zigzag that ends in a hook`,
  e: t`a slanting stem with one dot on a hook`,
  s: t`a slanting stem with two dots on hooks`,
  t: t`a slanting stem with three dots on hooks`,
}));

const CLEF_LOOKS = perLanguage(
  () =>
    ({
      treble: t`curls around the second line`,
      bass: t`begins on the fourth line, with two dots either side of it`,
    }) as const,
);
const PAIR_LOOKS = perLanguage(
  () => ({ e: t`one beam is as good as one flag each`, s: t`two beams are as good as two flags each` }) as const,
);

function looksOf(sign: Sign): string {
  if (sign.sign === 'pair') return PAIR_LOOKS()[sign.base];
  if (!('value' in sign)) return CLEF_LOOKS()[sign.sign];
  const looks = (sign.sign === 'note' ? NOTE_LOOKS() : REST_LOOKS())[sign.value.base];
  return sign.value.dots === 0 ? looks : t`${looks}, and a dot right of it: longer by half`;
}

/** "half rest: a block that sits on the third line". */
export function signStep(sign: Sign, naming: NamingId): string {
  return `${signName(sign, naming)}: ${looksOf(sign)}`;
}

/** "Find every quarter rest". */
export function spotText(sign: Sign, single: boolean, naming: NamingId): string {
  return t`Find every ${spotName(sign, single, naming)}.`;
}

/** "eighth note, also under a beam"; "single eighth note". */
export function spotName(sign: Sign, single: boolean, naming: NamingId): string {
  const name = signName(sign, naming);
  if (!hasPairs(sign)) return name;
  return single ? t`single ${name}` : t`${name}, also under a beam`;
}

/** "Which rest lasts as long as this note?" */
export function sameLengthText(to: 'note' | 'rest'): string {
  return to === 'note' ? t`Which note lasts as long as this rest?` : t`Which rest lasts as long as this note?`;
}

export function matchText(to: 'name' | 'beats' | 'syllable', beat: NoteValue['base'], naming: NamingId): string {
  if (to === 'name') return t`Which name belongs to which sign?`;
  if (to === 'syllable') return t`What is said for which sign?`;
  const beats = valueName({ base: beat, dots: 0 }, naming);
  return t`How many beats has each, when the ${beats} gets the beat?`;
}
