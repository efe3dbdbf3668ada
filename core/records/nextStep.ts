import { type Scale, USUAL_SCALE, isFull, isTooLow } from '../judging/scale.ts';
import { type MisreadingCode, isAboutTake } from '../judging/misreadings/table.ts';
import type { TakeResult } from '../judging/takeResult.ts';

/** What is needed of a take to choose what comes next. */
export interface TakeSoFar {
  readonly bpm: number;
  readonly mark: number;
  /** That the mark is of; 0 to 4 where nothing is said. */
  readonly scale?: Scale;
  /** The measure that cost most; absent when none stands out. */
  readonly hardest?: number;
  /** What was misread, the one thing to fix first. */
  readonly misread?: readonly MisreadingCode[];
}

export type NextStep =
  | { readonly kind: 'again' }
  | { readonly kind: 'faster'; readonly bpm: number }
  | { readonly kind: 'next-pattern' }
  | { readonly kind: 'half-speed'; readonly bpm: number }
  | { readonly kind: 'measure'; readonly measure: number; readonly bpm: number }
  /** The same was misread `times` takes in a row; what stands against it. */
  | RepeatedStep;

interface Repeated {
  readonly code: MisreadingCode;
  readonly times: number;
}
export type RepeatedStep =
  /** Its measure alone. */
  | (Repeated & { readonly kind: 'place'; readonly measure: number; readonly bpm: number })
  /** A pattern made for it. */
  | (Repeated & { readonly kind: 'made' })
  /** For a tempo that is not kept: the feet on the beat first, then half the click. */
  | (Repeated & { readonly kind: 'feet' })
  | (Repeated & { readonly kind: 'half-click' })
  /** For what was late or early throughout: first whether it is the device. */
  | (Repeated & { readonly kind: 'calibrate' })
  /** To hear it once more, led, before it is clapped again. */
  | (Repeated & { readonly kind: 'listen' });

/** The usual rungs (rules §6), counted beats a minute. */
export const TEMPO_LADDER: readonly number[] = [60, 76, 92, 108];
/** A measure is practised alone at no more than this. */
const PRACTICE_BPM = 60;

/** A tempo that is not kept. */
const TEMPO: ReadonlySet<MisreadingCode> = new Set(['rushing', 'dragging', 'own-tempo', 'half-tempo', 'double-tempo']);
/** All of it behind the click, or ahead: that may be the device. */
export const OFF_THE_CLICK: ReadonlySet<MisreadingCode> = new Set(['behind-the-click', 'ahead-of-the-click']);
/** Nobody has made up a pattern for these: they may happen anywhere. */
const ANYWHERE: ReadonlySet<MisreadingCode> = new Set([
  ...(['hesitated', 'started-again', 'stopped-early', 'lost-and-recovered'] as const),
  ...(['measure-skipped', 'measure-repeated', 'measure-silent', 'joined-late', 'looped'] as const),
  ...(['measures-too-long', 'measures-too-short', 'beat-misread'] as const),
]);

/** What was misread in the newest two takes or more without a break, the most often first; undefined for nothing. */
function repeated(takes: readonly TakeSoFar[]): Repeated | undefined {
  const rows = (takes.at(-1)?.misread ?? []).map((code): Repeated => {
    const since = takes.findLastIndex(({ misread }) => !misread?.includes(code));
    return { code, times: takes.length - 1 - since };
  });
  return rows.filter(({ times }) => times > 1).sort((a, b) => b.times - a.times)[0];
}

/** What stands against a misreading, another thing each further time. */
function against(again: Repeated, { bpm, hardest = 1 }: TakeSoFar): RepeatedStep {
  const { code, times } = again;
  const isOdd = times % 2 === 1;
  if (TEMPO.has(code)) return { kind: isOdd ? 'half-click' : 'feet', ...again };
  if (OFF_THE_CLICK.has(code) && !isOdd) return { kind: 'calibrate', ...again };
  if (isAboutTake({ code })) return { kind: 'listen', ...again };
  if (isOdd && !ANYWHERE.has(code)) return { kind: 'made', ...again };
  return { kind: 'place', ...again, measure: hardest, bpm: Math.min(PRACTICE_BPM, bpm) };
}

const fullMark = ({ mark, scale = USUAL_SCALE }: TakeSoFar) => isFull(mark, scale);
const tooLow = ({ mark, scale = USUAL_SCALE }: TakeSoFar) => isTooLow(mark, scale);

/**
 * Two takes in a row at mark 4: the next rung of the ladder, then the next pattern. The same misreading in two takes:
 * what stands against it. Two below 3 otherwise: the hardest measure alone where one stands out, else half speed
 * (rules §8). In another scale what is as much there.
 * @param takes  of one child and one pattern, oldest first
 * @param all  of the child, whatever the pattern: a slip may come again in another one
 */
export function nextStep(
  takes: readonly TakeSoFar[],
  all: readonly TakeSoFar[] = takes,
  ladder: readonly number[] = TEMPO_LADDER,
): NextStep {
  const last = takes.at(-1);
  const before = takes.at(-2);
  if (!last) return { kind: 'again' };
  if (before && fullMark(before) && fullMark(last)) {
    const faster = ladder.find((bpm) => bpm > last.bpm + 0.5);
    return faster === undefined ? { kind: 'next-pattern' } : { kind: 'faster', bpm: faster };
  }
  const again = repeated(all);
  if (again) return against(again, last);
  if (before && tooLow(before) && tooLow(last)) {
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
  return {
    pattern,
    step: nextStep(
      inOrder.filter((take) => take.pattern === pattern),
      inOrder,
    ),
  };
}
