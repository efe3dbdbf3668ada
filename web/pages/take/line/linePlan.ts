import type { Child } from '../../../../contract/child.ts';
import type { LineUpSettings } from '../../../../contract/lineUp.ts';
import type { SavedPattern } from '../../../../contract/pattern.ts';
import { dealt, lineOf, ownBpm, turnTime } from '../../../../core/records/lineUp.ts';
import type { Pattern } from '../../../../core/rhythm/pattern.ts';
import type { Score } from '../../../../core/rhythm/score.ts';
import { parseScore } from '../../../../core/rhythm/scoreText.ts';
import { type TakePart, takeParts } from '../../../take/takePart.ts';
import type { Bpm, Seconds } from '../../../../core/timing/units.ts';

/** A pattern that can be clapped; of several parts the first. */
export interface ReadPattern extends SavedPattern {
  readonly rhythm: Pattern;
  readonly part: TakePart;
  /** All of them. */
  readonly parts: readonly TakePart[];
  readonly score: Score;
}

/** Those of the teacher's patterns that can be read. */
export function readPatterns(patterns: readonly SavedPattern[]): ReadPattern[] {
  return patterns.flatMap((pattern) => {
    const read = parseScore(pattern.text);
    if (!read.ok) return [];
    const parts = takeParts(pattern, read.score);
    const part = parts[0]!;
    return [{ ...part.saved, rhythm: part.rhythm, part, parts, score: read.score }];
  });
}

/** One child in line, before it starts. */
export interface PlannedTurn {
  readonly child: Child;
  readonly pattern: ReadPattern;
  readonly bpm: Bpm;
  /** When this child begins, from the start of the line-up, and how long one try takes. */
  readonly from: Seconds;
  readonly takes: Seconds;
}

/**
 * Who is heard when, on what, and how fast.
 * @param heard  who has been heard in the pattern before
 */
export function planLine(
  children: readonly Child[],
  patterns: readonly ReadPattern[],
  { order, seed, bpm }: Pick<LineUpSettings, 'order' | 'seed' | 'bpm'>,
  heard: ReadonlySet<string>,
): PlannedTurn[] {
  const line = lineOf(children, order, seed, heard);
  const dealtOut = dealt(patterns, line.length, seed);
  let from = 0;
  return line.map((child, i) => {
    const pattern = dealtOut[i]!;
    const own = ownBpm(bpm, child.adaptations);
    const takes = turnTime(pattern.rhythm, own);
    const turn = { child, pattern, bpm: own, from, takes };
    from += takes;
    return turn;
  });
}

/** Who taps where the others clap is heard by taps, also where a microphone listens to the others. */
export function heardByOf({ adaptations }: Child, heardBy: LineUpSettings['heardBy']): LineUpSettings['heardBy'] {
  return adaptations?.hands === 'tapping' ? 'tap' : heardBy;
}

/** How long all of them take with one try each, and with every try there is. */
export function lineTime(turns: readonly PlannedTurn[], tries: number): { once: Seconds; most: Seconds } {
  const sum = (times: (turn: PlannedTurn) => number) => turns.reduce((all, turn) => all + turn.takes * times(turn), 0);
  return { once: sum(() => 1), most: sum(({ child }) => tries + (child.adaptations?.moreTries ?? 0)) };
}

/** The second of two parts that are tapped at once; undefined where children are heard one by one. */
export function secondInPair(
  { parts }: Pick<ReadPattern, 'parts'>,
  { pairs, heardBy }: Pick<LineUpSettings, 'pairs' | 'heardBy'>,
): TakePart | undefined {
  return pairs === true && heardBy === 'tap' ? parts[1] : undefined;
}
