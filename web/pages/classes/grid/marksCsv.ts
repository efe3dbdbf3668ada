import { t } from '../../../../core/words/say.ts';
import Papa from 'papaparse';
import { type Scale, markLabel, numberOf } from '../../../../core/judging/scale.ts';
import { type Column, type GridRow, cellText, meanMark } from './gridCells.ts';

/** Spreadsheets of countries that write 1,5 expect semicolons, those that write 1.5 commas. */
export type Separator = ',' | ';';

/** A cell that begins so would be taken for a formula. */
const FORMULA = /^[=+\-@\t\r]/;

const harmless = (text: string) => (FORMULA.test(text) ? `'${text}` : text);

function meanOf(row: GridRow, scale: Scale): string {
  const mean = meanMark(row);
  if (mean === undefined) return '';
  return numberOf(mean, scale)?.toFixed(2) ?? markLabel(Math.round(mean), scale);
}

/**
 * The grid as a file for spreadsheets: a line a child, its mean first. The mark before the text says that it is
 * UTF-8; numbers have the decimal sign that goes with the separator.
 */
export function marksCsv(
  columns: readonly Column[],
  rows: readonly GridRow[],
  scale: Scale,
  separator: Separator,
): string {
  const number = (text: string) => (separator === ';' ? text.replace('.', ',') : text);
  // Of elements there is no mean.
  const isMarks = columns.some(({ kind }) => kind !== 'element');
  const head = [t`Child`, ...(isMarks ? [t`Mean`] : []), ...columns.map(({ title }) => title)].map(harmless);
  const lines = rows.map((row) => [
    harmless(row.name),
    ...(isMarks ? [number(meanOf(row, scale))] : []),
    ...columns.map(({ id }) => number(cellText(row.cells[id]))),
  ]);
  return `\uFEFF${Papa.unparse([head, ...lines], { delimiter: separator, newline: '\r\n' })}\r\n`;
}
