import { randomFrom } from '../random.ts';
import { barLines } from './kinds/barLines.ts';
import { complete } from './kinds/complete.ts';
import { counts } from './kinds/counts.ts';
import { choose, write } from './kinds/heard.ts';
import { cards, fold, slip, strips } from './kinds/paper.ts';
import { missingPart } from './kinds/missingPart.ts';
import { circle, draw, nameSign, stems } from './kinds/signs.ts';
import { howMany, sums, trueFalse } from './kinds/values.ts';
import { wrongMeasure } from './kinds/wrongMeasure.ts';
import type { QuestionOf, SheetKind, SheetMaker, SheetQuestion, SheetSettings } from './sheetQuestion.ts';

/**
 * Every kind of a sheet (rules §13), in the order of the work. To add one: its shape in `SheetQuestion`, its maker
 * here; the compiler asks for its words and its drawing.
 */
const MAKERS: { readonly [Kind in SheetKind]: SheetMaker<Kind> } = {
  counts,
  complete,
  'bar-lines': barLines,
  'wrong-measure': wrongMeasure,
  'missing-part': missingPart,
  'how-many': howMany,
  'true-false': trueFalse,
  sums,
  circle,
  'name-sign': nameSign,
  stems,
  draw,
  choose,
  write,
  strips,
  fold,
  cards,
  slip,
};
export const SHEET_KINDS = Object.keys(MAKERS) as readonly SheetKind[];

/** Two neighbours get different questions that are as hard. */
export const VERSIONS = ['A', 'B'] as const;
export type Version = (typeof VERSIONS)[number];

const makerOf = <Kind extends SheetKind>(kind: Kind): SheetMaker<Kind> => MAKERS[kind];

export function usualCount(kind: SheetKind): number {
  return MAKERS[kind].usual;
}

/** What a question is worth. */
export function pointsOf<Kind extends SheetKind>(question: QuestionOf<Kind> & SheetQuestion): number {
  return makerOf(question.kind).points(question);
}

/** How often in a row a question may come to nothing, or to one that is there already, before it is given up. */
const TRIES = 60;
/** Out of so many the one is taken that is as hard as its counterpart. */
const COUNTERPARTS = 16;
/** The other version is made from a seed of its own. */
const OTHER_SEED = 0x5bd1e995;

/** Kinds whose two versions are the same: nothing is answered on them. */
export function hasVersions(kind: SheetKind): boolean {
  return !['draw', 'strips', 'fold', 'cards', 'slip'].includes(kind);
}

/**
 * The questions of one part: the same seed and settings give the same ones, no two alike. Fewer than wanted where there
 * are not so many different ones.
 * @param version  B: question by question as hard as A, and none of A's
 */
export function sheetQuestions(
  kind: SheetKind,
  settings: SheetSettings,
  seed: number,
  count: number,
  version: Version = 'A',
): SheetQuestion[] {
  return made(kind, settings, seed, count, version);
}

function made<Kind extends SheetKind>(
  kind: Kind,
  settings: SheetSettings,
  seed: number,
  count: number,
  version: Version,
): QuestionOf<Kind>[] {
  const maker = makerOf(kind);
  const random = randomFrom(seed);
  const seen = new Set<string>();
  const next = (from: typeof random, nth: number): QuestionOf<Kind> | undefined => {
    for (let tries = 0; tries < TRIES; tries++) {
      const question = maker.make(settings, from, nth + (tries >= TRIES / 2 ? tries : 0));
      if (question && !seen.has(maker.key(question))) return question;
    }
    return undefined;
  };
  const first: QuestionOf<Kind>[] = [];
  for (let nth = 0; first.length < count && nth < count; nth++) {
    const question = next(random, nth);
    if (!question) break;
    seen.add(maker.key(question));
    first.push(question);
  }
  if (version === 'A' || !hasVersions(kind)) return first;
  const other = randomFrom(seed ^ OTHER_SEED);
  const nearest = (model: QuestionOf<Kind>, nth: number) => {
    const away = (one: QuestionOf<Kind>) =>
      10 * Math.abs(maker.points(one) - maker.points(model)) +
      Math.abs(maker.difficulty(one) - maker.difficulty(model));
    let best: QuestionOf<Kind> | undefined;
    for (let tries = 0; tries < COUNTERPARTS && (!best || away(best) > 0); tries++) {
      const one = next(other, nth);
      if (one && (!best || away(one) < away(best))) best = one;
    }
    return best;
  };
  return first.map((model, nth) => {
    const isNew = (key: string) => !seen.has(key);
    // Where there is no other question, the same one is better than none.
    const found = maker.like ? maker.like(model, settings, other, nth, isNew) : nearest(model, nth);
    if (found) seen.add(maker.key(found));
    return found ?? model;
  });
}
