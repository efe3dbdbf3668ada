import { heardTime } from '../timing/tempoCurve.ts';
import { EPSILON } from '../timing/tolerance.ts';
import type { Diagnosis, Strange } from './diagnosis.ts';
import { type CodedHypothesis, type SUBTLE_CODES, suggestedBy } from './misreadings/table.ts';
import type { Score } from './scoreEvents.ts';

/**
 * Written length beside what was heard: at half the tempo a half of it, also when an end is missing; at twice the tempo
 * the double.
 */
const SLOW_SPAN = 0.8;
const FAST_SPAN = 1.25;
/** Part of a beat. */
const NEAR_ENTRY = 0.45;
/**
 * A misreading shows at once: where nothing is strange for so many measures after a place, nothing was misread there.
 */
const MEASURES_BEFORE = 1.5;
/** A clap belongs to an added one up to this part of a beat. */
const NEAR_ADDED = 0.45;

/** Could this hypothesis explain something strange? A quick look that leaves out most of them. */
export function couldBe(
  hypothesis: CodedHypothesis,
  written: Score,
  { claps, fit }: Diagnosis,
  { claps: strangeAt, first, last, stray }: Strange,
  onsets: Float64Array,
): boolean {
  if (hypothesis.wholeTake) {
    const begin = claps[0]!.time;
    if (hypothesis.speed !== undefined) {
      const span = (claps.at(-1)!.time - begin) / Math.max(EPSILON, onsets.at(-1)! - onsets[0]!);
      return hypothesis.speed < 1 ? span < SLOW_SPAN : span > FAST_SPAN;
    }
    if (hypothesis.shift === undefined) return true;
    // Who comes in wrong claps the first note, or at least the second, where it is then due; one clap may come before.
    const { seconds } = hypothesis.shift;
    const falls = (onset: number, due: number) => Math.abs(onset - due - seconds) < written.beat * NEAR_ENTRY;
    return (
      falls(onsets[0]!, begin) ||
      falls(onsets[0]!, claps[1]?.time ?? begin) ||
      (onsets.length > 1 && falls(onsets[1]!, begin))
    );
  }
  if (hypothesis.within) {
    const { from, to } = hypothesis.within;
    return fit.claps.some((clap, i) => strangeAt[i] && clap.written >= from - EPSILON && clap.written < to - EPSILON);
  }
  const { time, beat } = written.events[hypothesis.event]!;
  if (hypothesis.adds) {
    const [place] = hypothesis.adds;
    const before = claps.findLast((clap) => clap.written < place! - EPSILON) ?? claps[0];
    const due = heardTime(fit.curve, place! + (before ? before.time - before.written : 0));
    return stray.some((onset) => Math.abs(onset - due) < NEAR_ADDED * beat);
  }
  return time >= first - MEASURES_BEFORE * written.beatsInMeasure * written.beat - beat && time <= last + beat;
}

/** Those about the whole take, and those nearest to where it goes wrong. */
export function nearest(
  hypotheses: readonly CodedHypothesis[],
  { events }: Score,
  { first }: Strange,
  most: number,
): readonly CodedHypothesis[] {
  if (hypotheses.length <= most) return hypotheses;
  const far = ({ wholeTake, event }: CodedHypothesis) => (wholeTake ? 0 : Math.abs(events[event]!.time - first));
  return [...hypotheses].sort((a, b) => far(a) - far(b)).slice(0, most);
}

/** What the take itself suggests, from the first strange thing on. */
export function suggestions(
  written: Score,
  { fit }: Diagnosis,
  things: Strange,
  onsets: Float64Array,
  free: boolean,
  codes?: typeof SUBTLE_CODES,
): CodedHypothesis[] {
  const { claps, hits, curve } = fit;
  const first = Math.max(0, things.claps.indexOf(true));
  return suggestedBy(written, { onsets, claps, hits, curve, free, first, strange: things.claps }, codes);
}
