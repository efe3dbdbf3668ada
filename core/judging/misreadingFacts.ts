import { frac } from '../rhythm/fraction.ts';
import type { PlayedPlace } from '../timing/schedule.ts';
import type { Diagnosis } from './diagnose.ts';
import type { Score } from './scoreEvents.ts';
import type { Misreading } from './takeResult.ts';

/** Never more are shown (handbook §8). */
const MOST_NAMED = 3;
/** A tempo that changes by more than this over the take is named. */
const DRIFT_NAMED = 0.05;

type Amounts = Pick<Misreading, 'beats' | 'percent' | 'until'>;

interface Found {
  readonly code: Misreading['code'];
  readonly event: number;
  readonly gain: number;
  readonly amounts: Amounts;
}

/** Index of the written event of an expected clap, or of the nearest that is written. */
function eventOf({ notes }: Score, { claps }: Diagnosis['fit'], clap: number): number {
  const written = ({ note }: { note: number }) => note >= 0;
  const nearest = claps.slice(clap).find(written) ?? claps.slice(0, clap).findLast(written);
  return notes[nearest?.note ?? 0] ?? 0;
}

/** What a diagnosis says was misread. */
function foundIn(score: Score, { hypotheses, gains, fit, lost }: Diagnosis, drift: number): Found[] {
  const { events, notes } = score;
  const found: Found[] = hypotheses.map(({ code, event, shift }, i) => ({
    code,
    event,
    gain: gains[i]!,
    amounts: shift ? { beats: frac(Math.round(Math.abs(shift.beats) * 2), 2) } : {},
  }));
  if (Math.abs(drift) > DRIFT_NAMED && notes.length > 0) {
    const percent = Math.round(Math.abs(drift) * 100);
    const code = drift > 0 ? 'rushing' : 'dragging';
    found.push({ code, event: notes[0]!, gain: fit.bendCertainty ** 2 / 2, amounts: { percent } });
  }
  if (lost) {
    const until: PlayedPlace = events[eventOf(score, fit, lost.to + 1)]!.source.place;
    const event = eventOf(score, fit, lost.from);
    found.push({ code: 'lost-and-recovered', event, gain: lost.gain, amounts: { until } });
  }
  if (fit.stopped >= 0) {
    const gain = (fit.claps.length - fit.stopped) * 4;
    found.push({ code: 'stopped-early', event: eventOf(score, fit, fit.stopped), gain, amounts: {} });
  }
  return found.sort((a, b) => b.gain - a.gain);
}

/**
 * What was misread in a take, the weightiest first. Where the claps alone cannot tell two misreadings apart, the other
 * one follows.
 * @param drift  change of tempo as it is believed, as a part
 */
export function misreadingsIn(score: Score, diagnosis: Diagnosis, drift: number): Misreading[] {
  const main = foundIn(score, diagnosis, drift);
  const others = main.length > 0 ? (diagnosis.others ?? []).flatMap((other) => foundIn(score, other, 0)) : [];
  const seen = new Set<string>();
  return [...main.map((found) => ({ found, instead: false })), ...others.map((found) => ({ found, instead: true }))]
    .filter(({ found: { code, event } }) => seen.size < seen.add(`${code} ${event}`).size)
    .slice(0, MOST_NAMED)
    .map(({ found: { code, event, amounts }, instead }): Misreading => {
      const { place } = score.events[event]!.source;
      return { code, event, ...place, ...amounts, ...(instead ? { instead } : {}) };
    });
}
