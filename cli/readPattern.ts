import type { Pattern } from '../core/rhythm/pattern.ts';
import { errorSentence, parseRhythm } from '../core/rhythm/text.ts';

/** What a user can mend; main prints it as one line and exits with 2. */
export class UserError extends Error {}

const KEPT = 2_000;
const known = new Map<string, Pattern>();

/** Reads a rhythm text; batches often hold the same pattern many times, so the last few thousand are kept. */
export function readPattern(text: string): Pattern {
  const before = known.get(text);
  if (before) return before;
  const parsed = parseRhythm(text);
  if (!parsed.ok) throw new UserError(errorSentence(parsed.at));
  if (known.size >= KEPT) known.clear();
  known.set(text, parsed.pattern);
  return parsed.pattern;
}
