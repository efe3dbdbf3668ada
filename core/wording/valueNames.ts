import type { NoteValue, ValueLetter } from '../rhythm/value.ts';
import { perLanguage, t } from '../words/say.ts';

interface ValueNames {
  readonly one: string;
  readonly many: string;
  /** The full name of a note: "half note", for "half" alone may be half of anything. */
  readonly note: string;
  readonly rest: string;
}

/** Names of the values in one tradition. To add one: an entry here, and it is offered everywhere. */
export interface Naming {
  readonly title: string;
  readonly values: Readonly<Record<ValueLetter, ValueNames>>;
  /** What stands between two bar lines. */
  readonly measure: readonly [one: string, many: string];
}

/** English has two traditions; where a language has one, both say the same. */
export const NAMINGS = perLanguage(
  () =>
    ({
      quarters: {
        title: t`whole, half, quarter, eighth`,
        values: {
          w: { one: t`whole`, many: t`wholes`, note: t`whole note`, rest: t`whole rest` },
          h: { one: t`half`, many: t`halves`, note: t`half note`, rest: t`half rest` },
          q: { one: t`quarter`, many: t`quarters`, note: t`quarter note`, rest: t`quarter rest` },
          e: { one: t`eighth`, many: t`eighths`, note: t`eighth note`, rest: t`eighth rest` },
          s: { one: t`sixteenth`, many: t`sixteenths`, note: t`sixteenth note`, rest: t`sixteenth rest` },
          t: {
            one: t`thirty-second`,
            many: t`thirty-seconds`,
            note: t`thirty-second note`,
            rest: t`thirty-second rest`,
          },
        },
        measure: [t`measure`, t`measures`],
      },
      crotchets: {
        title: t`semibreve, minim, crotchet, quaver`,
        values: {
          w: { one: t`semibreve`, many: t`semibreves`, note: t`semibreve`, rest: t`semibreve rest` },
          h: { one: t`minim`, many: t`minims`, note: t`minim`, rest: t`minim rest` },
          q: { one: t`crotchet`, many: t`crotchets`, note: t`crotchet`, rest: t`crotchet rest` },
          e: { one: t`quaver`, many: t`quavers`, note: t`quaver`, rest: t`quaver rest` },
          s: { one: t`semiquaver`, many: t`semiquavers`, note: t`semiquaver`, rest: t`semiquaver rest` },
          t: {
            one: t`demisemiquaver`,
            many: t`demisemiquavers`,
            note: t`demisemiquaver`,
            rest: t`demisemiquaver rest`,
          },
        },
        measure: [t`bar`, t`bars`],
      },
    }) as const satisfies Readonly<Record<string, Naming>>,
);

export type NamingId = keyof ReturnType<typeof NAMINGS>;
export const NAMING_IDS = Object.keys(NAMINGS()) as readonly NamingId[];

/** "dotted", in one language before the name, in another after it. */
function withDots(name: string, dots: NoteValue['dots']): string {
  if (dots === 0) return name;
  return dots === 1 ? t`dotted ${name}` : t`double-dotted ${name}`;
}

/** "dotted quarter"; with `many` "dotted quarters". */
export function valueName({ base, dots }: NoteValue, naming: NamingId, many = false): string {
  return withDots(NAMINGS()[naming].values[base][many ? 'many' : 'one'], dots);
}

/** "measure"; where crotchets are said, "bar". */
export function measureName(naming: NamingId, many = false): string {
  return NAMINGS()[naming].measure[many ? 1 : 0];
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
  return /^[aeiou]/.test(name) ? t`an ${name}` : t`a ${name}`;
}

/** "a quarter rest"; rests can be of another gender than notes: the empty place makes it a key of its own. */
export function restWithArticle(name: string): string {
  return /^[aeiou]/.test(name) ? t`an ${name}${''}` : t`a ${name}${''}`;
}

/** "dotted quarter note"; "dotted crotchet". */
export function noteName({ base, dots }: NoteValue, naming: NamingId): string {
  return withDots(NAMINGS()[naming].values[base].note, dots);
}

export function restName({ base, dots }: NoteValue, naming: NamingId): string {
  return withDots(NAMINGS()[naming].values[base].rest, dots);
}
