import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { parseRhythm } from '../../../core/rhythm/text.ts';

const READ = new Map<string, Pattern>();

/** The pattern of a text that the app wrote itself. */
export function patternIn(text: string): Pattern {
  const known = READ.get(text);
  if (known) return known;
  const read = parseRhythm(text);
  if (!read.ok) throw new RangeError(`no rhythm: ${text}`);
  READ.set(text, read.pattern);
  return read.pattern;
}
