import { t } from '../words/say.ts';
import { type Part, type SumStep, sumSteps } from '../exercises/valueSums.ts';
import { add, mixed } from '../rhythm/fraction.ts';
import type { ValueLetter } from '../rhythm/value.ts';
import { beatsText } from './plurals.ts';
import { type NamingId, restName, restWithArticle, valueName, withArticle } from './valueNames.ts';

export function partName({ kind, value }: Pick<Part, 'kind' | 'value'>, naming: NamingId): string {
  return kind === 'rest' ? restName(value, naming) : valueName(value, naming);
}

/** "a quarter rest". */
export function partWithArticle(part: Pick<Part, 'kind' | 'value'>, naming: NamingId): string {
  return (part.kind === 'rest' ? restWithArticle : withArticle)(partName(part, naming));
}

/** "dotted quarter = 1 + 1/2 = 1 1/2 beats"; "with the eighth 1 1/2 + 1/2 = 2 beats" */
export function sumLines({ part, pieces, own, before }: SumStep, naming: NamingId): string[] {
  const name = partName(part, naming);
  const dotted = pieces.length > 1 ? `${pieces.map(mixed).join(' + ')} = ` : '';
  if (!before) return [`${name} = ${dotted}${beatsText(own)}`];
  const sum = `${mixed(before)} + ${mixed(own)} = ${beatsText(add(before, own))}`;
  const total = part.tied ? t`with the tied ${name} ${sum}` : t`with the ${name} ${sum}`;
  return dotted ? [`${name} = ${dotted}${beatsText(own)}`, total] : [total];
}

/**
 * A sum in words and fractions, a line a step.
 * @example dotted quarter and eighth, the quarter gets the beat:
 *   "dotted quarter = 1 + 1/2 = 1 1/2 beats", "with the eighth 1 1/2 + 1/2 = 2 beats"
 */
export function workedSteps(parts: readonly Part[], beat: ValueLetter, naming: NamingId): string[] {
  return sumSteps(parts, beat).flatMap((step) => sumLines(step, naming));
}
