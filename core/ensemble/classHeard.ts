import type { Pattern } from '../rhythm/pattern.ts';
import { type PlayedPlace, scheduleOf } from '../timing/schedule.ts';
import type { Bpm, Seconds } from '../timing/units.ts';
import { fallsApartAt } from './apart.ts';
import { type Fewer, fewerFrom } from './fewer.ts';
import { type Struck, placedClass } from './follow.ts';
import { lineThrough } from './line.ts';
import { paceOf } from './pace.ts';
import { spotsOf } from './spots.ts';
import { type Strikes, middlePartOf, shareOf } from './strikes.ts';

/** How a class had one written note. */
export interface ClassNoteHeard extends PlayedPlace {
  /** Among the sounded notes, in playing order. */
  readonly index: number;
  /** The time of the middle 80 % of its claps; undefined where too few were heard. */
  readonly widthMs?: number | undefined;
  /** How far the middle of its claps is before the beat; behind it is below 0. */
  readonly aheadMs?: number | undefined;
  /** Share of the class that was heard, beside what it is usually: 1 is a note like most. */
  readonly loudness: number;
  /** The share that came early in a lump of its own, and late; of the note's claps. Only where there is such a lump. */
  readonly early?: number;
  readonly late?: number;
}

/** Claps where none are written: a rest, a beat inside a long note. */
export interface ClassSilence extends PlayedPlace {
  readonly kind: 'rest' | 'hold';
  /** Of a full clap of the class. */
  readonly share: number;
}

/** How a class clapped a pattern as one. Nobody in it has a name. */
export interface ClassHeard {
  readonly notes: readonly ClassNoteHeard[];
  readonly rests: readonly ClassSilence[];
  readonly holds: readonly ClassSilence[];
  /** The first note from which on it is more than twice as wide as before. */
  readonly fallsApart?: PlayedPlace & { readonly index: number };
  /** The first note from which on it runs ahead of the beat, or drags behind. */
  readonly runs?: PlayedPlace & { readonly index: number };
  /** The first note from which on fewer of them clap, to the end; or from which on all do, after fewer at first. */
  readonly fewer?: PlayedPlace & Fewer;
  /** How much faster it is at the end than at the beginning, %; slower is below 0. */
  readonly driftPct: number;
  /** The middle of all widths. */
  readonly widthMs?: number | undefined;
  /** The middle of all that it was before the beat. */
  readonly aheadMs?: number | undefined;
  /** Too few hands to tell anything of a class: fewer than three. */
  readonly tooFew: boolean;
  /** 0 to 1: how much of what was heard lies at notes, and how many of them there are. */
  readonly confidence: number;
}

export interface ClassHeardOptions {
  /** Nobody clicked: where it begins and how fast it is, is found. Else the first moment is beat 1 of measure 1. */
  readonly free?: boolean;
  /** How many times as wide a class that falls apart must be; widths that were measured in a room differ less. */
  readonly apartTimes?: number;
  /** Hands that were heard, where that is known or was counted. */
  readonly hands?: number;
}

/** How the claps of one note lie; seconds. */
export interface Lie {
  readonly width: Seconds;
  readonly middle: Seconds;
}

/** Fewer hands are no class. */
export const FEWEST_HANDS = 3;
/** Less than this share of the usual one is no note: hands at other places, and noise. */
const LEAST_SHARE = 0.12;
/** Two lumps: a gap of so much of the width with next to nothing in it, and at least so large a part on each side. */
const LUMP = { gap: 0.35, inGap: 0.06, least: 0.2, widthMs: 90 };
/** So many notes make it as sure as it gets. */
const ENOUGH_NOTES = 4;

const median = (values: readonly number[]): number | undefined =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
const tenth = (ms: number) => Math.round(ms * 10) / 10 || 0;
const hundredth = (share: number) => Math.round(share * 100) / 100;
const isDefined = <T>(value: T | undefined): value is T => value !== undefined;

/** Whether a part of the class came in a lump before or after the others. */
function lumps(
  strikes: Strikes,
  struck: Struck,
  all: number,
  width: Seconds,
  beat: Seconds,
): { early?: number; late?: number } {
  if (width * 1000 < LUMP.widthMs) return {};
  const { times, shares } = strikes;
  const gap = LUMP.gap * width;
  let [before, inside, back] = [0, 0, struck.from];
  for (let i = struck.from; i < struck.to; i++) {
    inside += shares[i]!;
    for (; times[i]! - times[back]! > gap; back++) [before, inside] = [before + shares[back]!, inside - shares[back]!];
    const after = all - before - inside;
    if (inside - shares[i]! > LUMP.inGap * all || Math.min(before, after) < LUMP.least * all) continue;
    // Who is nearer to the beat is right, however few they are.
    const between = (times[back]! + times[i]!) / 2;
    return beat > between ? { early: hundredth(before / all) } : { late: hundredth(after / all) };
  }
  return {};
}

/** How the claps of a note lie, counted one by one. */
function counted(strikes: Strikes, struck: Struck): Lie | undefined {
  const part = middlePartOf(strikes, struck);
  return part && { width: part.to - part.from, middle: part.middle };
}

function noteHeard(strikes: Strikes, struck: Struck, lie: Lie | undefined, usual: number, at: Seconds): ClassNoteHeard {
  const { spot } = struck;
  const share = shareOf(strikes, struck);
  const known = share >= LEAST_SHARE * usual ? lie : undefined;
  return {
    index: spot.note!,
    ...spot.place,
    widthMs: known && tenth(known.width * 1000),
    aheadMs: known && tenth((at - known.middle) * 1000),
    loudness: hundredth(share / usual),
    ...(known ? lumps(strikes, struck, share, known.width, at) : {}),
  };
}

/** The loudest beat of each rest and of each long note, in order. */
function silences(strikes: Strikes, struck: readonly Struck[], kind: 'rest' | 'hold', usual: number): ClassSilence[] {
  const own = struck.filter(({ spot }) => spot.kind === kind);
  const events = [...new Set(own.map(({ spot }) => spot.event))];
  return events.map((event) => {
    const beats = own.filter(({ spot }) => spot.event === event);
    const shares = beats.map((beat) => shareOf(strikes, beat) / usual);
    const most = shares.indexOf(Math.max(...shares));
    // A rest is where it stands, a held note where the clap was.
    return { kind, ...beats[kind === 'rest' ? 0 : most]!.spot.place, share: hundredth(shares[most]!) };
  });
}

/**
 * How a class clapped a pattern together: how wide each note is, how far from its beat, and what was clapped in rests.
 * @param strikes  seconds from beat 1 of measure 1; with `free` from anywhere
 */
export function classHeard(pattern: Pattern, bpm: Bpm, strikes: Strikes, options: ClassHeardOptions = {}): ClassHeard {
  const struck = placedClass(strikes, spotsOf(scheduleOf(pattern, bpm)), options.free ?? false);
  const noted = struck.filter(({ spot }) => spot.kind === 'note');
  return classOf(
    strikes,
    struck,
    noted.map((one) => counted(strikes, one)),
    options,
  );
}

/**
 * The same, where what belongs to each spot is known.
 * @param struck  the strikes of each spot
 * @param lies  how the claps of each note lie
 */
export function classOf(
  strikes: Strikes,
  struck: readonly Struck[],
  lies: readonly (Lie | undefined)[],
  { free = false, hands, apartTimes }: ClassHeardOptions,
): ClassHeard {
  const noted = struck.filter(({ spot }) => spot.kind === 'note');
  const usual = median(noted.map((one) => shareOf(strikes, one))) || 1;
  // Without a click the class's own beat is the beat.
  const lying = noted.flatMap(({ spot }, i) => (lies[i] ? [{ time: spot.time, middle: lies[i].middle }] : []));
  const own =
    free && lying.length > 1
      ? lineThrough(
          lying.map(({ time }) => time),
          lying.map(({ middle }) => middle),
        )
      : undefined;
  const beatAt = (time: Seconds) => (own ? own.at + own.slope * time : time);
  const notes = noted.map((one, i) => noteHeard(strikes, one, lies[i], usual, beatAt(one.spot.time)));
  const widths = notes.map(({ widthMs }) => widthMs);
  const apart = fallsApartAt(widths, apartTimes);
  const pace = paceOf(noted.map(({ spot }, i) => ({ time: spot.time, aheadMs: notes[i]!.aheadMs })));
  const at = (index: number | undefined) => {
    const note = index === undefined ? undefined : notes[index];
    if (!note) return undefined;
    const { played, measure, beat, timeThrough } = note;
    return { index: note.index, played, measure, beat, ...(timeThrough === undefined ? {} : { timeThrough }) };
  };
  const [fallsApart, runs] = [at(apart), at(pace.from)];
  const few = fewerFrom(notes.map(({ loudness }) => loudness));
  const fewer = few && { ...at(few.index)!, kind: few.kind, share: hundredth(few.share) };
  const heard = noted.reduce((sum, one) => sum + shareOf(strikes, one), 0);
  const everything = struck.reduce((sum, one) => sum + shareOf(strikes, one), 0);
  const tooFew = heard === 0 || (hands !== undefined && hands < FEWEST_HANDS);
  const known = widths.filter(isDefined);
  return {
    notes,
    rests: silences(strikes, struck, 'rest', usual),
    holds: silences(strikes, struck, 'hold', usual),
    ...(fallsApart ? { fallsApart } : {}),
    ...(runs ? { runs } : {}),
    ...(fewer ? { fewer } : {}),
    driftPct: pace.driftPct,
    widthMs: median(known),
    aheadMs: median(notes.map(({ aheadMs }) => aheadMs).filter(isDefined)),
    tooFew,
    confidence: tooFew ? 0 : hundredth((heard / Math.max(1e-9, everything)) * Math.min(1, known.length / ENOUGH_NOTES)),
  };
}
