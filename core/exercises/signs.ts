import type { Random } from '../random.ts';
import type { CountOptions } from '../counting/count.ts';
import { type Dots, type NoteValue, VALUES, type ValueLetter, valueText } from '../rhythm/value.ts';
import type { MistakeId } from './misconceptions.ts';

/** A sign of written music. */
export type Sign =
  | { readonly sign: 'note' | 'rest'; readonly value: NoteValue }
  /** Two notes with flags, joined by a beam. */
  | { readonly sign: 'pair'; readonly base: 'e' | 's' }
  | { readonly sign: 'treble' | 'bass' };

/**
 * Height on the five lines in half spaces: 0 is the first line from below, 1 the first space, 8 the fifth line.
 */
export type StaffHeight = number;

export interface Stem {
  readonly way: 'up' | 'down';
  readonly side: 'left' | 'right';
}

/** A sign as it stands on the staff. */
export interface StaffSign {
  readonly sign: Sign;
  /** Of a note head; rests and clefs have their own place. */
  readonly at?: StaffHeight;
  /** Absent: as the rule says; null: no stem is drawn. */
  readonly stem?: Stem | null;
}

export const TOP_LINE: StaffHeight = 8;
export const MIDDLE_LINE: StaffHeight = 4;

/** Length of a stem in spaces: an octave (rules §7). */
export const STEM_SPACES = 3.5;

const UP: Stem = { way: 'up', side: 'right' };
const DOWN: Stem = { way: 'down', side: 'left' };
export const STEMS: readonly Stem[] = [UP, DOWN, { way: 'up', side: 'left' }, { way: 'down', side: 'right' }];

/** The stems a head may have: below the middle line up, above it down, on it either (rules §7). */
export function rightStems(at: StaffHeight): readonly Stem[] {
  if (at === MIDDLE_LINE) return [UP, DOWN];
  return at < MIDDLE_LINE ? [UP] : [DOWN];
}

/** A line or a space, numbered from below. */
export interface StaffPlace {
  readonly on: 'line' | 'space';
  readonly number: number;
}

export function staffPlace(at: StaffHeight): StaffPlace {
  return at % 2 === 0 ? { on: 'line', number: at / 2 + 1 } : { on: 'space', number: (at + 1) / 2 };
}

/** What questions about signs are made of. */
export interface SignSettings {
  readonly values: readonly ValueLetter[];
  readonly dots: boolean;
  readonly rests: boolean;
  readonly clefs: boolean;
  /** The value that gets the beat. */
  readonly beat: ValueLetter;
  /** How the class speaks. */
  readonly counts: CountOptions;
}

/** One word for each sign: two signs with the same are the same. */
export function signKey(sign: Sign): string {
  if (sign.sign === 'note') return valueText(sign.value);
  if (sign.sign === 'rest') return `(${valueText(sign.value)})`;
  return sign.sign === 'pair' ? `${sign.base} ${sign.base}` : sign.sign;
}

export const note = (base: ValueLetter, dots: Dots = 0): Sign => ({ sign: 'note', value: { base, dots } });
export const rest = (base: ValueLetter, dots: Dots = 0): Sign => ({ sign: 'rest', value: { base, dots } });

/** The chosen values, longest first; quarters and halves where nothing is chosen. */
function lettersOf({ values }: SignSettings): ValueLetter[] {
  const known = VALUES.map(({ letter }) => letter).filter((letter) => values.includes(letter));
  return known.length > 1 ? known : ['h', 'q'];
}

/** Notes that have a value of their own, without pairs. */
export function notesOf(settings: SignSettings): Sign[] {
  const letters = lettersOf(settings);
  const dotted = settings.dots ? letters.filter((base) => base === 'h' || base === 'q' || base === 'e') : [];
  return [...letters.map((base) => note(base)), ...dotted.map((base) => note(base, 1))];
}

export function restsOf(settings: SignSettings): Sign[] {
  return settings.rests ? lettersOf(settings).map((base) => rest(base)) : [];
}

/** Every sign that may be asked for. */
export function signsOf(settings: SignSettings): Sign[] {
  const letters = lettersOf(settings);
  const pairs = (['e', 's'] as const).filter((base) => letters.includes(base));
  return [
    ...notesOf(settings),
    ...restsOf(settings),
    ...pairs.map((base): Sign => ({ sign: 'pair', base })),
    ...(settings.clefs ? [{ sign: 'treble' } as const, { sign: 'bass' } as const] : []),
  ];
}

/** Where a sign stands when it does not matter where: heads anywhere from under the first line to above the fifth. */
export function somewhere(sign: Sign, random: Random): StaffSign {
  return sign.sign === 'note' || sign.sign === 'pair' ? { sign, at: 1 + random.below(7) } : { sign };
}

/** Signs that children take for one another, and why. */
const LOOK_ALIKES: readonly (readonly [a: Sign, b: Sign, mistake: MistakeId])[] = [
  [note('w'), note('h'), 'stem-overlooked'],
  [note('h'), note('q'), 'head-overlooked'],
  [note('q'), note('e'), 'flags-miscounted'],
  [note('e'), note('s'), 'flags-miscounted'],
  [note('s'), note('t'), 'flags-miscounted'],
  [note('h'), note('h', 1), 'dot-overlooked'],
  [note('q'), note('q', 1), 'dot-overlooked'],
  [note('e'), note('e', 1), 'dot-overlooked'],
  [rest('w'), rest('h'), 'whole-half-swapped'],
  [rest('q'), rest('e'), 'rests-mixed'],
  [rest('e'), rest('s'), 'flags-miscounted'],
  [rest('s'), rest('t'), 'flags-miscounted'],
  [{ sign: 'pair', base: 'e' }, { sign: 'pair', base: 's' }, 'flags-miscounted'],
  [{ sign: 'pair', base: 'e' }, note('e'), 'beam-not-counted'],
  [{ sign: 'pair', base: 's' }, note('s'), 'beam-not-counted'],
  [{ sign: 'treble' }, { sign: 'bass' }, 'clefs-mixed'],
];

/** Whether a note also comes in pairs under a beam. */
export function hasPairs(sign: Sign): boolean {
  return sign.sign === 'note' && sign.value.dots === 0 && (sign.value.base === 'e' || sign.value.base === 's');
}

/** Whether a sign is of the kind that is asked for; two eighths under a beam are eighths, unless single ones are. */
export function isOfKind(sign: Sign, kind: Sign, single = false): boolean {
  if (signKey(sign) === signKey(kind)) return true;
  return !single && sign.sign === 'pair' && kind.sign === 'note' && hasPairs(kind) && kind.value.base === sign.base;
}

/** Notes and rests of one value are mixed up as well. */
function counterpart(sign: Sign): Sign | undefined {
  if (sign.sign === 'note' && sign.value.dots === 0) return rest(sign.value.base);
  return sign.sign === 'rest' ? note(sign.value.base) : undefined;
}

/** What a sign is taken for. */
export function takenFor(sign: Sign): { readonly sign: Sign; readonly mistake: MistakeId }[] {
  const key = signKey(sign);
  const alike = LOOK_ALIKES.flatMap(([a, b, mistake]) => {
    if (signKey(a) === key) return [{ sign: b, mistake }];
    return signKey(b) === key ? [{ sign: a, mistake }] : [];
  });
  const other = counterpart(sign);
  return other ? [...alike, { sign: other, mistake: 'note-for-rest' }] : alike;
}
