import { type Random, randomFrom } from '../random.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { scheduleOf, soundEnd } from '../timing/schedule.ts';
import type { MisreadingCode, Hypothesis } from './misreadings/misreading.ts';
import { MISREADINGS } from './misreadings/table.ts';
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

/** Change of tempo of a child that rushes or drags, as a part. */
const RUSHES = { least: 0.07, more: 0.08 };

interface State {
  claps: ExpectedClap[];
  drift: number;
  slips: { code: MisreadingCode; event: number }[];
}

function apply(state: State, hypothesis: Hypothesis): void {
  state.claps = hypothesis.apply(state.claps);
  state.slips.push({ code: hypothesis.code, event: hypothesis.event });
}

/** Kinds that rewrite no single place. */
function slipByHand(state: State, code: MisreadingCode, written: Score, random: Random): void {
  const { events, notes } = written;
  const eventOf = (clap: ExpectedClap | undefined) => notes[Math.max(0, clap?.note ?? 0)] ?? 0;
  switch (code) {
    case 'rushing':
    case 'dragging':
      state.drift += (code === 'rushing' ? 1 : -1) * (RUSHES.least + RUSHES.more * random.next());
      state.slips.push({ code, event: notes[0] ?? 0 });
      return;
    case 'stopped-early': {
      const keep = Math.max(1, Math.floor(state.claps.length * (0.4 + 0.4 * random.next())));
      if (state.claps.length - keep < 2) return;
      state.slips.push({ code, event: eventOf(state.claps[keep]) });
      state.claps = state.claps.slice(0, keep);
      return;
    }
    case 'lost-and-recovered': {
      const size = 4 + random.below(3);
      const room = state.claps.length - size - 3;
      if (room < 2) return;
      const from = 1 + random.below(room);
      const beat = events[0]!.beat;
      state.slips.push({ code, event: eventOf(state.claps[from]) });
      state.claps = state.claps.map((clap, i) =>
        i < from || i >= from + size
          ? clap
          : { ...clap, time: clap.time + (random.next() < 0.5 ? -1 : 1) * beat * (0.25 + 0.2 * random.next()) },
      );
      return;
    }
    default:
  }
}

/**
 * One take of a simulated child; the same seed gives the same take.
 * @param bpm  counted beats a minute
 */
export function simulate(pattern: Pattern, bpm: number, child: SimulatedChild, seed: number): SimulatedTake {
  const random = randomFrom(seed);
  const written = scoreOf(scheduleOf(pattern, bpm));
  const claps = written.notes.map((index, note): ExpectedClap => ({
    note,
    written: written.events[index]!.time,
    time: written.events[index]!.time,
  }));
  const state: State = { claps, drift: child.drift ?? 0, slips: [] };
  for (const { code, event } of child.misreads ?? []) {
    const places = MISREADINGS[code]
      .hypotheses(written)
      .filter((hypothesis) => event === undefined || hypothesis.event === event);
    if (places.length > 0) apply(state, random.pick(places));
    else slipByHand(state, code, written, random);
  }
  for (const [code, chance] of Object.entries(child.habits ?? {})) {
    const seen = new Set<number>();
    for (const hypothesis of MISREADINGS[code as MisreadingCode].hypotheses(written)) {
      if (!seen.has(hypothesis.event) && random.next() < chance) apply(state, hypothesis);
      seen.add(hypothesis.event);
    }
  }
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
  const expected = scheduleOf(pattern, bpm);
  return onsets.map((onset) => {
    const note = expected.notes.reduce(
      (best, one) => (Math.abs(one.time - onset) < Math.abs(best.time - onset) ? one : best),
      expected.notes[0]!,
    );
    const held = soundEnd(expected, note) - note.time - LETS_GO + random.normal() * spread;
    return onset + Math.max(LETS_GO, held);
  });
}
