import { namesOfGap } from './misreadings/gaps.ts';
import { loopOf } from './misreadings/looped.ts';
import { FEWEST_AFTER, leftOut } from './misreadings/measureSkipped.ts';
import { stepped } from './misreadings/drifting.ts';
import { paced } from './misreadings/otherTempo.ts';
import { playedTwice } from './misreadings/measureRepeated.ts';
import type { CodedHypothesis } from './misreadings/table.ts';
import { EPSILON } from '../timing/tolerance.ts';
import type { Seconds } from '../timing/units.ts';
import { type Jump, type Move, type Path, cheapestPath } from './paths.ts';
import type { Score } from './scoreEvents.ts';
import { USUAL_LAG } from './usualLag.ts';

/** Several misreadings of one take together. */
export type Together = readonly CodedHypothesis[];

/** Beats: so near to what a known misreading moves, a move is just that. */
const JUST_THAT = 0.2;
/** Names tried for each move, and sets of them for each way through the take. */
const NAMES_EACH = 2;
const SETS = 4;
/** More moves than this are no slips any more. */
const MOST_MOVES = 8;
/** So many notes times claps are gone through at most: an hour of sixteenths takes too long. */
const MOST_CELLS = 500_000;

/** Every name that a move can have, the likeliest first. */
function namesOf(move: Move, score: Score, all: readonly CodedHypothesis[], pace: number): CodedHypothesis[] {
  if (move.kind === 'jump') {
    const { from, to, left } = move;
    if (to > from && left < FEWEST_AFTER) return [];
    const jumped = to > from ? leftOut(score, from + 1, to - from - 1) : playedTwice(score, to, from - to + 1);
    return jumped ? [{ ...jumped, code: to > from ? 'measure-skipped' : 'measure-repeated' }] : [];
  }
  if (move.kind === 'lost') return [];
  const seconds = move.seconds / pace;
  const [before, at] = [score.events[score.notes[move.before]!]!, score.events[score.notes[move.note]!]!];
  const known = all.filter(
    ({ shift, wholeTake, parts, leavesOut, paced }) =>
      shift !== undefined &&
      !wholeTake &&
      !parts &&
      !leavesOut &&
      !paced &&
      shift.from > before.time + EPSILON &&
      shift.from < at.time + EPSILON &&
      Math.abs(shift.seconds - seconds) < JUST_THAT * before.beat,
  );
  const gaps = namesOfGap(score, move.note - 1, seconds).map(({ code, hypothesis }) => ({ ...hypothesis, code }));
  return [...known, ...gaps].sort((a, b) => a.cost - b.cost);
}

/** All ways to take one of each. */
function choices<T>(from: readonly (readonly T[])[]): T[][] {
  return from.reduce<T[][]>((sets, next) => sets.flatMap((set) => next.map((one) => [...set, one])), [[]]);
}

/** Back from the same measure to the same again and again: a loop. */
function loopIn(score: Score, moves: readonly Move[], lastNote: number): Together[] {
  const back = moves.filter((move): move is Jump => move.kind === 'jump' && move.to <= move.from);
  const [first] = back;
  if (!first || back.length < 2 || back.some(({ from, to }) => from !== first.from || to !== first.to)) return [];
  const [begin, end] = [score.measures[first.to]!.from, score.measures[first.from]!.to];
  const inLoop = score.events[score.notes[lastNote]!]!.time - begin;
  const until = end + (back.length - 1) * (end - begin) + inLoop + score.beat / 4;
  const loop = loopOf(score, first.to, first.from - first.to + 1, until);
  return loop ? [[{ ...loop, code: 'looped' }]] : [];
}

function named(
  { moves, noteOf }: Path,
  score: Score,
  all: readonly CodedHypothesis[],
  pace: number,
): readonly Together[] {
  if (moves.length === 0 || moves.length > MOST_MOVES) return [];
  const back = moves.flatMap((move) => (move.kind === 'jump' && move.to <= move.from ? [move.to] : []));
  if (new Set(back).size < back.length) return loopIn(score, moves, noteOf.findLast((note) => note >= 0) ?? 0);
  const names = moves.map((move) => namesOf(move, score, all, pace).slice(0, NAMES_EACH));
  if (names.some((some) => some.length === 0)) return [];
  // Beyond a few moves each has its likeliest name alone.
  return choices(2 ** names.length > 2 ** SETS ? names.map(([one]) => [one!]) : names).slice(0, 2 ** SETS);
}

/** Nats for a measure that was hurried or slowed down, and each further one. */
const HURRIED = { first: 6.5, more: 2 };
/** Parts by which such a measure is faster or slower; what is steadier is none. */
const PACE = { faster: 0.07, slower: 0.08, most: 0.3 };
/** Seconds that it must gain, or lose: who only breathed was not slower. */
const LEAST: { readonly faster: Seconds; readonly slower: Seconds } = { faster: 0.1, slower: 0.22 };
/** Seconds by which a clap may be off the pace of its measure: what is wilder has none. */
const EVEN: Seconds = 0.1;
/** Of fewer notes no pace can be told. */
const FEWEST_PACED = 4;

/**
 * The pace of each measure beside that of the click, or else of the take, by its notes and the first of the next;
 * undefined: it has none.
 */
function pacesOfMeasures(
  { events, notes, measures }: Score,
  onsets: Float64Array,
  noteOf: Int32Array,
  free: boolean,
): (number | undefined)[] {
  const paces = measures.map(({ from, to }) => {
    const inside: [written: Seconds, heard: Seconds][] = [];
    noteOf.forEach((note, clap) => {
      const time = note < 0 ? -1 : events[notes[note]!]!.time;
      if (time >= from - EPSILON && time <= to + EPSILON) inside.push([time, onsets[clap]!]);
    });
    const [first, last] = [inside[0], inside.at(-1)];
    if (inside.length < FEWEST_PACED) return 0;
    const pace = (last![1] - first![1]) / (last![0] - first![0]);
    const even = inside.every(([written, heard]) => Math.abs(heard - first![1] - pace * (written - first![0])) < EVEN);
    return even ? pace : 0;
  });
  const known = paces.filter((pace) => pace > 0).sort((a, b) => a - b);
  const usual = free ? (known[known.length >> 1] ?? 1) : 1;
  return paces.map((pace) => (pace === 0 ? undefined : pace / usual));
}

/** So many measures at a pace of their own before all others are no hurry: it is what the take began with. */
const FEWEST_BEGUN = 2;

const hasBegun = <T>(paces: readonly (T | undefined)[], isOff: (pace: T | undefined) => boolean) =>
  paces.length >= FEWEST_BEGUN && paces.every((pace) => pace === undefined || isOff(pace));

/** Measures that were hurried, or slowed down, where the others keep the tempo. */
function hurried(score: Score, onsets: Float64Array, noteOf: Int32Array, free: boolean): Together[] {
  const paces = pacesOfMeasures(score, onsets, noteOf, free);
  return ([-1, 1] as const).flatMap((side): Together[] => {
    const way = side < 0 ? 'faster' : 'slower';
    const isOff = (pace: number | undefined) =>
      pace !== undefined && (pace - 1) * side >= PACE[way] && (pace - 1) * side <= PACE.most;
    const some = score.measures.flatMap((measure, played) => {
      const slower = (paces[played] ?? 1) - 1;
      const isLong = slower * side * (measure.to - measure.from) >= LEAST[way];
      return isOff(paces[played]) && isLong ? [{ measure, played, slower }] : [];
    });
    if (some.length === 0) return [];
    const last = some.at(-1)!.played;
    // Without a click the tempo is the one of the beginning: then the others are slower, or faster.
    if (free && hasBegun(paces.slice(0, last + 1), isOff)) {
      const begun = some.reduce((sum, { slower }) => sum + slower, 0) / some.length;
      const step = stepped(score, last + 1, 1 / (1 + begun) - 1);
      return [[{ ...step, code: side < 0 ? 'dragging' : 'rushing' }]];
    }
    const code = side < 0 ? 'rushing' : 'dragging';
    return [
      some.map(({ measure, played, slower }, i) => ({
        ...paced(score, measure, played, slower, i === 0 ? HURRIED.first : HURRIED.more),
        code,
      })),
    ];
  });
}

/** Where a stretch of the take follows nothing: the notes in it, and the claps before and after it. */
export interface LostStretch {
  readonly from: number;
  readonly to: number;
  readonly claps: readonly [number, number];
}

/** The stretch that fits nothing, where the rest of the take is as written. */
export function lostStretches(
  score: Score,
  onsets: Float64Array,
  free: boolean,
  paces: readonly number[],
): LostStretch[] {
  if (score.notes.length * onsets.length > MOST_CELLS) return [];
  return paces.flatMap((pace) => {
    const { moves } = cheapestPath(score, onsets, { jumps: false, lost: true, pace }, free ? undefined : USUAL_LAG);
    const [only] = moves;
    if (moves.length !== 1 || only!.kind !== 'lost') return [];
    return [{ from: only!.before + 1, to: only!.note - 1, claps: only!.claps }];
  });
}

/**
 * Sets of misreadings that the claps suggest together, two that undo each other too.
 * @param paces  seconds heard for each written one, as far as they can be told
 */
export function proposals(
  score: Score,
  onsets: Float64Array,
  all: readonly CodedHypothesis[],
  free: boolean,
  paces: readonly number[],
): Together[] {
  if (score.notes.length * onsets.length > MOST_CELLS) return [];
  const seen = new Set<string>();
  return paces.flatMap((pace) => {
    const way = (jumps: boolean) => cheapestPath(score, onsets, { jumps, pace }, free ? undefined : USUAL_LAG);
    const jumping = way(true);
    const ways = jumping.moves.some(({ kind }) => kind === 'jump') ? [jumping, way(false)] : [jumping];
    return ways.flatMap((path) => {
      const key = JSON.stringify(path.moves);
      if (seen.size === seen.add(key).size) return [];
      return [...named(path, score, all, pace), ...hurried(score, onsets, path.noteOf, free)];
    });
  });
}
