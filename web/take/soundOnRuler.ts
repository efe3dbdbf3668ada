import { pairsOf } from '../../core/judging/tempoLine.ts';
import { toNumber } from '../../core/rhythm/fraction.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { scheduleOf } from '../../core/timing/schedule.ts';
import type { SoundOnRuler } from '../ruler/SoundLane.tsx';
import type { ShownTake } from './shownTake.ts';

/**
 * Where the sound of a take lies along its ruler; undefined where it is not known.
 * @param zoom  index of the one measure that is shown
 */
export function soundOnRuler(
  { outline, bpm, free, result, onsets }: ShownTake,
  pattern: Pattern,
  zoom: number | undefined,
): SoundOnRuler | undefined {
  if (!outline) return undefined;
  const { whole, measures } = scheduleOf(pattern, bpm);
  const measure = zoom === undefined ? undefined : measures[zoom];
  const begin = measure ? toNumber(measure.at) * whole : 0;
  // Without a click the child's own tempo and first clap say where the sound lies.
  const pace = free ? bpm / result.tempo.bpm : 1;
  const [first] = free ? pairsOf(pattern, bpm, result, onsets) : [];
  const zero = first ? first.heard - first.written * pace : -result.tempo.leadMs / 1000;
  return { outline, whole: whole * pace, zero: zero + begin * pace };
}
