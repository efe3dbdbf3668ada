import { toNumber } from '../rhythm/fraction.ts';
import { beatOf } from '../rhythm/meter.ts';
import type { Pattern } from '../rhythm/pattern.ts';
import { type ExpectedEvent, expectedOf } from './expected.ts';
import { randomFrom } from '../random.ts';

/** How a simulated child claps. Chances are for each place where the slip can happen. */
export interface SimulatedChild {
  /** Unsteadiness: standard deviation in seconds. */
  readonly spread: number;
  /** Ahead of the click, seconds. */
  readonly lead?: number;
  /** Change of tempo over the take as a part: 0.05 ends five per cent faster. */
  readonly drift?: number;
  readonly clapsRests?: number;
  readonly pulsesHolds?: number;
  readonly strikesTies?: number;
  /** Chance to leave out a note shorter than a beat; a third of it for others. */
  readonly leavesOut?: number;
}

/**
 * The onsets of one take, in seconds from beat 1 of measure 1, rising. The same seed gives the same take.
 * @param bpm  counted beats a minute
 */
export function simulateTake(pattern: Pattern, bpm: number, child: SimulatedChild, seed: number): number[] {
  const random = randomFrom(seed);
  const expected = expectedOf(pattern, bpm);
  const first = expected.notes[0]?.time ?? 0;
  const length = Math.max(1e-9, (expected.notes.at(-1)?.time ?? 0) - first);
  const claps = expected.events.flatMap((event) => clapsOn(event, child, random.next(), expected.whole));
  return claps
    .map((time) => {
      const since = Math.max(0, time - first);
      const drifted = time - ((child.drift ?? 0) * since * since) / (2 * length);
      return drifted - (child.lead ?? 0) + random.normal() * child.spread;
    })
    .sort((a, b) => a - b);
}

function clapsOn({ event, measure, time, end }: ExpectedEvent, child: SimulatedChild, chance: number, whole: number): number[] {
  if (event.kind === 'rest') return chance < (child.clapsRests ?? 0) ? [time] : [];
  if (event.kind === 'tied') return chance < (child.strikesTies ?? 0) ? [time] : [];
  const beat = toNumber(beatOf(measure.meter).length) * whole;
  const held = Math.ceil((end - time) / beat - 1e-9) - 1;
  if (held > 0 && chance < (child.pulsesHolds ?? 0)) return Array.from({ length: held + 1 }, (_, i) => time + i * beat);
  const short = end - time < beat - 1e-9;
  return chance > 1 - (child.leavesOut ?? 0) * (short ? 1 : 1 / 3) ? [] : [time];
}
