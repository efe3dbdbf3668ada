import { t } from '../core/words/say.ts';
import {
  NAMED_SCALES,
  type NamedScale,
  type Scale,
  highestOf,
  markLabel,
  markOfLabel,
  numberOf,
  scaleOf,
  scaleTitle,
  scaleTrouble,
} from '../core/judging/scale.ts';
import { UserError } from './readPattern.ts';

const isNamed = (text: string): text is NamedScale => NAMED_SCALES.some((name) => name === text);

/** What stands after --scale: a name, or words from the lowest to the best with commas between them. */
export function scaleIn(text: string): Scale {
  if (isNamed(text)) return text;
  const words = text.split(',').map((word) => word.trim());
  if (words.length === 1)
    throw new UserError(
      t`--scale takes ${NAMED_SCALES.join(', ')}, or your words from the lowest:
        starting,going,secure`,
    );
  return checkedScale(words);
}

/** @throws UserError where words cannot be a scale */
export function checkedScale(scale: Scale): Scale {
  const trouble = scaleTrouble(scale);
  if (trouble !== undefined) throw new UserError(t`scale: ${trouble}`);
  return scale;
}

/** A mark as it is printed: a number where the scale has numbers, else its word. */
export function printedMark(mark: number, scale: Scale): number | string {
  return numberOf(mark, scale) ?? markLabel(mark, scale);
}

/** A mark as it was given: as it stands in the scale, "B" or 2. */
export function givenMark(given: string | number, scale: Scale | undefined): number {
  const own = scaleOf({ scale });
  const mark = markOfLabel(String(given), own);
  if (mark !== undefined) return mark;
  const ends = [0, highestOf(own)].map((step) => markLabel(step, own));
  throw new UserError(t`mark: “${given}” is none of ${scaleTitle(own)}: expected ${ends.join(' to ')}`);
}
