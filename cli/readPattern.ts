import { t } from '../core/words/say.ts';
import type { Pattern } from '../core/rhythm/pattern.ts';
import { type Part, type Score, partNamed } from '../core/rhythm/score.ts';
import { parseScore } from '../core/rhythm/scoreText.ts';
import { errorSentence } from '../core/rhythm/text.ts';

/** What a user can mend; main prints it as one line and exits with 2. */
export class UserError extends Error {}

const KEPT = 2_000;
const known = new Map<string, Score>();

/** Reads a text of one or several parts; batches often hold the same many times, so the last few thousand are kept. */
export function readScore(text: string): Score {
  const before = known.get(text);
  if (before) return before;
  const parsed = parseScore(text);
  if (!parsed.ok) throw new UserError(errorSentence(parsed.at));
  if (known.size >= KEPT) known.clear();
  known.set(text, parsed.score);
  return parsed.score;
}

/** Reads a text of one part, where only one can be meant. */
export function readPattern(text: string): Pattern {
  const { parts } = readScore(text);
  if (parts.length > 1)
    throw new UserError(t`one part at a time: this has ${parts.map(({ name }) => `[${name}]`).join(', ')}`);
  return parts[0]!.pattern;
}

/** The part that is asked for; where there is one alone it need not be. */
export function partAsked(whole: Score, name: string | undefined): Part {
  const [only] = whole.parts;
  const found = name === undefined && whole.parts.length === 1 ? only : partNamed(whole, name ?? '');
  if (found) return found;
  const names = whole.parts.map((one) => `“${one.name}”`).join(', ');
  if (whole.parts.length === 1) throw new UserError(t`there is no part “${name}”: the pattern has one without a name`);
  throw new UserError(
    t`${name === undefined ? t`which part?` : t`there is no part “${name}”:`} the pattern has ${names}`,
  );
}

/** What is found of each part, by its name; of a score of one part it is all there is. */
export function ofEachPart<T>({ parts }: Score, find: (pattern: Pattern) => T): Record<string, T> {
  return Object.fromEntries(parts.map(({ name, pattern }) => [name, find(pattern)]));
}
