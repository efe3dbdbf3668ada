import type { BlockEdit } from '../../contract/lesson.ts';
import type { SavedPattern } from '../../contract/pattern.ts';
import type { CountOptions } from '../../core/counting/count.ts';
import { type BlockTime, type LessonBlock, blockTime } from '../../core/planning/lesson.ts';
import { type Score, leadingPart } from '../../core/rhythm/score.ts';
import { parseScore } from '../../core/rhythm/scoreText.ts';

const read = new Map<string, Score | undefined>();
const MOST_READ = 500;

/** Blocks are looked at with every change, their texts stay: each is read once. */
function scoreIn(text: string): Score | undefined {
  if (read.has(text)) return read.get(text);
  const parsed = parseScore(text);
  if (read.size >= MOST_READ) read.clear();
  const score = parsed.ok ? parsed.score : undefined;
  read.set(text, score);
  return score;
}

/** What is computed of a block. */
export function blockIn({ kind, minutes, patterns, steps, plan, lineUp }: BlockEdit): LessonBlock {
  const introduces = steps.flatMap(({ element, step }) => (step === 'meet' ? [element] : []));
  const scores = patterns.flatMap(({ text }) => scoreIn(text) ?? []);
  return {
    kind,
    patterns: scores.map((score) => leadingPart(score).pattern),
    ...(scores.some(({ parts }) => parts.length > 1) ? { scores } : {}),
    ...(minutes === undefined ? {} : { minutes }),
    ...(introduces.length > 0 ? { introduces } : {}),
    ...(plan ? { plan } : {}),
    ...(lineUp ? { lineUp } : {}),
  };
}

/** How long each block takes, for a class. */
export function timesOf(blocks: readonly BlockEdit[], children: number, counts: CountOptions): BlockTime[] {
  return blocks.map((block) => blockTime(blockIn(block), { children, counts }));
}

/** The teacher's own pattern that a lesson means: that one, or one with its name and notes. */
export function ownPattern(
  { patternId, title, text }: BlockEdit['patterns'][number],
  own: readonly SavedPattern[],
): SavedPattern | undefined {
  return own.find(({ id }) => id === patternId) ?? own.find((one) => one.title === title && one.text === text);
}

/** Blocks with the patterns this teacher has: a lesson of somebody else names theirs, and some may be gone. */
export function withOwn(blocks: readonly BlockEdit[], own: readonly SavedPattern[]): BlockEdit[] {
  return blocks.map((block) => ({
    ...block,
    patterns: block.patterns.flatMap((one) => {
      const found = ownPattern(one, own);
      return found ? [{ ...one, patternId: found.id }] : [];
    }),
  }));
}
