import { FULL_MARK } from '../judging/mark.ts';
import { isAboutTake } from '../judging/misreadings/table.ts';
import type { TakeResult } from '../judging/takeResult.ts';

/** What is needed of a take to choose what comes next. */
export interface TakeSoFar {
  readonly bpm: number;
  readonly mark: number;
  /** The measure that cost most; absent when none stands out. */
  readonly hardest?: number;
}

export type NextStep =
  | { readonly kind: 'again' }
  | { readonly kind: 'faster'; readonly bpm: number }
  | { readonly kind: 'next-pattern' }
  | { readonly kind: 'half-speed'; readonly bpm: number }
  | { readonly kind: 'measure'; readonly measure: number; readonly bpm: number };

/** The usual rungs (handbook §6), counted beats a minute. */
export const TEMPO_LADDER: readonly number[] = [60, 76, 92, 108];
const TOO_LOW = 3;
/** A measure is practised alone at no more than this. */
const PRACTICE_BPM = 60;

/**
 * Two takes in a row at mark 4: the next rung of the ladder, then the next pattern. Two below 3: the hardest measure
 * alone where one stands out, else half speed (handbook §8).
 * @param takes  of one child and one pattern, oldest first
 */
export function nextStep(takes: readonly TakeSoFar[], ladder: readonly number[] = TEMPO_LADDER): NextStep {
  const [before, last] = takes.slice(-2);
  if (!before || !last) return { kind: 'again' };
  if (before.mark === FULL_MARK && last.mark === FULL_MARK) {
    const faster = ladder.find((bpm) => bpm > last.bpm + 0.5);
    return faster === undefined ? { kind: 'next-pattern' } : { kind: 'faster', bpm: faster };
  }
  if (before.mark < TOO_LOW && last.mark < TOO_LOW) {
    if (last.hardest !== undefined)
      return { kind: 'measure', measure: last.hardest, bpm: Math.min(PRACTICE_BPM, last.bpm) };
    return { kind: 'half-speed', bpm: Math.round(last.bpm / 2) };
  }
  return { kind: 'again' };
}

/** The measure a take lost most in: the place of the first misreading, else where most notes were not on time. */
export function hardestMeasure({
  misreadings,
  notes,
  extras,
}: Pick<TakeResult, 'misreadings' | 'notes' | 'extras'>): number | undefined {
  const named = misreadings.find((one) => !isAboutTake(one));
  if (named) return Math.max(1, named.measure);
  const lost = new Map<number, number>();
  const lose = (measure: number, points: number) => lost.set(measure, (lost.get(measure) ?? 0) + points);
  for (const { measure, verdict } of notes) if (verdict !== 'on-time') lose(measure, verdict === 'missed' ? 1 : 0.5);
  for (const { measure } of extras) lose(measure, 0.5);
  const [worst] = [...lost].sort((a, b) => b[1] - a[1]);
  return worst && worst[1] >= 1 ? Math.max(1, worst[0]) : undefined;
}

/** A take of any pattern, for the step that comes after all of a child's takes. */
export interface PatternTake extends TakeSoFar {
  /** The same for all takes of one pattern. */
  readonly pattern: string;
  readonly takenAt: number;
}

/** What comes next for a child: in the pattern it was heard on last. @param takes  in any order; undefined for none */
export function nextStepOf(
  takes: readonly PatternTake[],
): { readonly pattern: string; readonly step: NextStep } | undefined {
  const inOrder = [...takes].sort((a, b) => a.takenAt - b.takenAt);
  const pattern = inOrder.at(-1)?.pattern;
  if (pattern === undefined) return undefined;
  return { pattern, step: nextStep(inOrder.filter((take) => take.pattern === pattern)) };
}
