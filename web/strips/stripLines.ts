import { counted } from '../../core/words/say.ts';
import { type Fraction, div, frac } from '../../core/rhythm/fraction.ts';
import { COMMON_TIME, type Meter } from '../../core/rhythm/meter.ts';
import { type NoteValue, VALUE, VALUES, type ValueLetter } from '../../core/rhythm/value.ts';
import { beatsText } from '../../core/wording/plurals.ts';
import { type NamingId, measureName } from '../../core/wording/valueNames.ts';

/** A line to lay strips on. */
export interface LineChoice {
  readonly meter: Meter;
  readonly measures: number;
  /** Called by its beats, whatever value has the beat; else by its meter. */
  readonly inBeats?: true;
}

const line = (upper: number, lower: number, measures: number): LineChoice => ({ meter: { upper, lower }, measures });

/** Of four quarters and of eight, then the measures of a meter that make a line of about eight quarters. */
export const LINES: readonly LineChoice[] = [
  { inBeats: true, meter: COMMON_TIME, measures: 1 },
  { inBeats: true, meter: COMMON_TIME, measures: 2 },
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

/** @param beat  the value that gets the beat: the line of four quarters has two half beats */
export function lineName(line: LineChoice, beat: ValueLetter, naming: NamingId): string {
  const { upper, lower } = line.meter;
  const { inBeats, measures } = line;
  return inBeats
    ? beatsText(div(lineLength(line), VALUE[beat].of))
    : `${upper}/${lower}, ${counted(measures, measureName(naming), measureName(naming, true))}`;
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
