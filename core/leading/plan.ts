import type { Pattern } from '../rhythm/pattern.ts';
import { type ChunkPlan, lastMeasure } from './chunks.ts';
import type { CountInKind } from './countIn.ts';
import { FASTEST_BPM, SLOWEST_BPM } from '../timing/limits.ts';

/** What a pass does, in the order of the work (handbook §6). */
export const ACTIVITIES = {
  say: 'say the counts',
  'say-clap': 'say and clap',
  clap: 'clap, think the counts',
  play: 'play or tap',
  backwards: 'backwards',
  covered: 'clap, one more measure covered',
  echo: 'echo: hear it, clap it back, see it',
} as const;
export type Activity = keyof typeof ACTIVITIES;
export const ACTIVITY_IDS = Object.keys(ACTIVITIES) as readonly Activity[];

export const WHO = { together: 'together', 'i-go': 'I go, you go', 'you-go': 'you go first, then check' } as const;
export type Who = keyof typeof WHO;
export const WHO_IDS = Object.keys(WHO) as readonly Who[];

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
 * practised at the first tempo; the last one climbs the ladder. Where the ladder has more passes than the list, the list
 * starts again; where it has fewer, its last tempo stays.
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
}

export const MOST_PASSES = 60;
const MOST_REST_BEATS = 32;
/** No lesson is longer; a longer run is a slip of the keyboard. */
export const LONGEST_RUN_SECONDS = 60 * 60;

/** The tempo of a rung, its factor applied. */
export function tempoOf({ bpm, factor = 1 }: Rung): number {
  return bpm * factor;
}

/** Why a plan cannot lead a pattern, in one sentence that says what to do; undefined when it can. */
export function planTrouble(pattern: Pattern, plan: Plan): string | undefined {
  const { passes, ladder, restBeats, chunks } = plan;
  if (passes.length === 0) return 'choose at least one pass';
  if (ladder.length === 0) return 'set a tempo';
  const slow = ladder.find((rung) => !(tempoOf(rung) >= SLOWEST_BPM && tempoOf(rung) <= FASTEST_BPM));
  if (slow) return `the tempo must be from ${SLOWEST_BPM} to ${FASTEST_BPM} beats a minute, not ${tempoOf(slow)}`;
  const count = ladder.reduce((total, rung) => total + rung.passes, 0);
  if (
    ladder.some(({ passes: n }) => !Number.isInteger(n) || n < 1) ||
    count > MOST_PASSES ||
    passes.length > MOST_PASSES
  )
    return `each tempo takes 1 to ${MOST_PASSES} passes, and all together no more than ${MOST_PASSES}`;
  if (!Number.isInteger(restBeats) || restBeats < 0 || restBeats > MOST_REST_BEATS)
    return `rest from 0 to ${MOST_REST_BEATS} beats between the passes`;
  const last = lastMeasure(pattern);
  if (chunks.kind === 'range' && !(chunks.from >= 1 && chunks.from <= chunks.to && chunks.to <= last))
    return `the pattern has the measures 1 to ${last}: choose among them`;
  if (chunks.kind === 'joined' && !(Number.isInteger(chunks.by) && chunks.by >= 1))
    return 'join by one measure or more';
  return undefined;
}

const USUAL = { restBeats: 0, countIn: 'measure', countInEach: true, divided: false, twoLines: false } as const;
const together = (activity: Activity): PlannedPass => ({ activity, who: 'together' });

/** Plans that ship with the app. */
export const READY_PLANS: readonly (Plan & { readonly id: string })[] = [
  {
    ...USUAL,
    id: 'read-it-new',
    title: 'Read it new',
    passes: [{ activity: 'say', who: 'i-go' }, together('say-clap'), together('clap')],
    chunks: { kind: 'joined', by: 2 },
    ladder: [{ bpm: 60, passes: 3 }],
  },
  {
    ...USUAL,
    id: 'five-times',
    title: 'Five times, faster each time',
    passes: [together('say-clap'), together('clap')],
    chunks: { kind: 'whole' },
    ladder: [60, 72, 84, 96, 108].map((bpm) => ({ bpm, passes: 1 })),
    restBeats: 4,
  },
  {
    ...USUAL,
    id: 'two-lines',
    title: 'Two lines: clap above, step below',
    passes: [together('say'), together('say-clap'), together('clap')],
    chunks: { kind: 'whole' },
    ladder: [{ bpm: 66, passes: 3 }],
    restBeats: 4,
    twoLines: true,
  },
];
