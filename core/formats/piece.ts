import { perLanguage, t } from '../words/say.ts';
import type { Fraction } from '../rhythm/fraction.ts';
import type { Meter } from '../rhythm/meter.ts';
import type { NoteValue } from '../rhythm/value.ts';

/** What a rhythm does not take over from a file; said by kind and number. */
export const LEFT_OUT_KINDS = [
  'pitches',
  'chord-notes',
  'close-notes',
  'grace-notes',
  'cue-notes',
  'ornaments',
  'articulations',
  'slurs',
  'dynamics',
  'words',
  'lyrics',
  'chord-symbols',
  'tempo-marks',
  'jumps',
  'overlays',
  'open-ties',
  'characters',
  'unreadable',
  'cut-off',
] as const;
export type LeftOutKind = (typeof LEFT_OUT_KINDS)[number];
export type LeftOut = Partial<Record<LeftOutKind, number>>;

/** Counts what is left out. */
export class Leavings {
  readonly counts: LeftOut = {};

  add(kind: LeftOutKind, count = 1): void {
    if (count > 0) this.counts[kind] = (this.counts[kind] ?? 0) + count;
  }
}

/** One note or rest as a file has it, before it is put into values. */
export interface RawEvent {
  readonly kind: 'note' | 'rest';
  /** How long it lasts, as part of a whole note. */
  readonly length: Fraction;
  /** The sign it is written with, where the file says so. */
  readonly value?: NoteValue;
  /** So many in the time of so many, where the file says so. */
  readonly ratio?: Ratio;
  /** A group in other time begins or ends here; a file need not say so. */
  readonly groupStart?: boolean;
  readonly groupEnd?: boolean;
  /** Goes on in the next note, which is not sounded. */
  readonly tied?: boolean;
  /** Whether the file says that something is tied into it; absent where it cannot say so. */
  readonly tiedIn?: boolean;
  /** A word on the note that is kept. */
  readonly label?: string;
  /** Its letter name, kept at a switch: "G", "F#". */
  readonly letter?: string;
  /** The sign for a whole measure of rest. */
  readonly wholeMeasure?: boolean;
}

export interface Ratio {
  readonly n: number;
  readonly m: number;
}

/** A measure of one voice. */
export interface RawMeasure {
  readonly meter: Meter;
  readonly events: readonly RawEvent[];
  /** As printed; absent where the file gives none that is a number. */
  readonly number?: number;
  readonly letter?: string;
  /** The file says that it does not count: a pickup, or the second half of a measure. */
  readonly uncounted?: boolean;
  /** The file says that it is a pickup, or that it is none. */
  readonly pickup?: boolean;
  /** A sign for so many measures of rest begins here. */
  readonly restRun?: number;
  readonly repeatStart?: boolean;
  /** How often what it ends is played, 2 or more. */
  readonly repeatEnd?: number;
  /** Times through for which an ending that begins here is played; and whether the ending is over after it. */
  readonly ending?: readonly number[];
  readonly endingStops?: boolean;
  /** What is wrong in it, in words without the measure: "the notes are 1/2 beat longer than the file says". */
  readonly trouble?: string;
  /** Written out where it does not stand on paper: after another measure. */
  readonly moved?: boolean;
}

export interface RawVoice {
  readonly id: string;
  /** As the file names it, where it names voices. */
  readonly name?: string;
  /** So many of its measures come again to the end, where this program wrote that. */
  readonly ostinato?: number;
  readonly measures: readonly RawMeasure[];
  readonly leftOut: LeftOut;
  /** From a file that this program wrote: measures are as long as they are, and nothing is guessed. */
  readonly literal?: boolean;
}

export interface RawPart {
  readonly id: string;
  readonly name: string;
  readonly voices: readonly RawVoice[];
}

/** A part as it was played: seconds of its notes; freely, where no grid explains it and it is no part to be written. */
export interface Played {
  readonly part: string;
  readonly onsets: readonly number[];
  readonly free: boolean;
}

/** A piece of a file: its parts, each of one or more voices. */
export interface Piece {
  readonly title: string;
  readonly parts: readonly RawPart[];
  /** The file has no parts: its voices are what others call parts. */
  readonly voicesAreParts?: true;
  /** Quarters a minute, where the file says so. */
  readonly quarters?: number;
  /** What was played, of MIDI: it can be heard as a take. */
  readonly played?: readonly Played[];
  /** What was left out of the piece as a whole. */
  readonly leftOut: LeftOut;
}

/** A file that cannot be read: a line for the one who chose it, without a full stop. */
export type FileTrouble = { readonly ok: false; readonly trouble: string };
export type ReadFile = { readonly ok: true; readonly pieces: readonly Piece[] } | FileTrouble;

/** Thrown inside a reader where the file is at fault; the reader turns it into a `FileTrouble`. */
export class BadFile extends Error {}

export const LARGEST_FILES = {
  text: 1_000_000,
  abc: 1_500_000,
  midi: 4_000_000,
  musicxml: 12_000_000,
  zip: 20_000_000,
} as const;

const MOST = { notes: 150_000, measures: 200_000, voices: 2500, pieces: 2000 } as const;
const MOST_NAMES = perLanguage(
  () => ({ notes: t`notes and rests`, measures: t`measures`, voices: t`voices`, pieces: t`pieces` }) as const,
);

/** What a file may hold, all its parts together: more is no score, and nobody should wait for it. */
export class Budget {
  private readonly used = { notes: 0, measures: 0, voices: 0, pieces: 0 };

  /** Throws `BadFile` where it becomes too much. */
  use(what: keyof typeof MOST, count = 1): void {
    this.used[what] += count;
    if (this.used[what] > MOST[what])
      throw new BadFile(t`it has more than ${MOST[what]} ${MOST_NAMES()[what]}; split it`);
  }
}

/** "12 MB" */
export function megabytes(bytes: number): string {
  return t`${Math.round(bytes / 1e5) / 10} MB`.replace('.0 ', ' ');
}

/**
 * Runs a reader on a file that is not too large; what is wrong with the file comes back as a line.
 * @param length  in bytes or letters
 */
export function reading(kind: keyof typeof LARGEST_FILES, length: number, read: () => readonly Piece[]): ReadFile {
  const largest = LARGEST_FILES[kind];
  if (length > largest)
    return {
      ok: false,
      trouble: t`a file of ${megabytes(length)} is too much (at most ${megabytes(largest)}): split it`,
    };
  try {
    return { ok: true, pieces: read() };
  } catch (error) {
    if (error instanceof BadFile) return { ok: false, trouble: error.message };
    if (error instanceof RangeError)
      return { ok: false, trouble: t`a number in it is too large to be counted exactly` };
    throw error;
  }
}
