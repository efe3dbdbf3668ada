import type { Seconds } from '../timing/units.ts';
import type { Score } from './scoreEvents.ts';

/**
 * The likeliest ways through what is written, as the claps of a take go: from note to note, with time put in or taken
 * out between two of them, by any amount, and with jumps from measure to measure. It is a first sketch, clap by clap:
 * each is compared with the one before it alone. What it finds is laid over the take as a whole afterwards.
 */
export type Move =
  /** Between two claps comes more time than written, or less. */
  | { readonly kind: 'shift'; readonly before: number; readonly note: number; readonly seconds: Seconds }
  /** The notes and claps between two others that belong together have nothing to do with each other. */
  | { readonly kind: 'lost'; readonly before: number; readonly note: number; readonly claps: readonly [number, number] }
  | Jump;

/** After the last note of a measure it goes on with the first of another than the next; so many claps come then. */
export interface Jump {
  readonly kind: 'jump';
  readonly from: number;
  readonly to: number;
  readonly left: number;
}

/** One way through a take. */
export interface Path {
  /** What was done besides clapping note after note, in the order of the claps. */
  readonly moves: readonly Move[];
  /** The note of each clap, or -1. */
  readonly noteOf: Int32Array;
}

/** Seconds by which the distance of two claps is uncertain, and the part of it that the tempo leaves open. */
const SPREAD = 0.05;
const OF_GAP = { click: 0.012, free: 0.035 };
/** Nats, as in `Aligner`; claps too many and notes missed can still turn out to be meant, and cost less here. */
const MISSED = 4.5;
const EXTRA = 4;
const JUMP = 7;
/** Time put in or taken out: by half beats, and by any other amount; more for each beat beyond a few. */
const SHIFT = { half: 5.5, any: 7, long: 0.6, few: 3 };
/** Beats: less is unsteadiness. */
const LEAST_SHIFT = 0.28;
const NEAR_HALF = 0.13;
/** A silence of whole measures, so many at most, costs no more than this, and a little for each note. */
const SILENT = { once: 7, each: 0.3, most: 5 };
/** So many claps too many, or notes missed, in a row are looked at. */
const SOME = 2;
/** A way that costs so much more than the cheapest so far is not followed. */
const BEYOND = 22;
/** No more measures in a row are left out or played again. */
const FARTHEST = 16;
/** Beats: no two notes are clapped nearer together. */
const TOO_NEAR = 1 / 6;
/** Claps before the first note, and notes that were not clapped yet. */
const BEFORE_START = 4;

/** Nats: claps and notes that have nothing to do with each other, right again after them, and each of them. */
const LOST = { once: 9, each: 0.6, least: 2, most: 9 };

/** What is allowed on the way. */
export interface Allowed {
  readonly jumps: boolean;
  /** To be lost for a stretch, and right again in its place. */
  readonly lost?: true;
  /** Seconds heard for each written one. */
  readonly pace: number;
}

/** The notes by measure, in playing order: the first and the last of each, -1 where it has none. */
function notesOf({ events, notes, measures }: Score) {
  const first = measures.map(() => -1);
  const last = measures.map(() => -1);
  notes.forEach((index, note) => {
    const { played } = events[index]!;
    if (first[played]! < 0) first[played] = note;
    last[played] = note;
  });
  return { first, last };
}

/** How a cell was reached, where not straight on: by so many seconds more or less, or by one of these. */
const STRAIGHT = 0;
const JUMPED = Infinity;
const LOST_THERE = -Infinity;

function missedCost(many: number): number {
  return many <= SOME ? many * MISSED : Math.min(many * MISSED, SILENT.once + many * SILENT.each);
}

/** Nats for two claps that are so many seconds further apart than written. */
function uneven(seconds: Seconds, written: Seconds, ofGap: number): number {
  const spread = SPREAD + ofGap * written;
  return (seconds * seconds) / (2 * spread * spread);
}

/** Nats for time put in or taken out. */
function shiftCost(seconds: Seconds, beat: Seconds): number {
  const beats = Math.abs(seconds) / beat;
  if (beats < LEAST_SHIFT) return Infinity;
  const off = Math.abs(beats * 2 - Math.round(beats * 2)) / 2;
  return (off < NEAR_HALF ? SHIFT.half : SHIFT.any) + SHIFT.long * Math.max(0, beats - SHIFT.few);
}

/** A clap on a note: the cheapest way to it so far. Cells lie clap after clap, each with all notes. */
class Cells {
  readonly cost: Float64Array;
  /** The cell before, or -1. */
  readonly back: Int32Array;
  readonly moved: Float64Array;
  /** The cheapest cell of each clap. */
  readonly best: Float64Array;

  constructor(
    readonly notes: number,
    readonly claps: number,
  ) {
    this.cost = new Float64Array(notes * claps).fill(Infinity);
    this.back = new Int32Array(notes * claps).fill(-1);
    this.moved = new Float64Array(notes * claps);
    this.best = new Float64Array(claps).fill(Infinity);
  }

  offer(clap: number, note: number, cost: number, back: number, moved: number): void {
    const cell = clap * this.notes + note;
    if (cost >= this.cost[cell]!) return;
    this.cost[cell] = cost;
    this.back[cell] = back;
    this.moved[cell] = moved;
    if (cost < this.best[clap]!) this.best[clap] = cost;
  }

  /** The last clap of the cheapest way: those after it are too many, and the notes after it were not clapped. */
  end(): number {
    let end = -1;
    let least = Infinity;
    for (let clap = Math.max(0, this.claps - 1 - SOME); clap < this.claps; clap++) {
      for (let note = 0; note < this.notes; note++) {
        const cell = clap * this.notes + note;
        const total = this.cost[cell]! + (this.claps - 1 - clap) * EXTRA + missedCost(this.notes - 1 - note);
        if (total < least) [least, end] = [total, cell];
      }
    }
    return end;
  }
}

/**
 * The cheapest way through a take.
 * @param onsets  seconds, rising, by the click; in a free take from anywhere
 * @param start   seconds from the click at which what is written at 0 is due; undefined where it may begin anywhere
 */
export function cheapestPath(score: Score, onsets: Float64Array, allowed: Allowed, start: Seconds | undefined): Path {
  const { pace } = allowed;
  const beat = score.beat * pace;
  const times = Float64Array.from(score.notes, (index) => score.events[index]!.time * pace);
  const cells = new Cells(times.length, onsets.length);
  for (let clap = 0; clap <= Math.min(BEFORE_START, onsets.length - 1); clap++) {
    times.forEach((time, note) => {
      const late = start === undefined ? 0 : onsets[clap]! - start - time;
      const begin = Math.min(uneven(late, beat, OF_GAP.free), shiftCost(late, beat));
      cells.offer(clap, note, begin + clap * EXTRA + missedCost(note), -1, STRAIGHT);
    });
  }
  const steps = new Steps(score, onsets, times, beat, cells, start === undefined ? OF_GAP.free : OF_GAP.click);
  for (let clap = 0; clap < onsets.length - 1; clap++) {
    const limit = cells.best[clap]! + BEYOND;
    for (let note = 0; note < times.length; note++) {
      if (cells.cost[clap * times.length + note]! > limit) continue;
      steps.on(clap, note);
      if (allowed.jumps) steps.jumps(clap, note);
      if (allowed.lost) steps.lost(clap, note);
    }
  }
  return pathOf(cells, steps.played);
}

/** Where it can go on from a clap on a note. */
class Steps {
  /** Index of the measure of each note, in playing order. */
  readonly played: readonly number[];
  private readonly first: readonly number[];
  private readonly last: readonly number[];
  private readonly from: readonly Seconds[];
  private readonly to: readonly Seconds[];

  constructor(
    score: Score,
    private readonly onsets: Float64Array,
    private readonly times: Float64Array,
    private readonly beat: Seconds,
    private readonly cells: Cells,
    private readonly ofGap: number,
  ) {
    this.played = score.notes.map((index) => score.events[index]!.played);
    ({ first: this.first, last: this.last } = notesOf(score));
    // Times were stretched by the child's pace.
    const pace = beat / score.beat;
    this.from = score.measures.map(({ from }) => from * pace);
    this.to = score.measures.map(({ to }) => to * pace);
  }

  /** On to a later note, straight or with some time more or less. */
  private step(cell: number, clap: number, note: number, cost: number, written: Seconds, gap: Seconds): void {
    const off = gap - written;
    const straight = uneven(off, written, this.ofGap);
    this.cells.offer(clap, note, cost + straight, cell, STRAIGHT);
    // Too near to the clap before it is none of this note.
    if (straight > SHIFT.half && gap > this.beat * TOO_NEAR)
      this.cells.offer(clap, note, cost + shiftCost(off, this.beat), cell, off);
  }

  on(clap: number, note: number): void {
    const { onsets, times, cells, first, played } = this;
    const cell = clap * cells.notes + note;
    const cost = cells.cost[cell]!;
    for (let extra = 0; extra <= SOME && clap + 1 + extra < onsets.length; extra++) {
      const next = clap + 1 + extra;
      const gap = onsets[next]! - onsets[clap]!;
      for (let missed = 0; missed <= SOME && note + 1 + missed < times.length; missed++) {
        const to = note + 1 + missed;
        this.step(cell, next, to, cost + extra * EXTRA + missed * MISSED, times[to]! - times[note]!, gap);
      }
    }
    // Only whole measures are left silent: it goes on with the first note of one.
    const gap = onsets[clap + 1]! - onsets[clap]!;
    for (let silent = 1; silent <= SILENT.most; silent++) {
      const to = first[played[note]! + silent];
      if (to === undefined) break;
      if (to <= note + 1 + SOME) continue;
      this.step(cell, clap + 1, to, cost + missedCost(to - note - 1), times[to]! - times[note]!, gap);
    }
  }

  /** From the last note of a measure to the first of any other. */
  jumps(clap: number, note: number): void {
    const { onsets, times, cells, first, last, played } = this;
    const here = played[note]!;
    if (last[here] !== note) return;
    const cell = clap * cells.notes + note;
    const gap = onsets[clap + 1]! - onsets[clap]!;
    const left = this.to[here]! - times[note]!;
    for (let to = Math.max(0, here - FARTHEST); to < Math.min(first.length, here + FARTHEST); to++) {
      const next = first[to]!;
      if (to === here + 1 || next < 0) continue;
      const written = left + times[next]! - this.from[to]!;
      cells.offer(clap + 1, next, cells.cost[cell]! + JUMP + uneven(gap - written, written, this.ofGap), cell, JUMPED);
    }
  }

  /** Right again with a later clap on a later note, after a stretch in which nothing fitted. */
  lost(clap: number, note: number): void {
    const { onsets, times, cells } = this;
    const cell = clap * cells.notes + note;
    for (let claps = 0; claps <= LOST.most && clap + 1 + claps < onsets.length; claps++) {
      const next = clap + 1 + claps;
      const gap = onsets[next]! - onsets[clap]!;
      for (let silent = LOST.least; silent <= LOST.most && note + 1 + silent < times.length; silent++) {
        const to = note + 1 + silent;
        const written = times[to]! - times[note]!;
        const unlike = LOST.each * (claps + silent) + uneven(gap - written, written, this.ofGap);
        const cost = cells.cost[cell]! + LOST.once + unlike;
        cells.offer(next, to, cost, cell, LOST_THERE);
      }
    }
  }
}

function pathOf(cells: Cells, played: readonly number[]): Path {
  const { back, moved, notes } = cells;
  const moves: Move[] = [];
  const noteOf = new Int32Array(cells.claps).fill(-1);
  for (let cell = cells.end(); cell >= 0; cell = back[cell]!) {
    noteOf[Math.floor(cell / notes)] = cell % notes;
    if (back[cell]! < 0) break;
    const [note, before] = [cell % notes, back[cell]! % notes];
    const [clap, clapBefore] = [Math.floor(cell / notes), Math.floor(back[cell]! / notes)];
    const by = moved[cell]!;
    if (by === JUMPED) moves.push({ kind: 'jump', from: played[before]!, to: played[note]!, left: cells.claps - clap });
    else if (by === LOST_THERE) moves.push({ kind: 'lost', before, note, claps: [clapBefore, clap] });
    else if (by !== STRAIGHT) moves.push({ kind: 'shift', before, note, seconds: by });
  }
  return { moves: moves.reverse(), noteOf };
}
