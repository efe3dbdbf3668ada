import { type Score, sharedAttacks } from '../rhythm/score.ts';
import { type Difficulty, type Level, difficultyOf, levelOf } from './level.ts';

/** How hard several parts together are to keep. */
export interface ScoreDifficulty {
  readonly parts: readonly Difficulty[];
  /** Part of all attacks that one part has alone, 0 to 1: parts that move together carry each other. */
  readonly independence: number;
  /** All of it in one number, as of one part. */
  readonly score: number;
  readonly level: Level;
}

/**
 * What each adds, on the scale of one part: the hardest part has to be read by somebody, and as far as the parts are
 * independent, each is held against the others. Set so that parts in unison are as hard as one, a rhythm over its own
 * beat hardly harder than alone, and two parts that answer each other about a level harder.
 */
const WEIGHTS = { others: 0.25, independence: 1.2 } as const;

/** The difficulty of a score; of one part it is that part's own. */
export function scoreDifficulty(score: Score): ScoreDifficulty {
  const parts = score.parts.map(({ pattern }) => difficultyOf(pattern));
  const [hardest = 0, ...others] = parts.map((part) => part.score).sort((a, b) => b - a);
  if (parts.length === 1) return { parts, independence: 0, score: hardest, level: levelOf(hardest) };
  const { shared, single } = sharedAttacks(score);
  const independence = shared + single === 0 ? 0 : single / (shared + single);
  const beside = others.reduce((sum, one) => sum + one, 0) * WEIGHTS.others;
  const all = hardest + independence * (beside + WEIGHTS.independence * Math.sqrt(parts.length - 1));
  return { parts, independence, score: all, level: levelOf(all) };
}
