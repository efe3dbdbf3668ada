import type { Random } from '../random.ts';
import { toNumber } from '../rhythm/fraction.ts';
import type { Item, Pattern } from '../rhythm/pattern.ts';
import type { Brick, BrickBox, Placement } from './bricks.ts';
import { MOST_REST, MOST_RESTS, RESTS_AT_END_FROM, RESTS_FIRST_FROM } from './laws.ts';
import { type Level, difficultyOf, scoreOf } from './level.ts';
import { PHRASE, type Role, rolesFor } from './phrases.ts';

/** What a pattern is put together from; the same for all of a set. */
export interface Kit {
  readonly box: BrickBox;
  readonly measures: number;
  /** Ties are allowed; or they are what it is about. */
  readonly ties: 'none' | 'some' | 'focus';
  /** Where the bricks of the focus may stand; none where it has no bricks. */
  readonly focus: readonly Placement[];
  /** Some measure of each two must have the focus. */
  readonly focused: boolean;
  /** Measures that are already there, by index; the others are made to go with them. */
  readonly locked?: ReadonlyMap<number, Bar>;
}

/** A measure being made. */
export interface Bar {
  readonly placements: readonly Placement[];
  /** The brick, by index, whose last note is tied to the next one; the last brick: over the bar line. */
  readonly tiedAt?: number;
}

/** How many different cells an easy pattern has, and how often one comes again at once. */
const PALETTE: Readonly<Record<Level, readonly [least: number, most: number]>> = {
  1: [1, 2],
  2: [2, 3],
  3: [3, 4],
  4: [4, 7],
  5: [6, 12],
};
const AGAIN: Readonly<Record<Level, number>> = { 1: 0.55, 2: 0.35, 3: 0.15, 4: 0.05, 5: 0 };
/** How often a pattern that may have a tie has one. */
const TIE_CHANCE: Readonly<Record<Level, number>> = { 1: 0.2, 2: 0.3, 3: 0.4, 4: 0.5, 5: 0.5 };
/** How often a measure that need not have the focus has it. */
const FOCUS_CHANCE = 0.55;
/** How often single beats are among the few cells of a pattern. */
const PLAIN_CHANCE = 0.75;
/** So often a measure is begun anew before its palette is thought to be too small. */
const TRIES = 4;
const UNLIKE_TRIES = 5;
/** So often it is drawn by lot which measures have the focus, before all of them do. */
const LOTS = 16;

interface Bounds {
  readonly first: boolean;
  readonly last: boolean;
  readonly level: Level;
}

function fitsAt(
  { brick, at, ends }: Placement,
  to: number,
  { full }: BrickBox,
  { first, last, level }: Bounds,
): boolean {
  const end = at + brick.ticks;
  if (end > to || (at === 0 && first && brick.startsWithRest && level < RESTS_FIRST_FROM)) return false;
  return !last || end < full || ends === 'note' || (ends === 'rest' && level >= RESTS_AT_END_FROM);
}

/** Fills a stretch of a measure; false where it comes to a place that nothing fits. */
function fill(
  placements: Placement[],
  box: BrickBox,
  [from, to]: readonly [number, number],
  palette: ReadonlySet<Brick>,
  bounds: Bounds,
  random: Random,
): boolean {
  let before: Brick | undefined;
  for (let at = from; at < to;) {
    let next: Placement | undefined;
    let count = 0;
    const again = before !== undefined && random.next() < AGAIN[bounds.level];
    for (const placement of box.startingAt[at] ?? []) {
      if (!palette.has(placement.brick) || !fitsAt(placement, to, box, bounds)) continue;
      if (again && placement.brick === before) {
        next = placement;
        break;
      }
      // Each of those that fit is as likely as the others, without a list of them.
      if (random.below(++count) === 0) next = placement;
    }
    if (!next) return false;
    placements.push(next);
    before = next.brick;
    at += next.brick.ticks;
  }
  return true;
}

function makeBar(
  { box, focus }: Kit,
  wanted: Bounds & { readonly focused: boolean; readonly head: readonly Placement[] },
  palette: ReadonlySet<Brick>,
  random: Random,
): Bar | undefined {
  const { head } = wanted;
  const start = head.reduce((at, { brick }) => at + brick.ticks, 0);
  const places = wanted.focused
    ? focus.filter((place) => place.at >= start && fitsAt(place, box.full, box, wanted))
    : [];
  for (let tries = 0; tries < TRIES; tries++) {
    const own = tries < TRIES - 1 ? palette : new Set(box.bricks);
    const place = places.length > 0 ? random.pick(places) : undefined;
    const placements = [...head];
    if (!fill(placements, box, [start, place?.at ?? box.full], own, wanted, random)) continue;
    if (!place) return { placements };
    placements.push(place);
    if (fill(placements, box, [place.at + place.brick.ticks, box.full], own, wanted, random)) return { placements };
  }
  return undefined;
}

function alike(a: Bar, b: Bar): boolean {
  return (
    a.placements.length === b.placements.length &&
    a.placements.every(({ brick }, i) => brick === b.placements[i]!.brick)
  );
}

/** A measure unlike those before it in its phrase, where a few tries give one. */
function makeUnlike(others: readonly Bar[], make: () => Bar | undefined): Bar | undefined {
  let bar = make();
  for (let tries = 1; tries < UNLIKE_TRIES && bar && others.some((other) => alike(bar!, other)); tries++) bar = make();
  return bar;
}

/** A few cells, mostly with those that everybody can read. */
function paletteOf({ box, focus }: Kit, level: Level, random: Random): ReadonlySet<Brick> {
  const [least, most] = PALETTE[level];
  const palette = new Set<Brick>();
  // Where the focus is practised it is one of the few.
  if (focus.length > 0) palette.add(random.pick(focus).brick);
  if (random.next() < PLAIN_CHANCE) for (const brick of box.bricks) if (brick.plain) palette.add(brick);
  const size = Math.min(box.bricks.length, Math.max(palette.size, least + random.below(most - least + 1)));
  while (palette.size < size) palette.add(random.pick(box.bricks));
  return palette;
}

/** For each letter whether it has the focus: somewhere in each two measures. */
function focusedLetters(roles: readonly Role[], random: Random): ReadonlySet<number> {
  const letters = new Set(roles.map(({ letter }) => letter));
  for (let lot = 0; lot < LOTS; lot++) {
    const chosen = new Set([...letters].filter(() => random.next() < FOCUS_CHANCE));
    const has = (role: Role | undefined) => role !== undefined && chosen.has(role.letter);
    const enough =
      roles.length > 1 ? roles.every((role, i) => i === 0 || has(role) || has(roles[i - 1])) : has(roles[0]);
    if (enough) return chosen;
  }
  return letters;
}

const endsWithNote = ({ items }: Brick) => items.at(-1)!.kind === 'note';
const startsWithNote = ({ items }: Brick) => items[0]!.kind === 'note';

/** The bricks of a bar from whose last note a tie may lead: on a beat, or over the bar line. */
function tiePlaces(bars: ReadonlyMap<number, Bar>, roles: readonly Role[], letter: number, beat: number): number[] {
  const { placements } = bars.get(letter)!;
  return placements.flatMap(({ brick }, i) => {
    if (!endsWithNote(brick)) return [];
    const next = placements[i + 1];
    if (next) return next.at % beat === 0 && startsWithNote(next.brick) ? [i] : [];
    const leads = roles.every((role, r) => {
      const after = roles[r + 1] && bars.get(roles[r + 1]!.letter);
      return role.letter !== letter || (after !== undefined && startsWithNote(after.placements[0]!.brick));
    });
    return leads ? [i] : [];
  });
}

function tie(
  bars: Map<number, Bar>,
  roles: readonly Role[],
  letters: readonly number[],
  { box }: Kit,
  random: Random,
): void {
  for (const letter of letters) {
    const places = tiePlaces(bars, roles, letter, box.beat);
    if (places.length > 0) bars.set(letter, { ...bars.get(letter)!, tiedAt: random.pick(places) });
  }
}

/** What a measure begins with that begins like another one: all that starts before its middle, but never all of it. */
function headOf({ placements }: Bar, { full }: BrickBox): readonly Placement[] {
  return placements.slice(0, -1).filter(({ at }) => at < full / 2);
}

/** A pattern as it is put together, with what its difficulty is counted from. */
export interface Assembled {
  readonly bars: readonly Bar[];
  readonly score: number;
}

/**
 * One try: a pattern that keeps the laws of measures, rests and the end by the way it is made.
 * @returns undefined where nothing fits somewhere, or there would be too many rests
 */
export function assemble(kit: Kit, level: Level, random: Random): Assembled | undefined {
  const { box, measures, ties, locked } = kit;
  const roles = locked
    ? Array.from({ length: measures }, (_, letter): Role => ({ letter }))
    : rolesFor(measures, random);
  const palette = paletteOf(kit, level, random);
  const focused = kit.focused ? focusedLetters(roles, random) : new Set<number>();
  const [first, last] = [roles[0]!.letter, roles.at(-1)!.letter];
  const bars = new Map<number, Bar>();
  for (const [i, { letter, turnOf }] of roles.entries()) {
    if (bars.has(letter)) continue;
    const head = turnOf === undefined ? [] : headOf(bars.get(turnOf)!, box);
    // What sounds through is no beginning that an answer could have too.
    if (turnOf !== undefined && head.length === 0) return undefined;
    const wanted = { level, first: first === letter, last: last === letter, head, focused: focused.has(letter) };
    const others = roles.slice(i - (i % PHRASE), i).map((role) => bars.get(role.letter)!);
    const bar = locked?.get(letter) ?? makeUnlike(others, () => makeBar(kit, wanted, palette, random));
    if (!bar) return undefined;
    // With a single cell there is nothing to give a phrase a shape with.
    if (!locked && roles.length >= PHRASE && box.bricks.length > 1 && others.some((other) => alike(bar, other)))
      return undefined;
    bars.set(letter, bar);
  }
  const open = [...bars.keys()].filter((letter) => !locked?.has(letter));
  if (ties === 'focus')
    tie(
      bars,
      roles,
      open.filter((letter) => focused.has(letter)),
      kit,
      random,
    );
  else if (ties === 'some' && open.length > 0 && random.next() < TIE_CHANCE[level])
    tie(bars, roles, [random.pick(open)], kit, random);
  const made = roles.map(({ letter }) => bars.get(letter)!);
  if (!restsWell(made, box)) return undefined;
  return {
    bars: made,
    score: box.aligned && !locked ? quickScore(made, box) : difficultyOf(patternOf(made, box)).score,
  };
}

/** Rules §11, and no measure of nothing but rests. */
function restsWell(bars: readonly Bar[], { full }: BrickBox): boolean {
  let [run, ticks] = [0, 0];
  for (const { placements } of bars) {
    let sounds = false;
    for (const { brick } of placements) {
      ticks += brick.restTicks;
      for (const rest of brick.rests) {
        run = rest ? run + 1 : 0;
        if (run > MOST_RESTS) return false;
        sounds ||= !rest;
      }
    }
    if (!sounds) return false;
  }
  return ticks <= toNumber(MOST_REST) * full * bars.length;
}

/** The same as the score of `difficultyOf`, counted by bricks that all start on a beat. */
function quickScore(bars: readonly Bar[], box: BrickBox): number {
  const cells: string[] = [];
  let [notes, offbeats, tiedIn] = [0, 0, false];
  for (const { placements, tiedAt } of bars) {
    let joins = false;
    placements.forEach(({ brick }, b) => {
      const from = cells.length;
      for (const cell of brick.cells) cells.push(cell);
      if (joins) cells.splice(from - 1, 2, `${cells[from - 1]}${cells[from]}`);
      notes += tiedIn ? brick.notes - 1 : brick.notes;
      offbeats += brick.offbeats;
      tiedIn = tiedAt === b;
      joins = tiedIn && b < placements.length - 1;
      if (tiedIn) cells.push(`${cells.pop()!.trimEnd()}~ `);
    });
  }
  let changes = 0;
  for (let i = 1; i < cells.length; i++) if (cells[i] !== cells[i - 1]) changes++;
  const beats = (bars.length * box.full) / box.beat;
  return scoreOf({
    cells: new Set(cells).size,
    changes: cells.length < 2 ? 0 : changes / (cells.length - 1),
    notesABeat: notes / beats,
    offbeats: offbeats / beats,
  });
}

/** The pattern as everything else reads it. */
export function patternOf(bars: readonly Bar[], { meter }: BrickBox): Pattern {
  const tied = (item: Item): Item => (item.kind === 'note' ? { ...item, tied: true } : item);
  const measures = bars.map(({ placements, tiedAt }) => ({
    meter,
    items: placements.flatMap(({ brick: { items } }, b) =>
      tiedAt === b ? [...items.slice(0, -1), tied(items.at(-1)!)] : items,
    ),
  }));
  return { pickup: false, measures };
}
