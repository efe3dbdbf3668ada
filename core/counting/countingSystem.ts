import type { Fraction } from '../rhythm/fraction.ts';
import type { Beat, Meter } from '../rhythm/meter.ts';
import { type NoteValue, valueOfLength } from '../rhythm/value.ts';
import type { WordSet } from './wordSet.ts';

/** How a rest is given (rules §4). `whisper` is printed like `parens`. */
export const REST_STYLES = ['parens', 'whisper', 'rest', 'sh', 'silent'] as const;
export type RestStyle = (typeof REST_STYLES)[number];

/** One note or rest as a system sees it. Onset and length in counted beats, onset from the bar line. */
export interface CountedEvent {
  readonly kind: 'note' | 'tied' | 'rest';
  readonly onset: Fraction;
  readonly length: Fraction;
  readonly value: NoteValue;
  /** Length as written, part of a whole note; a tuplet does not change it. */
  readonly written: Fraction;
  /** Onset from the bar line, part of a whole note. */
  readonly at: Fraction;
  readonly meter: Meter;
  readonly beat: Beat;
  readonly label?: string | undefined;
  /** The tuplet it belongs to, in counted beats. */
  readonly tuplet?: { readonly n: number; readonly onset: Fraction; readonly length: Fraction } | undefined;
  /** In a run of whole-measure rests: which measure, from 1. */
  readonly restNumber?: number | undefined;
  /** Of a tied-on note: the note that sounds, and for how many beats it has sounded. */
  readonly sounding?: { readonly event: CountedEvent; readonly beats: Fraction } | undefined;
}

/**
 * Its value; a whole-measure rest, which has none of its own, is named for the time it takes, as far as one value can
 * name it.
 */
export function writtenValue(event: CountedEvent): NoteValue {
  return event.restNumber === undefined ? event.value : (valueOfLength(event.written) ?? event.value);
}

/** The words of a system, by place or value. A teacher may put her own in their stead. */
export type Words = Readonly<Record<string, string>>;

/** How typed speech is cut into the tokens of a system. */
export interface SpeechRules {
  /** The systems are tried in this order. */
  readonly order: number;
  /** Beats are numbers: joined by hyphens they are one note held on ("1-2"), run together several ("1e&a"). */
  readonly numbered: boolean;
  /** Parts of beats hold a note on as well ("1-&-2"); else only a number does. */
  readonly heldByParts: boolean;
  /** Keys of words that are never said on their own, only after a hyphen. */
  readonly onlyHeld: readonly string[];
  /**
   * Other spellings: what people type, and the keys of the words that are meant, a hyphen before what holds on
   * ("quarter eighth", "quarter-hold").
   */
  readonly aliases: Words;
  /** After a hyphen, besides the vowel of what is held: does this part go on with a note that begins so? */
  readonly goesOn: (first: string, part: string, words: Words) => boolean;
}

const USUAL_SPEECH: Omit<SpeechRules, 'order'> = {
  numbered: false,
  heldByParts: false,
  onlyHeld: [],
  aliases: {},
  goesOn: () => false,
};

/** The rules of a system that leads back from speech to writing; what is left out is as usual. */
export function speechRules(rules: Pick<SpeechRules, 'order'> & Partial<SpeechRules>): SpeechRules {
  return { ...USUAL_SPEECH, ...rules };
}

/** One way to speak rhythm. Each system is one file, and one row in `systems.ts`. */
export interface CountingSystem {
  /** As a teacher calls it. */
  readonly title: string;
  /** The words a teacher can change, by key. */
  readonly words: Words;
  /** What each key means, for the table of house words; values stand as in `inNaming`. */
  readonly meanings: Words;
  readonly rests: RestStyle;
  /** Why the system cannot count in this meter; undefined when it can. */
  readonly refuses?: ((meter: Meter, beat: Beat) => string | undefined) | undefined;
  /** How it sees notes and rests, where that is not by the counted beats. */
  readonly sees?: ((event: CountedEvent) => CountedEvent) | undefined;
  /** The token of a note; also of a rest that is written in parentheses, without them. */
  readonly note: (event: CountedEvent, words: Words) => string;
  readonly tied: (event: CountedEvent, words: Words) => string;
  /** A tied-on note is said as the vowel of the note that sounds. */
  readonly tiedByVowel?: true | undefined;
  /** Its own words for rests, if it has some: then the rest style `sh` means these. */
  readonly rest?: ((event: CountedEvent, words: Words) => string) | undefined;
  /** For systems that speak whole cells at once: the tokens of a measure; undefined where `note` is to be asked. */
  readonly cells?: ((events: readonly CountedEvent[], set: WordSet) => (string | undefined)[]) | undefined;
  /** Undefined where what is said does not lead back to writing. */
  readonly speech?: SpeechRules | undefined;
}
