import type { Hit } from './hit.ts';
import { toNumber } from '../rhythm/fraction.ts';
import { beatOf } from '../rhythm/meter.ts';
import { type Schedule, soundEnd } from '../timing/schedule.ts';
import type { Diagnosis } from './diagnosis.ts';
import { paceAt } from '../timing/tempoCurve.ts';

export const HOLD_VERDICTS = ['kept', 'cut', 'held-over'] as const;
export type HoldVerdict = (typeof HOLD_VERDICTS)[number];

export interface JudgedHold {
  /** Index of the sounded note. */
  readonly index: number;
  readonly verdict: HoldVerdict;
  /** How long it was held and should have been, in seconds. */
  readonly heldS: number;
  readonly writtenS: number;
}

/** A note of at least this many beats is worth holding; shorter ones are not judged. */
const LONG_BEATS = 1.5;
/** Kept when held for this part of its time … */
const KEPT_FROM = 0.85;
/** … and let go no later than this part of a beat after its end. */
const OVER_BEATS = 0.35;

/**
 * Were the long notes held? Judged apart from the rhythm, where the device knows when a key or finger was lifted.
 * @param paired    for each sounded note the index of its hit, -1 when missed
 * @param releases  for each hit the second at which it was let go, as far as that is known
 */
export function judgeHolds(
  schedule: Schedule,
  { fit }: Diagnosis,
  paired: Int32Array,
  hits: readonly Hit[],
  releases: readonly (number | undefined)[],
): JudgedHold[] {
  return schedule.notes.flatMap((note, index): JudgedHold[] => {
    const hit = paired[index]!;
    const release = hit < 0 ? undefined : releases[hit];
    if (release === undefined) return [];
    const pace = paceAt(fit.curve, note.time);
    const written = (soundEnd(schedule, note) - note.time) * pace;
    const beat = toNumber(beatOf(note.measure.meter).length) * schedule.whole * pace;
    if (written < LONG_BEATS * beat - 1e-9) return [];
    const held = release - hits[hit]!.time;
    const verdict = held < KEPT_FROM * written ? 'cut' : held > written + OVER_BEATS * beat ? 'held-over' : 'kept';
    return [{ index, verdict, heldS: Math.round(held * 1000) / 1000, writtenS: Math.round(written * 1000) / 1000 }];
  });
}
