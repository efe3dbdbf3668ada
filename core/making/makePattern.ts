import { fits, vocabularyOf } from '../exercises/rhythms/vocabulary.ts';
import { type Random, randomFrom } from '../random.ts';
import { ELEMENT_IDS, type ElementId, type WrittenPlace } from '../rhythm/elements.ts';
import { type Meter, meterKind } from '../rhythm/meter.ts';
import { withoutLastTie } from '../rhythm/lastTie.ts';
import type { Measure, Pattern } from '../rhythm/pattern.ts';
import { placePattern } from '../rhythm/place.ts';
import { type Bar, type Kit, assemble, patternOf } from './assemble.ts';
import { brickBox, brickFrom } from './bricks.ts';
import { type Focus, MISREAD_AT, bricksFor, focusPlaces, isTie, needsBrick } from './focus.ts';
import { isHeard } from './heard.ts';
import { type Level, LEVELS, levelOf, middleOf, wayAcross } from './level.ts';

/** What patterns are made of, whatever their level. */
export interface Material {
  readonly meter: Meter;
  readonly measures: number;
  /** Those that may stand in it. Plain quarters may anyhow, in compound meter dotted quarters. */
  readonly elements: readonly ElementId[];
  readonly focus?: Focus;
  /** Measures that stay, by index; all others are made anew. */
  readonly locked?: ReadonlyMap<number, Measure>;
}

export interface PatternWanted extends Material {
  readonly level: Level;
}

/** A pattern as it was made. */
export interface Made {
  readonly pattern: Pattern;
  readonly level: Level;
  /** How hard, as `difficultyOf` says it. */
  readonly score: number;
  /** Where its focus stands; empty without one. */
  readonly focusAt: readonly WrittenPlace[];
}

/** Why nothing can be made: no full measure, no place for the focus, or all that was tried broke a law. */
export type MakeTrouble = 'no-fill' | 'no-focus' | 'not-found';

/** Longer ones are put together from shorter ones. */
export const MOST_MADE_MEASURES = 32;
/** So many are tried for a level at most … */
const CANDIDATES = 28;
/** … so many times as many while none of them has the level … */
const PATIENCE = 5;
/** … and no more are when one is as near to what is wanted as this part of the way across a level. */
const NEAR = 0.15;

/** The elements that a class at a level has usually met, where the teacher names none: so many of the usual order. */
const MET_AT: Readonly<Record<Level, number>> = { 1: 3, 2: 5, 3: 9, 4: 11, 5: 13 };

export function elementsAt(level: Level): readonly ElementId[] {
  return ELEMENT_IDS.slice(0, MET_AT[level]);
}

/** Compound meter is chosen by its meter: whoever is given one knows what stands in it. */
export function withMeter(elements: readonly ElementId[], meter: Meter): readonly ElementId[] {
  return meterKind(meter) === 'compound' ? [...elements, 'compound'] : elements;
}

/** A seed of its own for each part of what is made from one seed. */
export function seedFor(seed: number, part: number): number {
  return (Math.imul(seed ^ (part + 0x9e3779b9), 0x85ebca6b) ^ (seed >>> 13)) >>> 0;
}

function lockedBars(material: Material): ReadonlyMap<number, Bar> | undefined {
  const { locked } = material;
  if (!locked || locked.size === 0) return undefined;
  return new Map(
    [...locked].map(([index, { items }]) => {
      const own = locked.has(index + 1) ? items : withoutLastTie(items);
      return [index, { placements: [{ brick: brickFrom(own, material.meter), at: 0, ends: 'note' }] }];
    }),
  );
}

/** Scores: what to come near to, what to be no easier than, how near to come at least; and how often to try. */
interface Aim {
  readonly aim?: number;
  readonly least?: number;
  readonly within?: number;
  readonly tries?: number;
}

/** Makes patterns of one material. */
export class PatternMaker {
  private readonly material: Material;
  private readonly kit: Kit;
  private readonly vocabulary: ReturnType<typeof vocabularyOf>;
  /** How often the judge was asked, which is what takes long. */
  judged = 0;

  private constructor(material: Material, kit: Kit, elements: ReadonlySet<ElementId>) {
    this.material = material;
    this.kit = kit;
    this.vocabulary = { ...vocabularyOf(elements, material.meter), crossing: true };
  }

  static of(material: Material): PatternMaker | MakeTrouble {
    const { meter, measures, focus } = material;
    const asked = new Set(focus?.kind === 'element' ? [...material.elements, focus.element] : material.elements);
    const box = brickBox(meter, asked);
    if (box.bricks.length === 0) return 'no-fill';
    const tied = focus !== undefined && isTie(focus);
    if (tied && !asked.has('tie')) return 'no-focus';
    const inBricks = focus !== undefined && !tied && needsBrick(focus);
    const bricks = new Set(inBricks ? bricksFor(box, focus) : []);
    const places = box.places.filter(({ brick }) => bricks.has(brick));
    if (inBricks && places.length === 0) return 'no-focus';
    if (focus?.kind === 'element' && focus.element === 'compound' && meterKind(meter) !== 'compound') return 'no-focus';
    const locked = lockedBars(material);
    const kit: Kit = {
      box,
      measures,
      ties: tied ? 'focus' : asked.has('tie') ? 'some' : 'none',
      focus: places,
      focused: tied || inBricks,
      ...(locked ? { locked } : {}),
    };
    return new PatternMaker(material, kit, new Set([...asked, 'quarter']));
  }

  /**
   * Bricks side by side may make an element that neither is: a dotted eighth's sixteenth and an eighth after it, notes
   * in an unequal meter. What the teacher locked stays, whatever it is made of.
   */
  private get mixes(): boolean {
    const { elements } = this.vocabulary;
    const halfKnown = elements.has('dotted-eighth') && !elements.has('sixteenths');
    const uneven = !this.kit.box.aligned || meterKind(this.material.meter) === 'unequal';
    return !this.kit.locked && (halfKnown || uneven);
  }

  /** Whether the elements and the focus are as they must be. @returns where the focus stands; undefined where not */
  private placesIn(pattern: Pattern): readonly WrittenPlace[] | undefined {
    if (this.mixes && !fits(pattern, this.vocabulary)) return undefined;
    const { focus } = this.material;
    if (!focus) return [];
    const places = focusPlaces(pattern, focus);
    if (!this.kit.focused) return places;
    const numbers = placePattern(pattern).map(({ number }) => number);
    const has = (number: number | undefined) => places.some(({ measure }) => measure === number);
    const everyTwo = numbers.every((number, i) => has(number) || i + 1 === numbers.length || has(numbers[i + 1]));
    const enough = focus.kind === 'element' || places.length >= (numbers.length > 1 ? MISREAD_AT : 1);
    return everyTwo && enough && places.length > 0 ? places : undefined;
  }

  /**
   * The nearest to a score of a few tries.
   * @param accepts  of what lies near enough by its score
   * @returns undefined where no try gave one
   */
  nearest(
    level: Level,
    random: Random,
    { aim = middleOf(level), least = 0, within = Infinity, tries = CANDIDATES }: Aim = {},
    accepts: (made: Made) => boolean = () => true,
  ): Made | undefined {
    const near = NEAR * wayAcross(level);
    let best: Made | undefined;
    for (let made = 0; made < (tries === 1 || best?.level === level ? tries : tries * PATIENCE); made++) {
      const candidate = assemble(this.kit, level, random);
      if (!candidate || candidate.score < least) continue;
      const away = Math.abs(candidate.score - aim);
      if (away >= Math.min(within, best ? Math.abs(best.score - aim) : Infinity)) continue;
      const pattern = patternOf(candidate.bars, this.kit.box);
      const focusAt = this.placesIn(pattern);
      if (!focusAt) continue;
      const found: Made = { pattern, level: levelOf(candidate.score), score: candidate.score, focusAt };
      if (!accepts(found) || !this.judgeHears(pattern)) continue;
      best = found;
      if (away <= near) break;
    }
    return best;
  }

  private judgeHears(pattern: Pattern): boolean {
    const { focus } = this.material;
    if (focus?.kind !== 'misreading') return true;
    this.judged++;
    return isHeard(pattern, focus.code);
  }

  /**
   * A pattern of a level, as near to its middle as the elements allow. From the same seed a higher level is never
   * easier: each looks among what is at least as hard as what the one below has found.
   */
  make(level: Level, seed: number): Made | undefined {
    let found: Made | undefined;
    for (const one of LEVELS) {
      if (one > level) break;
      found = this.nearest(one, randomFrom(seedFor(seed, one)), { least: found?.score ?? 0 }) ?? found;
    }
    return found;
  }
}

/** One pattern; undefined where none can be made. */
export function makePattern(wanted: PatternWanted, random: Random): Pattern | undefined {
  const maker = PatternMaker.of(wanted);
  if (typeof maker === 'string') return undefined;
  return maker.nearest(wanted.level, random)?.pattern;
}
