import { t } from '../core/words/say.ts';
import type { Meter } from '../core/rhythm/meter.ts';
import { parseMeter } from '../core/rhythm/text.ts';
import { UserError } from './readPattern.ts';

/** The meter of an option, as in 7/8[2+2+3]. */
export function meterOf(text: string): Meter {
  const read = parseMeter(text);
  if (!read.ok) throw new UserError(t`meter “${text}”: expected ${read.at.expected}`);
  return read.meter;
}
