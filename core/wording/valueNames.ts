import type { NoteValue, ValueLetter } from '../rhythm/value.ts';

/** Names of the values in one tradition. To add a language: one entry here, and it is offered everywhere. */
export interface Naming {
  readonly title: string;
  readonly values: Readonly<Record<ValueLetter, readonly [one: string, many: string]>>;
  /** Before the name: one dot, two dots. */
  readonly dots: readonly [string, string];
  readonly rest: (value: string) => string;
  /** The full name of a note: "half note", for "half" alone may be half of anything. */
  readonly note: (value: string) => string;
  /** What stands between two bar lines. */
  readonly measure: readonly [one: string, many: string];
}

const dots = ['dotted ', 'double-dotted '] as const;
const rest = (value: string) => `${value} rest`;

export const NAMINGS = {
  quarters: {
    title: 'whole, half, quarter, eighth',
    values: {
      w: ['whole', 'wholes'],
      h: ['half', 'halves'],
      q: ['quarter', 'quarters'],
      e: ['eighth', 'eighths'],
      s: ['sixteenth', 'sixteenths'],
      t: ['thirty-second', 'thirty-seconds'],
    },
    dots,
    rest,
    note: (value) => `${value} note`,
    measure: ['measure', 'measures'],
  },
  crotchets: {
    title: 'semibreve, minim, crotchet, quaver',
    values: {
      w: ['semibreve', 'semibreves'],
      h: ['minim', 'minims'],
      q: ['crotchet', 'crotchets'],
      e: ['quaver', 'quavers'],
      s: ['semiquaver', 'semiquavers'],
      t: ['demisemiquaver', 'demisemiquavers'],
    },
    dots,
    rest,
    note: (value) => value,
    measure: ['bar', 'bars'],
  },
} as const satisfies Readonly<Record<string, Naming>>;

export type NamingId = keyof typeof NAMINGS;
export const NAMING_IDS = Object.keys(NAMINGS) as readonly NamingId[];

/** "dotted quarter"; with `many` "dotted quarters". */
export function valueName(value: NoteValue, naming: NamingId, many = false): string {
  const { values, dots: dotted } = NAMINGS[naming];
  return (value.dots === 0 ? '' : dotted[value.dots - 1]) + values[value.base][many ? 1 : 0];
}

/** "measure"; where crotchets are said, "bar". */
export function measureName(naming: NamingId, many = false): string {
  return NAMINGS[naming].measure[many ? 1 : 0];
}

export function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/**
 * Puts names into a text that is written for every tradition: "{q}" is one quarter, "{e+}" are many eighths,
 * "{measure}" is a measure or a bar, "{Measure}" one at the start of a sentence.
 */
export function inNaming(text: string, naming: NamingId): string {
  return text.replace(/\{([whqest]|[Mm]easure)(\+?)\}/g, (_all, what: string, many: string) => {
    if (what === 'measure') return measureName(naming, many === '+');
    if (what === 'Measure') return capital(measureName(naming, many === '+'));
    return valueName({ base: what as ValueLetter, dots: 0 }, naming, many === '+');
  });
}

/** "a quarter", "an eighth". */
export function withArticle(name: string): string {
  return `${/^[aeiou]/.test(name) ? 'an' : 'a'} ${name}`;
}

/** "dotted quarter note"; "dotted crotchet". */
export function noteName(value: NoteValue, naming: NamingId): string {
  return NAMINGS[naming].note(valueName(value, naming));
}

export function restName(value: NoteValue, naming: NamingId): string {
  return NAMINGS[naming].rest(valueName(value, naming));
}
