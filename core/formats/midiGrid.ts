import { type Fraction, ZERO, add, compare, div, floor, frac, mul, sub, toNumber } from '../rhythm/fraction.ts';
import { beatOf, meterLength } from '../rhythm/meter.ts';
import type { TupletPlace } from '../rhythm/place.ts';
import type { SoundSpan } from '../rhythm/spell.ts';
import { groupCells } from './groupCells.ts';
import { type EmptyMeasure, type LaidNote, layNotes } from './layNotes.ts';
import type { Leavings, RawMeasure } from './piece.ts';

/** A sound of a MIDI part: times in whole notes, as played. */
export interface PlayedNote {
  readonly from: number;
  readonly to: number;
}

/** Parts into which a beat may be divided, the simplest first; the odd ones are groups in other time. */
const DIVISIONS = {
  2: [1, 2, 3, 4, 6, 8, 5, 12, 7],
  3: [1, 3, 2, 6, 4, 12, 9],
} as const;
/** Where every tick is exact, finer places can be told apart. */
const FINE = { 2: [...DIVISIONS[2], 9, 10, 16, 24], 3: [...DIVISIONS[3], 8, 24, 18] } as const;
/** For what was played a little unevenly. */
const COARSE = { 2: [1, 2, 3, 4], 3: [1, 3, 2, 6] } as const;

/** Parts with which a beat is written in plain values, or as a group of its own that is common. */
const USUAL: Divisions = { 2: [1, 2, 3, 4, 5, 8], 3: [1, 2, 3, 4, 6, 12] };

/** Parts of a beat that a note may stand beside its place: exact files are rounded to a tick; some are made human. */
const EXACT = 0.016;
const HUMAN = 0.05;
/** The same for ends, which are played less exactly. */
const END_BESIDE = 0.045;
/** A sixteenth: what is never longer may be no length at all. */
const STRUCK = 1 / 16;
/** Ticks that a length may be off, both ends rounded; that an onset may be, rounded alone. */
const ROUNDED = 1.6;
const HALF = 0.55;
/** So few of a quarter are coarse. */
const COARSE_TICKS = 100;
/** So many of the notes must stand on the grid. */
const EXPLAINED = 0.98;

/**
 * Puts the sounds of a part on the simplest grid that explains them, beat by beat straight or in groups.
 * @param quarter   ticks of a quarter: how exact the file can be
 * @param leavings  of notes that begin where another one is put already: no grid tells them apart
 * @returns undefined where no grid does: it was played freely
 */
export function onGrid(
  notes: readonly PlayedNote[],
  measures: readonly EmptyMeasure[],
  quarter: number,
  leavings: Leavings,
): RawMeasure[] | undefined {
  for (const [divisions, tolerance] of [
    [FINE, Math.min(EXACT, HALF / quarter)],
    [FINE, Math.min(EXACT, ROUNDED / quarter)],
    [DIVISIONS, Math.max(EXACT, HALF / quarter)],
    [COARSE, HUMAN],
  ] as const) {
    const grid = new Grid(measures, divisions, tolerance, quarter);
    const placed = grid.place(notes);
    if (!placed) continue;
    leavings.add('close-notes', notes.length - placed.length);
    return grid.write(placed);
  }
  return undefined;
}

type Divisions = Readonly<Record<2 | 3, readonly number[]>>;

/** A beat of a measure, and into how many parts it is divided. */
interface GridBeat {
  readonly at: Fraction;
  readonly length: Fraction;
  readonly compound: boolean;
  division: number;
  /** Of a measure cut at its groups: what stands here, whatever its division. */
  readonly group?: { readonly n: number; readonly m: number } | 'none';
}

class Grid {
  private beats: readonly GridBeat[];
  private readonly ofMeasure: Map<EmptyMeasure, readonly GridBeat[]>;
  /** A first beat, in whole notes. */
  private readonly beat: number;

  constructor(
    private readonly measures: readonly EmptyMeasure[],
    private readonly divisions: Divisions,
    private readonly tolerance: number,
    private readonly quarter: number,
  ) {
    this.ofMeasure = new Map(measures.map((measure) => [measure, beatsOf(measure)]));
    this.beats = [...this.ofMeasure.values()].flat();
    this.beat = toNumber(this.beats[0]!.length);
  }

  /** The notes on the grid; undefined where too many are beside it. */
  place(notes: readonly PlayedNote[]): LaidNote[] | undefined {
    const byBeat = new Map<GridBeat, PlayedNote[]>();
    for (const note of notes) {
      const beat = this.beatAt(note.from);
      byBeat.set(beat, [...(byBeat.get(beat) ?? []), note]);
    }
    let beside = 0;
    for (const measure of this.measures) {
      const own = this.ofMeasure.get(measure)!;
      for (const beat of own) beat.division = this.simplest(beat, byBeat.get(beat) ?? []) ?? 0;
      if (own.every(({ division, compound }) => USUAL[compound ? 3 : 2].includes(division))) continue;
      const cells = this.cells(
        measure,
        own.flatMap((beat) => byBeat.get(beat) ?? []),
      );
      if (cells) this.ofMeasure.set(measure, cells);
      else for (const beat of own) if (beat.division === 0) beside += this.nearest(beat, byBeat.get(beat)!);
    }
    this.beats = [...this.ofMeasure.values()].flat();
    if (beside > notes.length * (1 - EXPLAINED)) return undefined;
    return this.snapped(notes, gateOf(notes, Math.max(this.tolerance, ROUNDED / this.quarter) / 4, this.quarter));
  }

  /** The fewest parts that give every onset of a beat a place. */
  private simplest(beat: GridBeat, notes: readonly PlayedNote[]): number | undefined {
    return this.divisions[beat.compound ? 3 : 2].find((division) =>
      notes.every(({ from }) => this.near(beat, from, division)),
    );
  }

  /** The measure cut at its groups, where they do not begin and end with the beats. */
  private cells({ at, meter, length, pickup }: EmptyMeasure, notes: readonly PlayedNote[]): GridBeat[] | undefined {
    if (this.divisions !== FINE) return undefined;
    const from = pickup ? sub(meterLength(meter), length) : ZERO;
    const shift = toNumber(from) - toNumber(at);
    const onsets = notes.map((note) => note.from + shift);
    const ends = notes.map((note) => note.to + shift);
    const exact = this.tolerance * this.quarter < 1;
    return groupCells(from, length, onsets, ends, this.tolerance / 4, exact)?.map((cell) => ({
      ...cell,
      group: cell.group ?? 'none',
      at: add(at, sub(cell.at, from)),
      compound: false,
    }));
  }

  /** Divides a beat that no parts explain by those that explain most of it, and counts the rest. */
  private nearest(beat: GridBeat, onsets: readonly PlayedNote[]): number {
    const least = this.divisions[beat.compound ? 3 : 2].map((division) => ({
      division,
      off: onsets.filter(({ from }) => !this.near(beat, from, division)).length,
    }));
    const best = least.reduce((a, b) => (b.off < a.off ? b : a));
    beat.division = best.division;
    return best.off;
  }

  write(notes: readonly LaidNote[]): RawMeasure[] {
    return layNotes(notes, this.measures, (measure, shift, stretches) => this.tuplets(measure, shift, stretches));
  }

  private beatAt(time: number): GridBeat {
    let [low, high] = [0, this.beats.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      const { at, length } = this.beats[middle]!;
      // A note a little before a beat belongs to it.
      if (toNumber(at) - toNumber(length) * this.tolerance <= time) low = middle;
      else high = middle - 1;
    }
    return this.beats[low]!;
  }

  private near({ at, length }: GridBeat, time: number, division: number): boolean {
    const place = ((time - toNumber(at)) / toNumber(length)) * division;
    return Math.abs(place - Math.round(place)) <= this.tolerance * division;
  }

  private snap(time: number): Fraction {
    const { at, length, division } = this.beatAt(time);
    const place = Math.round(((time - toNumber(at)) / toNumber(length)) * division);
    return add(at, mul(length, frac(place, division)));
  }

  private snapped(notes: readonly PlayedNote[], gate: number): LaidNote[] {
    const placed: LaidNote[] = [];
    notes.forEach(({ from, to }) => {
      const start = this.snap(from);
      const before = placed.at(-1);
      if (before && compare(before.from, start) === 0) return;
      if (before && compare(before.to, start) > 0) before.to = start;
      const end = this.endOf(from, to, gate, start);
      placed.push({ from: start, to: end });
    });
    const last = this.beats.at(-1)!;
    const over = add(last.at, last.length);
    for (const note of placed) if (compare(note.to, over) > 0) note.to = over;
    // What was struck just before the end, and would begin at it, has no place.
    return placed.filter(({ from }) => compare(from, over) < 0);
  }

  /** As long as its gate says; never nothing: at least to the next place of the grid. */
  private endOf(from: number, to: number, gate: number, start: Fraction): Fraction {
    const { length, division } = this.beatAt(toNumber(start) + 1e-9);
    const part = div(length, frac(division));
    const end = gate === 0 ? this.nextPlace(to) : this.endAt(from + (to - from) / gate);
    return compare(end, start) > 0 ? end : add(start, part);
  }

  /** Where the length tells nothing: the next place of the grid that it reaches. */
  private nextPlace(time: number): Fraction {
    const { at, length, division } = this.beatAt(time);
    const parts = Math.ceil(((time - toNumber(at)) / toNumber(length)) * division - 0.02);
    return add(at, mul(length, frac(Math.max(0, parts), division)));
  }

  /** The simplest place of a beat where a note can have ended; it may divide a beat in which nothing begins. */
  private endAt(time: number): Fraction {
    const beat = this.beatAt(time - this.beat * END_BESIDE);
    const { at, length } = beat;
    const place = (time - toNumber(at)) / toNumber(length);
    const straight = this.divisions[beat.compound ? 3 : 2].filter((division) => beat.compound || division <= 4);
    const known = beat.group ? [] : beat.division === 1 ? [1, ...straight] : [1, beat.division];
    const fits = (division: number) =>
      Math.abs(place * division - Math.round(place * division)) <= END_BESIDE * division;
    const division = known.find(fits) ?? beat.division;
    if (beat.division === 1 && !beat.group) beat.division = division;
    return add(at, mul(length, frac(Math.round(place * division), division)));
  }

  /** The groups of a measure: three in the time of two over two beats or four where that is what was played. */
  private tuplets(measure: EmptyMeasure, shift: Fraction, stretches: readonly SoundSpan[]): TupletPlace[] {
    const own = this.ofMeasure.get(measure)!;
    const places: TupletPlace[] = [];
    for (let i = 0; i < own.length; i++) {
      const { at, length, division, compound, group } = own[i]!;
      const odd = oddPart(division);
      const onset = add(at, shift);
      if (group) {
        if (group !== 'none') places.push({ ...group, onset, length });
        continue;
      }
      const wide = WIDE.find(
        ({ n, beats }) => i % beats === 0 && inParts(n, own.slice(i, i + beats), beats, onset, stretches),
      );
      if (wide !== undefined) {
        places.push({ n: wide.n, m: wide.m, onset, length: mul(length, frac(wide.beats)) });
        i += wide.beats - 1;
        continue;
      }
      // One note, or one rest, is no group.
      const inside = stretches.some(({ to }) => compare(to, onset) > 0 && compare(to, add(onset, length)) < 0);
      if (!inside) continue;
      if (compound ? division === 1 || odd === 3 : odd === 1) continue;
      if (compound) places.push({ n: division, m: division === 9 ? 6 : 3, onset, length });
      else places.push({ ...groupOf(division), onset, length });
    }
    return places;
  }
}

/** In a simple beat: three in the time of two, five of four, twelve of eight. */
function groupOf(division: number): { n: number; m: number } {
  return { n: division, m: 2 ** Math.floor(Math.log2(division)) };
}

/** Groups over several beats: three in the time of two of them, or of four; five in the time of four. */
const WIDE = [
  { n: 3, m: 2, beats: 4 },
  { n: 3, m: 2, beats: 2 },
  { n: 5, m: 4, beats: 4 },
  { n: 5, m: 4, beats: 2 },
] as const;

/** Whether everything in so many beats begins and ends at such a part of them all. */
function inParts(
  parts: number,
  beats: readonly GridBeat[],
  count: number,
  onset: Fraction,
  stretches: readonly SoundSpan[],
): boolean {
  if (beats.length < count || !beats.every(({ division, compound }) => division === parts && !compound)) return false;
  const part = div(mul(beats[0]!.length, frac(count)), frac(parts));
  const end = add(onset, mul(part, frac(parts)));
  const inside = stretches
    .flatMap(({ from, to }) => [from, to])
    .filter((time) => compare(time, onset) > 0 && compare(time, end) < 0);
  return inside.length > 0 && inside.every((time) => div(sub(time, onset), part).d === 1);
}

function oddPart(n: number): number {
  return n % 2 === 0 ? oddPart(n / 2) : n;
}

function beatsOf({ meter, at, length, pickup }: EmptyMeasure): GridBeat[] {
  const beat = beatOf(meter);
  const full = meterLength(meter);
  const beats: GridBeat[] = [];
  // A pickup ends with its measure: its beats are the last ones.
  const offset = pickup ? sub(full, length) : ZERO;
  const first = floor(div(offset, beat.length));
  for (let k = first; compare(mul(beat.length, frac(k)), add(offset, length)) < 0; k++) {
    const from = mul(beat.length, frac(k));
    const left = sub(full, from);
    const lasts = compare(left, beat.length) < 0 ? left : beat.length;
    beats.push({ at: add(at, sub(from, offset)), length: lasts, compound: beat.division === 3, division: 1 });
  }
  return beats;
}

/** Which part of its written length a note sounds, as programs play them. */
const GATES = [
  1,
  0.99,
  0.98,
  0.97,
  0.96,
  0.95,
  0.94,
  0.93,
  0.92,
  0.9,
  0.88,
  0.875,
  0.85,
  0.8,
  0.75,
  0.7,
  2 / 3,
  0.6,
  0.5,
];

/**
 * Which part of their written length the notes sound; 0 where their lengths tell nothing.
 * @param tolerance  in whole notes
 */
function gateOf(notes: readonly PlayedNote[], tolerance: number, quarter: number): number {
  const units = quarter < COARSE_TICKS ? [16, 12] : [16, 32, 12, 24, 20];
  const gaps = notes.map(({ from }, i) => (notes[i + 1]?.from ?? Infinity) - from);
  // What is held over into the next note sounds up to there.
  const lengths = notes.map(({ from, to }, i) => Math.min(to - from, gaps[i]!));
  // All of them stop by the same part before the next: that is how they are played, not how they are written.
  const ratios = lengths.flatMap((length, i) => (Number.isFinite(gaps[i]) ? [length / gaps[i]!] : []));
  const usual = [...ratios].sort((a, b) => a - b)[ratios.length >> 1] ?? 1;
  const alike = ratios.filter((ratio) => Math.abs(ratio - usual) < 0.01).length;
  if (usual < 0.97 && ratios.length >= 4 && alike > ratios.length * 0.8) return usual;
  // All of one length, and shorter than what any of them stands for: a drum is only struck.
  const [shortest, longest] = [Math.min(...lengths), Math.max(...lengths)];
  const struck = longest <= STRUCK && longest - shortest <= longest * 0.05 && longest < 0.97 * Math.min(...gaps);
  if (struck && Math.max(...gaps.filter(Number.isFinite)) > 1.4 * Math.min(...gaps)) return 0;
  const fits = (gate: number) =>
    lengths.filter((length) => {
      const written = length / gate;
      return units.some((unit) => {
        const count = written * unit;
        return Math.round(count) > 0 && Math.abs(count - Math.round(count)) < tolerance * unit;
      });
    }).length;
  return GATES.find((gate) => fits(gate) >= lengths.length * 0.95) ?? 0;
}
