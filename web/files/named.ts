import type { NamedPattern } from '../../core/formats/formats.ts';
import { type Score, leadingPart } from '../../core/rhythm/score.ts';

/** A pattern in one or several parts, as it goes out. */
export function named(title: string, score: Score): NamedPattern {
  return { title, pattern: leadingPart(score).pattern, ...(score.parts.length > 1 ? { score } : {}) };
}
