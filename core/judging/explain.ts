import { Aligner, type Course, type Fit, heardTime } from './alignment.ts';
import type { Reading } from './misreadings/misreading.ts';
import { readingsOf } from './misreadings/table.ts';
import type { Strike } from './strike.ts';
import { LARGEST_LEAD } from './windows.ts';
import type { Written } from './written.ts';

/** How a take came about: which misreadings, and how the claps lie then. */
export interface Explanation {
  readonly readings: readonly Reading[];
  /** Strikes in written order, all readings applied. */
  readonly strikes: readonly Strike[];
  readonly fit: Fit;
  /** Of the fit and the readings together. */
  readonly cost: number;
  /** For each reading, by how much it made the take likelier. */
  readonly gains: readonly number[];
  /** Explanations that are as likely, or nearly: the claps alone cannot tell. */
  readonly others?: readonly Explanation[];
  /** A stretch of strikes (by time) that follows nothing, right again after it. */
  readonly lost?: { readonly from: number; readonly to: number; readonly gain: number };
}

/** More is never shown (handbook §8), and a take with more than three misreadings is not read but lost. */
const MOST_READINGS = 3;
/** How many explanations are carried on at each step; long pieces have so many places that one must do. */
const WIDTH = [5, 3] as const;
const LONG_PIECE = 90;
/** An explanation so little less likely is named too. */
const AS_LIKELY = 0.9;
/** One that comes to the very same claps is named unless it is much less usual. */
const SAME_CLAPS = 2.5;
/**
 * A reading that does not make the take likelier by this much is not tried further. One of two that undo each other may
 * make it less likely on its own, so where much is strange the first is given some credit.
 */
const LEAST_GAIN = 0.1;
const CREDIT = 4;
const MUCH_STRANGE = 4;

/** Above this unsteadiness (seconds) something may be hidden even when every note has its clap. */
const CLEAN_SIGMA = 0.042;

/** Children tap a little ahead of the click. */
const USUAL_LAG = -0.025;

function baseStrikes({ events, notes }: Written): Strike[] {
  return notes.map((index, note) => ({ note, written: events[index]!.time, time: events[index]!.time }));
}

/** How many notes and claps are not as they should be. */
function strange({ missed, extras, poor }: Fit): number {
  return missed + extras + poor;
}

/**
 * Every clap has its note, near enough, and no further from the click than children are: then nothing can have happened
 * that moves or adds claps. A note or two inside the take that was not heard was only missed.
 */
function isClean({ extras, poor, missed, stopped, sigma, hits, course }: Fit, free: boolean): boolean {
  return (
    (free || Math.abs(course.lag) <= LARGEST_LEAD) &&
    extras + poor === 0 &&
    stopped < 0 &&
    sigma <= CLEAN_SIGMA &&
    (missed === 0 || (missed <= Math.max(2, MISSED_PART * hits.length) && hits.at(-1)! >= 0))
  );
}

/** So many notes may be missed, here and there, before a reason is looked for. */
const MISSED_PART = 0.03;

/** Where something is strange under an explanation: strikes that were missed or are far off, and stray claps. */
interface Strange {
  /** For each strike, by time. */
  readonly strikes: readonly boolean[];
  /** Written times of the first and last strange thing. */
  readonly first: number;
  readonly last: number;
  /** Moments of the stray claps. */
  readonly stray: readonly number[];
}

function strangeIn({ fit }: Explanation, onsets: Float64Array): Strange {
  const { strikes, hits, course, sigma } = fit;
  const given = new Uint8Array(onsets.length);
  const flags = strikes.map(({ time }, i) => {
    const hit = hits[i]!;
    if (hit >= 0) given[hit] = 1;
    return hit < 0 || Math.abs(onsets[hit]! - heardTime(course, time)) > FAR_OFF * sigma;
  });
  const heard = strikes.map(({ time }) => heardTime(course, time));
  const stray: number[] = [];
  let at = 0;
  onsets.forEach((onset, j) => {
    if (given[j] === 1) return;
    stray.push(onset);
    while (at + 1 < heard.length && Math.abs(heard[at + 1]! - onset) <= Math.abs(heard[at]! - onset)) at++;
    flags[at] = true;
  });
  const first = flags.indexOf(true);
  const last = flags.lastIndexOf(true);
  return {
    strikes: flags,
    first: strikes[first]?.written ?? -Infinity,
    last: strikes[last]?.written ?? Infinity,
    stray,
  };
}

const FAR_OFF = 2.5;
/** Written length beside what was heard: at half the tempo a half of it, also when an end is missing; at twice the tempo the double. */
const SLOW_SPAN = 0.8;
const FAST_SPAN = 1.25;
/** Part of a beat. */
const NEAR_ENTRY = 0.45;
/** A misreading shows at once: where nothing is strange for so many measures after a place, nothing was misread there. */
const MEASURES_BEFORE = 1.5;
/** A clap belongs to an added one up to this part of a beat. */
const NEAR_ADDED = 0.45;

/** Could this reading explain something strange? A quick look that leaves out most of them. */
function couldBe(
  reading: Reading,
  written: Written,
  { strikes, fit }: Explanation,
  { first, last, stray }: Strange,
  onsets: Float64Array,
): boolean {
  if (reading.wholeTake) {
    const begin = strikes[0]!.time;
    if (reading.speed !== undefined) {
      const span = (strikes.at(-1)!.time - begin) / Math.max(1e-6, onsets.at(-1)! - onsets[0]!);
      return reading.speed < 1 ? span < SLOW_SPAN : span > FAST_SPAN;
    }
    // Who comes in wrong claps the first note, or at least the second, where it is then due.
    return (
      reading.shift === undefined ||
      [begin, strikes[1]?.time ?? begin].some(
        (due) => Math.abs(onsets[0]! - due - reading.shift!.seconds) < written.beat * NEAR_ENTRY,
      )
    );
  }
  const { time, beat } = written.events[reading.event]!;
  if (reading.adds) {
    const [place] = reading.adds;
    const before = strikes.findLast((strike) => strike.written < place! - 1e-6) ?? strikes[0];
    const due = heardTime(fit.course, place! + (before ? before.time - before.written : 0));
    return stray.some((onset) => Math.abs(onset - due) < NEAR_ADDED * beat);
  }
  return time >= first - MEASURES_BEFORE * written.beatsInMeasure * written.beat - beat && time <= last + beat;
}

function goesWith(reading: Reading, others: readonly Reading[]): boolean {
  return others.every((other) => {
    if (other === reading || (other.code === reading.code && other.event === reading.event)) return false;
    return !(
      reading.wholeTake &&
      other.wholeTake &&
      (reading.speed !== undefined ||
        other.speed !== undefined ||
        (reading.shift !== undefined && other.shift !== undefined))
    );
  });
}

/**
 * The likeliest explanation of a take: as written, or with up to three misreadings, together with the tempo it took.
 * @param onsets  seconds, rising, bounces merged
 * @param free    no click: start and tempo are unknown
 */
export function explain(written: Written, onsets: Float64Array, free: boolean): Explanation {
  const aligner = new Aligner(onsets, free);
  const strikes = baseStrikes(written);
  const fit = aligner.fit(strikes);
  const asWritten: Explanation = { readings: [], strikes, fit, cost: fit.cost, gains: [] };
  if (strikes.length === 0 || onsets.length === 0) return asWritten;

  const clean = isClean(fit, free);
  const all = readingsOf(written, free).filter(({ subtle }) => subtle || !clean);
  const long = strikes.length > LONG_PIECE;
  const couldExplain = (before: Explanation) => {
    const strangeThings = strangeIn(before, onsets);
    return (reading: Reading) => couldBe(reading, written, before, strangeThings, onsets);
  };
  let best = asWritten;
  let frontier = [asWritten];
  const found: Explanation[] = [asWritten];
  for (let depth = 0; depth < MOST_READINGS; depth++) {
    const next = distinct(
      frontier
        .flatMap((before) =>
          oneMore(
            before,
            all.filter(couldExplain(before)),
            aligner,
            depth === 0 && strange(fit) >= MUCH_STRANGE ? -CREDIT : LEAST_GAIN,
          ),
        )
        .sort((a, b) => a.cost - b.cost),
    );
    frontier = next.slice(0, long ? 1 : (WIDTH[depth] ?? 1));
    if (frontier.length === 0) break;
    found.push(...next.slice(0, CLOSE_LOOKS));
    if (frontier[0]!.cost < best.cost) best = frontier[0]!;
    if (isClean(best.fit, free)) break;
  }
  const lost = lostIn(asWritten, best, onsets, free);
  if (lost) return lost;
  const others = found.filter(
    (other) =>
      other !== best &&
      other.readings.length <= Math.max(1, best.readings.length) &&
      other.cost < best.cost + (clapsAlike(other, best) ? SAME_CLAPS : AS_LIKELY),
  );
  return { ...best, others };
}

/** How many readings of each explanation are looked at closely. */
const CLOSE_LOOKS = 16;
/** A glance sees the cost up to about this. */
const GLANCE_SLACK = 12;

/** An explanation with one more misreading: all that make the take likelier. */
function oneMore(before: Explanation, all: readonly Reading[], aligner: Aligner, leastGain: number): Explanation[] {
  const editCost = before.readings.reduce((sum, { cost }) => sum + cost, 0);
  const promising = all
    .filter((reading) => goesWith(reading, before.readings))
    .map((reading) => {
      const strikes = reading.apply(before.strikes);
      // At another speed nothing of the course found so far holds.
      const far = reading.speed !== undefined;
      return { reading, strikes, cost: far ? -Infinity : aligner.glance(strikes).cost + editCost + reading.cost };
    })
    .filter(({ cost }) => cost < before.cost + GLANCE_SLACK)
    .sort((a, b) => a.cost - b.cost)
    .slice(0, CLOSE_LOOKS);
  return promising.flatMap(({ reading, strikes }): Explanation[] => {
    const fit = aligner.fit(strikes, before.fit.course);
    const cost = fit.cost + editCost + reading.cost;
    return cost < before.cost - leastGain
      ? [{ readings: [...before.readings, reading], strikes, fit, cost, gains: [...before.gains, before.cost - cost] }]
      : [];
  });
}

/** Both come to the same claps. */
function clapsAlike({ strikes: a }: Explanation, { strikes: b }: Explanation): boolean {
  return a.length === b.length && a.every(({ time }, i) => Math.abs(time - b[i]!.time) < 1e-6);
}

/** Two readings in the other order are the same explanation. */
function distinct(explanations: readonly Explanation[]): Explanation[] {
  const seen = new Set<string>();
  return explanations.filter(({ readings, cost }) => {
    const key = `${readings
      .map(({ code, event }) => `${code} ${event}`)
      .sort()
      .join(', ')} ${cost.toFixed(3)}`;
    return seen.size < seen.add(key).size;
  });
}

/** Being lost costs this once, and a little for each note and clap in the stretch. */
const LOST_COST = 9;
const LOST_EACH = 0.6;
/** So many notes may be lost; after them at least so many are right again. */
const LOST_NOTES = { least: 3, most: 9 };
const FEWEST_AFTER = 2;
/** Below so many strange things a take is not looked through for a stretch. */
const FEWEST_STRANGE = 3;
const SOME_STRANGE = 5;

/**
 * The stretch of the written notes that is better explained by nothing at all, the rest being played as written; undefined
 * when the best explanation so far is likelier.
 */
function lostIn(
  asWritten: Explanation,
  best: Explanation,
  onsets: Float64Array,
  free: boolean,
): Explanation | undefined {
  const { strikes, fit } = asWritten;
  if (strange(best.fit) < FEWEST_STRANGE && best.readings.length < 2) return undefined;
  // A few strange claps may be a slip each; then being lost must be much the likelier.
  const margin = strange(best.fit) < SOME_STRANGE ? 2.5 : 0;
  const course: Course = free ? fit.course : { ...fit.course, lag: USUAL_LAG, tempo: 0, bend: 0 };
  const heard = strikes.map(({ time }) => heardTime(course, time));
  const without = (from: number, to: number) => {
    const begin = (heard[from - 1]! + heard[from]!) / 2;
    const end = (heard[to]! + heard[to + 1]!) / 2;
    const outside = onsets.filter((onset) => onset < begin || onset >= end);
    const cost = LOST_COST + LOST_EACH * (to - from + 1 + onsets.length - outside.length);
    return {
      from,
      to,
      cost,
      aligner: new Aligner(outside, free),
      strikes: [...strikes.slice(0, from), ...strikes.slice(to + 1)],
    };
  };
  const stretches: (ReturnType<typeof without> & { glance: number })[] = [];
  const most = Math.min(LOST_NOTES.most, strikes.length >> 1);
  // A stretch begins and ends with something strange.
  const edges = strangeIn(asWritten, onsets).strikes.flatMap((is, i) => (is ? [i] : []));
  for (const from of edges) {
    for (const to of edges) {
      if (from < 1 || to < from + LOST_NOTES.least - 1 || to >= from + most || to + FEWEST_AFTER >= strikes.length)
        continue;
      const stretch = without(from, to);
      const glance = stretch.cost + stretch.aligner.glance(stretch.strikes).cost;
      if (glance < best.cost + GLANCE_SLACK) stretches.push({ ...stretch, glance });
    }
  }
  let found: Explanation | undefined;
  for (const stretch of stretches.sort((a, b) => a.glance - b.glance).slice(0, 4)) {
    const rest = stretch.aligner.fit(stretch.strikes);
    const cost = stretch.cost + rest.cost;
    if (cost >= (found ?? best).cost - (found ? 0 : margin)) continue;
    // The whole take is laid along the course of what was right.
    const whole = new Aligner(onsets, free).along(strikes, rest.course);
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
