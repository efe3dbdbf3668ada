import { t } from '../../core/words/say.ts';
import type { SavedPattern } from '../../contract/pattern.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import type { Part, Score } from '../../core/rhythm/score.ts';
import { partSound } from '../../core/sound/partSounds.ts';
import type { Struck } from '../../core/sound/sounds.ts';
import { scheduleOf } from '../../core/timing/schedule.ts';
import type { Bpm, Seconds } from '../../core/timing/units.ts';
import { savedPart } from '../domain/eachPart.ts';

/** What one child claps: a pattern, or one part of it, which stands for itself. */
export interface TakePart {
  /** Undefined where the pattern has one part. */
  readonly name: string | undefined;
  readonly index: number;
  /** With the title and the text of the part. */
  readonly saved: SavedPattern;
  readonly rhythm: Pattern;
}

/** The parts of a pattern, each as it is taken. */
export function takeParts(saved: SavedPattern, { parts }: Score): TakePart[] {
  const [only] = parts;
  if (parts.length === 1) return [{ name: undefined, index: 0, saved, rhythm: only!.pattern }];
  return parts.map((part, index) => ({
    name: part.name,
    index,
    saved: savedPart(saved, part),
    rhythm: part.pattern,
  }));
}

const BOTH = '+';

/** Which parts can be heard: each alone, and any two at once. */
export function partChoices(parts: readonly TakePart[]): (readonly [choice: string, name: string])[] {
  const alone = parts.map(({ name, index }) => [String(index), name ?? ''] as const);
  const pairs = parts.flatMap((one, i) =>
    parts
      .slice(i + 1)
      .map((other) => [`${one.index}${BOTH}${other.index}`, t`${one.name} and ${other.name} at once`] as const),
  );
  return [...alone, ...pairs];
}

/** One part, or two; the first where there are no such parts. */
export function chosenParts(choice: string, parts: readonly TakePart[]): readonly [TakePart, TakePart?] {
  const [first, second] = choice.split(BOTH).map((index) => parts.find((one) => String(one.index) === index));
  if (!first) return [parts[0]!];
  return second && second !== first ? [first, second] : [first];
}

/** A sound that the app makes. */
export interface PlayedSound {
  readonly time: Seconds;
  readonly struck: Struck;
}

/** What the app plays of the parts that no child has. @param taken  indices of those that are heard */
export function soundsOfOthers(parts: readonly Part[], taken: readonly number[], bpm: Bpm): PlayedSound[] {
  return parts
    .flatMap(({ name, pattern }, i) => {
      if (taken.includes(i)) return [];
      const { struck } = partSound(name, i);
      return scheduleOf(pattern, bpm).notes.map(({ time }) => ({ time, struck }));
    })
    .sort((a, b) => a.time - b.time);
}
