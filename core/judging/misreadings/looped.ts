import { writtenTime } from '../../timing/tempoCurve.ts';
import { EPSILON } from '../../timing/tolerance.ts';
import type { Seconds } from '../../timing/units.ts';
import type { ExpectedClap } from '../expectedClap.ts';
import type { Score } from '../scoreEvents.ts';
import { type HeardSoFar, type Hypothesis, type MisreadingKind, ORDER, type Stretch } from './hypothesis.ts';
import { firstEvent, measureOf } from './writtenPlaces.ts';

/** Nats: as rare as several measures played twice; rarer where it does not go on to the end. */
const COST = { loop: 7, brokenOff: 6 };
/** Longer than so many measures nobody keeps what is looped in the ear. */
const LONGEST = 4;
/** The loop shows within so many measures before and after the first strange thing. */
const BEFORE = 3;
const AFTER = 1;
/** So many times more at least: what comes but once more is played twice. */
const MORE_THAN = 1.4;
/** One clap over and over is the beat. */
const FEWEST_CLAPS = 2;

/**
 * A stretch over and over.
 * @param until  seconds as written: later nothing was clapped any more
 */
function overAndOver(claps: readonly ExpectedClap[], { from, to }: Stretch, until: Seconds): ExpectedClap[] {
  const inside = claps.filter(({ written }) => written >= from - EPSILON && written < to - EPSILON);
  const times = Math.max(1, Math.ceil((until - to) / (to - from)));
  const again = Array.from({ length: times }, (_, k) =>
    inside.map(({ time }) => time + (k + 1) * (to - from)).filter((time) => time < until),
  ).flat();
  return [
    ...claps.filter(({ written }) => written < to - EPSILON),
    // On paper they stand at the very end of the stretch, in their own order.
    ...again.map((time, i): ExpectedClap => {
      return { note: -1, replayed: true, written: to - (again.length - i) * ORDER, time };
    }),
  ];
}

/** Measures from one on again and again; undefined where that is nothing else than what is written. */
export function loopOf(score: Score, first: number, count: number, until: Seconds): Hypothesis | undefined {
  const [begin, last] = [score.measures[first], score.measures[first + count - 1]];
  const end = score.measures.at(-1)!.to;
  if (!begin || !last || Math.min(until, end) < last.to + MORE_THAN * (last.to - begin.from)) return undefined;
  const stretch = { from: begin.from, to: last.to };
  const inside = score.notes.filter((i) => {
    const { time } = score.events[i]!;
    return time >= stretch.from - EPSILON && time < stretch.to - EPSILON;
  });
  if (inside.length < FEWEST_CLAPS || isEven(score, inside, stretch)) return undefined;
  return {
    event: firstEvent(score, first),
    cost: COST.loop + (until < end - (last.to - begin.from) ? COST.brokenOff : 0),
    apply: (claps) => overAndOver(claps, stretch, until),
    leavesOut: { from: stretch.to, to: Infinity },
    count,
    alone: true,
  };
}

/** Claps so even that over and over they are the beat, or its parts. */
function isEven({ events }: Score, inside: readonly number[], { from, to }: Stretch): boolean {
  const each = (to - from) / inside.length;
  return inside.every((i, k) => Math.abs(events[i]!.time - from - k * each) < EPSILON);
}

/** When the last clap was, on paper, as far as it can be told: the loop ends with it. */
function lastClaps({ beat }: Score, { onsets, curve }: HeardSoFar): Seconds[] {
  const last = onsets.at(-1)!;
  // The curve is that of the take as written, and may be led astray by what is not.
  const [bent, straight] = [writtenTime(curve, last), last - curve.lag];
  return Math.abs(bent - straight) < beat / 4 ? [straight + beat / 4] : [bent + beat / 4, straight + beat / 4];
}

/** The same measure or measures again and again instead of going on. */
export const looped: MisreadingKind = {
  about: 'place',
  noHabit: true,
  inTake: (score, take) => {
    const at = measureOf(score, take);
    const lasts = Array.from({ length: BEFORE + AFTER + 1 }, (_, i) => at - BEFORE + i).filter((last) => last >= 0);
    return lasts.flatMap((last) =>
      Array.from({ length: Math.min(LONGEST, last + 1) }, (_, k) => k).flatMap((k) =>
        lastClaps(score, take).flatMap((until) => loopOf(score, last - k, k + 1, until) ?? []),
      ),
    );
  },
  slip: (take, score, random) => {
    const { measures } = score;
    const count = 1 + random.below(2);
    if (measures.length < 2 * count + 2) return undefined;
    const first = random.below(measures.length - 2 * count - 1);
    const loop = loopOf(score, first, count, measures.at(-1)!.to);
    if (!loop) return undefined;
    const claps = loop.apply(take.claps);
    const written = new Set(take.claps.map(({ time }) => Math.round(time * 100)));
    const alike = claps.filter(({ time }) => written.has(Math.round(time * 100))).length;
    if (alike > MUCH_ALIKE * Math.max(claps.length, take.claps.length)) return undefined;
    take.claps = claps;
    return loop.event;
  },
};

/** Part of the claps: from here on the loop and what is written are hardly to be told apart. */
const MUCH_ALIKE = 0.75;
