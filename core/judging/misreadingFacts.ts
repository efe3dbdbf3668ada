import { frac } from '../rhythm/fraction.ts';
import type { PlayedPlace } from '../timing/schedule.ts';
import type { Diagnosis } from './diagnosis.ts';
import type { Fit } from './alignment.ts';
import { MISREADINGS } from './misreadings/table.ts';
import { LARGEST_LEAD } from './windows.ts';
import type { Score } from './scoreEvents.ts';
import type { Misreading } from './takeResult.ts';

/** Never more are shown (rules §8). */
export const MOST_NAMED = 3;
/** A tempo that changes by more than this over the take is named (rules §8) … */
const DRIFT_NAMED = { click: 0.05, free: 0.08 };
/** … without a click over so many beats at least … */
const FREE_BEATS = 8;
/** Seconds: children tap ahead of a click by so much at least (rules §8). */
const USUAL_LEAD = 0.02;
/** From fewer claps no lag can be told. */
const FEWEST_FOR_LAG = 5;
/** What a lead or lag is usually within, seconds: how surely a larger one is more than that. */
const LAG_SPREAD = 0.05;
/** … and when it is so many times its own uncertainty: what wanders looks surer than it is. */
const DRIFT_CERTAIN = 2.6;

type Amounts = Pick<Misreading, 'beats' | 'percent' | 'until' | 'again' | 'part' | 'count' | 'ms' | 'as' | 'factor'>;

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

/** The same misreading at several places is one: indices of each, in playing order. */
function alike(hypotheses: Diagnosis['hypotheses']): number[][] {
  const groups = new Map<string, number[]>();
  hypotheses
    .map(({ event, silent }, i) => ({ event, i, silent }))
    .filter(({ silent }) => !silent)
    .sort((a, b) => a.event - b.event)
    .forEach(({ i }) => {
      const { code } = hypotheses[i]!;
      groups.set(code, [...(groups.get(code) ?? []), i]);
    });
  return [...groups.values()];
}

/** Change of tempo as it is believed, as a part; faster is positive. */
export interface Drift {
  readonly part: number;
  readonly free: boolean;
}

/** A listener would notice it. */
function isNoticed({ events, notes, beat }: Score, fit: Fit, { part, free }: Drift): boolean {
  const [first, last] = [events[notes[0] ?? 0], events[notes.at(-1) ?? 0]];
  if (!first || !last || notes.length === 0 || fit.bendCertainty < DRIFT_CERTAIN) return false;
  if (free && last.time - first.time < FREE_BEATS * beat) return false;
  return Math.abs(part) > DRIFT_NAMED[free ? 'free' : 'click'];
}

/** Seconds in milliseconds, without a sign and to ten: nobody hears less. */
const inTens = (seconds: number) => Math.round(Math.abs(seconds) * 100) * 10;

/**
 * How far behind the click a take was on the whole, where that is more than usual and surely so; else 0. Who left the
 * click on the way was not behind it.
 */
function steadyLag({ curve: { lag, tempo, bend }, hits, sigma }: Fit): number {
  const heard = hits.reduce((count, hit) => count + (hit >= 0 ? 1 : 0), 0);
  if (heard < FEWEST_FOR_LAG) return 0;
  const middle = lag + tempo / 2 + bend / 3;
  const ends = Math.min(...[lag, lag + tempo + bend].map((end) => end * Math.sign(middle)));
  const unsure = (2 * sigma) / Math.sqrt(heard);
  // Ahead is where children are anyway, and a little more of it is no other thing.
  const least = middle > 0 ? LARGEST_LEAD : LARGEST_LEAD + USUAL_LEAD;
  return ends > LAG_SPREAD && Math.abs(middle) - unsure >= least ? middle : 0;
}

/** By how much it came wrong: in beats, or where it is no matter of beats in milliseconds. */
function amountOf(code: Misreading['code'], shift: { beats: number; seconds: number }, { curve }: Fit): Amounts {
  if (MISREADINGS[code].ofRhythmOnly) return { ms: inTens(shift.seconds + curve.lag) };
  const twelfths = Math.round(Math.abs(shift.beats) * 12);
  // A half or a third where it is one, else the nearest half.
  const parts = twelfths % 6 === 0 || twelfths % 4 === 0 ? 12 : 2;
  return { beats: frac(Math.round(Math.abs(shift.beats) * parts), parts) };
}

/** Of these the amount is the change of tempo, of the whole take or of a measure. */
const TEMPO: ReadonlySet<Misreading['code']> = new Set(['rushing', 'dragging']);

/** Another tempo from a place on. */
const isStep = ({ code, amounts: { count } }: Found) => TEMPO.has(code) && count !== undefined;

/** What a diagnosis says was misread. */
function foundIn(score: Score, { hypotheses, gains, fit, lost }: Diagnosis, drift: Drift): Found[] {
  const { events, notes } = score;
  const { free } = drift;
  const found = alike(hypotheses).map((group): Found => {
    const { code, event, shift, wholeTake, count, until, got, as, factor, paced } = hypotheses[group[0]!]!;
    const again = group.slice(1).map((i) => events[hypotheses[i]!.event]!.source.place);
    return {
      code,
      event,
      gain: Math.max(...group.map((i) => gains[i]!)),
      amounts: {
        ...(paced && TEMPO.has(code) ? { percent: Math.round(Math.abs(paced.slower) * 100) } : {}),
        ...(shift && !TEMPO.has(code) ? amountOf(code, got === undefined ? shift : { ...shift, beats: got }, fit) : {}),
        ...(count === undefined ? {} : { count }),
        ...(as === undefined ? {} : { as }),
        ...(factor === undefined ? {} : { factor }),
        ...(until === undefined ? {} : { until: events[until]!.source.place }),
        ...(again.length > 0 ? { again } : {}),
        ...(MISREADINGS[code].about === 'take' && !wholeTake ? { part: true as const } : {}),
      },
    };
  });
  if (isNoticed(score, fit, drift)) {
    const percent = Math.round(Math.abs(drift.part) * 100);
    const code = drift.part > 0 ? 'rushing' : 'dragging';
    // Where it took another tempo is said already.
    if (!found.some(isStep))
      found.push({ code, event: notes[0]!, gain: fit.bendCertainty ** 2 / 2, amounts: { percent } });
  }
  const steady = free || drift.part !== 0 ? 0 : steadyLag(fit);
  if (steady !== 0 && !hypotheses.some(({ wholeTake }) => wholeTake)) {
    const code = steady > 0 ? 'behind-the-click' : 'ahead-of-the-click';
    found.push({ code, event: notes[0]!, gain: (steady / LAG_SPREAD) ** 2 / 2, amounts: { ms: inTens(steady) } });
  }
  if (lost) {
    const until: PlayedPlace = events[eventOf(score, fit, lost.to + 1)]!.source.place;
    const event = eventOf(score, fit, lost.from);
    found.push({ code: 'lost-and-recovered', event, gain: lost.gain, amounts: { until } });
  }
  // Of a way to clap that is not written more may be missing than anybody was to clap.
  if (fit.stopped >= 0 && fit.claps.slice(fit.stopped).some(({ note }) => note >= 0)) {
    const gain = (fit.claps.length - fit.stopped) * 4;
    found.push({ code: 'stopped-early', event: eventOf(score, fit, fit.stopped), gain, amounts: {} });
  }
  return found.sort((a, b) => b.gain - a.gain);
}

/**
 * What was misread in a take, the weightiest first. Where the claps alone cannot tell two misreadings apart, the other
 * one follows.
 */
export function misreadingsIn(score: Score, diagnosis: Diagnosis, drift: Drift): Misreading[] {
  if (diagnosis.unexplained) {
    const event = score.notes[0] ?? 0;
    return [{ code: 'another-rhythm', event, ...score.events[event]!.source.place }];
  }
  const main = foundIn(score, diagnosis, drift);
  const others =
    main.length > 0 ? (diagnosis.others ?? []).flatMap((other) => foundIn(score, other, { part: 0, free: true })) : [];
  const seen = new Set<string>();
  return [...main.map((found) => ({ found, instead: false })), ...others.map((found) => ({ found, instead: true }))]
    .filter(({ found: { code, event } }) => seen.size < seen.add(`${code} ${event}`).size)
    .slice(0, MOST_NAMED)
    .map(({ found: { code, event, amounts }, instead }): Misreading => {
      const { place } = score.events[event]!.source;
      return { code, event, ...place, ...amounts, ...(instead ? { instead } : {}) };
    });
}
