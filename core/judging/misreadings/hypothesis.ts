import type { Fraction } from '../../rhythm/fraction.ts';
import type { Random } from '../../random.ts';
import type { Beats, Seconds } from '../../timing/units.ts';
import type { TempoCurve } from '../../timing/tempoCurve.ts';
import { EPSILON } from '../../timing/tolerance.ts';
import type { ExpectedClap } from '../expectedClap.ts';
import type { Score, ScoreEvent } from '../scoreEvents.ts';

/** Written time, its end not in it. */
export interface Stretch {
  readonly from: Seconds;
  readonly to: Seconds;
}

/** One way to misread one place: how the claps come then. */
export interface Hypothesis {
  /** Index into `score.events` of the event it is about. */
  readonly event: number;
  /** Nats: how unlikely it is before anything is heard. */
  readonly cost: number;
  /** The claps, in written order, as they come with this misreading. */
  readonly apply: (claps: readonly ExpectedClap[]) => ExpectedClap[];
  /** From which written time on all comes by how much later (negative: earlier). */
  readonly shift?: { readonly from: Seconds; readonly beats: Beats; readonly seconds: Seconds };
  /** Written times of claps it adds: without a clap there that belongs to no note it did not happen. */
  readonly adds?: readonly Seconds[];
  /** Written time that was not played at all. */
  readonly leavesOut?: Stretch;
  /** The beats that the event got instead of its own. */
  readonly got?: Beats;
  /** So many measures in a row it is about. */
  readonly count?: number;
  /** Index of the event from which all is right again. */
  readonly until?: number;
  /** Of a stretch at a speed of its own: each moment of it comes later by so much of its time since `from`. */
  readonly paced?: { readonly from: Seconds; readonly to: Seconds; readonly slower: number };
  /** Speed of the take beside the set tempo; as it is said where it is the whole take's. */
  readonly speed?: number;
  readonly factor?: Fraction;
  /** What was clapped instead, as rhythm text. */
  readonly as?: string;
  /** Those of the same way to misread are one habit. */
  readonly way?: string;
  /** Moves claps so little that every note may still have its clap. */
  readonly subtle?: true;
  /** About the whole take, not a place in it. */
  readonly wholeTake?: true;
  /** It moves nothing outside this stretch. */
  readonly within?: Stretch;
  /** It is followed, and nothing is said of it. */
  readonly silent?: true;
  /** Goes with no other. */
  readonly alone?: true;
  /** A habit: the same at each place where it can happen. */
  readonly parts?: readonly Hypothesis[];
}

/** A take as one diagnosis explains it so far. */
export interface HeardSoFar {
  readonly onsets: Float64Array;
  /** By time, and for each the index of its onset or -1. */
  readonly claps: readonly ExpectedClap[];
  readonly hits: Int32Array;
  readonly curve: TempoCurve;
  /** Index of the first clap at which something is strange. */
  readonly first: number;
  /** For each clap: missed, far off, or beside one too many. */
  readonly strange: readonly boolean[];
  /** There was no click: the curve may be led astray by what is strange. */
  readonly free: boolean;
}

/** Apart in time so little that it is none, for the order on paper of what is played again. */
export const ORDER = 1e-9;

/** What a simulated child is about to clap; a slip changes it. */
export interface SlippingTake {
  claps: ExpectedClap[];
  /** Change of tempo over the take, as a part. */
  drift: number;
}

/**
 * One kind of misreading: one file, and one row in `table.ts`. It is found by its hypotheses, every place where it can
 * happen; a kind that is found in another way, or by what the take itself shows, says how a simulated child makes it.
 */
export type MisreadingKind = {
  /** `take`: no measure of it is to be practised for it. */
  readonly about: 'place' | 'take';
  /** It is looked for only where the take shows it, even where every note has its clap. */
  readonly asHeard?: true;
  /** Nobody does it at every place. */
  readonly noHabit?: true;
  /** Of the tempo alone, though it may be that of one measure. */
  readonly ofTempo?: true;
  /** Without a click there is no right moment to come in and no set tempo: nothing of the whole take is asked. */
  readonly needsClick?: true;
  /** The click was not kept, yet that costs nothing even where keeping it counts: the rhythm alone is judged. */
  readonly ofRhythmOnly?: true;
} & (
  | {
      readonly hypotheses: (score: Score) => Hypothesis[];
      /** What else of it the take itself suggests. */
      readonly inTake?: (score: Score, take: HeardSoFar) => Hypothesis[];
    }
  /** @returns index of the written event it is about; undefined where the take is too short for it */
  | {
      readonly slip: (take: SlippingTake, score: Score, random: Random) => number | undefined;
      readonly inTake?: (score: Score, take: HeardSoFar) => Hypothesis[];
    }
);

/** A clap that comes later by some seconds. Written out, for this is done very often and spreading is slow. */
export function delayed({ note, written, time, replayed }: ExpectedClap, seconds: Seconds): ExpectedClap {
  return replayed ? { note, written, time: time + seconds, replayed } : { note, written, time: time + seconds };
}

/** Everything from a written time on comes later by some seconds (negative: earlier). */
export function shifted(claps: readonly ExpectedClap[], from: Seconds, seconds: Seconds): ExpectedClap[] {
  return claps.map((clap) => (clap.written >= from - EPSILON ? delayed(clap, seconds) : clap));
}

/** All but the claps of a stretch. */
export function without(claps: readonly ExpectedClap[], { from, to }: Stretch): ExpectedClap[] {
  return claps.filter(({ written }) => written < from - EPSILON || written >= to - EPSILON);
}

/** One clap more, between those before and after it on paper; it moves with what was moved there. */
function inserted(claps: readonly ExpectedClap[], times: readonly Seconds[]): ExpectedClap[] {
  const all = [...claps];
  for (const written of times) {
    const before = all.findLast((clap) => clap.written < written - EPSILON);
    const moved = before ? before.time - before.written : (all[0]?.time ?? written) - (all[0]?.written ?? written);
    all.push({ note: -1, written, time: written + moved });
    all.sort((a, b) => a.written - b.written);
  }
  return all;
}

/** A hypothesis that only adds claps, at these written times. */
export function adding(event: number, cost: number, times: readonly Seconds[]): Hypothesis {
  return { event, cost, apply: (claps) => inserted(claps, times), adds: times };
}

/** Single notes moved by some seconds. */
export function moved(claps: readonly ExpectedClap[], by: ReadonlyMap<number, Seconds>): ExpectedClap[] {
  return claps.map((clap) => (by.has(clap.note) ? delayed(clap, by.get(clap.note)!) : clap));
}

/** A hypothesis in which all that follows an event comes later by some of its beats (negative: earlier). */
export function shiftAfter(
  event: number,
  cost: number,
  { end, beat, beats: own }: ScoreEvent,
  beats: Beats,
): Hypothesis {
  const seconds = beats * beat;
  const shift = { from: end, beats, seconds };
  return { event, cost, apply: (claps) => shifted(claps, end, seconds), shift, got: own + beats };
}

/** The same way to misread at several places at once. */
export function habitOf(parts: readonly Hypothesis[], cost: number): Hypothesis {
  const [first] = parts as [Hypothesis];
  return {
    event: first.event,
    cost,
    apply: (claps) => parts.reduce((all, { apply }) => apply(all), [...claps]),
    ...(first.adds ? { adds: first.adds } : {}),
    parts,
  };
}
