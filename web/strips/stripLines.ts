import { type Fraction, frac } from '../../core/rhythm/fraction.ts';
import { COMMON_TIME, type Meter } from '../../core/rhythm/meter.ts';
import { type NoteValue, VALUES } from '../../core/rhythm/value.ts';
import { counted } from '../../core/wording/plurals.ts';
import { type NamingId, measureName } from '../../core/wording/valueNames.ts';

/** A line to lay strips on. */
export interface LineChoice {
  readonly meter: Meter;
  readonly measures: number;
  /** Called so; else by its meter. */
  readonly title?: string;
}

const line = (upper: number, lower: number, measures: number): LineChoice => ({ meter: { upper, lower }, measures });

/** Of four beats and of eight, then the measures of a meter that make a line of about eight quarters. */
export const LINES: readonly LineChoice[] = [
  { title: '4 beats', meter: COMMON_TIME, measures: 1 },
  { title: '8 beats', meter: COMMON_TIME, measures: 2 },
  line(2, 4, 4),
  line(3, 4, 2),
  line(2, 2, 2),
  line(3, 2, 1),
  line(3, 8, 4),
  line(6, 8, 2),
  line(9, 8, 1),
  line(12, 8, 1),
  line(5, 4, 1),
  line(5, 8, 2),
  line(7, 8, 2),
];

export function lineName({ title, meter: { upper, lower }, measures }: LineChoice, naming: NamingId): string {
  return title ?? `${upper}/${lower}, ${counted(measures, measureName(naming), measureName(naming, true))}`;
}

/** Part of a whole note. */
export function lineLength({ meter, measures }: LineChoice): Fraction {
  return frac(meter.upper * measures, meter.lower);
}

/** The strips there are to lay. */
export const TRAY: readonly NoteValue[] = VALUES.filter(({ letter }) => letter !== 't').map(({ letter }) => ({
  base: letter,
  dots: 0,
}));
