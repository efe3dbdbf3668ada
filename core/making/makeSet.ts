import { randomFrom } from '../random.ts';
import { soundKey } from '../rhythm/soundings.ts';
import { type Made, type MakeTrouble, PatternMaker, type PatternWanted, seedFor } from './makePattern.ts';
import { wayAcross } from './level.ts';

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
/** What is made for a misreading is tried by the judge, which takes longer. */
const FRUITLESS_HEARD = 60;

/**
 * A set of patterns of equal difficulty, no two of which sound the same.
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
  const { level } = wanted;
  const first = maker.make(level, seed);
  if (!first) return 'not-found';
  const heard = new Set(known);
  const made: Made[] = [];
  const random = randomFrom(seedFor(seed, 0));
  const width = APART * wayAcross(first.level);
  const accepts = (one: Made) => one.level === first.level && !heard.has(soundKey(one.pattern));
  const keep = (one: Made) => {
    made.push(one);
    heard.add(soundKey(one.pattern));
  };
  if (accepts(first)) keep(first);
  const most = wanted.focus?.kind === 'misreading' ? FRUITLESS_HEARD : FRUITLESS;
  for (let fruitless = 0; made.length < count && fruitless < most;) {
    const one = maker.nearest(level, random, { aim: first.score, within: width, tries: 1 }, accepts);
    if (one) keep(one);
    fruitless = one ? 0 : fruitless + 1;
  }
  return { made, short: made.length < count };
}
