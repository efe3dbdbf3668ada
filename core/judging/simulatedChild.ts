import { type Random, randomFrom } from '../random.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { scheduleOf, soundEnd } from '../timing/schedule.ts';
import type { Hypothesis, SlippingTake } from './misreadings/hypothesis.ts';
import { type MisreadingCode, MISREADINGS } from './misreadings/table.ts';
import type { ExpectedClap } from './expectedClap.ts';
import { type Score, scoreOf } from './scoreEvents.ts';
import { beatTimes } from '../timing/pulses.ts';

/** A misreading that a simulated child makes; without a place the seed chooses one. */
export interface Slip {
  readonly code: MisreadingCode;
  /** Index of the written event, in playing order, as the table's hypotheses name it. */
  readonly event?: number;
}

/** How a simulated child claps. */
export interface SimulatedChild {
  /** Unsteadiness: standard deviation in seconds. */
  readonly spread: number;
  /** Ahead of the click, seconds. */
  readonly lead?: number;
  /** Change of tempo over the take as a part: 0.05 ends five per cent faster. */
  readonly drift?: number;
  /** Misreadings it makes for certain, one after the other. */
  readonly misreads?: readonly Slip[];
  /** Chance to misread, for each place where it can happen. */
  readonly habits?: Readonly<Partial<Record<MisreadingCode, number>>>;
  /** Notes it leaves out, by index; and the chance to leave out any other. */
  readonly missed?: readonly number[];
  readonly leavesOut?: number;
}

export interface SimulatedTake {
  /** Seconds from beat 1 of measure 1, rising. */
  readonly onsets: number[];
  /** What was done, with the event it is about. */
  readonly slips: readonly { readonly code: MisreadingCode; readonly event: number }[];
}

interface State extends SlippingTake {
  readonly slips: { code: MisreadingCode; event: number }[];
}

function slip(state: State, code: MisreadingCode, { event, apply }: Hypothesis): void {
  state.claps = apply(state.claps);
  state.slips.push({ code, event });
}

/** One misreading, at a place that was asked for or that the seed chooses. */
function misread(state: State, { code, event: wanted }: Slip, score: Score, random: Random): void {
  const kind = MISREADINGS[code];
  if ('slip' in kind) {
    const event = kind.slip(state, score, random);
    if (event !== undefined) state.slips.push({ code, event });
    return;
  }
  const places = kind.hypotheses(score).filter(({ event }) => wanted === undefined || event === wanted);
  if (places.length > 0) slip(state, code, random.pick(places));
}

/** A habit: at each place where it can happen, with a chance. */
function misreadOften(state: State, code: MisreadingCode, chance: number, score: Score, random: Random): void {
  const kind = MISREADINGS[code];
  if ('slip' in kind) return;
  const seen = new Set<number>();
  for (const hypothesis of kind.hypotheses(score)) {
    if (!seen.has(hypothesis.event) && random.next() < chance) slip(state, code, hypothesis);
    seen.add(hypothesis.event);
  }
}

/**
 * One take of a simulated child; the same seed gives the same take.
 * @param bpm  counted beats a minute
 */
export function simulate(pattern: Pattern, bpm: number, child: SimulatedChild, seed: number): SimulatedTake {
  const random = randomFrom(seed);
  const score = scoreOf(scheduleOf(pattern, bpm));
  const claps = score.notes.map((index, note): ExpectedClap => {
    const { time } = score.events[index]!;
    return { note, written: time, time };
  });
  const state: State = { claps, drift: child.drift ?? 0, slips: [] };
  for (const one of child.misreads ?? []) misread(state, one, score, random);
  for (const [code, chance] of Object.entries(child.habits ?? {}))
    misreadOften(state, code as MisreadingCode, chance, score, random);
  const gone = (note: number) => note >= 0 && (child.missed?.includes(note) || random.next() < (child.leavesOut ?? 0));
  const sounded = [...state.claps].sort((a, b) => a.time - b.time).filter(({ note }) => !gone(note));
  const first = sounded[0]?.time ?? 0;
  const length = Math.max(1e-9, (sounded.at(-1)?.time ?? 0) - first);
  const onsets = sounded.map(({ time }) => {
    const since = time - first;
    return time - (state.drift * since * since) / (2 * length) - (child.lead ?? 0) + random.normal() * child.spread;
  });
  return { onsets: onsets.sort((a, b) => a - b), slips: state.slips };
}

/** The onsets of one take, in seconds from beat 1 of measure 1, rising. */
export function simulateTake(pattern: Pattern, bpm: number, child: SimulatedChild, seed: number): number[] {
  return simulate(pattern, bpm, child, seed).onsets;
}

/** The steps of the same child, one a beat, in seconds from beat 1 of measure 1. */
export function simulateSteps(
  pattern: Pattern,
  bpm: number,
  { spread, lead = 0 }: SimulatedChild,
  seed: number,
): number[] {
  const random = randomFrom(seed + 1);
  return beatTimes(pattern, bpm)
    .map(({ time }) => time - lead + random.normal() * spread)
    .sort((a, b) => a - b);
}

/** A little before a note is over the hands let go. */
const LETS_GO = 0.05;

/** When the child lets go of what it clapped: at the end of the written note nearest to each onset. */
export function simulateReleases(
  pattern: Pattern,
  bpm: number,
  onsets: readonly number[],
  { spread }: SimulatedChild,
  seed: number,
): number[] {
  const random = randomFrom(seed + 2);
  const schedule = scheduleOf(pattern, bpm);
  return onsets.map((onset) => {
    const note = schedule.notes.reduce(
      (best, one) => (Math.abs(one.time - onset) < Math.abs(best.time - onset) ? one : best),
      schedule.notes[0]!,
    );
    const held = soundEnd(schedule, note) - note.time - LETS_GO + random.normal() * spread;
    return onset + Math.max(LETS_GO, held);
  });
}
