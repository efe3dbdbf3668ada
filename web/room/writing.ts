import { compareWritten } from '../../core/ear/written.ts';
import { type Fraction, compare, frac, sub, sum } from '../../core/rhythm/fraction.ts';
import type { Item } from '../../core/rhythm/pattern.ts';
import { itemLength } from '../../core/rhythm/place.ts';
import { parseRhythm } from '../../core/rhythm/text.ts';
import { writtenHeadline } from '../../core/wording/writtenWords.ts';
import type { NamingId } from '../../core/wording/valueNames.ts';

/** What can be put down, by meters of quarters and of eighths: each a rhythm text of its own. */
const OF_QUARTERS = [
  'q',
  'e e',
  'h',
  '(q)',
  'q. e',
  'e q e',
  's s s s',
  'e s s',
  's s e',
  'e. s',
  'h.',
  'w',
  '(e) e',
  '(h)',
];
const OF_EIGHTHS = ['q.', 'e e e', 'q e', '(q.)', 'e q', 'h.', 'q (e)', '(e) q', '(h.)'];

/** A piece of a rhythm that is put down at once. */
export interface Piece {
  readonly text: string;
  readonly length: Fraction;
}

function pieceOf(text: string): Piece {
  const read = parseRhythm(`4/4 ${text}`);
  const items: readonly Item[] = read.ok ? read.pattern.measures[0]!.items : [];
  return { text, length: sum(items.map(itemLength)) };
}

/** A piece as a measure of its own, in a meter as long as it is. */
export function ownMeasure({ text, length: { n, d } }: Piece): string {
  const by = Math.max(1, 4 / d);
  return `${n * by}/${d * by} ${text}`;
}

/** The pieces of a meter, the commonest first. @param meter  as in "3/4" */
export function piecesFor(meter: string): Piece[] {
  return (Number(meter.split('/')[1]) >= 8 ? OF_EIGHTHS : OF_QUARTERS).map(pieceOf);
}

function lengthOf(meter: string): Fraction {
  const [upper, lower] = meter.split('/').map(Number) as [number, number];
  return frac(upper, lower);
}

/** A rhythm while it is written: pieces, measure by measure. */
export type Line = readonly (readonly Piece[])[];

/** What is left of the measure that is being written; nothing once all are full. */
export function roomLeft(line: Line, meter: string, measures: number): Fraction {
  const zero = frac(0, 1);
  const open = line.find((pieces) => compare(sum(pieces.map(({ length }) => length)), lengthOf(meter)) < 0);
  if (open) return sub(lengthOf(meter), sum(open.map(({ length }) => length)));
  return line.length < measures ? lengthOf(meter) : zero;
}

/** The line with one piece more; the same line where it does not fit into its measure. */
export function withPiece(line: Line, piece: Piece, meter: string, measures: number): Line {
  if (compare(piece.length, roomLeft(line, meter, measures)) > 0) return line;
  const last = line.at(-1);
  const isOpen = last && compare(sum(last.map(({ length }) => length)), lengthOf(meter)) < 0;
  return isOpen ? [...line.slice(0, -1), [...last, piece]] : [...line, [piece]];
}

export function withoutLast(line: Line): Line {
  const last = line.at(-1);
  if (!last) return line;
  return last.length > 1 ? [...line.slice(0, -1), last.slice(0, -1)] : line.slice(0, -1);
}

/** @returns rhythm text; undefined while nothing stands there */
export function textOf(line: Line, meter: string): string | undefined {
  if (line.length === 0) return undefined;
  return `${meter} ${line.map((pieces) => pieces.map(({ text }) => text).join(' ')).join(' | ')}`;
}

/** How what was written stands to what was heard, in one line; undefined where one of them cannot be read. */
export function verdictOn(heard: string, written: string, naming: NamingId): string | undefined {
  const [one, other] = [parseRhythm(heard), parseRhythm(written)];
  return one.ok && other.ok ? `${writtenHeadline(compareWritten(one.pattern, other.pattern), naming)}.` : undefined;
}
