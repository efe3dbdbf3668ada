import { perLanguage, t } from '../words/say.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { type ChunkPlan, hasRange, measureRange } from './chunks.ts';
import type { Bpm, Seconds } from '../timing/units.ts';
import type { CountInKind } from './countIn.ts';
import { LONGEST_STUDY } from './fading.ts';
import { FASTEST_BPM, SLOWEST_BPM } from '../timing/limits.ts';

/** What a pass does, in the order of the work (rules §6). */
export const ACTIVITY_IDS = ['say', 'say-clap', 'clap', 'play', 'backwards', 'covered', 'echo'] as const;
export type Activity = (typeof ACTIVITY_IDS)[number];

export const WHO_IDS = ['together', 'i-go', 'you-go'] as const;
export type Who = (typeof WHO_IDS)[number];

export interface PlannedPass {
  readonly activity: Activity;
  readonly who: Who;
}

/** Some passes at one tempo, in counted beats of the first meter a minute. */
export interface Rung {
  readonly bpm: number;
  readonly passes: number;
  /** Half speed, 1.5× or 2× of it. */
  readonly factor?: 0.5 | 1 | 1.5 | 2;
}

/**
 * How a pattern is led. Each chunk goes through all passes; the ladder says at which tempo. Chunks before the last are
 * practised at the first tempo; the last one climbs the ladder. Where the ladder has more passes than the list, the
 * list starts again; where it has fewer, its last tempo stays.
 */
export interface Plan {
  readonly title: string;
  readonly passes: readonly PlannedPass[];
  readonly chunks: ChunkPlan;
  readonly ladder: readonly Rung[];
  /** Beats of rest between passes, before the count-in. */
  readonly restBeats: number;
  readonly countIn: CountInKind;
  /** Own words of the count-in; the numbers and "ready, go" when left out. */
  readonly countInWords?: readonly string[];
  /** Count in every pass, not only the first and after a change of tempo or measures. */
  readonly countInEach: boolean;
  /** Clicks between the beats too. */
  readonly divided: boolean;
  /** Rhythm above, beat below: the feet are shown and heard. */
  readonly twoLines: boolean;
  /** The counts fade, a step a pass: all, those of the first measure, the beat numbers, none. */
  readonly fades?: boolean;
  /** Seconds to look at the line in silence before "you go first". */
  readonly study?: number;
  /** Of a pattern in parts: each part alone before all of them; or all of them from the first pass on. */
  readonly parts?: PartsPlan;
  /** Of a copy: who made it, and where. */
  readonly from?: string;
}

export const PARTS_PLANS = ['alone-first', 'together'] as const;
export type PartsPlan = (typeof PARTS_PLANS)[number];

export const MOST_PASSES = 60;
export const MOST_REST_BEATS = 32;
/** No lesson is longer; a longer run is a slip of the keyboard. */
export const LONGEST_RUN: Seconds = 60 * 60;

/** The tempo of a rung, its factor applied. */
export function tempoOf({ bpm, factor = 1 }: Rung): number {
  return bpm * factor;
}

/** Why a plan cannot lead a pattern. */
export type PlanTrouble =
  | { readonly code: 'no-passes' | 'no-tempo' | 'passes' | 'rest' | 'joined' | 'study' }
  | { readonly code: 'tempo'; readonly bpm: Bpm }
  | { readonly code: 'range'; readonly first: number; readonly last: number }
  | { readonly code: 'too-long'; readonly seconds: Seconds };

const isWhole = (n: number, least: number, most: number) => Number.isInteger(n) && n >= least && n <= most;

/** What is wrong with a plan for a pattern; undefined when it can lead it. */
export function planTrouble(pattern: Pattern, plan: Plan): PlanTrouble | undefined {
  const { passes, ladder, restBeats, chunks } = plan;
  if (passes.length === 0) return { code: 'no-passes' };
  if (ladder.length === 0) return { code: 'no-tempo' };
  const bpm = ladder.map(tempoOf).find((tempo) => !(tempo >= SLOWEST_BPM && tempo <= FASTEST_BPM));
  if (bpm !== undefined) return { code: 'tempo', bpm };
  const count = ladder.reduce((total, rung) => total + rung.passes, 0);
  const each = ladder.every((rung) => isWhole(rung.passes, 1, MOST_PASSES));
  if (!each || count > MOST_PASSES || passes.length > MOST_PASSES) return { code: 'passes' };
  if (!isWhole(restBeats, 0, MOST_REST_BEATS)) return { code: 'rest' };
  if (!isWhole(plan.study ?? 0, 0, LONGEST_STUDY)) return { code: 'study' };
  if (chunks.kind === 'range' && !hasRange(pattern, chunks)) return { code: 'range', ...measureRange(pattern) };
  return chunks.kind === 'joined' && !isWhole(chunks.by, 1, Infinity) ? { code: 'joined' } : undefined;
}

const USUAL = { restBeats: 0, countIn: 'measure', countInEach: true, divided: false, twoLines: false } as const;
const together = (activity: Activity): PlannedPass => ({ activity, who: 'together' });

/** For several patterns that stand one under the other. */
export const PAGE_PLAN = perLanguage(
  () =>
    ({
      ...USUAL,
      id: 'page',
      title: t`Line by line, then faster`,
      passes: [together('say-clap')],
      chunks: { kind: 'lines' },
      ladder: [60, 76, 92].map((bpm) => ({ bpm, passes: 1 })),
    }) as const satisfies Plan & { readonly id: string },
);

/** Plans that ship with the app. */
export const READY_PLANS = perLanguage((): readonly (Plan & { readonly id: string })[] => [
  {
    ...USUAL,
    id: 'read-it-new',
    title: t`Read it new`,
    passes: [{ activity: 'say', who: 'i-go' }, together('say-clap'), together('clap')],
    chunks: { kind: 'joined', by: 2 },
    ladder: [{ bpm: 60, passes: 3 }],
  },
  {
    ...USUAL,
    id: 'five-times',
    title: t`Five times, faster each time`,
    passes: [together('say-clap'), together('clap')],
    chunks: { kind: 'whole' },
    ladder: [60, 72, 84, 96, 108].map((bpm) => ({ bpm, passes: 1 })),
    restBeats: 4,
  },
  PAGE_PLAN(),
  {
    ...USUAL,
    id: 'two-lines',
    title: t`Two lines: clap above, step below`,
    passes: [together('say'), together('say-clap'), together('clap')],
    chunks: { kind: 'whole' },
    ladder: [{ bpm: 66, passes: 3 }],
    restBeats: 4,
    twoLines: true,
  },
  {
    ...USUAL,
    id: 'counts-fade',
    title: t`The counts fade`,
    passes: [together('say-clap')],
    chunks: { kind: 'whole' },
    ladder: [{ bpm: 66, passes: 4 }],
    fades: true,
  },
  {
    ...USUAL,
    id: 'look-first',
    title: t`Look first, then clap it alone`,
    passes: [{ activity: 'clap', who: 'you-go' }],
    chunks: { kind: 'joined', by: 2 },
    ladder: [{ bpm: 66, passes: 1 }],
    study: 10,
  },
]);

/** All of a pattern once at one tempo, a measure of count-in before it. @param bpm  counted beats a minute */
export function oncePlan(bpm: Bpm, activity: Activity): Plan {
  return {
    title: '',
    passes: [{ activity, who: 'together' }],
    chunks: { kind: 'whole' },
    ladder: [{ bpm, passes: 1 }],
    restBeats: 0,
    countIn: 'measure',
    countInEach: true,
    divided: false,
    twoLines: false,
  };
}
