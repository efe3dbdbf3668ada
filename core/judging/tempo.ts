import { LARGEST_LEAD } from './windows.ts';

/** How a take runs against the click: hit = written + lag − drift·t²/(2·length). */
export interface Course {
  /** Seconds behind the click; negative is ahead. */
  readonly lag: number;
  /** Change of tempo from the first to the last note, as a part: 0.05 ends five per cent faster. */
  readonly drift: number;
  /** Standard deviation of what is left, in seconds. */
  readonly spread: number;
}

export const STEADY: Course = { lag: 0, drift: 0, spread: 0 };

/** Drift beyond this is no drift of one take but another tempo. */
const LARGEST_DRIFT = 0.25;
/** A drift is believed when it is this many times its own uncertainty; below that it is unsteadiness, not drift. */
const CERTAIN = 3;
const FEWEST_FOR_DRIFT = 5;

/** The time, by the click, at which a hit of this course stands when it sounds at `hit`. */
export function straighten(hit: number, course: Course, start: number, length: number): number {
  const time = hit - course.lag;
  const since = Math.min(Math.max(0, time - start), length * 1.5);
  return length > 0 ? time + (course.drift * since * since) / (2 * length) : time;
}

/**
 * Fits lag and drift to paired times by least squares, twice, the second time without what lies far off.
 * @param pairs   written time and hit, seconds
 * @param start   time of the first written note
 * @param length  from the first to the last written note
 */
export function fitCourse(pairs: readonly { time: number; hit: number }[], start: number, length: number): Course {
  if (pairs.length === 0) return STEADY;
  const middle = median(pairs.map(({ time, hit }) => hit - time));
  let used = pairs.map(({ time, hit }) => ({ bend: -((time - start) ** 2) / (2 * Math.max(length, 1e-9)), error: hit - time }));
  let course = regress(used, middle);
  const limit = Math.max(0.05, 2.5 * course.spread);
  used = used.filter(({ bend, error }) => Math.abs(error - course.lag - course.drift * bend) <= limit);
  course = regress(used, middle);
  return course;
}

function regress(points: readonly { bend: number; error: number }[], middle: number): Course {
  const n = points.length;
  if (n === 0) return { ...STEADY, lag: clampLead(middle) };
  const meanBend = points.reduce((a, { bend }) => a + bend, 0) / n;
  const meanError = points.reduce((a, { error }) => a + error, 0) / n;
  const bends = points.reduce((a, { bend }) => a + (bend - meanBend) ** 2, 0);
  const products = points.reduce((a, { bend, error }) => a + (bend - meanBend) * (error - meanError), 0);
  const slope = n >= FEWEST_FOR_DRIFT && bends > 0 ? products / bends : 0;
  const spreadWith = (drift: number, lag: number, parameters: number) =>
    Math.sqrt(points.reduce((a, { bend, error }) => a + (error - lag - drift * bend) ** 2, 0) / Math.max(1, n - parameters));
  const bent = spreadWith(slope, meanError - slope * meanBend, 2);
  const certain = Math.abs(slope) > CERTAIN * (bent / Math.sqrt(bends || 1));
  const drift = certain ? Math.max(-LARGEST_DRIFT, Math.min(LARGEST_DRIFT, slope)) : 0;
  const lag = clampLead(meanError - drift * meanBend);
  return { lag, drift, spread: spreadWith(drift, lag, drift === 0 ? 1 : 2) };
}

function clampLead(lag: number): number {
  return Math.max(-LARGEST_LEAD, Math.min(LARGEST_LEAD, lag));
}

export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const half = sorted.length >> 1;
  if (sorted.length === 0) return 0;
  return sorted.length % 2 === 1 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
}
