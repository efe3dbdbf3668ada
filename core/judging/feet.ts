import { beatLine } from '../rhythm/beatLine.ts';
import { pulsesOf } from '../timing/pulses.ts';
import { type Schedule, scheduleOf } from '../timing/schedule.ts';
import { nearlyEqual } from '../timing/tolerance.ts';
import type { Bpm, Seconds } from '../timing/units.ts';
import { round } from './mark.ts';
import type { MisreadingCode } from './misreadings/table.ts';
import { type Tolerance, pairHits, tolerances } from './pairHits.ts';
import { type FollowedStream, type StreamRequest, followStream, hitsOf } from './stream.ts';
import type { FeetResult, Misreading, Stepped } from './takeResult.ts';
import { judgeNotes } from './verdicts.ts';
import { LARGEST_LEAD, type Windows, verdictOf } from './windows.ts';

interface FeetRequest extends StreamRequest {
  /** Steps, on the clock of the onsets, rising. */
  readonly feet: readonly Seconds[];
  readonly windows: Windows;
}

/** What of a beat's troubles steps can tell; each is like the other, so no beat can be skipped or stepped again. */
const OF_FEET: ReadonlySet<MisreadingCode> = new Set(['rushing', 'dragging', 'own-tempo']);

/** Something else was stepped instead of the beat, where this part of it and of the steps came together … */
const STEPPED_FROM = 0.85;
/** … and so much more than with the beat. */
const CLEARLY_MORE = 0.1;
/** … and so many beats without a step, or steps without a beat, are explained by it: a single one says nothing. */
const LEAST_EXPLAINED = 2;
/** The beat, or a tempo of its own, was kept to where this part of the steps came with it. */
const KEPT_TO = 0.75;
/** Who was with the beat at less of it was never with it, and cannot have been back. */
const MOST_KEPT = 0.5;
/** So many beats without a step on them are said, at the beginning or at the end … */
const EDGE_BEATS = 2;
/** … and between others. */
const GAP_BEATS = 3;
const MOST_SAID = 2;

/**
 * Judges the second stream of a two-line performance: a step on every beat. The beat is the click's; that of the hands,
 * where there was no click, or where hands and feet kept a tempo of their own.
 * @param hands   as they were followed
 * @param paired  for each sounded note the index of its hit, -1 when missed
 */
export function judgeFeet(request: FeetRequest, hands: FollowedStream, paired: Int32Array): FeetResult {
  const { bpm, start = 0, free = false, windows } = request;
  const clicks = free || bpm === hands.bpm ? [] : [{ bpm, start }];
  const [beat] = [...clicks, { bpm: hands.bpm, start: hands.start }]
    .map((at) => stepsAt(request, at, hands))
    .sort((a, b) => b.onTime.size - a.onTime.size);
  const { steps, due, onTime, pairs, behind } = beat!;
  const stepped = steppedIn(request, beat!, hands);
  return {
    onBeat: onTime.size,
    beats: due.length,
    extras: steps.length - pairs.length,
    leadMs: round(-behind * 1000, 10) || 0,
    ...handsBeside(beat!, hands, paired, windows),
    stepped,
    misreadings: stepped === 'beat' ? troubles(request, beat!, hands).slice(0, MOST_SAID) : [],
  };
}

/** Where hands and feet fall together, how far they were apart. */
function handsBeside(
  { bpm, start, line, due, pairs, steps }: SteppedBeat,
  hands: FollowedStream,
  paired: Int32Array,
  windows: Windows,
): Pick<FeetResult, 'handsLaterMs' | 'apartMs'> {
  const near = tolerances(due, windows);
  const gaps = pairs.flatMap(({ note, step }) => {
    const written = line.notes[note]!.time * bpm;
    const clapped = hands.schedule.notes.findIndex(({ time }) => nearlyEqual(time * hands.bpm, written));
    const hit = hands.hits[paired[clapped] ?? -1];
    const later = hit === undefined ? NaN : hit.time + hands.start - start - steps[step]!;
    const { early, late } = near[note]!.reach;
    // A hand that went elsewhere was no partner of this step.
    return later >= -early && later <= late ? [later] : [];
  });
  const mean = gaps.reduce((sum, gap) => sum + gap, 0) / Math.max(1, gaps.length);
  const apart = Math.sqrt(gaps.reduce((sum, gap) => sum + (gap - mean) ** 2, 0) / Math.max(1, gaps.length - 1));
  return { handsLaterMs: round(mean * 1000, 10), apartMs: round(apart * 1000, 10) };
}

/** Steps held against a line, all in seconds from beat 1 of measure 1. */
interface Steps {
  readonly due: readonly Seconds[];
  /** How far the steps are behind it on the whole: the middle one. */
  readonly behind: Seconds;
  readonly pairs: readonly { readonly note: number; readonly step: number }[];
  /** Of the line those that were stepped on time. */
  readonly onTime: ReadonlySet<number>;
}

/** The same with the beat. */
interface SteppedBeat extends Steps {
  readonly bpm: Bpm;
  readonly start: Seconds;
  readonly line: Schedule;
  readonly steps: readonly Seconds[];
}

function stepsAt(
  { pattern, feet, free = false, windows }: FeetRequest,
  { bpm, start }: { readonly bpm: Bpm; readonly start: Seconds },
  { follower }: FollowedStream,
): SteppedBeat {
  const line = scheduleOf(beatLine(pattern), bpm);
  const steps = hitsOf(feet, start, line).map(({ time }) => time);
  const beats = line.notes.map(({ time }) => (free ? follower.beat(time) : time));
  return { bpm, start, line, steps, ...held(beats, steps, windows) };
}

function held(times: readonly Seconds[], steps: readonly Seconds[], windows: Windows): Steps {
  const pairsOf = (due: readonly Seconds[], near: readonly Tolerance[]) => {
    const { hits } = pairHits(due, near, steps);
    return due.flatMap((_, note) => (hits[note]! < 0 ? [] : [{ note, step: hits[note]! }]));
  };
  const late = pairsOf(times, tolerances(times, windows))
    .map(({ note, step }) => steps[step]! - times[note]!)
    .sort((a, b) => a - b);
  const behind = late.length === 0 ? 0 : (late[(late.length - 1) >> 1]! + late[late.length >> 1]!) / 2;
  const due = times.map((time) => time + Math.max(-LARGEST_LEAD, Math.min(LARGEST_LEAD, behind)));
  const near = tolerances(due, windows);
  const pairs = pairsOf(due, near);
  const isOnTime = ({ note, step }: (typeof pairs)[number]) =>
    verdictOf(steps[step]! - due[note]!, near[note]!.onTime) === 'on-time';
  return { due, behind, pairs, onTime: new Set(pairs.filter(isOnTime).map(({ note }) => note)) };
}

/** What was stepped: the beat, unless something else explains the steps clearly better. */
function steppedIn({ pattern, free, windows }: FeetRequest, beat: SteppedBeat, { follower }: FollowedStream): Stepped {
  const { bpm, steps } = beat;
  const share = ({ onTime, pairs, due }: Steps) =>
    (onTime.size + pairs.length) / Math.max(1, due.length + steps.length);
  const least = Math.max(STEPPED_FROM, share(beat) + CLEARLY_MORE);
  if (least > 1) return 'beat';
  const pulses = pulsesOf(pattern, bpm);
  const lines: readonly (readonly [Stepped, readonly Seconds[]])[] = [
    ['other-beats', pulses.filter((_, i) => i % 2 === 0).map(({ time }) => time)],
    ['other-beats', pulses.filter((_, i) => i % 2 === 1).map(({ time }) => time)],
    ['first-beats', pulses.filter(({ accent }) => accent === 'measure').map(({ time }) => time)],
    ['parts', pulsesOf(pattern, bpm, true).map(({ time }) => time)],
    ['rhythm', scheduleOf(pattern, bpm).notes.map(({ time }) => time)],
  ];
  const alone = ({ due, pairs }: Steps) => due.length + steps.length - 2 * pairs.length;
  const most = alone(beat) - LEAST_EXPLAINED;
  const [best] = lines
    .map(([stepped, times]) => {
      const onLine = held(free ? times.map((time) => follower.beat(time)) : times, steps, windows);
      return { stepped, share: alone(onLine) <= most ? share(onLine) : 0 };
    })
    .sort((a, b) => b.share - a.share);
  return best!.share >= least ? best!.stepped : 'beat';
}

/** What went wrong with the beat, the weightiest first; what the hands did as well is said of these. */
function troubles(request: FeetRequest, beat: SteppedBeat, hands: FollowedStream): Misreading[] {
  const { pattern, bpm, feet: onsets, start, free = false } = request;
  const followed = free ? undefined : followStream({ pattern: beatLine(pattern), bpm, onsets, start });
  const ofHands = new Set(hands.misreadings.map(({ code }) => code));
  const ofTempo = followed ? tempoTroubles(followed, request.windows) : [];
  // Whoever left the beat as a whole is off it at single ones all the same.
  if (ofTempo.length > 0) return ofTempo.filter(({ code }) => !ofHands.has(code));
  const kept = beat.onTime.size;
  // Who ran away from the hands did not leave off: it only was done sooner.
  if (kept < KEPT_TO * beat.pairs.length) return [];
  const back = !free && kept >= MOST_KEPT * beat.due.length;
  return gapsIn(beat).filter(({ code }) => back || code !== 'lost-and-recovered');
}

/** A tempo is told only where it was kept to: steps at random have none. */
function tempoTroubles({ schedule, follower, hits, misreadings }: FollowedStream, windows: Windows): Misreading[] {
  const { notes } = judgeNotes(schedule, follower, windows, hits);
  const followed = notes.filter(({ verdict }) => verdict === 'on-time').length;
  if (followed < KEPT_TO * notes.length) return [];
  return misreadings.filter(({ code, instead }) => OF_FEET.has(code) && !instead);
}

/** Where no steps were: at the beginning, at the end, between. */
function gapsIn({ line, due, pairs, steps }: SteppedBeat): Misreading[] {
  const [first, last] = [pairs[0], pairs.at(-1)];
  if (!first || !last) return [];
  const at = (code: MisreadingCode, event: number, until?: number): Misreading => ({
    code,
    event,
    ...line.notes[event]!.place,
    ...(until === undefined ? {} : { until: line.notes[until]!.place }),
  });
  const between = pairs.flatMap((from, i) => {
    const to = pairs[i + 1];
    if (!to || to.note - from.note <= GAP_BEATS) return [];
    const code = to.step === from.step + 1 ? 'measure-silent' : 'lost-and-recovered';
    return [at(code, from.note + 1, to.note)];
  });
  const joined = first.note >= EDGE_BEATS && first.step === 0;
  const stopped = last.note < due.length - EDGE_BEATS && last.step === steps.length - 1;
  return [
    ...(joined ? [at('joined-late', first.note)] : []),
    ...(stopped ? [at('stopped-early', last.note + 1)] : []),
    ...between,
  ];
}
