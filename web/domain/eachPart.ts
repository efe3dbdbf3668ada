import type { SavedPattern } from '../../contract/pattern.ts';
import { partTitle } from '../../core/records/partKey.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import type { Part } from '../../core/rhythm/score.ts';
import { parseScore } from '../../core/rhythm/scoreText.ts';
import { printRhythm } from '../../core/rhythm/text.ts';

/** A rhythm of one line: a pattern, or one part of one. */
export interface LineOfPattern extends SavedPattern {
  readonly rhythm: Pattern;
  /** All parts of the pattern it is from, and which of them it is; undefined where it is the only one. */
  readonly among?: { readonly parts: readonly Part[]; readonly index: number };
}

/** One part of a pattern with the title and the text of its own. */
export function savedPart(saved: SavedPattern, { name, pattern }: Part): SavedPattern {
  return { ...saved, title: partTitle(saved.title, name), text: printRhythm(pattern) };
}

/**
 * The lines of a pattern, where one line is all there can be: itself, or each of its parts with a title, an id and a
 * text of its own; none where it cannot be read.
 */
export function eachPart(pattern: SavedPattern): LineOfPattern[] {
  const read = parseScore(pattern.text);
  if (!read.ok) return [];
  const [only, ...others] = read.score.parts;
  if (others.length === 0) return [{ ...pattern, rhythm: only!.pattern }];
  const { parts } = read.score;
  return parts.map((part, i) => ({
    ...savedPart(pattern, part),
    id: `${pattern.id} ${i}`,
    rhythm: part.pattern,
    among: { parts, index: i },
  }));
}
