import { t } from '../words/say.ts';
import { MOST_PARTS, type Part, type Score, partNamed } from '../rhythm/score.ts';
import { LONGEST_LABEL } from '../rhythm/text.ts';
import { type Joined, shareOut, withPart } from './partsOf.ts';

/** Changes to the parts of a score that make nothing new: names, and parts that come and go. */

/** Its one part gets a name, where it has none yet: beside others it needs one. */
export function namedAlone({ parts }: Score, name: string): Score {
  return { parts: parts.map((part) => (part.name === '' ? { ...part, name } : part)) };
}

/** The first of some names that no part has yet; numbered where all are taken. */
export function freeName(score: Score, names: readonly string[]): string {
  const free = names.find((name) => !partNamed(score, name));
  if (free !== undefined) return free;
  let n = score.parts.length + 1;
  while (partNamed(score, t`part ${n}`)) n++;
  return t`part ${n}`;
}

/** Names that rhythm text can have: no brackets, no quotes, in one line. */
export function tidyName(name: string): string {
  return name
    .replaceAll(/[[\]'"*\p{Cc}\p{Cs}]+/gu, ' ')
    .replaceAll(/\s+/g, ' ')
    .trim()
    .slice(0, LONGEST_LABEL)
    .trim();
}

/** A part under another name; the same as before where it is empty or another part's. */
export function renamed(score: Score, index: number, name: string): Score {
  const wanted = tidyName(name);
  const other = partNamed(score, wanted);
  if (wanted === '' || (other && other !== score.parts[index])) return score;
  return { parts: score.parts.map((part, i) => (i === index ? { ...part, name: wanted } : part)) };
}

/** Without a part; the last one that is left has no name, and what only came again is written to its end. */
export function withoutPart({ parts }: Score, index: number): Score {
  const left = parts.filter((_, i) => i !== index);
  const written = ({ name, pattern }: Part): Part => ({ name, pattern });
  if (left.length === 1) return { parts: left.map(({ pattern }) => ({ name: '', pattern })) };
  return { parts: left.some(({ ostinato }) => ostinato === undefined) ? left : left.map(written) };
}

/** A part of rests, to be written in. */
export function withRests(score: Score, name: string): Joined {
  if (score.parts.length >= MOST_PARTS) return { ok: false, trouble: { code: 'too-many' } };
  const [, rests] = shareOut(score.parts[0]!.pattern, () => 0);
  return withPart(score, name, rests);
}
