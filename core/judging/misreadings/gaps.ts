import type { Random } from '../../random.ts';
import { paceAt } from '../../timing/tempoCurve.ts';
import { EPSILON } from '../../timing/tolerance.ts';
import type { Beats, Seconds } from '../../timing/units.ts';
import type { Score } from '../scoreEvents.ts';
import { type HeardSoFar, type Hypothesis, type MisreadingKind, type SlippingTake, shifted } from './hypothesis.ts';
import { isDottedBeat, randomPlace } from './writtenPlaces.ts';

/** Nats: as likely as a misread place; how much time it got is anything. A stop may be anywhere, and of any length. */
const COST = { rest: 6, hold: 6.5, short: 8.3, stop: 7, breath: 3.5 };
/**
 * Nats for each beat beyond one, or half of what is written, that something got too much: the longer, the likelier it
 * is a stop.
 */
const LONGER = { rest: 1.2, hold: 2.5, beyond: 1, ofOwn: 0.5 };
/** Nats for each beat less than so many: a short wait at a rest or a long note was no stop. */
const NO_STOP = { rest: 2.2, hold: 1.7, ofOwn: 0.6, cost: 4 };
/** Less is unsteadiness: beats, and seconds. */
const LEAST = { beats: 0.3, seconds: 0.16 };
/** Seconds: a breath is shorter than that, but longer than this. */
const LEAST_BREATH: Seconds = 0.08;
/** Beats: a shorter stop is a note held or a rest kept too long. */
const LEAST_STOP: Beats = 0.7;
/** Beats: nearer to a half or a third than this it is meant to be just that. */
const NEAR: Beats = 0.13;
/** So many measures of rest are counted in measures, to so many beats. */
const MEASURES = 2;
const NEAR_MEASURE: Beats = 1.3;
/** Beats: what got no more got nothing at all. */
const NOTHING: Beats = 0.2;
/** So many claps before the first strange thing, and after it, it may have begun. */
const BEFORE = 8;
const AFTER = 4;
/** A note of fewer beats has no beat inside to be counted. */
const LONG: Beats = 2;
/** So many claps after a gap tell with it how long it was, where they come as written. */
const TELL = 3;
/** Beats by which they may differ. */
const ALIKE: Beats = 0.15;
/** Without a click the tempo before the gap is that of so many claps, over so many beats at least … */
const BEFORE_GAP = { claps: 4, beats: 1.5 };
/** … and no more than this part off what the whole take shows. */
const OFF_PACE = 0.3;

/** What stands between two claps and can get another time than its own: rests in a row are one. */
export interface Standing {
  readonly kind: 'rest' | 'hold';
  /** Index of its first event. */
  readonly event: number;
  readonly end: Seconds;
  readonly beats: Beats;
}

/** What is last between a note, or with -1 the beginning, and the next note; undefined where nothing is. */
export function standingAfter({ events, notes }: Score, note: number): Standing | undefined {
  const [from, to] = [notes[note] ?? -1, notes[note + 1] ?? -1];
  let event = from;
  for (let i = to - 1; i > from && events[i]!.kind === 'rest'; i--) event = i;
  const [first, last] = [events[event], events[to - 1]];
  if (!first || !last) return undefined;
  const kind = event === from ? 'hold' : 'rest';
  return { kind, event, end: last.end, beats: (last.end - first.time) / first.beat };
}

/** Every rest, those in a row as one, that a note follows. */
export function restsIn(score: Score): Standing[] {
  return [-1, ...score.notes.keys()].flatMap((note) => {
    const standing = standingAfter(score, note);
    return standing?.kind === 'rest' ? [standing] : [];
  });
}

/**
 * To the half beat, in compound meter to the third, where it is near to one; in a rest of measures to a whole one, for
 * over so long a time the tempo alone makes it uncertain.
 */
function meant(score: Score, { event, beats: own, kind }: Standing, more: Beats): Beats {
  const { division } = score.events[event]!;
  const { beatsInMeasure } = score;
  const measures = Math.round(more / beatsInMeasure) * beatsInMeasure;
  const many = kind === 'rest' && own > MEASURES * beatsInMeasure - EPSILON;
  if (many && measures !== 0 && Math.abs(measures - more) < NEAR_MEASURE) return measures;
  const nearest = Math.round(more * division) / division;
  return Math.abs(nearest - more) < NEAR ? nearest : more;
}

/** Seconds heard for each written one just before a clap. */
function paceBefore({ onsets, claps, hits, curve }: HeardSoFar, clap: number, beat: Seconds): number {
  const pace = paceAt(curve, claps[clap]!.time);
  const first = Math.max(0, clap - BEFORE_GAP.claps);
  for (let i = first; i < clap; i++) {
    const written = claps[clap]!.time - claps[i]!.time;
    if (hits[i]! < 0 || written < BEFORE_GAP.beats * beat) continue;
    const local = (onsets[hits[clap]!]! - onsets[hits[i]!]!) / written;
    return Math.min(pace * (1 + OFF_PACE), Math.max(pace * (1 - OFF_PACE), local));
  }
  return pace;
}

/**
 * Seconds by which the next onset after a clap that was heard comes later than written, at the child's pace before it;
 * the claps after it tell it too, where they come as written.
 */
function later(take: HeardSoFar, clap: number, beat: Seconds): Seconds {
  const { onsets, claps, hits } = take;
  const hit = hits[clap]!;
  const pace = paceBefore(take, clap, beat);
  const by: Seconds[] = [];
  for (let k = 1; k <= TELL; k++) {
    const [onset, next] = [onsets[hit + k], claps[clap + k]];
    if (onset === undefined || !next) break;
    const seconds = (onset - onsets[hit]!) / pace - (next.time - claps[clap]!.time);
    if (Math.abs(seconds - (by[0] ?? seconds)) > ALIKE * beat) break;
    by.push(seconds);
  }
  return by.reduce((sum, one) => sum + one, 0) / Math.max(1, by.length);
}

/** Something written that got another time than its own. */
interface Gap {
  readonly standing: Standing;
  /** More, or less where negative, in beats. */
  readonly more: Beats;
  readonly note: number;
}

const KNOWN = new WeakMap<HeardSoFar, readonly Gap[]>();

/** Each place at which the claps come later or earlier from there on, as far as the take can tell by itself. */
function gapsIn(score: Score, take: HeardSoFar): readonly Gap[] {
  const known = KNOWN.get(take);
  if (known) return known;
  const { onsets, claps, hits, first } = take;
  const found: Gap[] = [];
  claps.forEach((clap, i) => {
    const [hit, next] = [hits[i]!, claps[i + 1]];
    if (i < first - BEFORE || hit < 0 || hit + 1 >= onsets.length) return;
    if (clap.note < 0 || next?.note !== clap.note + 1) return;
    const standing = standingAfter(score, clap.note)!;
    const { beat } = score.events[standing.event]!;
    const seconds = later(take, i, beat);
    const more = meant(score, standing, seconds / beat);
    if (Math.abs(seconds) < LEAST_BREATH) return;
    // A stop shows wherever it is; what was cut short moves all that follows away from its notes.
    if (more < LEAST_STOP && i >= first + AFTER) return;
    found.push({ standing, more, note: clap.note });
  });
  KNOWN.set(take, found);
  return found;
}

/** A hypothesis that gives what stands there so many beats more, or less. */
function given(score: Score, { standing: { event, end, beats: own }, more }: Gap, cost: number): Hypothesis {
  const seconds = more * score.events[event]!.beat;
  const shift = { from: end, beats: more, seconds };
  return { event, cost, apply: (claps) => shifted(claps, end, seconds), shift, got: own + more };
}

const isLong = ({ kind, beats }: Standing): boolean => kind === 'rest' || beats > LONG - EPSILON;

/** No more, or less, than hands are uneven. */
function isUneven({ events }: Score, { standing, more }: Gap): boolean {
  return Math.abs(more) < LEAST.beats || Math.abs(more) * events[standing.event]!.beat < LEAST.seconds;
}

/** A breath at a bar line or after a rest: it is followed, and nothing is said of it. */
function breath(score: Score, gap: Gap): Hypothesis[] {
  const { more, note, standing } = gap;
  const next = score.events[score.notes[note + 1]!]!;
  const atBarLine = next.played !== score.events[score.notes[note]!]?.played;
  if (more < 0 || !isUneven(score, gap) || !(atBarLine || standing.kind === 'rest')) return [];
  return [{ ...given(score, gap, COST.breath), silent: true }];
}

/** What got another time than its own, where that can have the name: a rest or a note, too little or too much. */
function timeOf(kind: Standing['kind'], side: 1 | -1, score: Score, gap: Gap): Hypothesis[] {
  const { standing, more } = gap;
  if (standing.kind !== kind || more * side < 0 || isUneven(score, gap) || standing.beats + more < NOTHING) return [];
  // Of less than a beat nothing is left that could be cut, and who waits long on a short note has stopped.
  // A dot has names of its own.
  const dotted = isDottedBeat(score.events[standing.event]!);
  if (!isLong(standing) && (standing.beats < 1 - EPSILON || more >= LEAST_STOP || dotted)) return [];
  const usual = Math.max(LONGER.beyond, LONGER.ofOwn * standing.beats);
  const cost = (isLong(standing) ? COST[kind] : COST.short) + LONGER[kind] * Math.max(0, more - usual);
  return [given(score, gap, cost)];
}

/** A stop before the note that comes next. */
function stop(score: Score, { more, note, standing }: Gap): Hypothesis[] {
  if (more < LEAST_STOP) return [];
  const event = score.notes[note + 1]!;
  const seconds = more * score.events[standing.event]!.beat;
  const from = score.events[event]!.time;
  const shift = { from, beats: more, seconds };
  const below = Math.max(NO_STOP[standing.kind], NO_STOP.ofOwn * standing.beats);
  // At a short note nothing else can have taken the time.
  const cost = COST.stop + (isLong(standing) ? NO_STOP.cost * Math.max(0, below - more) : 0);
  return [{ event, cost, apply: (all) => shifted(all, from, seconds), shift }];
}

/** Rests, or notes, that got only part of their time, or more than it: the take shows which, and how much. */
export function timeGiven(kind: Standing['kind'], side: 1 | -1): (score: Score, take: HeardSoFar) => Hypothesis[] {
  return (score, take) => gapsIn(score, take).flatMap((gap) => timeOf(kind, side, score, gap));
}

/** What can get another time in a simulated take, of so many beats at least. */
function places(score: Score, kind: Standing['kind'], least: Beats): Standing[] {
  return score.notes.flatMap((_event, note) => {
    const standing = standingAfter(score, note);
    return standing?.kind === kind && standing.beats > least - EPSILON ? [standing] : [];
  });
}

function slipping(kind: Standing['kind'], least: Beats, halves: (beats: Beats, random: Random) => number) {
  return (take: SlippingTake, score: Score, random: Random): number | undefined => {
    const found = places(score, kind, least);
    if (found.length === 0) return undefined;
    const { event, end, beats } = random.pick(found);
    const { beat } = score.events[event]!;
    take.claps = shifted(take.claps, end, (halves(beats, random) / 2) * beat);
    return event;
  };
}

/** Gave a rest only part of its time. */
export const restTooShort: MisreadingKind = {
  about: 'place',
  noHabit: true,
  inTake: timeGiven('rest', -1),
  slip: slipping('rest', 1, (beats, random) => -1 - random.below(Math.max(1, Math.round(2 * beats) - 1))),
};

/** Held a note longer than written. */
export const holdTooLong: MisreadingKind = {
  about: 'place',
  noHabit: true,
  inTake: timeGiven('hold', 1),
  slip: slipping('hold', LONG, (_beats, random) => 1 + random.below(2)),
};

/** A gap in the claps that is longer than written, whatever its length; what follows is moved by it. */
export const hesitated: MisreadingKind = {
  about: 'place',
  noHabit: true,
  inTake: (score, take) => gapsIn(score, take).flatMap((gap) => [...stop(score, gap), ...breath(score, gap)]),
  slip: (take, score, random) => {
    const clap = randomPlace(take, random);
    if (!clap) return undefined;
    const event = score.notes[clap.note]!;
    take.claps = shifted(take.claps, clap.written, score.events[event]!.beat * (1 + 3 * random.next()));
    return event;
  },
};

/** The names for more or less time between a note and the next, by what stands there. */
const NAMES = [
  ['rest-too-short', 'rest', -1],
  ['rest-too-long', 'rest', 1],
  ['hold-cut', 'hold', -1],
  ['hold-too-long', 'hold', 1],
] as const;

/** One way to say it. */
interface Named {
  readonly code: (typeof NAMES)[number][0] | 'hesitated';
  readonly hypothesis: Hypothesis;
}

/**
 * Every way to say that between a note and the next came so much more time, or less.
 * @param seconds  by which the next note came later; negative is earlier
 */
export function namesOfGap(score: Score, note: number, seconds: Seconds): Named[] {
  const standing = standingAfter(score, note);
  if (!standing) return [];
  const gap = { standing, note, more: meant(score, standing, seconds / score.events[standing.event]!.beat) };
  return [
    ...NAMES.flatMap(([code, kind, side]) =>
      timeOf(kind, side, score, gap).map((hypothesis) => ({ code, hypothesis })),
    ),
    ...stop(score, gap).map((hypothesis) => ({ code: 'hesitated' as const, hypothesis })),
  ];
}
