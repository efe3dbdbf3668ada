import type { MakeTrouble, PatternWanted } from '../../core/making/makePattern.ts';
import type { MadeSet } from '../../core/making/makeSet.ts';

/** Patterns of one set; `known` are rhythm texts of those the class has. */
export interface MakeRequest {
  readonly wanted: PatternWanted;
  readonly count: number;
  readonly seed: number;
  readonly known: readonly string[];
}

export type MakeAnswer = MadeSet | MakeTrouble;
