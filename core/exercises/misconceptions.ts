import { type Fraction, ONE, ZERO, add, frac, mul, sum } from '../rhythm/fraction.ts';
import type { NoteValue, ValueLetter } from '../rhythm/value.ts';
import { type Part, beatsIn } from './valueSums.ts';

/** A way children misunderstand values (handbook §1): how they then count, and what to say about it. */
export interface Misconception {
  readonly id: MisconceptionId;
  /** One sentence for the child who chose it, for `named`. */
  readonly sentence: string;
  /** The beats a child with this misconception gives to a part. */
  readonly beats: (part: Part, beat: ValueLetter) => Fraction;
  /** How often the child then claps a part, where that is not once for each note that is not tied on. */
  readonly claps?: (part: Part) => number;
}

export type MisconceptionId =
  | 'dot-one-beat'
  | 'dot-whole-copy'
  | 'dot-ignored'
  | 'staccato-lengthens'
  | 'counts-notes'
  | 'rest-nothing'
  | 'rest-clapped'
  | 'whole-half-swapped'
  | 'tie-ignored'
  | 'tie-two-sounds'
  | 'beat-ignored';

const plain = (value: NoteValue): NoteValue => ({ base: value.base, dots: 0 });
const right = ({ value }: Part, beat: ValueLetter) => beatsIn(value, beat);

/** A note is clapped at its start; a rest and a tied-on note are not. */
export function clapsOf({ kind, tied }: Part): number {
  return kind === 'note' && !tied ? 1 : 0;
}

/** Each in one entry; wrong options are made by counting with its rule. */
export const MISCONCEPTIONS: readonly Misconception[] = [
  {
    id: 'dot-one-beat',
    sentence: 'The dot was taken for one more beat. It adds half of the note it stands beside.',
    beats: ({ value }, beat) => add(beatsIn(plain(value), beat), frac(value.dots)),
  },
  {
    id: 'dot-whole-copy',
    sentence: 'The dot was counted as the same note once more. It adds only half of it.',
    beats: ({ value }, beat) => mul(beatsIn(plain(value), beat), frac(1 + value.dots)),
  },
  {
    id: 'dot-ignored',
    sentence:
      'The dot was left out. Right of the head it makes the note longer by half; above or below the head it only makes it short.',
    beats: ({ value }, beat) => beatsIn(plain(value), beat),
  },
  {
    id: 'staccato-lengthens',
    sentence:
      'The dot above or below the head was read as the one that lengthens. It only makes the note sound short; its beats stay the same.',
    beats: (part, beat) => (part.staccato ? mul(right(part, beat), frac(3, 2)) : right(part, beat)),
  },
  {
    id: 'rest-nothing',
    sentence: 'The rest was given no time. It is not sounded, but it is counted.',
    beats: (part, beat) => (part.kind === 'rest' ? ZERO : right(part, beat)),
  },
  {
    id: 'tie-ignored',
    sentence: 'The tied-on note was left out. A tie adds its time; only the sound is not made again.',
    beats: (part, beat) => (part.tied ? ZERO : right(part, beat)),
  },
  {
    id: 'tie-two-sounds',
    sentence:
      'The tie was counted as two sounds. Only the first of the tied notes is sounded; the other adds its time.',
    beats: right,
    claps: ({ kind }) => (kind === 'note' ? 1 : 0),
  },
  {
    id: 'rest-clapped',
    sentence: 'The rest was clapped. Its time is counted, but it is silent.',
    beats: right,
    claps: (part) => (part.kind === 'rest' ? 1 : clapsOf(part)),
  },
  {
    id: 'whole-half-swapped',
    sentence: 'The {w} and the {h} rest were swapped. The {w} rest hangs below the line, the {h} rest sits on it.',
    beats: (part, beat) => {
      if (part.kind !== 'rest' || (part.value.base !== 'w' && part.value.base !== 'h')) return right(part, beat);
      return beatsIn({ ...part.value, base: part.value.base === 'w' ? 'h' : 'w' }, beat);
    },
  },
  {
    id: 'beat-ignored',
    sentence: 'It was counted as if the {q} got the beat. Ask first which value gets the beat.',
    beats: ({ value }) => beatsIn(value, 'q'),
  },
  { id: 'counts-notes', sentence: 'The signs were counted, not the beats.', beats: () => ONE },
];

export const MISCONCEPTION: Readonly<Record<MisconceptionId, Misconception>> = Object.fromEntries(
  MISCONCEPTIONS.map((entry) => [entry.id, entry]),
) as Record<MisconceptionId, Misconception>;

/** What the parts come to for a child with this misconception. */
export function misjudged(parts: readonly Part[], beat: ValueLetter, { beats }: Misconception): Fraction {
  return sum(parts.map((part) => beats(part, beat)));
}
