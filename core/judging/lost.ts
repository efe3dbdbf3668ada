import { heardTime } from '../timing/tempoCurve.ts';
import { Aligner } from './alignment.ts';
import { CLEAN_SIGMA, type Diagnosis, strange, strangeIn } from './diagnosis.ts';
import type { ExpectedClap } from './expectedClap.ts';
import type { LostStretch } from './proposals.ts';
import { atClick } from './paces.ts';

/** Being lost costs this once, and a little for each note and clap in the stretch. */
const LOST_COST = 8;
const LOST_EACH = 0.9;
/** So many notes may be lost; after them at least so many are right again. */
const LOST_NOTES = { least: 3, most: 9 };
const FEWEST_AFTER = 2;
/** Of the notes of a stretch. */
const MOST_THERE = 0.7;
/** Below so many strange things a take is not looked through for a stretch. */
const FEWEST_STRANGE = 3;
const SOME_STRANGE = 5;
/** So much more costly than the best so far at a glance a stretch is not looked at; and so many at most are. */
const GLANCE_SLACK = 12;
const CLOSE_LOOKS = 4;

/** Something is left that a stretch without the rhythm would explain. */
export function mayBeLost({ fit, hypotheses }: Diagnosis): boolean {
  return strange(fit) >= FEWEST_STRANGE || hypotheses.length >= 2 || fit.sigma > CLEAN_SIGMA;
}

/** A stretch of written notes without its claps, and the take without the claps of the stretch. */
interface Without {
  readonly from: number;
  readonly to: number;
  readonly cost: number;
  readonly aligner: Aligner;
  readonly claps: readonly ExpectedClap[];
}

function without(
  claps: readonly ExpectedClap[],
  onsets: Float64Array,
  free: boolean,
  { from, to }: { readonly from: number; readonly to: number },
  isOutside: (onset: number, index: number) => boolean,
): Without {
  const outside = onsets.filter(isOutside);
  return {
    from,
    to,
    cost: LOST_COST + LOST_EACH * (to - from + 1 + onsets.length - outside.length),
    aligner: new Aligner(outside, free),
    claps: [...claps.slice(0, from), ...claps.slice(to + 1)],
  };
}

/** A stretch begins and ends with something strange: where that is, by the moments at which the notes were due. */
function betweenStrange(
  asWritten: Diagnosis,
  onsets: Float64Array,
  free: boolean,
  fits: (from: number, to: number) => boolean,
): Without[] {
  const { claps, fit } = asWritten;
  const curve = free ? fit.curve : atClick(fit.curve);
  const heard = claps.map(({ time }) => heardTime(curve, time));
  const things = strangeIn(asWritten, onsets, claps[0]?.written ?? 0);
  const edges = things.claps.flatMap((is, i) => (is ? [i] : []));
  // More than a stretch can hold is wrong: then it is none between such places.
  if (edges.length > 2 * LOST_NOTES.most) return [];
  return edges.flatMap((from) =>
    edges
      .filter((to) => fits(from, to))
      .map((to) => {
        const begin = (heard[from - 1]! + heard[from]!) / 2;
        const end = (heard[to]! + heard[to + 1]!) / 2;
        return without(claps, onsets, free, { from, to }, (onset) => onset < begin || onset >= end);
      }),
  );
}

/**
 * The stretch of the written notes that is better explained by nothing at all, the rest being played as written;
 * undefined when the best diagnosis so far is likelier.
 */
export function lostIn(
  asWritten: Diagnosis,
  best: Diagnosis,
  onsets: Float64Array,
  free: boolean,
  onTheWay: readonly LostStretch[],
): Diagnosis | undefined {
  const { claps } = asWritten;
  // A few strange claps may be a slip each; then being lost must be much the likelier.
  const margin = strange(best.fit) < SOME_STRANGE ? 2.5 : 0;
  const most = Math.min(LOST_NOTES.most, claps.length >> 1);
  const fits = (from: number, to: number) =>
    from >= 1 && to >= from + LOST_NOTES.least - 1 && to < from + most && to + FEWEST_AFTER < claps.length;
  const stretches = [
    ...onTheWay
      .filter(({ from, to }) => fits(from, to))
      .map((one) => without(claps, onsets, free, one, (_onset, j) => j <= one.claps[0] || j >= one.claps[1])),
    ...betweenStrange(asWritten, onsets, free, fits),
  ];
  let found: Diagnosis | undefined;
  const glanced = stretches
    .map((stretch) => ({ ...stretch, glance: stretch.cost + stretch.aligner.glance(stretch.claps).cost }))
    .filter(({ glance }) => glance < best.cost + GLANCE_SLACK)
    .sort((a, b) => a.glance - b.glance);
  for (const stretch of glanced.slice(0, CLOSE_LOOKS)) {
    const rest = stretch.aligner.fit(stretch.claps);
    const cost = stretch.cost + rest.cost;
    if (cost >= (found ?? best).cost - (found ? 0 : margin)) continue;
    // The whole take is laid along the curve of what was right.
    const whole = new Aligner(onsets, free).along(claps, rest.curve);
    // Where most notes of it were clapped in their places nobody was lost: something came between.
    const there = whole.hits.slice(stretch.from, stretch.to + 1).filter((hit) => hit >= 0).length;
    if (there > (stretch.to - stretch.from + 1) * MOST_THERE) continue;
    found = {
      ...asWritten,
      fit: whole,
      cost,
      others: [],
      lost: { from: stretch.from, to: stretch.to, gain: best.cost - cost },
    };
  }
  return found;
}
