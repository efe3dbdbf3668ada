import { randomFrom } from '../random.ts';
import { soundKey } from '../rhythm/soundings.ts';
import { type Made, type MakeTrouble, PatternMaker, type PatternWanted, seedFor } from './makePattern.ts';
import { type Level, wayAcross } from './level.ts';

/** Patterns of one set. */
export interface MadeSet {
  readonly made: readonly Made[];
  /** Fewer than asked for: no more were found that are as hard and sound like none of the others. */
  readonly short: boolean;
}

/** Of a set any two are within half a level of each other: each within a quarter of the first. */
const APART = 0.25;
/** After so many tries in a row that gave nothing new there is nothing new. */
const FRUITLESS = 2500;
/** What is made for a misreading is tried by the judge, which takes long: so often in a row for nothing. */
const UNHEARD = 60;

/**
 * A set of patterns of equal difficulty, no two of which sound the same. Where there are too few about the middle of
 * the level, the easier and the harder half of it are looked at too.
 * @param known  how the patterns sound that the class has already (`soundKey`)
 */
export function makeSet(
  wanted: PatternWanted,
  count: number,
  seed: number,
  known: ReadonlySet<string> = new Set(),
): MadeSet | MakeTrouble {
  const maker = PatternMaker.of(wanted);
  if (typeof maker === 'string') return maker;
  const first = maker.make(wanted.level, seed);
  if (!first) return 'not-found';
  const width = APART * wayAcross(first.level);
  let best: readonly Made[] = [];
  for (const [part, aim] of [first.score, first.score - width, first.score + width].entries()) {
    const made = setAbout(
      maker,
      wanted,
      { level: first.level, aim, width },
      { count, known, seed: seedFor(seed, -part) },
    );
    if (made.length > best.length) best = made;
    if (best.length >= count) break;
  }
  return { made: best, short: best.length < count };
}

interface About {
  readonly level: Level;
  readonly aim: number;
  readonly width: number;
}

/** Patterns of a level with scores within a width of an aim, as many as are wanted or as there are. */
function setAbout(
  maker: PatternMaker,
  { level: wantedLevel, locked }: PatternWanted,
  { level, aim, width }: About,
  { count, known, seed }: { readonly count: number; readonly known: ReadonlySet<string>; readonly seed: number },
): Made[] {
  const heard = new Set(known);
  const made: Made[] = [];
  const random = randomFrom(seed);
  // What stays decides how hard it is; then any that goes with it will do.
  const within = locked ? Infinity : width;
  const accepts = (one: Made) => (locked !== undefined || one.level === level) && !heard.has(soundKey(one.pattern));
  let judged = maker.judged;
  for (let fruitless = 0; made.length < count && fruitless < FRUITLESS && maker.judged - judged < UNHEARD;) {
    const one = maker.nearest(wantedLevel, random, { aim, within, tries: 1 }, accepts);
    fruitless = one ? 0 : fruitless + 1;
    if (!one) continue;
    judged = maker.judged;
    made.push(one);
    heard.add(soundKey(one.pattern));
  }
  return made;
}
