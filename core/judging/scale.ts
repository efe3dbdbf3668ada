import { decimal, perLanguage, t } from '../words/say.ts';
/** What a mark needs at least. */
export interface MarkBorder {
  readonly mark: number;
  readonly accuracy: number;
  /** Drift allowed, in per cent either way; a mark without it does not look at drift. */
  readonly driftPct?: number;
}

/**
 * Marks as schools give them. Inside a mark is a step: 0 is the lowest of its scale, each step more is better. What
 * stands on the board, in the report and in a file is the label of the step.
 */
export const NAMED_SCALES = ['0-4', '1-5', '6-1', 'A-F', 'A-D,F', '0-10', 'percent'] as const;
export type NamedScale = (typeof NAMED_SCALES)[number];
/** A scale by name, or the words of a school from the lowest to the best. */
export type Scale = NamedScale | readonly string[];

export const USUAL_SCALE: Scale = '0-4';
export const FEWEST_WORDS = 3;
export const MOST_WORDS = 6;
export const LONGEST_WORD = 20;

const PERCENT_STEPS = 100;

/** The labels of all steps, the lowest first. */
const NAMED = perLanguage(
  (): Readonly<Record<NamedScale, { readonly title: string; readonly labels: readonly string[] }>> => ({
    '0-4': { title: t`0 to 4`, labels: ['0', '1', '2', '3', '4'] },
    '1-5': { title: t`1 to 5`, labels: ['1', '2', '3', '4', '5'] },
    '6-1': { title: t`6 to 1`, labels: ['6', '5', '4', '3', '2', '1'] },
    'A-F': { title: t`A to F`, labels: ['F', 'E', 'D', 'C', 'B', 'A'] },
    'A-D,F': { title: 'A, B, C, D, F', labels: ['F', 'D', 'C', 'B', 'A'] },
    '0-10': { title: t`0 to 10`, labels: ['0', '1', '2', '3', '4', '5', '6', '7', '8', '9', '10'] },
    percent: { title: t`per cent`, labels: Array.from({ length: PERCENT_STEPS + 1 }, (_, step) => String(step)) },
  }),
);

/** The labels of a scale, the lowest first. */
export function labelsOf(scale: Scale): readonly string[] {
  return typeof scale === 'string' ? NAMED()[scale].labels : scale;
}

export function highestOf(scale: Scale): number {
  return labelsOf(scale).length - 1;
}

/** What a teacher calls a scale: "6 to 1", "Starting, On the way, Secure". */
export function scaleTitle(scale: Scale): string {
  return typeof scale === 'string' ? NAMED()[scale].title : scale.join(', ');
}

/** Two scales are one when they have the same labels. */
export function isSameScale(a: Scale, b: Scale): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}

/** The scale of a class or a term. */
export function scaleOf(of: { readonly scale?: Scale | null | undefined } | undefined): Scale {
  return of?.scale ?? USUAL_SCALE;
}

/** What stands there for a mark: "B", "2", "87 %". */
export function markLabel(mark: number, scale: Scale): string {
  const label = labelsOf(scale)[mark] ?? String(mark);
  return scale === 'percent' ? `${label} %` : label;
}

const SHORTEST = 3;

/** What stands for a mark where there is little room: of words as many letters as tell them apart. */
export function shortLabel(mark: number, scale: Scale): string {
  const words = labelsOf(scale);
  const longest = Math.max(...words.map((word) => word.length));
  const short = (length: number) => words.map((word) => word.slice(0, length).trim());
  let length = SHORTEST;
  while (length < longest && new Set(short(length).map((word) => word.toLowerCase())).size < words.length) length++;
  return short(length)[mark] ?? '';
}

/** The mark that a label is; undefined for what is none of this scale. Capitals are not asked for. */
export function markOfLabel(label: string, scale: Scale): number | undefined {
  const plain = (text: string) => text.trim().toLowerCase();
  const word = plain(scale === 'percent' ? label.replace('%', '') : label);
  const at = labelsOf(scale).findIndex((one) => plain(one) === word);
  return at < 0 ? undefined : at;
}

/** Do the labels count: 0 to 4, 6 to 1, per cent? Words of one's own do not, though they be "10", "20", "40". */
export function isInNumbers(scale: Scale): boolean {
  return typeof scale === 'string' && labelsOf(scale).every((label) => /^\d+$/.test(label));
}

/** A step, or what lies between two, as a number of its scale: 2.5 of 6 to 1 is 3.5. Letters and words have none. */
export function numberOf(mark: number, scale: Scale): number | undefined {
  if (!isInNumbers(scale)) return undefined;
  const [lowest, next] = labelsOf(scale).map(Number) as [number, number];
  return lowest + mark * (next - lowest);
}

/**
 * A mean, or another mark between two steps: in numbers with its decimals, in letters and words the nearest step.
 * @param digits  at most so many decimals
 */
export function meanLabel(mark: number, scale: Scale, digits: number): string {
  const number = numberOf(mark, scale);
  if (number === undefined) return markLabel(Math.round(mark), scale);
  return scale === 'percent' ? `${number.toFixed(0)} %` : decimal(number.toFixed(digits));
}

/** What the best mark is, beside a mark: "of 4", "1 is best"; nothing where the word says it. */
export function bestText(scale: Scale): string {
  if (typeof scale !== 'string' || scale === 'percent') return '';
  const best = markLabel(highestOf(scale), scale);
  return isInNumbers(scale) && Number(best) > 1 ? t`of ${best}` : t`${best} is best`;
}

/** The step of another scale that is nearest to a mark: a 3 of 0 to 4 is a 2 of 6 to 1. */
export function carried(mark: number, from: Scale, to: Scale): number {
  return isSameScale(from, to) ? mark : Math.round((mark / highestOf(from)) * highestOf(to));
}

/** How good a mark is in quarters, 0 to 4: for signs that say it without a word. */
export function quartersOf(mark: number, scale: Scale): number {
  return Math.round((mark / highestOf(scale)) * 4);
}

/** The best mark, or 95 of a hundred: nothing is to be mended before it goes on. */
export function isFull(mark: number, scale: Scale): boolean {
  return scale === 'percent' ? mark >= PERCENT_FULL : mark === highestOf(scale);
}

const PERCENT_FULL = 95;
/** Of so much of a scale on a mark is good enough to go on with: 3 of 0 to 4, 8 of 10, 80 per cent. */
const GOOD_FROM: Readonly<Record<NamedScale, number>> = {
  '0-4': 3,
  '1-5': 3,
  '6-1': 3,
  'A-F': 3,
  'A-D,F': 3,
  '0-10': 8,
  percent: 80,
};
const GOOD_PART = 0.65;

/** Two of these in a row ask for something easier. */
export function isTooLow(mark: number, scale: Scale): boolean {
  const from = typeof scale === 'string' ? GOOD_FROM[scale] : Math.round(highestOf(scale) * GOOD_PART);
  return mark < from;
}

/** Something was clapped, but no border is met. In 0 to 4 the 0 says that nothing was. */
export function belowBorders(scale: Scale): number {
  return scale === '0-4' ? 1 : 0;
}

/** Rules §8: 4 from .95 and drift within 4 %, 3 from .80 and 8 %, 2 from .60. Longer scales lie between. */
const USUAL_BORDERS: Readonly<Record<number, readonly (readonly [accuracy: number, driftPct?: number])[]>> = {
  2: [[0.95, 4], [0.7]],
  3: [[0.95, 4], [0.8, 8], [0.6]],
  4: [[0.95, 4], [0.8, 8], [0.6], [0.4]],
  5: [[0.95, 4], [0.85, 6], [0.75, 8], [0.6], [0.4]],
  10: [[0.95, 4], [0.9, 6], [0.8, 8], [0.7], [0.6], [0.5], [0.4], [0.3], [0.2], [0.1]],
};

/**
 * What each mark of a scale needs where the teacher says nothing else, the best first. Per cent are the accuracy
 * itself: its borders only say from where on the tempo is asked for.
 */
export function usualBorders(scale: Scale): readonly MarkBorder[] {
  if (scale === 'percent')
    return [
      { mark: PERCENT_FULL, accuracy: 0.95, driftPct: 4 },
      { mark: 80, accuracy: 0.8, driftPct: 8 },
    ];
  const highest = highestOf(scale);
  return USUAL_BORDERS[highest - belowBorders(scale)]!.map(([accuracy, driftPct], i) => ({
    mark: highest - i,
    accuracy,
    ...(driftPct === undefined ? {} : { driftPct }),
  }));
}

/** Why words cannot be a scale, in one sentence; undefined when they can. */
export function scaleTrouble(scale: Scale): string | undefined {
  if (typeof scale === 'string') return undefined;
  const words = scale.map((word) => word.trim().toLowerCase());
  if (words.length < FEWEST_WORDS || words.length > MOST_WORDS)
    return t`a scale has ${FEWEST_WORDS} to ${MOST_WORDS} words`;
  if (words.some((word) => word === '' || word.length > LONGEST_WORD))
    return t`each step needs a word of at most ${LONGEST_WORD} letters`;
  return new Set(words).size < words.length ? t`two steps have the same word` : undefined;
}

/** A mark in the scale that it was given in. */
export interface GivenMark {
  readonly mark: number;
  readonly scale: Scale;
}

/** How it was given: "2 (6 to 1)". */
export function givenText({ mark, scale }: GivenMark): string {
  return `${markLabel(mark, scale)} (${scaleTitle(scale)})`;
}

const TEN_KEY = 't';

/**
 * A key for each mark that is given by hand: its figure, its first letter, `t` for ten; per cent in tens. Where two
 * would have the same key, or the view needs it for something else, figures from 1 up, the lowest first.
 * @param taken  keys that do something else where the marks are given
 */
export function markKeys(
  scale: Scale,
  taken: readonly string[] = [],
): readonly { readonly key: string; readonly mark: number }[] {
  const marks = labelsOf(scale)
    .map((label, mark) => ({ label, mark }))
    .filter(({ mark }) => scale !== 'percent' || mark % 10 === 0);
  if (scale === 'percent')
    return marks.map(({ mark }) => ({ key: mark === PERCENT_STEPS ? TEN_KEY : String(mark / 10), mark }));
  if (isInNumbers(scale)) return marks.map(({ label, mark }) => ({ key: label.length > 1 ? TEN_KEY : label, mark }));
  const letters = marks.map(({ label }) => label[0]!.toLowerCase());
  const clear = letters.every(
    (one, i) => /[\p{L}\p{N}]/u.test(one) && !taken.includes(one) && letters.indexOf(one) === i,
  );
  return marks.map(({ mark }, i) => ({ key: clear ? letters[i]! : String(i + 1), mark }));
}
