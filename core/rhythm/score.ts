import { type Fraction, add, compare, div, equal, sub } from './fraction.ts';
import { type BarReport, barCheck } from './barCheck.ts';
import { beatOf } from './meter.ts';
import { type PlacedMeasure, placePattern, playPattern, unfold } from './place.ts';
import type { Pattern } from './pattern.ts';

/** One line of a score. Meters, pickup, repeats, numbers and letters are the same in all. */
export interface Part {
  /** Free: "clap", "group A"; empty in a score of one part. */
  readonly name: string;
  /** All of it, also where only the beginning is written and comes again. */
  readonly pattern: Pattern;
  /** Written `[stamp]*`: so many measures, a pickup aside, that come again to the end. */
  readonly ostinato?: number;
}

/** One to four parts that sound together on one ruler (rules §15). */
export interface Score {
  readonly parts: readonly Part[];
}

export const MOST_PARTS = 4;

/** A pattern as a score of one part. */
export function scoreOfPattern(pattern: Pattern): Score {
  return { parts: [{ name: '', pattern }] };
}

/** Measures that do not add up, part by part; the name is empty in a score of one part. */
export interface PartReport extends BarReport {
  readonly part: string;
}

/** The bar check of every part. */
export function checkParts({ parts }: Score): PartReport[] {
  return parts.flatMap(({ name, pattern }) => barCheck(pattern).map((report) => ({ ...report, part: name })));
}

/** All parts as they are played, repeats written out. */
export function unfoldedParts(parts: readonly Part[]): Part[] {
  return parts.map(({ name, pattern }) => ({ name, pattern: unfold(pattern) }));
}

/** A part by its name, whatever its letters' case. */
export function partNamed({ parts }: Score, name: string): Part | undefined {
  const wanted = name.trim().toLowerCase();
  return parts.find((part) => part.name.toLowerCase() === wanted);
}

/** The part whose structure all others have: the first one that is written to its end. */
export function leadingPart({ parts }: Score): Part {
  return parts.find(({ ostinato }) => ostinato === undefined) ?? parts[0]!;
}

/** A moment at which something sounds, and the parts that sound then, by index. */
export interface Attack {
  /** From beat 1 of measure 1, in whole notes; repeats obeyed. */
  readonly at: Fraction;
  /** The played measure, counted from 0, and the place in it. */
  readonly played: number;
  readonly onset: Fraction;
  readonly parts: readonly number[];
  /** For each of those parts the index of its sounded note, in playing order. */
  readonly notes: readonly number[];
}

/** Every attack of a score in playing order; two parts that sound at the same moment share it. */
export function attacksOf({ parts }: Score): Attack[] {
  const all = parts.flatMap(({ pattern }, part) => {
    let note = -1;
    return playPattern(pattern).flatMap(({ at, measure }, played) =>
      measure.events
        .filter(({ kind }) => kind === 'note')
        .map(({ onset }) => ({ at: add(at, sub(onset, measure.onset)), played, onset, part, note: ++note })),
    );
  });
  all.sort((a, b) => compare(a.at, b.at) || a.part - b.part);
  const attacks: Attack[] = [];
  for (const { at, played, onset, part, note } of all) {
    const last = attacks.at(-1);
    if (last && equal(last.at, at))
      attacks[attacks.length - 1] = { ...last, parts: [...last.parts, part], notes: [...last.notes, note] };
    else attacks.push({ at, played, onset, parts: [part], notes: [note] });
  }
  return attacks;
}

/** Attacks that several parts have, and those of one part alone. */
export function sharedAttacks(score: Score): { readonly shared: number; readonly single: number } {
  const attacks = attacksOf(score);
  const shared = attacks.filter(({ parts }) => parts.length > 1).length;
  return { shared, single: attacks.length - shared };
}

/** A measure that is not as long in one part as in another: both are named. */
export interface Disagreement {
  /** On paper, the pickup is 0. */
  readonly number: number;
  readonly parts: readonly [string, string];
  /** Counted beats. */
  readonly lengths: readonly [Fraction, Fraction];
}

/** Measures whose parts are not as long as each other. */
export function disagreements(score: Score): Disagreement[] {
  const leading = leadingPart(score);
  const placed = placePattern(leading.pattern);
  return score.parts.flatMap((part) => {
    if (part === leading) return [];
    return placePattern(part.pattern).flatMap(({ length }, i): Disagreement[] => {
      const own: PlacedMeasure | undefined = placed[i];
      if (!own || equal(own.length, length)) return [];
      const beat = beatOf(own.meter).length;
      const lengths = [div(own.length, beat), div(length, beat)] as const;
      return [{ number: own.number, parts: [leading.name, part.name], lengths }];
    });
  });
}
