import { type Scale, isInNumbers, labelsOf, markKeys, markOfLabel } from '../../../../core/judging/scale.ts';

const LETTERS = 'abcdefghijklmnopqrstuvwxyz';
/** The highest mark that has a letter. */
export const LAST_LETTER = 9 + LETTERS.length;

/** A column as it is keyed in, from above down. */
export interface Keyed {
  /** What stands in each row. */
  readonly rows: readonly string[];
  /** The row that keys go to. */
  readonly at: number;
  /** The whole row is marked: the next figure takes the place of what stands there. */
  readonly marked: boolean;
  /** The figure before was all there could be, and went on to this row by itself. */
  readonly arrived: boolean;
}

/** Is it a whole mark after which no other figure can follow? */
function complete(text: string, outOf: number): boolean {
  return /^\d+$/.test(text) && Number(text) <= outOf && (Number(text) * 10 > outOf || text === '0');
}

/**
 * What a key makes of a column; undefined where it belongs to the field, or sends the form.
 *
 * Figures until Enter, or until none can follow: then it goes on by itself, and an Enter that comes all the same does
 * nothing more. A letter is one key for what has two figures ("d" is 13). Who went on by itself comes back by a
 * backspace, or by the point of a half.
 *
 * Marks in letters or words have a key each, and go on at once.
 * @param key  as `KeyboardEvent.key` has it
 * @param scale  where they are marks of one; null for points
 */
export function keyIn(column: Keyed, key: string, points: number, scale: Scale | null = null): Keyed | undefined {
  const outOf = scale && isInNumbers(scale) ? Math.max(...labelsOf(scale).map(Number)) : points;
  const { rows, at, marked, arrived } = column;
  const last = rows.length - 1;
  const go = (to: number): Keyed => ({ ...column, at: Math.max(0, Math.min(last, to)), marked: true, arrived: false });
  const put = (row: number, text: string): Keyed => ({
    rows: rows.map((one, i) => (i === row ? text : one)),
    at: row,
    marked: false,
    arrived: false,
  });
  const enter = (text: string): Keyed => {
    const next = put(at, text);
    return complete(text, outOf) && at < last ? { ...next, at: at + 1, marked: true, arrived: true } : next;
  };
  const before = marked ? '' : rows[at]!;
  if (scale && !isInNumbers(scale) && key.length === 1) {
    const mark = markKeys(scale).find((one) => one.key === key.toLowerCase())?.mark;
    if (mark === undefined) return column;
    const next = put(at, labelsOf(scale)[mark]!);
    return at < last ? { ...next, at: at + 1, marked: true, arrived: true } : next;
  }
  if (/^\d$/.test(key)) return enter(before + key);
  if (key === '.' || key === ',') {
    // The half of the one before, which seemed to be all.
    const row = arrived ? at - 1 : at;
    const whole = arrived ? rows[row]! : before;
    return /^\d+$/.test(whole) ? put(row, whole + key) : undefined;
  }
  const letter = key.length === 1 ? LETTERS.indexOf(key.toLowerCase()) : -1;
  if (letter >= 0) {
    const text = String(10 + letter);
    const next = put(at, text);
    return Number(text) <= outOf && at < last ? { ...next, at: at + 1, marked: true, arrived: true } : next;
  }
  switch (key) {
    case 'Backspace':
      if (arrived) return put(at - 1, rows[at - 1]!.slice(0, -1));
      return put(at, before.slice(0, -1));
    case 'Enter':
      if (arrived) return { ...column, arrived: false };
      return at < last ? go(at + 1) : undefined;
    case 'ArrowDown':
      return go(at + 1);
    case 'ArrowUp':
      return go(at - 1);
    default:
      return undefined;
  }
}

/** What stands in the field of a child that has so many points, or a mark of a scale. */
export const typedOf = (points: number, scale: Scale | null) =>
  scale ? (labelsOf(scale)[points] ?? '') : String(points);

/**
 * null for nothing typed, undefined for what is no mark here; a comma is a point.
 * @param scale  where it is a mark of one; null for points
 */
export function pointsOf(
  typed: string | undefined,
  outOf: number,
  scale: Scale | null = null,
): number | null | undefined {
  const word = (typed ?? '').trim().replace(',', '.');
  if (word === '') return null;
  if (scale) return markOfLabel(word, scale);
  const points = Number(word);
  return Number.isFinite(points) && points >= 0 && points <= outOf ? points : undefined;
}
