import { type Fraction, ONE, ZERO, add, frac, mul, sum } from '../rhythm/fraction.ts';
import type { NoteValue, ValueLetter } from '../rhythm/value.ts';
import { type Part, beatsIn } from './valueSums.ts';

/** A way children misunderstand values (rules §1): how they then count. */
export interface Misconception {
  readonly id: MisconceptionId;
  /** The beats a child with this misconception gives to a part. */
  readonly beats: (part: Part, beat: ValueLetter) => Fraction;
  /** The signs that were mistaken for each other: the dots, or the whole and the half rest. */
  readonly mistakes?: 'dots' | 'rests';
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

/** How signs are taken for one another, or put where they do not belong. */
export const SIGN_MISTAKES = [
  'head-overlooked',
  'stem-overlooked',
  'flags-miscounted',
  'dot-overlooked',
  'rests-mixed',
  'beam-not-counted',
  'clefs-mixed',
  'note-for-rest',
  'counted-from-above',
  'line-space-mixed',
  'stem-side',
  'stem-way',
] as const;

/** Everything a wrong option may come from. */
export type MistakeId = MisconceptionId | (typeof SIGN_MISTAKES)[number];

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
    mistakes: 'dots',
    beats: ({ value }, beat) => add(beatsIn(plain(value), beat), frac(value.dots)),
  },
  {
    id: 'dot-whole-copy',
    mistakes: 'dots',
    beats: ({ value }, beat) => mul(beatsIn(plain(value), beat), frac(1 + value.dots)),
  },
  {
    id: 'dot-ignored',
    mistakes: 'dots',
    beats: ({ value }, beat) => beatsIn(plain(value), beat),
  },
  {
    id: 'staccato-lengthens',
    mistakes: 'dots',
    beats: (part, beat) => (part.staccato ? mul(right(part, beat), frac(3, 2)) : right(part, beat)),
  },
  {
    id: 'rest-nothing',
    beats: (part, beat) => (part.kind === 'rest' ? ZERO : right(part, beat)),
  },
  {
    id: 'tie-ignored',
    beats: (part, beat) => (part.tied ? ZERO : right(part, beat)),
  },
  {
    id: 'tie-two-sounds',
    beats: right,
    claps: ({ kind }) => (kind === 'note' ? 1 : 0),
  },
  {
    id: 'rest-clapped',
    beats: right,
    claps: (part) => (part.kind === 'rest' ? 1 : clapsOf(part)),
  },
  {
    id: 'whole-half-swapped',
    mistakes: 'rests',
    beats: (part, beat) => {
      if (part.kind !== 'rest' || (part.value.base !== 'w' && part.value.base !== 'h')) return right(part, beat);
      return beatsIn({ ...part.value, base: part.value.base === 'w' ? 'h' : 'w' }, beat);
    },
  },
  {
    id: 'beat-ignored',
    beats: ({ value }) => beatsIn(value, 'q'),
  },
  { id: 'counts-notes', beats: () => ONE },
];

export const MISCONCEPTION: Readonly<Record<MisconceptionId, Misconception>> = Object.fromEntries(
  MISCONCEPTIONS.map((entry) => [entry.id, entry]),
) as Record<MisconceptionId, Misconception>;

/** What the parts come to for a child with this misconception. */
export function misjudged(parts: readonly Part[], beat: ValueLetter, { beats }: Misconception): Fraction {
  return sum(parts.map((part) => beats(part, beat)));
}
