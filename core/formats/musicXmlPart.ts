import { t } from '../words/say.ts';
import { type Fraction, ZERO, add, compare, equal, frac, mul, sub, sum } from '../rhythm/fraction.ts';
import { COMMON_TIME, type Meter, meterLength } from '../rhythm/meter.ts';
import type { NoteValue } from '../rhythm/value.ts';
import { freeMeter } from './freeMeter.ts';
import {
  type Budget,
  Leavings,
  type LeftOutKind,
  type RawEvent,
  type RawMeasure,
  type RawVoice,
  type Ratio,
} from './piece.ts';

/** What a `<note>` says, collected while it is read. */
export interface NoteFacts {
  voice: string;
  /** Of a part on several staves; empty where none is said. */
  staff: string;
  rest: boolean;
  /** `<rest measure="yes">` */
  measureRest: boolean;
  chord: boolean;
  grace: boolean;
  cue: boolean;
  pitched: boolean;
  /** Step, alteration and octave, to tell a tie from a slur. */
  pitch: string;
  letter: string;
  duration: Fraction | undefined;
  /** The sign, and how long it is: also of signs that rhythm text has no letter for. */
  value: NoteValue | undefined;
  written: Fraction | undefined;
  ratio: Ratio | undefined;
  tieStart: boolean;
  tieStop: boolean;
  groupStarts: number;
  groupStops: number;
  label: string | undefined;
}

/** Marks of a measure that all voices share. */
export interface MeasureMarks {
  number?: number;
  uncounted?: boolean;
  letter?: string;
  restRun?: number;
  repeatStart?: boolean;
  repeatEnd?: number;
  ending?: readonly number[];
  endingStops?: boolean;
}

/** A sounding or silent stretch of one voice, as its durations say and as its signs say. */
interface Entry {
  readonly onset: Fraction;
  length: Fraction;
  readonly note: NoteFacts;
  /** Every note of the chord. */
  readonly pitches: { readonly pitch: string; readonly start: boolean; readonly stop: boolean }[];
  readonly groupStart: boolean;
  readonly groupEnd: boolean;
  /** Tied to the next; and whether the file says that something is tied to it. */
  tied?: boolean;
  saysTiedIn?: boolean;
}

/** What one voice has on one staff. */
interface VoiceState {
  readonly measures: Map<number, Entry[]>;
  readonly leavings: Leavings;
}

/** One part of a score while it is read, measure by measure. */
export class PartReader {
  divisions: Fraction = frac(1);
  meter: Meter = COMMON_TIME;
  /** No meter is written: each measure is as long as what is in it. */
  free = false;
  /** The sign for measures that are played again holds: so many of them; 0 where it does not. */
  repeated = 0;
  readonly infos: { meter: Meter; length: Fraction; marks: MeasureMarks; again: number }[] = [];
  private nextMeter: Meter | undefined;
  private cursor = ZERO;
  private farthest = ZERO;
  private marks: MeasureMarks = {};
  private last: Entry | undefined;
  /** By voice, and of each by staff. */
  private readonly voices = new Map<string, Map<string, VoiceState>>();
  /** How many groups of a voice are open: they may cross to another staff. */
  private readonly openGroups = new Map<string, number>();

  constructor(private readonly budget: Budget) {}

  begin(marks: MeasureMarks): void {
    this.marks = marks;
    this.cursor = ZERO;
    this.farthest = ZERO;
    this.last = undefined;
    if (this.nextMeter) this.meter = this.nextMeter;
    this.nextMeter = undefined;
    this.openGroups.clear();
  }

  mark(marks: MeasureMarks): void {
    Object.assign(this.marks, marks);
  }

  /** A meter in the middle of a measure holds from the next. */
  setMeter(meter: Meter): void {
    this.free = false;
    if (this.farthest.n === 0) this.meter = meter;
    else this.nextMeter = meter;
  }

  /** @param duration  in divisions of a quarter */
  lengthOf(duration: Fraction): Fraction {
    return mul(duration, frac(this.divisions.d, this.divisions.n * 4));
  }

  move(by: Fraction): void {
    const to = add(this.cursor, by);
    this.cursor = compare(to, ZERO) < 0 ? ZERO : to;
    if (compare(this.cursor, this.farthest) > 0) this.farthest = this.cursor;
    this.last = undefined;
  }

  note(note: NoteFacts): void {
    this.budget.use('notes');
    const voice = this.voiceOf(note);
    if (note.grace) {
      voice.leavings.add('grace-notes');
      return;
    }
    if (note.pitched) voice.leavings.add('pitches');
    const pitch = { pitch: note.pitch, start: note.tieStart, stop: note.tieStop };
    if (note.chord && this.last) {
      voice.leavings.add('chord-notes');
      this.last.pitches.push(pitch);
      // The letter of a chord is that of its last note, usually the highest: the tune.
      if (note.letter !== '') this.last.note.letter = note.letter;
      return;
    }
    const length = note.duration === undefined ? (note.written ?? ZERO) : this.lengthOf(note.duration);
    if (note.cue) voice.leavings.add('cue-notes');
    const open = this.openGroups.get(note.voice) ?? 0;
    const stillOpen = Math.max(0, open + note.groupStarts - note.groupStops);
    this.openGroups.set(note.voice, stillOpen);
    const groupStart = note.groupStarts > 0 && open === 0;
    const groupEnd = note.groupStops > 0 && stillOpen === 0;
    const entry: Entry = { onset: this.cursor, length, note, pitches: [pitch], groupStart, groupEnd };
    if (length.n > 0) {
      const entries = voice.measures.get(this.infos.length) ?? [];
      entries.push(entry);
      voice.measures.set(this.infos.length, entries);
    }
    this.move(length);
    this.last = entry;
  }

  voiceLeavings(of: Pick<NoteFacts, 'voice' | 'staff'>): Leavings {
    return this.voiceOf(of).leavings;
  }

  end(): void {
    // Every voice has each of them.
    this.budget.use('measures', Math.max(1, this.voices.size));
    const meter = this.free ? freeMeter(this.farthest) : this.meter;
    const length = this.farthest.n === 0 ? meterLength(meter) : this.farthest;
    this.infos.push({ meter, length, marks: this.marks, again: this.repeated });
  }

  /** @param letters  rehearsal letters of all parts, by measure: they stand over the topmost only */
  finished(literal: boolean, letters: ReadonlyMap<number, string>): RawVoice[] {
    if (this.voices.size === 0 && this.infos.length > 0) this.voiceOf({ voice: '1', staff: '' });
    return [...this.voices]
      .flatMap(([id, staves]) => byStaves(id, staves))
      .map(([id, voice]) => ({
        id,
        leftOut: voice.leavings.counts,
        literal,
        measures: this.measuresOf(voice, literal, letters),
      }));
  }

  private measuresOf(voice: VoiceState, literal: boolean, letters: ReadonlyMap<number, string>): RawMeasure[] {
    const entries: Entry[][] = [];
    this.infos.forEach(({ again }, i) => {
      const own = voice.measures.get(i) ?? [];
      // Where the sign stands in place of the notes, they are those of before, each as an entry of its own.
      const silent = again > 0 && own.every(({ note }) => note.rest);
      entries.push(silent ? (entries[i - again] ?? own).map((entry) => ({ ...entry })) : own);
    });
    tieOver(entries.flat());
    return this.infos.map(({ meter, length, marks }, i) => {
      const letter = marks.letter ?? letters.get(i);
      return {
        meter,
        ...marks,
        ...(letter === undefined ? {} : { letter }),
        ...(literal && i === 0 ? { pickup: marks.uncounted === true } : {}),
        ...measureOf(entries[i]!, meter, length, i === 0 || marks.uncounted === true),
      };
    });
  }

  private voiceOf({ voice: id, staff }: Pick<NoteFacts, 'voice' | 'staff'>): VoiceState {
    const staves = this.voices.get(id) ?? new Map<string, VoiceState>();
    this.voices.set(id, staves);
    let voice = staves.get(staff);
    if (!voice) {
      this.budget.use('voices');
      // It was silent until now.
      this.budget.use('measures', this.infos.length);
      staves.set(staff, (voice = { measures: new Map(), leavings: new Leavings() }));
    }
    return voice;
  }
}

/** Something of the one staff is still going on where something of the other begins. */
function atOnce(a: VoiceState, b: VoiceState): boolean {
  const ends = ({ onset, length }: Entry) => add(onset, length);
  const over = (one: Entry, other: Entry) => compare(one.onset, ends(other)) < 0 && compare(other.onset, ends(one)) < 0;
  return [...a.measures].some(([i, own]) => own.some((one) => b.measures.get(i)?.some((other) => over(one, other))));
}

/**
 * Two staves may number their voices alike: those are voices of their own. What never sounds at once is one voice that
 * goes from staff to staff.
 */
function byStaves(id: string, staves: ReadonlyMap<string, VoiceState>): [string, VoiceState][] {
  const all = [...staves].sort(([a], [b]) => a.localeCompare(b, 'en', { numeric: true }));
  if (all.some(([, a], i) => all.slice(i + 1).some(([, b]) => atOnce(a, b))))
    return all.map(([staff, voice], i) => [i === 0 ? id : t`${id} staff ${staff}`, voice]);
  const [first, ...others] = all.map(([, voice]) => voice);
  for (const other of others) {
    for (const [i, own] of other.measures) {
      const both = [...(first!.measures.get(i) ?? []), ...own];
      first!.measures.set(
        i,
        both.sort((a, b) => compare(a.onset, b.onset)),
      );
    }
    for (const [kind, count] of Object.entries(other.leavings.counts)) first!.leavings.add(kind as LeftOutKind, count);
  }
  return [[id, first!]];
}

/** The events of one voice in one measure, gaps filled with rests. */
function measureOf(
  entries: readonly Entry[],
  meter: Meter,
  length: Fraction,
  mayBeShort: boolean,
): Pick<RawMeasure, 'events' | 'trouble'> {
  const full = meterLength(meter);
  const only = entries.length === 1 ? entries[0]! : undefined;
  if (only === undefined && entries.length === 0) {
    const whole = equal(length, full);
    return { events: [{ kind: 'rest', length, ...(whole ? { wholeMeasure: true } : {}) }] };
  }
  // A pickup of rests is as long as it is.
  const short = mayBeShort && only !== undefined && compare(length, full) < 0 && equal(only.length, length);
  if (only?.note.rest && !short && isMeasureRest(only, full))
    return { events: [{ kind: 'rest', length: full, wholeMeasure: true }] };
  const placed = withoutOverlaps(entries);
  const bySigns = believeSigns(placed, length, full);
  const events: RawEvent[] = [];
  let at = ZERO;
  for (const entry of placed) {
    const gap = sub(entry.onset, at);
    if (gap.n > 0) events.push({ kind: 'rest', length: gap });
    events.push(eventOf(entry, bySigns));
    at = add(entry.onset, entry.length);
  }
  const rest = sub(length, at);
  if (rest.n > 0) events.push({ kind: 'rest', length: rest });
  return { events, ...(bySigns === 'differs' ? { trouble: differenceOf(placed) } : {}) };
}

/** A rest that fills its measure: said so, or a whole rest in a measure of another length, or without a sign. */
function isMeasureRest({ onset, length, note }: Entry, full: Fraction): boolean {
  if (onset.n !== 0) return false;
  if (note.measureRest) return true;
  const fills = equal(length, full);
  return fills && (note.written === undefined || (!equal(note.written, full) && equal(note.written, frac(1))));
}

/** Notes of one voice that begin together are a chord; one that begins before another is over ends there. */
function withoutOverlaps(entries: readonly Entry[]): Entry[] {
  const sorted = [...entries].sort((a, b) => compare(a.onset, b.onset));
  const kept: Entry[] = [];
  for (const entry of sorted) {
    const before = kept.at(-1);
    if (before && equal(before.onset, entry.onset)) continue;
    if (before && compare(add(before.onset, before.length), entry.onset) > 0)
      kept[kept.length - 1] = {
        ...before,
        length: sub(entry.onset, before.onset),
        note: { ...before.note, value: undefined, written: undefined, ratio: undefined },
      };
    kept.push(entry);
  }
  return kept;
}

/**
 * Signs are believed, for durations are often rounded; but not where they do not fill the measure and the durations do.
 */
function believeSigns(entries: readonly Entry[], length: Fraction, full: Fraction): 'signs' | 'durations' | 'differs' {
  const differ = entries.some(({ length: lasts, note }) => note.written !== undefined && !equal(note.written, lasts));
  if (!differ) return 'signs';
  const signs = sum(entries.map(({ length: lasts, note }) => note.written ?? lasts));
  const durations = sum(entries.map(({ length: lasts }) => lasts));
  if (equal(signs, full)) return 'signs';
  return equal(durations, full) ? 'durations' : equal(durations, length) && equal(signs, length) ? 'signs' : 'differs';
}

function differenceOf(entries: readonly Entry[]): string {
  const signs = sum(entries.map(({ length, note }) => note.written ?? length));
  const durations = sum(entries.map(({ length }) => length));
  const quarters = (length: Fraction) => `${mul(length, frac(4)).n}/${mul(length, frac(4)).d}`.replace(/\/1$/, '');
  return t`its signs make ${quarters(signs)} quarters and its durations ${quarters(durations)};
    the signs are shown`;
}

function eventOf(entry: Entry, by: 'signs' | 'durations' | 'differs'): RawEvent {
  const { length, note, groupStart, groupEnd, tied = false, saysTiedIn = false } = entry;
  const { value, written, ratio, label, letter } = note;
  const silent = note.rest || note.cue;
  const signs = by !== 'durations' && written !== undefined;
  return {
    kind: silent ? 'rest' : 'note',
    length: signs ? written : length,
    ...(signs && value ? { value } : {}),
    ...(ratio && (by !== 'durations' || equal(length, written ?? length)) ? { ratio } : {}),
    ...(groupStart ? { groupStart } : {}),
    ...(groupEnd ? { groupEnd } : {}),
    ...(silent ? {} : { tied, tiedIn: saysTiedIn }),
    ...(label === undefined ? {} : { label }),
    ...(letter === '' ? {} : { letter }),
  };
}

/**
 * A note is tied on only if every note of it is: each says so, or the same pitch before it has the beginning of a tie.
 */
function tieOver(entries: readonly Entry[]): void {
  entries.forEach((entry, i) => {
    const before = entries[i - 1];
    const open = new Set(before?.pitches.flatMap(({ pitch, start }) => (start ? [pitch] : [])));
    const known = new Set(before?.pitches.map(({ pitch }) => pitch));
    entry.saysTiedIn = entry.pitches.every(({ stop }) => stop);
    if (before)
      before.tied =
        before.pitches.some(({ start }) => start) &&
        !entry.note.rest &&
        entry.pitches.every(({ pitch, stop }) => open.has(pitch) || (stop && (known.has(pitch) || open.size > 0)));
  });
  // What the last note leads to is nowhere: it is said with the other ties that lead to nothing.
  const last = entries.at(-1);
  if (last) last.tied = last.pitches.some(({ start }) => start);
}
